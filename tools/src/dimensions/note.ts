import { placedAt } from "@ash-edge/core/annotate";
import type { Ref } from "@ash-edge/core/drawing";
import { refuse } from "@ash-edge/core/numeric";
import { exampleBox } from "../example/exampleShapes.ts";
import { nothing, refused, under, type Given, type Tool, type ToolContext } from "../tool.ts";
import {
  annotating,
  endMany,
  isBare,
  isEnded,
  manyParts,
  manyPicks,
  manyWanted,
  pointedRef,
  standsAt,
} from "./dimensioning.ts";

const tipsOf = (given: Given, { drawing }: ToolContext): readonly (Ref | undefined)[] => {
  const tips = given.choice("tips");
  if (tips === "none") return [];
  const picks = tips === "one" ? [given.picks.tip] : manyPicks(given);
  return picks.map((picked) => picked && pointedRef(drawing, picked));
};

export const note: Tool = {
  kind: "tool",
  id: "note",
  name: "Note",
  help:
    "Type what it says, a stroke | starting a new line, click what it points to, then where the text should stand. A " +
    "note can point to several places, Enter after the last, or to nothing.",
  drawing: ["M4 19 L9 9 L13 9 M4.2 15.8 L4 19 L6.8 17.4", "M14 9 L21 9 M14 6 L19 6"],
  example: {
    cut: [exampleBox(0, 0, 60, 40)],
    typed: { text: "deburr" },
    clicks: [
      [60, 20],
      [80, 34],
    ],
  },
  parts: [
    { kind: "text", name: "text", label: "text" },
    { kind: "words", text: "pointing to" },
    {
      kind: "choice",
      name: "tips",
      label: "pointing to",
      options: [
        ["one", "one thing"],
        ["several", "several"],
        ["none", "nothing"],
      ],
    },
    { kind: "pick", name: "tip", label: "thing", takes: "either", onlyIf: under("tips", "one") },
    ...manyParts("places, then Enter", "either", { onlyIf: under("tips", "several") }),
    { kind: "words", text: "at" },
    standsAt(),
    {
      kind: "choice",
      name: "landing",
      label: "landing",
      options: [
        ["shown", "with a landing"],
        ["hidden", "without"],
      ],
      onlyIf: under("tips", "one", "several"),
    },
  ],
  wants: ({ picks, choice }) => {
    if (choice("tips") === "several") return manyWanted(picks, ["at"]);
    return choice("tips") === "one" ? ["tip", "at"] : ["at"];
  },
  propose: (given, context) => {
    const { tip, at } = given.picks;
    if (given.choice("tips") === "one" && given.isFirm("tip") && isBare(tip)) return refused(refuse("nothing-to-hold"));
    if (given.choice("tips") === "several" && !isEnded(given)) return nothing;
    const tips = tipsOf(given, context);
    const place = at?.at ?? given.pointer;
    const text = (given.text("text") ?? "")
      .split("|")
      .map((line) => line.trim())
      .join("\n");
    if (!place || tips.some((ref) => !ref))
      return tips.some((ref) => !ref) && isEnded(given) ? refused(refuse("nothing-to-hold")) : nothing;
    if (given.choice("tips") === "one" && !given.isFirm("tip")) return nothing;
    const made = placedAt(
      context.drawing,
      {
        kind: "note",
        refs: tips as readonly Ref[],
        text,
        ...(given.choice("landing") === "hidden" && tips.length > 0 ? { bare: true } : {}),
      },
      place,
    );
    // while nothing is typed yet the place is only shown; a click there says that a text is wanted
    return annotating(note, context, [made], given.isFirm("at"));
  },
  finish: (given) =>
    given.choice("tips") === "several"
      ? endMany(given, 1, "places it points to", "Now click where the text should stand.")
      : nothing,
};
