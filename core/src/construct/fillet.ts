import { carrierOf, pieceCarrier, type Carrier, type Curve } from "../geometry/curve.ts";
import {
  arcBetween,
  partOfPiece,
  pieceCentre,
  pieceDirection,
  pieceLength,
  pieceNearest,
  sweepAbout,
  type Piece,
} from "../geometry/piece.ts";
import { add, cross, distance, dot, leftOf, midpoint, subtract, times, unit, type Point } from "../geometry/point.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { RESOLUTION, PARALLEL, SAME_DIRECTION, HALF_TURN_BULGE } from "../numeric/tolerance.ts";
import { tangentCircles, type TangentCircle } from "./tangentArcs.ts";

/**
 * A rounded corner: what remains of the edge before it, the arc, and what remains of the edge after it; an edge used up
 * is gone.
 */
export type FilletedCorner = { readonly before?: Piece; readonly arc: Piece; readonly after?: Piece };

/**
 * A touching point this near to the far end of its edge uses the edge up; and no farther beyond it does one still count
 * as on it.
 */
const USED_UP = RESOLUTION;

/** The side on which the path turns at a corner: 1 left, -1 right, 0 where it runs on smoothly or turns right back. */
export const cornerSide = (before: Piece, after: Piece): 1 | -1 | 0 => {
  const turn = cross(pieceDirection(before, 1), pieceDirection(after, 0));
  return Math.abs(turn) <= SAME_DIRECTION ? 0 : turn > 0 ? 1 : -1;
};

/**
 * The radii of the circles that touch a curve at `at`, `n` being its normal there, and a carrier. Linear in the radius:
 * the centre is at + r n, and its distance from a line is ± r, from a circle's centre R ± r. Derived here.
 */
const radiiTouching = (at: Point, n: Point, carrier: Carrier): readonly number[] =>
  [1, -1]
    .map((sign) => {
      if (carrier.kind === "line") {
        const across = leftOf(carrier.direction);
        return dot(across, subtract(at, carrier.at)) / (sign - dot(n, across));
      }
      const from = subtract(at, carrier.centre);
      return (carrier.radius ** 2 - dot(from, from)) / (2 * (dot(n, from) + sign * carrier.radius));
    })
    .filter((radius) => Number.isFinite(radius) && radius > 0);

/** The radius that makes a fillet begin at `at` on the edge before the corner. */
export const filletRadiusAt = (before: Piece, after: Piece, at: Point): number | undefined => {
  const side = cornerSide(before, after);
  if (side === 0) return undefined;
  const n = times(leftOf(pieceDirection(before, pieceNearest(before, at).t)), side);
  // a circle is touched from that side of it on which the corner turns
  const carrier = pieceCarrier(after);
  const radii = radiiTouching(at, n, carrier);
  return radii.find((radius) => attempt(before, after, radius)) ?? radii[0];
};

/**
 * The fillet that a tangent circle makes at the corner, if it runs on from the one edge into the other the way they
 * run.
 */
const cornerBy = (
  { centre, onA, onB }: TangentCircle,
  before: Piece,
  after: Piece,
): (FilletedCorner & { cut: number }) | undefined => {
  const [a, b] = [pieceNearest(before, onA), pieceNearest(after, onB)];
  if (a.distance > USED_UP || b.distance > USED_UP) return undefined;
  const [out, into] = [leftOf(subtract(onA, centre)), leftOf(subtract(onB, centre))];
  const turnsLeft = dot(out, pieceDirection(before, a.t)) > 0;
  const sign = turnsLeft ? 1 : -1;
  if (dot(into, pieceDirection(after, b.t)) * sign <= 0) return undefined;
  const keepsBefore = a.t * pieceLength(before) > USED_UP;
  const keepsAfter = (1 - b.t) * pieceLength(after) > USED_UP;
  const [start, end] = [keepsBefore ? onA : before.a, keepsAfter ? onB : after.b];
  const arc = arcBetween(start, end, centre, turnsLeft);
  if (Math.abs(arc.bulge) > HALF_TURN_BULGE) return undefined; // more than half a turn is no corner
  return {
    ...(keepsBefore ? { before: partOfPiece(before, 0, a.t, undefined, onA) } : {}),
    arc,
    ...(keepsAfter ? { after: partOfPiece(after, b.t, 1, onB, undefined) } : {}),
    cut: (1 - a.t) * pieceLength(before) + b.t * pieceLength(after),
  };
};

