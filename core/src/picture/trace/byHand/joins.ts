import { tangentLinesFromPoint } from "../../../construct/tangentLines.ts";
import { carrierNearest, carrierOf, curveNearest, type Carrier } from "../../../geometry/curve.ts";
import { cross, distance, dot, midpoint, subtract, type Point } from "../../../geometry/point.ts";
import { pointGrid } from "../../../geometry/pointGrid.ts";
import { unitAt } from "../../../numeric/angle.ts";
import { done, refuse, type Outcome } from "../../../numeric/outcome.ts";
import type { Shape } from "../shapes.ts";
import { holdsOf, type Hold } from "./holds.ts";
import { asKind } from "./refits.ts";
import {
  ended,
  endedAt,
  endsOf,
  fitted,
  found,
  kindOf,
  meeting,
  metAt,
  ONE,
  nearestEnds,
  onCarrier,
  pieceOn,
  withShape,
  type End,
  type Ended,
  type EndOf,
  type Proposals,
} from "./pieces.ts";

/** A place that is moved goes on to where pieces meet no farther than so many times what their ink strays. */
const FAR = 6;
/** Places at which a piece may touch another are tried, so many each way, and so often nearer to the best. */
const [TRIED, TURNS] = [24, 4];

/** Two proposals run to where what they lie on meets, by the ends that are the nearest. Refused where it does not. */
export const toCorner = (all: Proposals, one: number, other: number): Outcome<Proposals> => {
  const [p, q] = [ended(all, one), ended(all, other)];
  if (!p || !q) return refuse("trace-no-corner");
  const [own, into] = nearestEnds(p, q);
  const { at, meets } = meeting(carrierOf(p.shape)!, carrierOf(q.shape)!, midpoint(own.at, into.at));
  if (!meets) return refuse("trace-no-corner");
  return done(
    all.map((two) => (two.id === one ? endedAt(p, own.end, at) : two.id === other ? endedAt(q, into.end, at) : two)),
  );
};

/**
 * The first of two proposals made to touch the other with the end that is nearer to it, the other end where it is: a
 * line turned, an arc of the radius that lies nearest to its ink. The other ends there, too, unless it is a circle.
 */
export const toTouch = (all: Proposals, one: number, other: number): Outcome<Proposals> => {
  const [p, q] = [ended(all, one), found(all, other)];
  const carrier = q && carrierOf(q.shape);
  if (!p || !carrier) return refuse("trace-no-touch");
  const away = (end: End): number => curveNearest(q.shape, p.shape[end]).distance;
  const end = away("a") < away("b") ? "a" : "b";
  const touched = touching(p, end, carrier);
  if (!touched) return refuse("trace-no-touch");
  const near = endsOf(q).reduce<EndOf | undefined>(
    (best, own) => (best && distance(best.at, touched.at) <= distance(own.at, touched.at) ? best : own),
    undefined,
  );
  return done(
    all.map((two) => {
      if (two.id === one) return withShape(p, touched.shape);
      return two.id === other && near ? endedAt(q as Ended, near.end, touched.at) : two;
    }),
  );
};

/** What a piece is that touches a carrier with an end, and where; undefined where none does. */
const touching = (p: Ended, end: End, carrier: Carrier): { readonly shape: Shape; readonly at: Point } | undefined => {
  const fixed = p.shape[end === "a" ? "b" : "a"];
  const from = p.shape[end];
  const between = (at: Point): readonly [Point, Point] => (end === "a" ? [at, fixed] : [fixed, at]);
  if (kindOf(p) === "line") {
    const lines = carrier.kind === "circle" ? tangentLinesFromPoint(fixed, carrier) : undefined;
    if (!lines?.ok) return undefined;
    const { to: at } = lines.value.reduce((best, line) =>
      distance(line.to, from) < distance(best.to, from) ? line : best,
    );
    const [a, b] = between(at);
    return { shape: { kind: "piece", a, b, bulge: 0 }, at };
  }
  let best: { readonly shape: Shape; readonly at: Point; readonly off: number } | undefined;
  let [middle, reach] = [carrierNearest(carrier, from), distance(from, fixed) / 2];
  for (let turn = 0; turn < TURNS; turn++) {
    for (let k = -TRIED; k <= TRIED; k++) {
      const at = movedAlong(carrier, middle, (k / TRIED) * reach);
      const round = circleTouching(carrier, at, fixed);
      if (!round) continue;
      const shape: Shape = { kind: "piece", ...pieceOn(round, ...between(at), p.ink) };
      const off = p.ink.reduce((sum, place) => sum + curveNearest(shape, place).distance ** 2, 0);
      if (off < (best?.off ?? Infinity)) best = { shape, at, off };
    }
    if (!best) return undefined;
    [middle, reach] = [best.at, (2 * reach) / TRIED];
  }
  return best;
};

