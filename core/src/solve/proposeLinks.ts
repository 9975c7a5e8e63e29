import type { Callout } from "../drawing/callout.ts";
import { calloutsOf, drawingBounds, picturesOf, type Drawing } from "../drawing/drawing.ts";
import type { Edit } from "../drawing/edit.ts";
import { fromPicture } from "../drawing/picture.ts";
import { sameTarget } from "../drawing/ref.ts";
import { draftEdit } from "../edits/draftEdit.ts";
import { boundsSize } from "../geometry/bounds.ts";
import { curveNearest } from "../geometry/curve.ts";
import { cross, distance, dot, subtract, unit, type Point } from "../geometry/point.ts";
import { least } from "../numeric/greatest.ts";
import type { Id } from "../numeric/id.ts";
import { assignment } from "./assignment.ts";
import { candidatesOf, type Answer, type Candidate } from "./linkCandidates.ts";

/** Where a callout that is not placed may belong; how sure that is, in standard errors to the next best. */
export type LinkProposal = {
  readonly callout: Id;
  /** What it speaks of, where that is plain. */
  readonly is?: Answer;
  /** What it may speak of, the likeliest first, where it is not. */
  readonly among: readonly Answer[];
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
/** A pin lies about this part of its picture's size from what it speaks of. */
const PIN_ERROR = 0.12;
/** And so far to the side of a distance: dimension lines stand away from what they measure. */
const PIN_ASIDE = 0.3;
/** More than so many errors off is another thing; less than so many to the next best has to be asked. */
const [MOST_ERRORS, PLAIN, ALONE] = [3, 1.2, 2.7];
const [MOST_CALLOUTS, LISTED] = [80, 4];
/** A size stands alone where no other that is called is within this part of it. */
const ALONE_SIZE = 0.2;

type Miss = { readonly all: number; readonly own: number };
const NONE: Miss = { all: Infinity, own: Infinity };

type Pinned = { readonly at: Point; readonly paper: number };

/** Where a callout's pin lies in the drawing, and how large its picture is there, where that is scaled. */
const pinPlace = (drawing: Drawing, { pin }: Callout): Pinned | undefined => {
  const picture = pin && picturesOf(drawing).find(({ blob, scaled }) => blob === pin.sketch && scaled);
  if (!picture) return undefined;
  const [a, b] = [
    { x: 0, y: 0 },
    { x: picture.width, y: picture.height },
  ].map((p) => fromPicture(picture, p)) as [Point, Point];
  const at = fromPicture(picture, { x: pin.x * picture.width, y: pin.y * picture.height });
  return { at, paper: distance(a, b) };
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

/**
 * How far a candidate is from what a callout calls, in standard errors: all in all, and without where it is written.
 * Infinity for another kind of thing.
 */
const missOf = (
  callout: Callout,
  one: Candidate,
  { pin, size, stands }: { readonly pin: Pinned | undefined; readonly size: number; readonly stands: boolean },
): Miss => {
  const [fit, error] = [one.fits[callout.kind], ERRORS[callout.kind]];
  if (fit === undefined || error === undefined) return NONE;
  const isRound = callout.kind === "radius" || callout.kind === "diameter";
  // a size that is called once speaks of all that have it, where no other size is near
  const wanted = callout.times ?? (callout.throughout ? one.links.length : stands ? one.of : 1);
  if (isRound && one.of !== undefined && one.links.length !== wanted) return NONE;
  const { axis } = callout;
  if (axis && one.axis && axis !== one.axis) return NONE;
  const along = axis && one.span ? Math.abs(one.span[1][axis] - one.span[0][axis]) : one.measures;
  const measured = callout.kind === "diameter" ? 2 * one.measures : along;
  const off = (measured - callout.value) / Math.hypot(error * callout.value, isRound ? 0 : PLACES_OFF * size);
  const own = Math.hypot(off, fit);
  return { all: pin ? Math.hypot(own, awayFrom(one, pin.at) / pin.paper) : own, own };
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
  const size = boundsSize(bounds);
  const candidates = candidatesOf(drawing).filter(
    ({ links }) => links.length !== 1 || !taken.some((ref) => sameTarget(ref, links[0]!)),
  );
  const misses = open.map((callout) => {
    const about = { pin: pinPlace(drawing, callout), size, stands: standsAlone(callout, all) };
    return candidates.map((one) => missOf(callout, one, about));
  });
  // squares add up; beside every callout's things stands that it speaks of none
  const none = MOST_ERRORS ** 2;
  const costs = misses.map((row, i) => [
    ...row.map(({ all }) => Math.min(all * all, 10 * none)),
    ...open.map((_, k) => (k === i ? none : 10 * none)),
  ]);
  const totalOf = (found: readonly number[], costs: readonly (readonly number[])[]): number =>
    found.reduce((sum, column, i) => sum + costs[i]![column]!, 0);
  const best = assignment(costs);
  const total = totalOf(best, costs);
  return open.map((callout, i): LinkProposal => {
    const order = misses[i]!.map(({ all }, k) => [all, k] as const)
      .filter(([miss]) => miss <= MOST_ERRORS)
      .sort(([p], [q]) => p - q);
    const among = order
      .map(([, k]) => candidates[k]!)
      .filter(({ says }, k, those) => !says || those.findIndex((one) => one.says === says) === k)
      .slice(0, LISTED)
      .map(answerOf);
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
    const isAlone = order.length === 1 && misses.every((row, k) => k === i || row[own]!.all > MOST_ERRORS);
    const { own: near } = misses[i]![own]!;
    const isPlain =
      (isAlone && kept <= ALONE ** 2) ||
      (near <= PLAIN && Math.sqrt(Math.max(0, other - total) + near ** 2) - near > PLAIN);
    return { callout: callout.id, among, ...(isPlain ? { is: answerOf(candidates[own]!) } : {}) };
  });
};

const answerOf = ({ links, axis }: Candidate): Answer => ({ links, ...(axis ? { axis } : {}) });

/** True of a size where none that is called is near to it. */
const standsAlone = (callout: Callout, all: readonly Callout[]): boolean => {
  const radius = radiusCalled(callout);
  return (
    radius !== undefined &&
    all.every((one) => {
      const other = one.id === callout.id ? undefined : radiusCalled(one);
      return other === undefined || Math.abs(other - radius) > ALONE_SIZE * radius;
    })
  );
};
const radiusCalled = ({ kind, value }: Callout): number | undefined =>
  kind === "radius" ? value : kind === "diameter" ? value / 2 : undefined;

/** Puts callouts on what they speak of, in one step. */
export const linkAll = (drawing: Drawing, those: readonly ({ readonly callout: Id } & Answer)[]): Edit => {
  const draft = draftEdit(drawing, those.length === 1 ? "Place a callout" : `Place ${those.length} callouts`, "link");
  for (const { callout, links, axis } of those) {
    const former = calloutsOf(drawing).find(({ id }) => id === callout);
    if (former && axis && former.axis !== axis) draft.set("callout", callout, { ...former, axis });
    draft.link(callout, links);
  }
  return draft.finish();
};