const attempt = (before: Piece, after: Piece, radius: number, corner = before.b): FilletedCorner | undefined => {
  const circles = tangentCircles(pieceCarrier(before), pieceCarrier(after), radius, corner);
  if (!circles.ok) return undefined;
  const found = circles.value.flatMap((circle) => cornerBy(circle, before, after) ?? []);
  if (found.length === 0) return undefined;
  const { cut: _, ...nearest } = found.reduce((best, one) => (one.cut < best.cut ? one : best));
  return nearest;
};

/**
 * The radii at which fillets can begin or cease to fit a corner: where one begins at an end of the edge before it, ends
 * at one of the edge after it, or makes just half a turn (then its centre lies on the line of centres, or on the
 * normal through the one centre there is). Each is linear in the radius; derived here.
 */
const turningRadii = (before: Piece, after: Piece): readonly number[] => {
  const [onA, onB] = [pieceCarrier(before), pieceCarrier(after)];
  const usingUp = [1, -1].flatMap((side) => [
    ...radiiTouching(before.a, times(leftOf(pieceDirection(before, 0)), side), onB),
    ...radiiTouching(after.b, times(leftOf(pieceDirection(after, 1)), side), onA),
    ...radiiTouching(before.b, times(leftOf(pieceDirection(before, 1)), side), onB),
    ...radiiTouching(after.a, times(leftOf(pieceDirection(after, 0)), side), onA),
  ]);
  if (onA.kind === "line" && onB.kind === "line") return usingUp;
  const [reachA, reachB] = [onA, onB].map((carrier) => (carrier.kind === "circle" ? carrier.radius : 0)) as [
    number,
    number,
  ];
  const apart = betweenCarriers(onA, onB);
  const halfTurns = [1, -1].flatMap((s) => [1, -1].map((t) => Math.abs(apart + s * reachA + t * reachB) / 2));
  return [...usingUp, ...halfTurns];
};

/** How far a centre lies from a line, or two from each other. */
const betweenCarriers = (a: Carrier, b: Carrier): number => {
  if (a.kind === "circle") return b.kind === "circle" ? distance(a.centre, b.centre) : betweenCarriers(b, a);
  return b.kind === "circle" ? Math.abs(cross(a.direction, subtract(b.centre, a.at))) : 0;
};

/** How far under its radius a fillet still is that one: where loci only touch, rounding may part them. */
const SHY = [0, 1e-13, 1e-12, 1e-11, 1e-10] as const;

/** So much beyond its largest radius a fillet misses its edges by more than a resolution, in any drawing. */
const BEYOND = 1.001;

/** The radii among the turning ones that fit, the smallest first; Infinity at the end where ever larger ones do. */
const fittingRadii = (before: Piece, after: Piece, corner: Point): readonly number[] => {
  const fitting = turningRadii(before, after)
    .flatMap((radius) => {
      const shy = SHY.map((part) => radius * (1 - part));
      return shy.find((one) => one > RESOLUTION && attempt(before, after, one, corner)) ?? [];
    })
    .sort((p, q) => p - q);
  // between two arcs a fillet can flatten into their common tangent: what fits a little beyond the last fits for good
  const last = fitting.at(-1) ?? Math.min(pieceLength(before), pieceLength(after));
  return attempt(before, after, last * BEYOND, corner) ? [...fitting, Infinity] : fitting;
};

/**
 * The largest radius that rounds the corner between two edges, exactly: fillets fit from one of their turning radii to
 * another. Infinity where there is none, undefined where nothing fits.
 */
export const largestFillet = (before: Piece, after: Piece): number | undefined =>
  cornerSide(before, after) === 0 ? undefined : fittingRadii(before, after, before.b).at(-1);

/** A fillet and how many whole pieces it takes the place of, beyond the edges that it is cut from. */
export type FilletInRun = { readonly corner: FilletedCorner; readonly skipBefore: number; readonly skipAfter: number };

