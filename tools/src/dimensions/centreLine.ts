import type { Ref } from "@ash-edge/core/drawing";
import { refuse } from "@ash-edge/core/numeric";
import { exampleLine } from "../example/exampleShapes.ts";
import { nothing, refused, under, type Tool } from "../tool.ts";
import { annotating, endMany, heldBy, isEnded, manyParts, manyPicks, manyWanted, measuredRef } from "./dimensioning.ts";

export const centreLine: Tool = {
  kind: "tool",
  id: "centre-line",
  name: "Centre line",
  help:
    "Click two edges for the line half way between them, or two points or holes for the line through them. Or three " +
    "and more holes of a bolt circle, Enter after the last, for the circle through their centres.",
  drawing: ["M3 12 L9 12 M11 12 L13 12 M15 12 L21 12", "M4 6 L20 6 M4 18 L20 18"],
  example: {
    cut: [exampleLine([0, 0], [60, 0]), exampleLine([0, 30], [60, 30])],
    clicks: [
      [20, 0],
      [20, 30],
    ],
  },
  parts: [
    {
      kind: "choice",
      name: "of",
      label: "of",
      options: [
        ["pair", "between two"],
        ["round", "round a bolt circle"],
      ],
    },
    { kind: "pick", name: "one", label: "edge, point or hole", takes: "either", onlyIf: under("of", "pair") },
    { kind: "words", text: "and", onlyIf: under("of", "pair") },
    { kind: "pick", name: "other", label: "other one", takes: "either", onlyIf: under("of", "pair") },
    ...manyParts("holes, then Enter", "curve", { onlyIf: under("of", "round"), round: true }),
  ],
  wants: ({ picks, choice }) => (choice("of") === "pair" ? ["one", "other"] : manyWanted(picks, [])),
  propose: (given, context) => {
    const { drawing } = context;
    const pair = given.choice("of") === "pair";
    if (!pair) {
      const refs = manyPicks(given).flatMap((picked) => heldBy(picked) ?? []);
      if (refs.length < 3) return nothing;
      const made = annotating(centreLine, context, [{ kind: "centre line", refs, at: { x: 0, y: 0 } }], isEnded(given));
      return { ...made, ways: made.ways.map(({ edit: _, ...way }) => way) };
    }
    const { one, other } = given.picks;
    const refs = [one, other].map(heldBy);
    if (["one", "other"].some((name, i) => given.isFirm(name) && !refs[i])) return refused(refuse("nothing-to-hold"));
    if (refs.some((ref) => !ref) || !given.isFirm("one")) return nothing;
    const held = (refs as readonly Ref[]).map((ref) => measuredRef(drawing, ref));
    return annotating(
      centreLine,
      context,
      [{ kind: "centre line", refs: held, at: { x: 0, y: 0 } }],
      given.isFirm("other"),
    );
  },
  finish: (given, context) => {
    if (given.choice("of") === "pair") return nothing;
    const refs = manyPicks(given).flatMap((picked) => heldBy(picked) ?? []);
    if (refs.length < 3) return endMany(given, 3, "three holes and more", "");
    return annotating(centreLine, context, [{ kind: "centre line", refs, at: { x: 0, y: 0 } }], true);
  },
};
