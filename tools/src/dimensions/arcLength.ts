import { placedAt } from "@ash-edge/core/annotate";
import { exampleArc } from "../example/exampleShapes.ts";
import { nothing, type Tool } from "../tool.ts";
import { annotating, heldBy, placeFor, standsAt } from "./dimensioning.ts";

export const arcLength: Tool = {
  kind: "tool",
  id: "arc-length",
  name: "Arc length",
  help: "Click an arc, then where the length along it should stand, outside the arc or inside.",
  drawing: [
    "M4 13 A10 10 0 0 1 20 13 M4.6 9.4 L4 13 L7.6 12.4 M16.4 12.4 L20 13 L19.4 9.4",
    "M6.5 19 A7 7 0 0 1 17.5 19",
  ],
  example: {
    cut: [exampleArc([0, 0], [60, 0], -0.5)],
    clicks: [
      [30, 15],
      [30, 30],
    ],
  },
  parts: [
    { kind: "words", text: "of" },
    { kind: "pick", name: "of", label: "arc", takes: "curve", round: true },
    { kind: "words", text: "at" },
    standsAt(),
  ],
  propose: (given, context) => {
    const { drawing } = context;
    const ref = heldBy(given.picks.of);
    const place = placeFor(given);
    if (!ref || !place || !given.isFirm("of")) return nothing;
    const made = placedAt(drawing, { kind: "arc length", refs: [ref] }, place);
    return annotating(arcLength, context, [made], true);
  },
};
