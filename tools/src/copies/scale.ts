import { exampleLine } from "../example/exampleShapes.ts";
import { distance, scaling } from "@ash-edge/core/geometry";
import { RESOLUTION, refuse } from "@ash-edge/core/numeric";
import { under, nothing, refused, type Tool } from "../tool.ts";
import { what, keeps, moved } from "./copying.ts";

export const scale: Tool = {
  kind: "tool",
  id: "scale",
  name: "Scale",
  help:
    "Scales what is selected about a point by the factor typed, or so that a length that two clicks give becomes " +
    "the length typed.",
  drawing: ["M4 13 L11 13 L11 20 L4 20 Z", "M4 5 L19 5 L19 20 M12 12 L17 7 M14 7 L17 7 L17 10"],
  example: {
    cut: [exampleLine([0, 0], [40, 0]), exampleLine([40, 0], [40, 25])],
    typed: { factor: "1.5" },
    selected: true,
    clicks: [[0, 0]],
  },
  parts: [
    what,
    { kind: "words", text: "about" },
    { kind: "pick", name: "about", label: "point", takes: "point" },
    {
      kind: "choice",
      name: "by",
      label: "by",
      options: [
        ["factor", "by a factor of"],
        ["length", "so that"],
      ],
    },
    { kind: "value", name: "factor", label: "factor", expects: "number", stays: false, onlyIf: under("by", "factor") },
    { kind: "pick", name: "from", label: "from", takes: "point", onlyIf: under("by", "length") },
    { kind: "pick", name: "to", label: "to", takes: "point", onlyIf: under("by", "length") },
    { kind: "words", text: "becomes", onlyIf: under("by", "length") },
    { kind: "value", name: "length", label: "length", expects: "length", stays: false, onlyIf: under("by", "length") },
    keeps,
  ],
  from: "about",
  wants: ({ choice }) => ["what", "about", ...(choice("by") === "length" ? ["from", "to"] : [])],
  propose: (given, context) => {
    const { about, from, to } = given.picks;
    if (given.things.length === 0 || !about) return nothing;
    const byLength = given.choice("by") === "length";
    const wanted = given.value("length");
    const now = byLength && from && to && given.isFirm("from") ? distance(from.at, to.at) : undefined;
    if (byLength && now === undefined) return nothing;
    const factor = byLength
      ? wanted !== undefined && now! > RESOLUTION
        ? wanted / now!
        : undefined
      : given.value("factor");
    if (factor === undefined)
      return given.isFirm(byLength ? "to" : "about") ? refused(refuse("value-empty")) : { ways: [], note: "Type it" };
    return moved(scale, given.things, scaling(about.at, factor), given.choice("keep") === "keep", context);
  },
};
