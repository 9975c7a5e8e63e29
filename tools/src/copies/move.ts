import { exampleCircle } from "../example/exampleShapes.ts";
import { transformEntities } from "@ash-edge/core/edits";
import { subtract, moving, type Point } from "@ash-edge/core/geometry";
import { done } from "@ash-edge/core/numeric";
import { describeThings, thingsPreview } from "../things.ts";
import { nothing, refused, oneWay, type Given, type Tool } from "../tool.ts";

/** By how much: typed numbers win, each on its own; else from point to point. */
const shift = (given: Given): Point | undefined => {
  const { from, to } = given.picks;
  const [x, y] = [given.value("x"), given.value("y")];
  if (x !== undefined && y !== undefined) return { x, y };
  if (x !== undefined || y !== undefined) return { x: x ?? 0, y: y ?? 0 };
  return from && to && given.isFirm("from") ? subtract(to.at, from.at) : undefined;
};

export const move: Tool = {
  kind: "tool",
  id: "move",
  name: "Move",
  help:
    "Moves what is selected: from one point to another, or by x and y typed. With nothing selected, click it first; " +
    "Shift adds more, Enter goes on.",
  drawing: ["M11 5 L19 5 L19 13 L11 13 Z", "M3 11 L9 11 M3 11 L3 19 L11 19 L11 15 M6 15 L9 12"],
  example: {
    cut: [exampleCircle(0, 0, 12), exampleCircle(0, 0, 6)],
    selected: true,
    clicks: [
      [0, 0],
      [50, 20],
    ],
  },
  parts: [
    { kind: "pick", name: "what", label: "what", takes: "things" },
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "point", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "new place", takes: "point" },
    { kind: "words", text: "· or by x" },
    { kind: "value", name: "x", label: "by x", expects: "length", stays: false, signed: true },
    { kind: "words", text: "y" },
    { kind: "value", name: "y", label: "by y", expects: "length", stays: false, signed: true },
  ],
  from: "from",
  wants: (given) => ["what", ...((given.value("x") ?? given.value("y") ?? false) ? [] : ["from", "to"])],
  propose: (given, { drawing }) => {
    const by = shift(given);
    if (!by || given.things.length === 0) return nothing;
    const m = moving(by);
    const moved = transformEntities(drawing, given.things, m, `Move ${describeThings(given.things)}`, "move");
    if (!moved.ok) return refused(moved);
    return oneWay(thingsPreview(drawing, given.things, m), () => done(moved.value));
  },
};
