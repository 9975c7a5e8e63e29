import { circleThrough } from "../construct/circlesThrough.ts";
import type { Callout } from "../drawing/callout.ts";
import { curveAt, cutEntities, type Drawing } from "../drawing/drawing.ts";
import { curvesOf } from "../drawing/entity.ts";
import { sameTarget, type Ref } from "../drawing/ref.ts";
import type { Curve } from "../geometry/curve.ts";
import { pieceCentre, pieceLength, pieceRadius } from "../geometry/piece.ts";
import { add, angleOf, distance, dot, midpoint, subtract, times, unit, type Point } from "../geometry/point.ts";
import { TURN } from "../numeric/angle.ts";

/** What answers a callout: what it is measured on, and along which axis where it is not straight. */
export type Answer = { readonly links: readonly Ref[]; readonly axis?: "x" | "y" };

/** A thing that a callout of some kinds may speak of: what it measures, and how well its kind fits, in errors. */
export type Candidate = Answer & {
  readonly measures: number;
  readonly fits: Readonly<Partial<Record<Callout["kind"], number>>>;
  readonly curves: readonly Curve[];
  /** Between which places a distance goes: its number is written beside them, at a dimension line. */
  readonly span?: readonly [Point, Point];
  /** What goes by one name says the same: which of them is meant need not be asked. */
  readonly says?: string;
  /** Of sizes: how many are of one, all of them or one alone; undefined for what is no size of curves. */
  readonly of?: number;
};

/** Radii that differ by less than this part are one size. */
const ONE_SIZE = 0.12;
/** An arc is half round to within so much of its bulge. */
const HALF_ROUND = 0.25;
/** Centres lie on a circle to within this part of its radius, evenly to within this part of a step. */
const [OFF_PITCH, OFF_EVEN] = [0.04, 0.15];
const [MOST_CENTRES, MOST_EDGES] = [60, 10];
/** No more distances of centres from edges, or of slots from centres, are looked at. */
const MOST_ASIDE = MOST_CENTRES * MOST_EDGES;

