import { runOf, unitsPerPaper } from "@ash-edge/core/annotate";
import { styleOf, type Ref } from "@ash-edge/core/drawing";
import { angleOf, subtract } from "@ash-edge/core/geometry";
import { refuse } from "@ash-edge/core/numeric";
import { exampleCircle } from "../example/exampleShapes.ts";
import { nothing, refused, type Given, type Tool } from "../tool.ts";
import {
  annotating,
  endMany,
  heldBy,
  isEnded,
  manyParts,
  manyPicks,
  manyWanted,
  measuredAngle,
  measuredParts,
  measuredRef,
  placeFor,
  standsAt,
} from "./dimensioning.ts";

/** Lines of a baseline run stand so many heights of lettering apart (ISO 129-1; from memory). */
const STEP = 2.5;

const angleFor = (given: Given): number => {
  const [first, ...rest] = manyPicks(given);
  const last = rest.at(-1);
  return measuredAngle(given) ?? (first && last ? angleOf(subtract(last.at, first.at)) : 0);
};

export const run: Tool = {
  kind: "tool",
  id: "run",
  name: "Run",
  help:
    "Click three or more points or holes, Enter, then where the dimensions should stand: one after another on one " +
    "line, or all from the first, line above line. All of them are one step to undo.",
  drawing: ["M3 10 L21 10 M5 8 L3 10 L5 12 M19 8 L21 10 L19 12", "M3 5 L3 20 M9 5 L9 16 M14 5 L14 16 M21 5 L21 20"],
  example: {
    cut: [exampleCircle(0, 0, 4), exampleCircle(20, 0, 4), exampleCircle(50, 0, 4)],
    clicks: [
      [0, 0],
      [20, 0],
      [50, 0],
    ],
    finish: true,
    then: [[25, 20]],
  },
  parts: [
    { kind: "words", text: "of" },
    ...manyParts("points or holes, then Enter", "either"),
    {
      kind: "choice",
      name: "kind",
      label: "kind of run",
      options: [
        ["chain", "one after another"],
        ["baseline", "all from the first"],
      ],
    },
    ...measuredParts,
    { kind: "words", text: "at" },
    standsAt(),
  ],
  first: { way: "level" },
  wants: ({ picks }) => manyWanted(picks, ["at"]),
  propose: (given, context) => {
    const { drawing } = context;
    const picks = manyPicks(given);
    const refs = picks.map(heldBy);
    const firm = isEnded(given);
    // the pointer's own pick comes last and may be on nothing yet
    if (refs.some((ref, i) => !ref && (firm || i < refs.length - 1))) return refused(refuse("nothing-to-hold"));
    const held = refs.filter((ref): ref is Ref => ref !== undefined).map((ref) => measuredRef(drawing, ref));
    const place = placeFor(given);
    if (held.length < 2 || !place) return nothing;
    const style = styleOf(drawing);
    const step = STEP * style.height * unitsPerPaper(drawing, style);
    const kind = given.choice("kind") as "chain" | "baseline";
    const made = runOf(drawing, held, kind, angleFor(given), place, step);
    if (made.length === 0) return firm ? refused(refuse("measures-nothing")) : nothing;
    const { ways, ...rest } = annotating(run, context, made, firm);
    // until Enter it is only shown
    return { ...rest, ways: firm ? ways : ways.map(({ edit: _, ...way }) => way) };
  },
  finish: (given) => endMany(given, 2, "points or holes", "Now click where the dimensions should stand."),
};
