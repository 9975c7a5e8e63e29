import { isWaived } from "@ash-edge/core/checks";
import { entitiesOf, entityOf, isLayout, picturesOf, type Callout, type Drawing } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import type { Id } from "@ash-edge/core/numeric";
import type { OpenChain } from "@ash-edge/core/profile";
import { faultsFor, isKnown, ledgerFor, profileFor } from "./derived.ts";

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

const SHAPES = [
  { button: "Rectangle", does: { take: "rectangle" } },
  { button: "Circle", does: { take: "circle" } },
  { button: "Outline", does: { take: "outline" } },
] as const;
const TO_PROVE = { go: "prove" } as const;

/** How an empty board is begun: with the sketch where there is one, else with a shape. */
const firstStep = (drawing: Drawing, hasSketch: boolean): NextStep => {
  if (hasSketch && ledgerFor(drawing).length === 0)
    return one("Write down the numbers of the sketch", "Write callouts", { take: "write-callouts" });
  if (hasSketch && !picturesOf(drawing).some(({ scaled }) => scaled))
    return {
      words: "Scale the sketch by a length on it, or begin with",
      offers: [{ button: "Scale it", does: { take: "scale-picture" } }, ...SHAPES],
    };
  return { words: drawing.entity.size > 2 ? "Laid out. Go on with" : "Begin with", offers: SHAPES };
};

/** Tidy looks for copies within a layer, unless it is told otherwise: only those are sent there. */
const areOnOneLayer = (drawing: Drawing, ids: readonly Id[]): boolean =>
  new Set(ids.map((id) => entityOf(drawing, id)?.layer)).size === 1;

/** Where a chain is open, at its gap if it has one. */
export const openAt = ({ ends }: OpenChain): Point | undefined => (ends.find(({ gap }) => gap) ?? ends[0])?.at;

/**
 * What is most worth doing next, by the state of the job: a first shape, doubled lines tidied, loose pieces joined,
 * open chains closed, what stands against cutting, callouts put right and placed; then it is proved.
 */
export const whatNow = (drawing: Drawing, hasSketch: boolean): NextStep => {
  if (isEmpty(drawing)) return firstStep(drawing, hasSketch);
  if (!isKnown(drawing)) return { words: "Being looked over …", offers: [] };
  if (faultsFor(drawing).some(({ code, ids }) => code === "doubled" && areOnOneLayer(drawing, ids)))
    return one("Some lines lie twice", "Tidy", { take: "tidy" });
  const { contours, open, smooth } = profileFor(drawing);
  const loose = contours.filter(({ joined }) => !joined).flatMap(({ ids }) => ids);
  if (loose.length > 0) return one(`${counted(loose.length, "piece")} to join`, "Join", { take: "join" });
  if (open[0])
    return one(`${counted(open.length, "chain")} open`, "Show", { select: open[0].ids, at: openAt(open[0]) });
  if (contours.length + smooth.length === 0) return { words: "Nothing is closed yet. Go on with", offers: SHAPES };
  const wrong = faultsFor(drawing).find(({ severity }) => severity === "error");
  if (wrong) {
    const [button, does] =
      wrong.ids.length > 0 ? (["Show", { select: wrong.ids, at: wrong.at }] as const) : (["Prove", TO_PROVE] as const);
    return one("Something stands against cutting", button, does);
  }
  const called = ledgerFor(drawing).filter(({ callout }) => !callout.reference);
  const rows = called.filter((row) => !isWaived(row));
  for (const [state, words] of [
    ["off", "off"],
    ["not placed", "not placed"],
  ] as const) {
    const found = rows.filter((row) => row.state.state === state);
    if (found[0]) return one(`${counted(found.length, "callout")} ${words}`, "Show", { callout: found[0].callout });
  }
  const held = rows.length < called.length ? "Every callout holds or is waived" : "Every callout holds";
  return one(called.length > 0 ? held : "Closed and joined", "Prove", TO_PROVE);
};
