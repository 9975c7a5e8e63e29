import { equalRounds, placedAt } from "@ash-edge/core/annotate";
import { exampleCircle } from "../example/exampleShapes.ts";
import { nothing, type Tool } from "../tool.ts";
import { annotating, heldBy, ownSize, placeFor, standsAt } from "./dimensioning.ts";

export const sizeDimension: Tool = {
  kind: "tool",
  id: "size-dimension",
  name: "Radius or diameter",
  help:
    "Click a circle or an arc, then where its size should stand: inside it, where there is room, or outside on a " +
    "short landing. Of all equal ones it says how many there are: 3 × Ø 14.",
  drawing: [
    "M6.3 17.7 L17.7 6.3 M6.3 14 L6.3 17.7 L10 17.7 M14 6.3 L17.7 6.3 L17.7 10",
    "M12 12 m-8 0 a8 8 0 1 0 16 0 a8 8 0 1 0 -16 0",
  ],
  example: {
    cut: [exampleCircle(0, 0, 14)],
    clicks: [
      [14, 0],
      [24, 20],
    ],
  },
  parts: [
    { kind: "words", text: "of" },
    { kind: "pick", name: "of", label: "arc or circle", takes: "curve", round: true },
    {
      kind: "choice",
      name: "size",
      label: "shown as",
      options: [
        ["own", "Ø of circles, R of arcs"],
        ["radius", "R"],
        ["diameter", "Ø"],
      ],
    },
    {
      kind: "choice",
      name: "how",
      label: "of how many",
      options: [
        ["one", "this one"],
        ["all", "all that are equal"],
      ],
    },
    { kind: "words", text: "at" },
    standsAt(),
  ],
  propose: (given, context) => {
    const { drawing } = context;
    const ref = heldBy(given.picks.of);
    const place = placeFor(given);
    if (!ref || !place || !given.isFirm("of")) return nothing;
    const size = given.choice("size") as "own" | "radius" | "diameter";
    const kind = size === "own" ? ownSize(drawing, ref) : size;
    const refs = given.choice("how") === "all" ? equalRounds(drawing, ref) : [ref];
    const made = placedAt(drawing, { kind, refs }, place);
    return annotating(sizeDimension, context, [made], true);
  },
};