/** A place moved along a carrier. */
const movedAlong = (carrier: Carrier, { x, y }: Point, by: number): Point => {
  if (carrier.kind === "line") return { x: x + by * carrier.direction.x, y: y + by * carrier.direction.y };
  const { centre, radius } = carrier;
  const out = unitAt(Math.atan2(y - centre.y, x - centre.x) + by / radius);
  return { x: centre.x + radius * out.x, y: centre.y + radius * out.y };
};

/** The circle that touches a carrier at a place and goes through another: its centre is as far from both. */
const circleTouching = (carrier: Carrier, at: Point, through: Point): Carrier | undefined => {
  const way =
    carrier.kind === "line"
      ? carrier.direction
      : { x: (carrier.centre.y - at.y) / carrier.radius, y: (at.x - carrier.centre.x) / carrier.radius };
  const chord = subtract(through, at);
  const across = cross(way, chord);
  if (across === 0) return undefined;
  const radius = dot(chord, chord) / (2 * across);
  return {
    kind: "circle",
    centre: { x: at.x - radius * way.y, y: at.y + radius * way.x },
    radius: Math.abs(radius),
  };
};

/** Where proposals meet end to end, each once: places that can be moved. Of three those of one group. */
export const breaksOf = (all: Proposals): readonly EndOf[] => {
  const ends = all.flatMap((one) => endsOf(one).map((end) => ({ ...end, group: one.group })));
  const grid = pointGrid(
    ends.map(({ at }) => at),
    ONE,
  );
  const partners = ends.map((own, i) => {
    const others: number[] = [];
    grid.near(own.at, (k) => {
      if (ends[k]!.id !== own.id && distance(ends[k]!.at, own.at) <= ONE) others.push(k);
    });
    return others.find((k) => ends[k]!.group === ends[i]!.group) ?? others[0];
  });
  return ends.filter((_, i) => {
    const other = partners[i];
    return other !== undefined && other > i && partners[other] === i;
  });
};

/**
 * The place where two proposals meet put elsewhere: the ink up to there is the one's, the rest the other's; both are
 * fitted anew and meet where they go near it.
 */
export const breakMoved = (all: Proposals, one: number, end: End, to: Point): Outcome<Proposals> => {
  const p = ended(all, one);
  const met = p && metAt(all, p, end)[0];
  const q = met && ended(all, met.id);
  if (!p || !q) return refuse("trace-no-break");
  const before = end === "b" ? p.ink : p.ink.toReversed();
  const ink = [...before, ...(met.end === "a" ? q.ink : q.ink.toReversed())];
  const near = ink.reduce((best, place, i) => (distance(place, to) < distance(ink[best]!, to) ? i : best), 0);
  const inks = [ink.slice(0, near + 1), ink.slice(near)] as const;
  const [first, second] = [fitted(inks[0], kindOf(p)), fitted(inks[1], kindOf(q))];
  if (!first || !second) return refuse("trace-no-break");
  // what goes on smoothly meets anywhere along a long way: there it stays where it was put
  const { at } = meeting(first, second, ink[near]!);
  const place = distance(at, ink[near]!) <= FAR * Math.max(p.off, q.off) ? at : ink[near]!;
  const put = (now: Proposals, own: Ended, at2: End, carrier: Carrier, ink: readonly Point[]): Proposals => {
    const [a, b] = at2 === "a" ? [place, own.shape.b] : [own.shape.a, place];
    const changed = { ...own, ink: at2 === (own === p ? "b" : "a") ? ink : ink.toReversed() };
    return onCarrier(
      now.map((two) => (two.id === own.id ? changed : two)),
      changed,
      carrier,
      [a, b],
      at2,
    );
  };
  return done(put(put(all, p, end, first, inks[0]), q, met.end, second, inks[1]));
};

/**
 * A proposal without one thing that was found to hold at it: fitted to its own ink, and made to touch again what it
 * touches else, where an end of it is free to move for that.
 */
export const letGo = (all: Proposals, id: number, hold: Hold): Outcome<Proposals> => {
  const own = found(all, id);
  if (!own) return refuse("trace-no-fit", { kind: "line" });
  const others = holdsOf(all, own).flatMap((one) =>
    one.kind === "touches" && !(hold.kind === "touches" && hold.other === one.other) ? [one.other] : [],
  );
  const free = asKind(all, id, kindOf(own));
  // with both ends tied, one that touches at either would bend away from its ink
  if (!free.ok || others.length !== 1) return free;
  const touching = toTouch(free.value, id, others[0]!);
  return touching.ok ? touching : free;
};
