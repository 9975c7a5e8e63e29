import type { Callout } from "../drawing/callout.ts";
import { curveAt, cutEntities, type Drawing } from "../drawing/drawing.ts";
import { curvesOf } from "../drawing/entity.ts";
import type { Ref } from "../drawing/ref.ts";
import type { Curve } from "../geometry/curve.ts";
import { pieceCentre, pieceLength, pieceRadius } from "../geometry/piece.ts";
import { add, distance, dot, midpoint, subtract, times, unit, type Point } from "../geometry/point.ts";

/** A thing that a callout of some kinds may speak of: what it measures, and how well its kind fits, in errors. */
export type Candidate = {
  readonly links: readonly Ref[];
  readonly measures: number;
  readonly fits: Readonly<Partial<Record<Callout["kind"], number>>>;
  readonly curves: readonly Curve[];
  /** Between which places a distance goes: its number is written beside them, at a dimension line. */
  readonly span?: readonly [Point, Point];
  /** What goes by one name says the same: which of them is meant need not be asked. */
  readonly says?: string;
};

/** Radii that differ by less than this part are one size. */
const ONE_SIZE = 0.12;
/** An arc is half round to within so much of its bulge. */
const HALF_ROUND = 0.25;
const [MOST_CENTRES, MOST_EDGES] = [60, 10];

/** What is cut and may be called, with what it measures now. */
export const candidatesOf = (drawing: Drawing): readonly Candidate[] => {
  const found: Candidate[] = [];
  const rounds: { readonly ref: Ref; readonly curve: Curve; readonly radius: number; readonly whole: boolean }[] = [];
  const centres: { readonly ref: Ref; readonly at: Point; readonly radius: number }[] = [];
  const edges: Edge[] = [];
  for (const entity of cutEntities(drawing)) {
    const own = curvesOf(entity);
    const straight = own.filter(({ curve }) => curve.kind === "piece" && curve.bulge === 0);
    for (const { curve, ref } of own) {
      if (curve.kind === "circle") {
        rounds.push({ ref, curve, radius: curve.radius, whole: true });
        centres.push({ ref: { ...ref, place: "centre" }, at: curve.centre, radius: curve.radius });
      }
      if (curve.kind !== "piece") continue;
      if (curve.bulge === 0) {
        const says = straight.length <= MOST_EDGES ? saysAcross(curve, straight) : undefined;
        const measures = pieceLength(curve);
        found.push({ links: [ref], measures, fits: { length: 0 }, curves: [curve], ...(says ? { says } : {}) });
      } else {
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
            found.push({
              links,
              measures,
              fits: { length: 0.4 },
              curves: [p.curve, q.curve],
              span,
              says: saysOf(links),
            });
        }),
      );
    if (straight.length <= MOST_EDGES) for (const edge of straight) edges.push(edge);
    for (const slot of overall(own)) found.push(slot);
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
  if (places.length * edges.length <= MOST_CENTRES * MOST_EDGES)
    for (const { ref, at, radius } of places)
      for (const edge of edges) {
        const foot = footOn(edge.curve, at);
        // its own radius goes by another name
        if (foot && Math.abs(distance(at, foot) - radius) > ONE_SIZE * radius)
          found.push({
            links: [ref, edge.ref],
            measures: distance(at, foot),
            fits: { length: 0.6 },
            curves: [curveAt(drawing, ref)!, edge.curve],
            span: [at, foot],
            says: saysOf([isBeside(ref, places, edge.curve) ? { id: ref.id } : ref, edge.ref]),
          });
      }
  return found;
};

type Edge = { readonly ref: Ref; readonly curve: Curve };

const saysOf = (links: readonly Ref[]): string =>
  links
    .map((ref) => JSON.stringify(ref))
    .sort()
    .join(" ");