/**
 * Rounds the corner between two runs of pieces with an arc of `radius`: `befores` from the corner backwards, `afters`
 * from it on, each smoothly joined to the next, so that a fillet larger than an edge goes on to the tangent arc beside
 * it. The first two pieces that it fits are taken. Otherwise as `filletCorner`, of which this is the whole.
 */
export const filletInRun = (
  befores: readonly Piece[],
  afters: readonly Piece[],
  radius: number,
): Outcome<FilletInRun> => {
  if (!(radius > 0)) return refuse("value-not-positive", { what: "The radius" });
  const [before, after] = [befores[0]!, afters[0]!];
  const corner = before.b;
  const side = cornerSide(before, after);
  const turnsBack = side === 0 && dot(pieceDirection(before, 1), pieceDirection(after, 0)) < 0;
  if (side === 0 && !turnsBack) return refuse("corner-smooth", {}, corner);
  const pairs = befores
    .flatMap((p, i) => afters.map((q, k) => ({ p, q, i, k })))
    .sort((one, other) => one.i + one.k - (other.i + other.k));
  for (const { p, q, i, k } of pairs) {
    const made = attempt(p, q, radius, corner);
    if (made) return done({ corner: made, skipBefore: i, skipAfter: k });
  }
  const fitting = pairs.flatMap(({ p, q }) => fittingRadii(p, q, corner)).sort((s, t) => s - t);
  const below = fitting.filter((one) => one < radius).at(-1);
  const above = fitting.find((one) => one > radius && Number.isFinite(one));
  if (above === undefined)
    return below === undefined
      ? refuse("no-fillet", {}, corner)
      : refuse("radius-too-large", { typed: radius, limit: below }, corner);
  return below === undefined
    ? refuse("radius-too-small", { typed: radius, limit: above }, corner)
    : refuse("radius-between", { typed: radius, limit: below, above }, corner);
};

/**
 * Rounds the corner between two edges, of which the first ends where the second starts, with an arc of `radius`. A
 * radius that exactly uses up an edge, or both, leaves nothing of it, and ends are the same numbers. Refused: edges
 * that run on smoothly, and a radius that does not fit, with the largest that does, or the nearest ones. Source: loci
 * of centres (Euclid III.11, III.12); tangent length R / tan(half angle).
 */
export const filletCorner = (before: Piece, after: Piece, radius: number): Outcome<FilletedCorner> => {
  const made = filletInRun([before], [after], radius);
  return made.ok ? done(made.value.corner) : made;
};

/**
 * What becomes of a picked curve when it is run or cut to a place: the picked side stays; circles stay whole
 * (undefined).
 */
export const runTo = (curve: Curve, picked: Point, to: Point): Piece | undefined => {
  if (curve.kind !== "piece") return undefined;
  if (curve.bulge === 0) {
    const direction = pieceDirection(curve, 0);
    const along = (p: Point): number => dot(subtract(p, curve.a), direction);
    // the end on the picked side stays
    return along(picked) < along(to) ? { ...curve, b: to } : { ...curve, a: to };
  }
  const { t, distance: off } = pieceNearest(curve, to);
  if (off > RESOLUTION) return prolongedTo(curve, to);
  return pieceNearest(curve, picked).t < t
    ? partOfPiece(curve, 0, t, undefined, to)
    : partOfPiece(curve, t, 1, to, undefined);
};

/** An arc run on along its circle to a place beyond it, from the end that is nearer on the way round. */
const prolongedTo = (arc: Piece, to: Point): Piece => {
  const centre = pieceCentre(arc)!;
  const left = arc.bulge > 0;
  const [onFromB, backFromA] = [sweepAbout(centre, arc.b, to, left), sweepAbout(centre, to, arc.a, left)];
  return Math.abs(onFromB) < Math.abs(backFromA)
    ? arcBetween(arc.a, to, centre, left)
    : arcBetween(to, arc.b, centre, left);
};

/** In which direction a picked curve runs towards a place on it, coming from the pick. */
const headingTo = (curve: Curve, picked: Point, to: Point): Point | undefined => {
  if (curve.kind === "circle") return undefined; // both ways
  if (curve.kind === "endless" || (curve.kind === "piece" && curve.bulge === 0)) return unit(subtract(to, picked));
  if (curve.kind !== "piece") return undefined;
  const t = pieceNearest(curve, to).t;
  const direction = pieceDirection(curve, t);
  return pieceNearest(curve, picked).t < t ? direction : times(direction, -1);
};

