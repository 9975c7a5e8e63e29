import { exampleLine, exampleDot } from "../example/exampleShapes.ts";
import { moving, subtract, unit, turning, angleOf, distance, after, scaling } from "@ash-edge/core/geometry";
import { refuse } from "@ash-edge/core/numeric";
import { thingsPreview } from "../things.ts";
import { nothing, refused, type Tool } from "../tool.ts";
import { what, moved } from "./copying.ts";

export const align: Tool = {
  kind: "tool",
  id: "align",
  name: "Align",
  help:
    "Puts what is selected by two pairs of points: the first goes to the second, and the direction to the third " +
    "turns to where the fourth lies; scaled too if wanted.",
  drawing: ["M3 20 L9 11 L14 14 L8 23 Z", "M14 4 L21 4 L21 10 L14 10 Z M9 11 L14 5"],
  example: {
    cut: [exampleLine([0, 0], [40, 0])],
    layout: [exampleDot(50, 10), exampleDot(70, 40)],
    clicks: [
      [20, 0],
      [0, 0],
      [50, 10],
      [40, 0],
      [70, 40],
    ],
  },
  parts: [
    what,
    { kind: "words", text: ":" },
    { kind: "pick", name: "one", label: "point", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "first", label: "its place", takes: "point" },
    { kind: "words", text: "and" },
    { kind: "pick", name: "two", label: "second point", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "second", label: "its direction", takes: "point" },
    {
      kind: "choice",
      name: "scale",
      label: "scale",
      options: [
        ["no", "don’t scale"],
        ["yes", "scale too"],
      ],
    },
  ],
  propose: (given, context) => {
    const { one, first, two, second } = given.picks;
    if (given.things.length === 0 || !one || !first || !given.isFirm("one")) return nothing;
    const shift = moving(subtract(first.at, one.at));
    if (!two || !second || !given.isFirm("two"))
      return given.isFirm("first") || first
        ? { ways: [{ preview: thingsPreview(context.drawing, given.things, shift).map((shape) => ({ shape })) }] }
        : nothing;
    const [was, is] = [subtract(two.at, one.at), subtract(second.at, first.at)];
    if (!unit(was) || !unit(is)) return given.isFirm("second") ? refused(refuse("same-point")) : nothing;
    const turn = turning(first.at, angleOf(is) - angleOf(was));
    const factor = given.choice("scale") === "yes" ? distance(first.at, second.at) / distance(one.at, two.at) : 1;
    return moved(align, given.things, after(after(shift, turn), scaling(first.at, factor)), false, context);
  },
};
