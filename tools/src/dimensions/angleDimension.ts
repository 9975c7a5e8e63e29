import { placedAt } from "@ash-edge/core/annotate";
import type { Ref } from "@ash-edge/core/drawing";
import { refuse } from "@ash-edge/core/numeric";
import { exampleLine } from "../example/exampleShapes.ts";
import { nothing, refused, under, type Given, type Tool } from "../tool.ts";
import { annotating, heldBy, placeFor, standsAt } from "./dimensioning.ts";

const blanks = (choice: Given["choice"]): readonly string[] =>
  choice("of") === "edges" ? ["one", "other"] : ["vertex", "first", "second"];

export const angleDimension: Tool = {
  kind: "tool",
  id: "angle-dimension",
  name: "Angle dimension",
  help:
    "Click two straight edges, or the corner and a point on either side, then where the angle should stand: between " +
    "the edges, beyond them, or on either side, where their supplement is.",
  drawing: ["M14.5 19 A10.5 10.5 0 0 0 11.4 11.6 M12.2 14.6 L11.4 11.6 L14.2 12.6", "M4 19 L21 19 M4 19 L18 5"],
  example: {
    cut: [exampleLine([0, 0], [60, 0]), exampleLine([0, 0], [40, 40])],
    clicks: [
      [50, 0],
      [30, 30],
      [30, 12],
    ],
  },
  parts: [
    { kind: "words", text: "of" },
    {
      kind: "choice",
      name: "of",
      label: "of",
      options: [
        ["edges", "two edges"],
        ["points", "three points"],
      ],
    },
    { kind: "pick", name: "one", label: "edge", takes: "curve", onlyIf: under("of", "edges") },
    { kind: "pick", name: "other", label: "other edge", takes: "curve", onlyIf: under("of", "edges") },
    { kind: "pick", name: "vertex", label: "corner", takes: "point", onlyIf: under("of", "points") },
    { kind: "pick", name: "first", label: "point", takes: "point", onlyIf: under("of", "points") },
    { kind: "pick", name: "second", label: "other point", takes: "point", onlyIf: under("of", "points") },
    { kind: "words", text: "at" },
    standsAt(),
  ],
  wants: ({ choice }) => [...blanks(choice), "at"],
  propose: (given, context) => {
    const { drawing } = context;
    const names = blanks(given.choice);
    const refs = names.map((name) => heldBy(given.picks[name]));
    const lacking = names.find((name, i) => given.isFirm(name) && !refs[i]);
    if (lacking) return refused(refuse("nothing-to-hold"));
    const place = placeFor(given);
    if (refs.some((ref) => !ref) || !place) return nothing;
    const made = placedAt(drawing, { kind: "angle", refs: refs as readonly Ref[] }, place);
    return annotating(angleDimension, context, [made], given.isFirm(names.at(-1)!));
  },
};