/**
 * A fillet between two picked curves: the arc from the first to the second, and what becomes of each (undefined: stays
 * as it is).
 */
export type FilletBetween = { readonly arc: Piece; readonly a: Piece | undefined; readonly b: Piece | undefined };

/**
 * The fillets of `radius` between two curves that were picked, the nearest to the picks first: the arc runs on from the
 * picked side of the one into the picked side of the other. Lines are run to it or cut; arcs are touched only where
 * they are; circles stay whole. Between parallel lines the one radius that fits is half their distance, taken by itself
 * where none is typed; the half circle then stands at the end of the first line on the picked side. None: the refusal
 * names the nearest radius that works.
 */
export const filletsBetween = (
  a: Curve,
  pickA: Point,
  b: Curve,
  pickB: Point,
  radius: number | undefined,
): Outcome<readonly FilletBetween[]> => {
  const [onA, onB] = [carrierOf(a), carrierOf(b)];
  if (!onA || !onB) return refuse("smooth-not-here");
  const parallel =
    onA.kind === "line" && onB.kind === "line" && Math.abs(cross(onA.direction, onB.direction)) < PARALLEL;
  const gap =
    parallel && onA.kind === "line" && onB.kind === "line"
      ? Math.abs(cross(onA.direction, subtract(onB.at, onA.at)))
      : 0;
  const r = radius ?? (parallel ? gap / 2 : undefined);
  if (r === undefined) return refuse("value-empty");
  const near = parallel && a.kind === "piece" ? nearEnd(a, pickA, pickB) : midpoint(pickA, pickB);
  const circles = tangentCircles(onA, onB, r, near);
  if (!circles.ok) return circles;
  const made = circles.value.flatMap(({ centre, onA: p, onB: q }) => {
    if (!canReach(a, p) || !canReach(b, q)) return [];
    const [comes, goes] = [headingTo(a, pickA, p), headingTo(b, pickB, q)];
    return [true, false].flatMap((left) => {
      const sign = left ? 1 : -1;
      const leaves = times(leftOf(subtract(p, centre)), sign);
      const arrives = times(leftOf(subtract(q, centre)), sign);
      if (!parallel && ((comes && dot(leaves, comes) <= 0) || (goes && dot(arrives, goes) >= 0))) return [];
      if (distance(p, q) <= RESOLUTION) return [];
      const arc = arcBetween(p, q, centre, left);
      if (Math.abs(arc.bulge) > HALF_TURN_BULGE) return [];
      return [{ arc, a: runTo(a, pickA, p), b: runTo(b, pickB, q), miss: distance(p, pickA) + distance(q, pickB) }];
    });
  });
  const sensible = parallel ? made.filter(({ arc, a: left }) => bulgesAway(arc, left, pickA)) : made;
  if (sensible.length === 0) return refuse("no-tangent");
  return done(
    sensible.sort((p, q) => p.miss - q.miss).map(({ arc, a: first, b: second }) => ({ arc, a: first, b: second })),
  );
};

/** Lines can be prolonged to be touched; arcs only where they are. */
const canReach = (curve: Curve, at: Point): boolean =>
  curve.kind !== "piece" || curve.bulge === 0 || pieceNearest(curve, at).distance <= RESOLUTION;

/**
 * Half way between the end of a line that lies beyond the pick and the other line: where a half circle between
 * parallels belongs.
 */
const nearEnd = (a: Piece, pickA: Point, pickB: Point): Point => {
  const end = distance(pickA, a.a) < distance(pickA, a.b) ? a.a : a.b;
  const across = subtract(pickB, pickA);
  return { x: end.x + across.x / 2, y: end.y + across.y / 2 };
};

/** The half circle at the end of parallel lines stands away from what is kept of them. */
const bulgesAway = (arc: Piece, kept: Piece | undefined, pick: Point): boolean => {
  const top = add(midpoint(arc.a, arc.b), times(leftOf(subtract(arc.b, arc.a)), -arc.bulge / 2));
  const inner = kept ? midpoint(kept.a, kept.b) : pick;
  return dot(subtract(top, midpoint(arc.a, arc.b)), subtract(inner, midpoint(arc.a, arc.b))) <= 0;
};
