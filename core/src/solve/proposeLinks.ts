import type { Callout } from "../drawing/callout.ts";
import { calloutsOf, curveAt, cutEntities, drawingBounds, picturesOf, type Drawing } from "../drawing/drawing.ts";
import type { Edit } from "../drawing/edit.ts";
import { curvesOf } from "../drawing/entity.ts";
import { fromPicture } from "../drawing/picture.ts";
import { sameTarget, type Ref } from "../drawing/ref.ts";
import { draftEdit } from "../edits/draftEdit.ts";
import { boundsExtent } from "../geometry/bounds.ts";
import { curveNearest, type Curve } from "../geometry/curve.ts";
import { pieceCentre, pieceLength, pieceRadius } from "../geometry/piece.ts";
import { add, cross, distance, dot, midpoint, subtract, times, unit, type Point } from "../geometry/point.ts";
import { least } from "../numeric/greatest.ts";
import type { Id } from "../numeric/id.ts";
import { assignment } from "./assignment.ts";

/** Where a callout that is not placed may belong; how sure that is, in standard errors to the next best. */
export type LinkProposal = {
  readonly callout: Id;
  /** What it speaks of, where that is plain. */
  readonly links?: readonly Ref[];
  /** What it may speak of, the likeliest first, where it is not. */
  readonly among: readonly (readonly Ref[])[];
};

/** A thing that a callout of some kinds may speak of: what it measures, and how well its kind fits, in errors. */
type Candidate = {
  readonly links: readonly Ref[];
  readonly measures: number;
  readonly fits: Readonly<Partial<Record<Callout["kind"], number>>>;
  readonly curves: readonly Curve[];
  /** Between which places a distance goes: its number is written beside them, at a dimension line. */
  readonly span?: readonly [Point, Point];
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
/** Radii that differ by less than this part are one size. */
const ONE_SIZE = 0.12;
const [MOST_CALLOUTS, MOST_CENTRES, MOST_EDGES, LISTED] = [80, 60, 10, 4];

/** What is cut and may be called, with what it measures now. */
const candidatesOf = (drawing: Drawing): readonly Candidate[] => {
  const found: Candidate[] = [];
  const rounds: { readonly ref: Ref; readonly curve: Curve; readonly radius: number; readonly whole: boolean }[] = [];
  const centres: { readonly ref: Ref; readonly at: Point; readonly radius: number }[] = [];
  for (const entity of cutEntities(drawing)) {
    const own = curvesOf(entity);
    const straight = own.filter(({ curve }) => curve.kind === "piece" && curve.bulge === 0);
    for (const { curve, ref } of own) {
      if (curve.kind === "circle") {
        rounds.push({ ref, curve, radius: curve.radius, whole: true });
        centres.push({ ref: { ...ref, place: "centre" }, at: curve.centre, radius: curve.radius });
      }
      if (curve.kind !== "piece") continue;
      if (curve.bulge === 0)
        found.push({ links: [ref], measures: pieceLength(curve), fits: { length: 0 }, curves: [curve] });
      else {
        rounds.push({ ref, curve, radius: pieceRadius(curve), whole: false });
        if (Math.abs(curve.bulge) > 0.6)
          centres.push({ ref: { ...ref, place: "centre" }, at: pieceCentre(curve)!, radius: pieceRadius(curve) });
      }
    }
    // widths: parallel edges of one outline
    if (straight.length <= MOST_EDGES)
      straight.forEach((p, i) =>
        straight.slice(i + 1).forEach((q) => {
          const links = [p.ref, q.ref];
          const span = spanOf(p.curve, q.curve);
          const measures = span && distance(...span);
          if (span && measures)
            found.push({ links, measures, fits: { length: 0.4 }, curves: [p.curve, q.curve], span });
        }),
      );
  }
  rounds.sort((p, q) => p.radius - q.radius);
  for (let i = 0; i < rounds.length;) {
    const { radius } = rounds[i]!;
    const size = rounds.slice(i).findIndex((one) => one.radius > radius * (1 + ONE_SIZE));
    const group = rounds.slice(i, size < 0 ? undefined : i + size);
    i += group.length;
    for (const some of [group.filter((one) => one.whole), group.filter((one) => !one.whole)]) {
      const own = some.map(({ ref }) => ref);
      if (own.length > 1)
        found.push(
          roundOf(
            own,
            some.map(({ curve }) => curve),
            some[0]!.radius,
            some[0]!.whole,
          ),
        );
      for (const one of some) found.push(roundOf([one.ref], [one.curve], one.radius, one.whole));
    }
  }
  const places = centres.filter((one, i) => !centres.slice(0, i).some((other) => isAbout(one, other)));
  if (places.length <= MOST_CENTRES)
    places.forEach((p, i) =>
      places.slice(i + 1).forEach((q) => {
        const far = distance(p.at, q.at);
        const curves = [p, q].map(({ ref }) => curveAt(drawing, ref)!);
        if (far > 0)
          found.push({
            links: [p.ref, q.ref],
            measures: far,
            fits: { centres: 0, length: 0.8 },
            curves,
            span: [p.at, q.at],
          });
      }),
    );
  return found;
};

/** In a drawing that is not exact yet edges this nearly parallel (cosine) have a distance. */
/** A hole about a boss's centre: two sizes, and no farther off than this part of the larger, is one place. */
const ABOUT = 0.2;

type Centre = { readonly at: Point; readonly radius: number };
const isAbout = (p: Centre, q: Centre): boolean => {
  const larger = Math.max(p.radius, q.radius);
  return distance(p.at, q.at) <= ABOUT * larger && Math.abs(p.radius - q.radius) > ONE_SIZE * larger;
};

const NEARLY_PARALLEL = Math.cos((8 * Math.PI) / 180);

/** From the middle of the shorter of two straight pieces to the longer's line; undefined where aslant. */
const spanOf = (p: Curve, q: Curve): readonly [Point, Point] | undefined => {
  if (p.kind !== "piece" || q.kind !== "piece") return undefined;
  const [short, long] = distance(p.a, p.b) <= distance(q.a, q.b) ? [p, q] : [q, p];
  const [u, v] = [unit(subtract(short.b, short.a)), unit(subtract(long.b, long.a))];
  if (!u || !v || Math.abs(dot(u, v)) < NEARLY_PARALLEL) return undefined;
  const middle = midpoint(short.a, short.b);
  return [middle, add(long.a, times(v, dot(v, subtract(middle, long.a))))];
};

const roundOf = (links: readonly Ref[], curves: readonly Curve[], radius: number, whole: boolean): Candidate => ({
  links,
  measures: radius,
  fits: whole ? { diameter: 0, radius: 0.8 } : { radius: 0, diameter: 0.4 },
  curves,
});

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
  const totalOf = (found: readonly number[]): number => found.reduce((sum, column, i) => sum + costs[i]![column]!, 0);
  const best = assignment(costs);
  const total = totalOf(best);
  return open.map((callout, i): LinkProposal => {
    const order = misses[i]!.map((miss, k) => [miss, k] as const)
      .filter(([miss]) => miss <= MOST_ERRORS)
      .sort(([p], [q]) => p - q);
    const among = order.slice(0, LISTED).map(([, k]) => candidates[k]!.links);
    const own = best[i]!;
    if (own >= candidates.length) return { callout: callout.id, among };
    const kept = costs[i]![own]!;
    (costs[i] as number[])[own] = 10 * none;
    const other = totalOf(assignment(costs));
    (costs[i] as number[])[own] = kept;
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
