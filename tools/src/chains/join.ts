import { exampleLine } from "../example/exampleShapes.ts";
import { settingsOf, type Drawing } from "@ash-edge/core/drawing";
import { joinPieces } from "@ash-edge/core/edits";
import { done, type Id } from "@ash-edge/core/numeric";
import { sayJoined } from "@ash-edge/core/say";
import { under, refused, type Tool } from "../tool.ts";

type Joined = ReturnType<typeof joinPieces>;
const known = new WeakMap<Drawing, { only: ReadonlySet<Id> | undefined; within: number | undefined; joined: Joined }>();

/** Joining looks at the whole drawing but not at the pointer, so each move of it need not join anew. */
const joinedOnce = (drawing: Drawing, only: ReadonlySet<Id> | undefined, within: number | undefined): Joined => {
  const last = known.get(drawing);
  if (last && last.only === only && last.within === within) return last.joined;
  const joined = joinPieces(drawing, only, within);
  known.set(drawing, { only, within, joined });
  return joined;
};

export const join: Tool = {
  kind: "tool",
  id: "join",
  name: "Join",
  help:
    "Press Enter or click on the board: pieces whose ends meet become chains, and chains that close become " +
    "contours. It says how many ends are still open and how far apart; gaps up to a tolerance can be closed on the " +
    "way, at the true corner where that is near enough.",
  drawing: ["M3 16 L10 8 L21 8", "M10 8 m-2.5 0 a2.5 2.5 0 1 0 5 0 a2.5 2.5 0 1 0 -5 0"],
  example: {
    cut: [exampleLine([0, 0], [60, 0]), exampleLine([60, 0], [60, 40]), exampleLine([60, 40], [0, 0])],
    finish: true,
  },
  parts: [
    {
      kind: "choice",
      name: "what",
      label: "what",
      options: [
        ["all", "everything that meets"],
        ["selected", "what is selected"],
      ],
    },
    { kind: "words", text: "·" },
    {
      kind: "choice",
      name: "gaps",
      label: "gaps",
      options: [
        ["leave", "leave gaps"],
        ["mend", "close gaps"],
      ],
    },
    { kind: "words", text: "up to", onlyIf: under("gaps", "mend") },
    {
      kind: "value",
      name: "within",
      label: "gaps up to",
      expects: "length",
      stays: true,
      onlyIf: under("gaps", "mend"),
    },
  ],
  propose: (given, { drawing, selection, unit }) => {
    const only = given.choice("what") === "selected" ? selection : undefined;
    const within = given.value("within") ?? settingsOf(drawing).joinTolerance;
    const joined = joinedOnce(drawing, only, given.choice("gaps") === "mend" ? within : undefined);
    if (!joined.ok) return refused(joined);
    const said = sayJoined(joined.value, unit);
    return { ways: [{ preview: [], edit: () => done(joined.value.edit), said: `Joined: ${said}.` }], note: said };
  },
};
