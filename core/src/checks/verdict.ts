import { measureCallout, type CalloutState } from "../callouts/measure.ts";
import type { Callout } from "../drawing/callout.ts";
import { calloutsOf, settingsOf, type Drawing } from "../drawing/drawing.ts";
import type { Id } from "../numeric/id.ts";
import { showLength } from "../numeric/showValue.ts";
import { TRUE_WITHIN } from "../numeric/tolerance.ts";
import type { Unit } from "../numeric/units.ts";
import type { Subject } from "./check.ts";
import { wallLimit } from "./narrowWays.ts";
import { planRelease, type ReleaseAsked, type ReleasePlan } from "./releasePlan.ts";

/** A callout and how it stands. */
export type CalloutRow = { readonly callout: Callout; readonly state: CalloutState };

/** How the callouts that are to hold stand; those that were waived are none of the others. */
export type Standing = {
  readonly called: number;
  readonly notPlaced: number;
  readonly off: number;
  readonly waived: number;
};

/** Whether a drawing may be cut, in one line: the words are said wherever that is decided. */
export type Verdict = { readonly state: "ready" | "but for" | "not ready"; readonly words: string };

const counted = (n: number, one: string): string => `${n} ${one}${n === 1 ? "" : "s"}`;

/** A callout holds where it is true or within its tolerance. */
export const holds = ({ state }: CalloutRow): boolean => ["true", "within"].includes(state.state);

/** What a callout measures as it stands; undefined where it is not placed. */
export const measuredOf = ({ state }: CalloutRow): number | undefined =>
  state.state === "not placed" ? undefined : state.measured;

/** What a callout measures, in words, nothing where it is not placed; what is true measures what was called. */
export const measuredWords = (row: CalloutRow, unit: Unit): string => {
  const { callout, state } = row;
  const measured = state.state === "true" ? callout.value : measuredOf(row);
  if (measured === undefined) return "";
  if (callout.kind === "count") return String(measured);
  return callout.kind === "angle" ? `${Number(measured.toFixed(4))}°` : showLength(measured, unit);
};

/** A waiver stands for what was waived: where the callout measures something else by now it is asked again. */
export const isWaived = (row: CalloutRow): boolean => {
  const { waived } = row.callout;
  if (!waived || holds(row)) return false;
  const measured = measuredOf(row);
  if (measured === undefined || waived.measured === undefined) return measured === waived.measured;
  return Math.abs(measured - waived.measured) <= TRUE_WITHIN;
};

/** A callout was looked at as long as it measures what it did then. */
export const wasLooked = (row: CalloutRow): boolean => {
  const [then, now] = [row.callout.looked, measuredOf(row)];
  return then !== undefined && now !== undefined && Math.abs(now - then) <= TRUE_WITHIN;
};

/** Off, and not waived: what is to hold and does not. */
export const isOff = (row: CalloutRow): boolean => row.state.state === "off" && !isWaived(row);

/** Placed callouts that are to hold and do not: the drawing measures another number, beyond what it may be off. */
export const calloutsOff = (drawing: Drawing): readonly Id[] =>
  calloutRows(drawing)
    .filter(isOff)
    .map(({ callout }) => callout.id);

/** How many callouts there are, are answered by nothing (or not by all that they ask for), are off, and are waived. */
export const standingOf = (rows: readonly CalloutRow[]): Standing => {
  const open = rows.filter((row) => !holds(row));
  const wanting = open.filter((row) => !isWaived(row));
  const off = wanting.filter(isOff).length;
  return { called: rows.length, off, notPlaced: wanting.length - off, waived: open.length - wanting.length };
};

/**
 * The verdict on a release: not ready with a fault or nothing to cut; ready but for callouts that are off or answered
 * by nothing, and for warnings; ready where nothing is left to say. What was waived is named, and stands against
 * nothing.
 */
export const releaseVerdict = (
  { ready, faults }: Pick<ReleasePlan, "ready" | "faults">,
  { notPlaced, off, waived }: Standing,
): Verdict => {
  if (!ready) return { state: "not ready", words: "Not ready to cut" };
  const warnings = faults.filter(({ severity }) => severity === "warning").length;
  const left = [
    ...(off > 0 ? [`${counted(off, "callout")} off`] : []),
    ...(notPlaced > 0 ? [`${counted(notPlaced, "callout")} not placed`] : []),
    ...(warnings > 0 ? [counted(warnings, "warning")] : []),
  ];
  if (left.length > 0) return { state: "but for", words: `Ready but for ${left.join(", ")}` };
  return { state: "ready", words: waived > 0 ? `Ready to cut, ${counted(waived, "callout")} waived` : "Ready to cut" };
};

/** The callouts that are to hold, and how each stands. */
export const calloutRows = (drawing: Drawing): readonly CalloutRow[] =>
  calloutsOf(drawing)
    .filter(({ reference }) => !reference)
    .map((callout) => ({ callout, state: measureCallout(drawing, callout) }));

/** All that is known of a drawing before it is cut. */
export type Survey = {
  readonly plan: ReleasePlan;
  readonly callouts: readonly CalloutRow[];
  readonly standing: Standing;
  readonly verdict: Verdict;
  /** What could not be looked at, since the job does not say what that needs: nothing is known of it. */
  readonly unasked: readonly string[];
};

/** What is not looked at where a job does not say what it is made with and of. */
const unaskedOf = ({ making, stock }: Pick<Subject, "making" | "stock">): readonly string[] => [
  ...(making.tool ? [] : ["inside corners and slots (no tool)"]),
  ...(wallLimit({ making, stock }) === undefined ? ["walls (no thickness)"] : []),
  ...(making.sheet ? [] : ["whether it fits (no sheet)"]),
];

/**
 * Looks a drawing over: what would be written, what stands against it, how its callouts stand, and the verdict. Prove,
 * Release and the command line ask here and nowhere else, so that they can't disagree.
 */
export const surveyOf = (drawing: Drawing, asked: ReleaseAsked = {}): Survey => {
  const plan = planRelease(drawing, asked);
  const callouts = calloutRows(drawing);
  const standing = standingOf(callouts);
  const { making = {} } = settingsOf(drawing);
  const unasked = unaskedOf({ making, stock: asked.stock ?? { material: "" } });
  return { plan, callouts, standing, verdict: releaseVerdict(plan, standing), unasked };
};