/** What is cut and may be called, with what it measures now. */
export const candidatesOf = (drawing: Drawing): readonly Candidate[] => {
  const found: Candidate[] = [];
  const rounds: Round[] = [];
  const centres: Place[] = [];
  const edges: Edge[] = [];
  const slots: Slot[] = [];
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
    const slot = slotIn(own);
    if (slot) slots.push(slot);
    else if (straight.length <= MOST_EDGES) for (const edge of straight) edges.push(edge);
  }
  rounds.sort((p, q) => p.radius - q.radius);
  for (let i = 0; i < rounds.length;) {
    const { radius } = rounds[i]!;
    const size = rounds.slice(i).findIndex((one) => one.radius > radius * (1 + ONE_SIZE));
    const group = rounds.slice(i, size < 0 ? undefined : i + size);
    i += group.length;
    for (const some of [group.filter((one) => one.whole), group.filter((one) => !one.whole)]) {
      if (some.length > 1) found.push(roundOf(some, some));
      for (const one of some) found.push(roundOf([one], some));
      const around = some[0]?.whole ? pitchOf(some.map(({ ref, curve }) => ({ ref, curve }))) : undefined;
      if (around) found.push(around);
    }
  }
  // where there are very many no distance of theirs is looked at
  const some = centres.length > 2 * MOST_ASIDE ? [] : centres;
  const places = some.filter((one, i) => !some.slice(0, i).some((other) => isAbout(one, other)));
  // nobody gives the distance of a slot's end aslant
  const slotOf = ({ ref }: Place): Slot | undefined =>
    slots.find(({ p, q }) => [p, q].some((end) => sameTarget(end.ref, ref)));
  if (places.length <= MOST_CENTRES)
    places.forEach((p, i) =>
      places.slice(i + 1).forEach((q) => {
        const far = distance(p.at, q.at);
        if (slotOf(p) !== slotOf(q)) return;
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
  if (places.length * edges.length <= MOST_ASIDE)
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
  const isFew = places.length * slots.length <= MOST_ASIDE;
  for (const slot of slots) {
    found.push(overall(slot));
    if (isFew) for (const place of places) if (slotOf(place) !== slot) found.push(asideOf(slot, place));
  }
  return found;
};

type Round = { readonly ref: Ref; readonly curve: Curve; readonly radius: number; readonly whole: boolean };
type Place = { readonly ref: Ref; readonly at: Point; readonly radius: number };
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
const isBeside = ({ id }: Ref, places: readonly Place[], edge: Curve): boolean => {
  const [p, q, ...more] = places.filter(({ ref }) => ref.id === id && ref.vertex !== undefined);
  if (!p || !q || more.length > 0 || edge.kind !== "piece") return false;
  const [axis, along] = [unit(subtract(q.at, p.at)), unit(subtract(edge.b, edge.a))];
  return axis !== undefined && along !== undefined && Math.abs(dot(axis, along)) >= NEARLY_PARALLEL;
};

/** A level or upright slot: its round ends, and which quarter of the first looks away from the other. */
type Slot = { readonly p: SlotEnd; readonly q: SlotEnd; readonly away: Quarter };
type SlotEnd = { readonly ref: Ref; readonly curve: Curve; readonly centre: Point; readonly radius: number };
/** 0 to the right, then round. */
type Quarter = 0 | 1 | 2 | 3;

const slotIn = (own: readonly Edge[]): Slot | undefined => {
  const ends = own.flatMap(({ ref, curve }): SlotEnd[] => {
    if (curve.kind !== "piece" || Math.abs(Math.abs(curve.bulge) - 1) > HALF_ROUND) return [];
    return [{ ref, curve, centre: pieceCentre(curve)!, radius: pieceRadius(curve) }];
  });
  const [p, q] = ends;
  const sides = own.filter(({ curve }) => curve.kind === "piece" && curve.bulge === 0);
  const isSlot = own.length === 4 && ends.length === 2 && sides.length === 2;
  const way = p && q && isSlot ? unit(subtract(q.centre, p.centre)) : undefined;
  if (!p || !q || !way || Math.abs(p.radius - q.radius) > ONE_SIZE * p.radius) return undefined;
  if (Math.max(Math.abs(way.x), Math.abs(way.y)) < NEARLY_PARALLEL) return undefined;
  const away = (Math.round((2 * Math.atan2(-way.y, -way.x)) / Math.PI) + 4) % 4;
  return { p, q, away: away as Quarter };
};

/** A slot from end to end: between the outmost places of its round ends. */
const overall = ({ p, q, away }: Slot): Candidate => {
  const way = unit(subtract(q.centre, p.centre))!;
  const span = [add(p.centre, times(way, -p.radius)), add(q.centre, times(way, q.radius))] as const;
  const links = [
    { ...p.ref, place: { quarter: away } },
    { ...q.ref, place: { quarter: ((away + 2) % 4) as Quarter } },
  ];
  return { links, measures: distance(...span), fits: { length: 0.2 }, curves: [p.curve, q.curve], span };
};

/** How far a slot lies aside of a centre, square to itself. */
const asideOf = ({ p, away }: Slot, { ref, at }: Place): Candidate => {
  const axis = away % 2 === 0 ? "y" : "x";
  const span = [at, axis === "y" ? { x: at.x, y: p.centre.y } : { x: p.centre.x, y: at.y }] as const;
  return {
    links: [ref, { ...p.ref, place: "centre" }],
    axis,
    measures: distance(...span),
    fits: { length: 0.4, centres: 1.2 },
    curves: [p.curve],
    span,
  };
};

/** The circle that the centres of holes of one size lie on; undefined where they lie on none. */
const pitchOf = (holes: readonly Edge[]): Candidate | undefined => {
  const centres = holes.flatMap(({ curve }) => (curve.kind === "circle" ? [curve.centre] : []));
  const [p, q, r] = [0, 1, 2].map((k) => centres[Math.floor((k * centres.length) / 3)]);
  const circle = centres.length > 2 && p && q && r ? circleThrough(p, q, r) : undefined;
  if (!circle?.ok) return undefined;
  const { centre, radius } = circle.value;
  if (centres.some((one) => Math.abs(distance(one, centre) - radius) > OFF_PITCH * radius)) return undefined;
  const turns = centres.map((one) => angleOf(subtract(one, centre))).sort((one, other) => one - other);
  const even = TURN / turns.length;
  const isEven = turns.every((turn, i) => {
    const next = turns[i + 1] ?? turns[0]! + TURN;
    return Math.abs(next - turn - even) <= OFF_EVEN * even;
  });
  const fit = isEven ? 0.1 : 0.8;
  return {
    links: holes.map(({ ref }) => ({ ...ref, place: "centre" as const })),
    measures: radius,
    fits: { diameter: fit, radius: fit },
    curves: [{ kind: "circle", centre, radius }],
  };
};

/** A hole about a boss's centre: two sizes, and no farther off than this part of the larger, is one place. */
const ABOUT = 0.2;

const isAbout = (p: Place, q: Place): boolean => {
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

/** The size of some of those that are of one size. */
const roundOf = (some: readonly Round[], all: readonly Round[]): Candidate => {
  const [{ radius, whole }] = some as [Round, ...Round[]];
  return {
    links: some.map(({ ref }) => ref),
    curves: some.map(({ curve }) => curve),
    measures: radius,
    fits: whole ? { diameter: 0, radius: 0.8 } : { radius: 0, diameter: 0.4 },
    of: all.length,
  };
};
