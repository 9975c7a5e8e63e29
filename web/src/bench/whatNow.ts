import { isWaived } from "@ash-edge/core/checks";
import { entitiesOf, isLayout, picturesOf, type Callout, type Drawing } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import type { Id } from "@ash-edge/core/numeric";
import type { OpenChain } from "@ash-edge/core/profile";
import { faultsFor, ledgerFor, profileFor } from "./derived.ts";

/** What a button does: takes a tool, selects, shows a callout with the tools that fit it, goes on to Prove. */
export type Does =
  | { readonly take: string }
  | { readonly select: readonly Id[]; readonly at?: Point | undefined }
  | { readonly callout: Callout }
  | { readonly go: "prove" };

/** What is worth doing next, in a few words, and how. */
export type NextStep = {
  readonly words: string;
  readonly offers: readonly { readonly button: string; readonly does: Does }[];
};

const counted = (n: number, one: string): string => `${n} ${one}${n === 1 ? "" : "s"}`;
const one = (words: string, button: string, does: Does): NextStep => ({ words, offers: [{ button, does }] });

/** True while nothing is there to cut. */
export const isEmpty = (drawing: Drawing): boolean => {
  for (const entity of entitiesOf(drawing)) if (!isLayout(drawing, entity)) return false;
  return true;
};

/** How an empty board is begun: with the sketch where there is one, else with a shape. */
const firstStep = (drawing: Drawing, hasSketch: boolean): NextStep => {
  if (hasSketch && ledgerFor(drawing).length === 0)
    return one("Write down the numbers of the sketch", "Write callouts", { take: "write-callouts" });
  const shapes = [
    { button: "Rectangle", does: { take: "rectangle" } },
    { button: "Circle", does: { take: "circle" } },
    { button: "Outline", does: { take: "outline" } },
  ];
  if (hasSketch && !picturesOf(drawing).some(({ scaled }) => scaled))
    return {
      words: "Scale the sketch by a length on it, or begin with",
      offers: [{ button: "Scale it", does: { take: "scale-picture" } }, ...shapes],
    };
  return { words: drawing.entity.size > 2 ? "Laid out. Go on with" : "Begin with", offers: shapes };
};

/** Where a chain is open, at its gap if it has one. */
export const openAt = ({ ends }: OpenChain): Point | undefined => (ends.find(({ gap }) => gap) ?? ends[0])?.at;

/**
 * What is most worth doing next, by the state of the job: a first shape, doubled lines tidied, loose pieces joined,
 * open chains closed, what stands against cutting, callouts put right and placed; then it is proved.
 */
export const whatNow = (drawing: Drawing, hasSketch: boolean): NextStep => {
  if (isEmpty(drawing)) return firstStep(drawing, hasSketch);
  if (faultsFor(drawing).some(({ code }) => code === "doubled"))
    return one("Some lines lie twice", "Tidy", { take: "tidy" });
  const { contours, open } = profileFor(drawing);
  const loose = contours.filter(({ joined }) => !joined).flatMap(({ ids }) => ids);
  if (loose.length > 0) return one(`${counted(loose.length, "piece")} to join`, "Join", { take: "join" });
  if (open[0])
    return one(`${counted(open.length, "chain")} open`, "Show", { select: open[0].ids, at: openAt(open[0]) });
  const wrong = faultsFor(drawing).find(({ severity, ids }) => severity === "error" && ids.length > 0);
  if (wrong) return one("Something stands against cutting", "Show", { select: wrong.ids, at: wrong.at });
  const rows = ledgerFor(drawing).filter((row) => !row.callout.reference && !isWaived(row));
  for (const [state, words] of [
    ["off", "off"],
    ["not placed", "not placed"],
  ] as const) {
    const found = rows.filter((row) => row.state.state === state);
    if (found[0]) return one(`${counted(found.length, "callout")} ${words}`, "Show", { callout: found[0].callout });
  }
  return one(rows.length > 0 ? "Every callout holds" : "Closed and joined", "Prove", { go: "prove" });
};