/** An edge square between two parallel ones says how far these are apart; undefined for any other. */
const saysAcross = (own: Extract<Curve, { kind: "piece" }>, straight: readonly Edge[]): string | undefined => {
  const beside = (end: Point): Edge | undefined =>
    straight.find(
      ({ curve }) => curve.kind === "piece" && curve !== own && [curve.a, curve.b].some((p) => distance(p, end) === 0),
    );
  const [p, q] = [beside(own.a), beside(own.b)];
  const span = p && q && p !== q ? spanOf(p.curve, q.curve) : undefined;
  const [along, across] = [span && unit(subtract(span[1], span[0])), unit(subtract(own.b, own.a))];
  const isSquare = along && across && Math.abs(dot(along, across)) >= NEARLY_PARALLEL;
  return isSquare ? saysOf([p!.ref, q!.ref]) : undefined;
};

/** From which place of an edge a centre is measured: square to it, beside the edge; undefined where that is none. */
const footOn = (edge: Curve, at: Point): Point | undefined => {
  if (edge.kind !== "piece") return undefined;
  const along = subtract(edge.b, edge.a);
  const t = dot(subtract(at, edge.a), along) / dot(along, along);
  return t >= 0 && t <= 1 ? add(edge.a, times(along, t)) : undefined;
};

/** True of one of a slot's two centres where it lies along an edge: either is as far from it. */
const isBeside = ({ id }: Ref, places: readonly { readonly ref: Ref; readonly at: Point }[], edge: Curve): boolean => {
  const [p, q, ...more] = places.filter(({ ref }) => ref.id === id && ref.vertex !== undefined);
  if (!p || !q || more.length > 0 || edge.kind !== "piece") return false;
  const [axis, along] = [unit(subtract(q.at, p.at)), unit(subtract(edge.b, edge.a))];
  return axis !== undefined && along !== undefined && Math.abs(dot(axis, along)) >= NEARLY_PARALLEL;
};

/** Level and upright slots from end to end: between the outmost places of two half round ends. */
const overall = (own: readonly Edge[]): readonly Candidate[] => {
  const ends = own.flatMap(({ ref, curve }) => {
    if (curve.kind !== "piece" || Math.abs(Math.abs(curve.bulge) - 1) > HALF_ROUND) return [];
    return [{ ref, curve, centre: pieceCentre(curve)!, radius: pieceRadius(curve) }];
  });
  return ends.flatMap((p, i) =>
    ends.slice(i + 1).flatMap((q): Candidate[] => {
      const way = unit(subtract(q.centre, p.centre));
      const isAlike = Math.abs(p.radius - q.radius) <= ONE_SIZE * p.radius;
      if (!way || !isAlike || Math.max(Math.abs(way.x), Math.abs(way.y)) < NEARLY_PARALLEL) return [];
      // which quarter of p looks away from q: 0 to the right, then round
      const away = (Math.round((2 * Math.atan2(-way.y, -way.x)) / Math.PI) + 4) % 4;
      const out = ({ ref }: typeof p, quarter: number): Ref => ({
        ...ref,
        place: { quarter: quarter as 0 | 1 | 2 | 3 },
      });
      const span = [add(p.centre, times(way, -p.radius)), add(q.centre, times(way, q.radius))] as const;
      return [
        {
          links: [out(p, away), out(q, (away + 2) % 4)],
          measures: distance(...span),
          fits: { length: 0.2 },
          curves: [p.curve, q.curve],
          span,
        },
      ];
    }),
  );
};

/** A hole about a boss's centre: two sizes, and no farther off than this part of the larger, is one place. */
const ABOUT = 0.2;

type Centre = { readonly at: Point; readonly radius: number };
const isAbout = (p: Centre, q: Centre): boolean => {
  const larger = Math.max(p.radius, q.radius);
  return distance(p.at, q.at) <= ABOUT * larger && Math.abs(p.radius - q.radius) > ONE_SIZE * larger;
};

/** In a drawing that is not exact yet edges this nearly parallel (cosine) have a distance. */
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
