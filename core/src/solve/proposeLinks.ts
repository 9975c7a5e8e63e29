import type { Callout } from "../drawing/callout.ts";
import { calloutsOf, drawingBounds, picturesOf, type Drawing } from "../drawing/drawing.ts";
import type { Edit } from "../drawing/edit.ts";
import { fromPicture } from "../drawing/picture.ts";
import { sameTarget, type Ref } from "../drawing/ref.ts";
import { draftEdit } from "../edits/draftEdit.ts";
import { boundsExtent } from "../geometry/bounds.ts";
import { curveNearest } from "../geometry/curve.ts";
import { cross, distance, dot, subtract, unit, type Point } from "../geometry/point.ts";
import { least } from "../numeric/greatest.ts";
import type { Id } from "../numeric/id.ts";
import { assignment } from "./assignment.ts";
import { candidatesOf, type Candidate } from "./linkCandidates.ts";

/** Where a callout that is not placed may belong; how sure that is, in standard errors to the next best. */
export type LinkProposal = {
  readonly callout: Id;
  /** What it speaks of, where that is plain. */
  readonly links?: readonly Ref[];
  /** What it may speak of, the likeliest first, where it is not. */
  readonly among: readonly (readonly Ref[])[];
};

/** How far a drawing that is not exact yet is off: a part of what is called. */
const ERRORS: Readonly<Partial<Record<Callout["kind"], number>>> = {
  radius: 0.06,
  diameter: 0.06,
  length: 0.04,
  centres: 0.03,
};
/** Places are off by this part of the drawing's size as well, which tells on short distances. */
const PLACES_OFF = 0.008;
/** A pin lies about this part of the drawing's size from what it speaks of. */
const PIN_ERROR = 0.12;
/** And so far to the side of a distance: dimension lines stand away from what they measure. */
const PIN_ASIDE = 0.3;
/** More than so many errors off is another thing; less than so many to the next best has to be asked. */
const [MOST_ERRORS, PLAIN, ALONE] = [3, 1.2, 2.7];
const [MOST_CALLOUTS, LISTED] = [80, 4];

/** Where a callout's pin lies in the drawing, where its sketch is scaled. */
const pinPlace = (drawing: Drawing, { pin }: Callout): Point | undefined => {
  const picture = pin && picturesOf(drawing).find(({ blob, scaled }) => blob === pin.sketch && scaled);
  return picture && fromPicture(picture, { x: pin.x * picture.width, y: pin.y * picture.height });
};

/** How far a pin lies from what a candidate speaks of, in parts that count as one error. */
const awayFrom = ({ curves, span }: Candidate, pin: Point): number => {
  const near = least(curves.map((curve) => curveNearest(curve, pin).distance)) / PIN_ERROR;
  const along = span && unit(subtract(span[1], span[0]));
  if (!span || !along) return near;
  const [t, length] = [dot(subtract(pin, span[0]), along), distance(...span)];
  const past = Math.max(0, -t, t - length);
  return Math.min(near, Math.hypot(past / PIN_ERROR, cross(along, subtract(pin, span[0])) / PIN_ASIDE));
};

/** How far a candidate is from what a callout calls, in standard errors; Infinity for another kind of thing. */
const missOf = (callout: Callout, one: Candidate, pin: Point | undefined, size: number): number => {
  const [fit, error] = [one.fits[callout.kind], ERRORS[callout.kind]];
  if (fit === undefined || error === undefined) return Infinity;
  const wanted = callout.times ?? (callout.throughout ? one.links.length : 1);
  const isRound = callout.kind === "radius" || callout.kind === "diameter";
  if (isRound && one.links.length !== wanted) return Infinity;
  const { axis } = callout;
  const along = axis && one.span ? Math.abs(one.span[1][axis] - one.span[0][axis]) : one.measures;
  const measured = callout.kind === "diameter" ? 2 * one.measures : along;
  const off = (measured - callout.value) / Math.hypot(error * callout.value, isRound ? 0 : PLACES_OFF * size);
  const away = pin ? awayFrom(one, pin) / size : 0;
  return Math.hypot(off, fit, away);
};

/**
 * Callouts that are not placed, each with what it speaks of where that is plain: the cheapest way to give all of them a
 * thing of their own by kind, value and pin, told from the next best by more than 1.2 standard errors. For the others
 * what they may speak of. Nothing for kinds that one thing does not answer.
 */
export const proposeLinks = (drawing: Drawing): readonly LinkProposal[] => {
  const all = calloutsOf(drawing);
  const taken = all.flatMap(({ links }) => (links.length === 1 ? links : []));
  const open = all.filter((one) => one.links.length === 0 && ERRORS[one.kind] !== undefined).slice(0, MOST_CALLOUTS);
  const bounds = drawingBounds(drawing);
  if (open.length === 0 || !bounds) return [];
  const size = boundsExtent(bounds);
  const candidates = candidatesOf(drawing).filter(
    ({ links }) => links.length !== 1 || !taken.some((ref) => sameTarget(ref, links[0]!)),
  );
  const misses = open.map((callout) => {
    const pin = pinPlace(drawing, callout);
    return candidates.map((one) => missOf(callout, one, pin, size));
  });
  // squares add up; beside every callout's things stands that it speaks of none
  const none = MOST_ERRORS ** 2;
  const costs = misses.map((row, i) => [
    ...row.map((miss) => Math.min(miss * miss, 10 * none)),
    ...open.map((_, k) => (k === i ? none : 10 * none)),
  ]);
  const totalOf = (found: readonly number[], costs: readonly (readonly number[])[]): number =>
    found.reduce((sum, column, i) => sum + costs[i]![column]!, 0);
  const best = assignment(costs);
  const total = totalOf(best, costs);
  return open.map((callout, i): LinkProposal => {
    const order = misses[i]!.map((miss, k) => [miss, k] as const)
      .filter(([miss]) => miss <= MOST_ERRORS)
      .sort(([p], [q]) => p - q);
    const among = order.slice(0, LISTED).map(([, k]) => candidates[k]!.links);
    const own = best[i]!;
    if (own >= candidates.length) return { callout: callout.id, among };
    const kept = costs[i]![own]!;
    const { says } = candidates[own]!;
    const without = costs.with(
      i,
      costs[i]!.map((cost, k) => (k === own || (says && candidates[k]?.says === says) ? 10 * none : cost)),
    );
    const other = totalOf(assignment(without), without);
    // what nothing else may speak of need not be as near
    const isAlone = order.length === 1 && misses.every((row, k) => k === i || row[own]! > MOST_ERRORS);
    const isPlain =
      (isAlone && kept <= ALONE ** 2) ||
      (kept <= PLAIN ** 2 && Math.sqrt(other - total + kept) - Math.sqrt(kept) > PLAIN);
    return { callout: callout.id, among, ...(isPlain ? { links: candidates[own]!.links } : {}) };
  });
};

/** Puts callouts on what they speak of, in one step. */
export const linkAll = (
  drawing: Drawing,
  those: readonly { readonly callout: Id; readonly links: readonly Ref[] }[],
): Edit => {
  const draft = draftEdit(drawing, those.length === 1 ? "Place a callout" : `Place ${those.length} callouts`, "link");
  for (const { callout, links } of those) draft.link(callout, links);
  return draft.finish();
};
