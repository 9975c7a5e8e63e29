import { circleToPoints, lineToPoints } from "../../../fit/toPoints.ts";
import { carrierNearest, carrierOf, type Carrier } from "../../../geometry/curve.ts";
import { sweepAbout, type Piece } from "../../../geometry/piece.ts";
import { distance, midpoint, type Point } from "../../../geometry/point.ts";
import { meetCarriers, meetingPoints } from "../../../intersect/carriers.ts";
import { RESOLUTION } from "../../../numeric/tolerance.ts";
import { inkOff, type Proposal } from "../proposal.ts";
import type { Shape } from "../shapes.ts";

export type Proposals = readonly Proposal[];
export type End = "a" | "b";
export type Kind = "line" | "arc" | "circle";
/** A proposal that has ends. */
export type Ended = Proposal & { readonly shape: Extract<Shape, { kind: "piece" }> };
/** An end of a proposal. */
export type EndOf = { readonly id: number; readonly end: End; readonly at: Point };

/** Places in a picture as near as this are one. */
export const ONE = 1e-6;
/** Ink that a piece is fitted to. */
export const FEWEST = { line: 2, arc: 3, circle: 3 } as const;

export const kindOf = ({ shape }: Proposal): Kind =>
  shape.kind === "circle" ? "circle" : shape.bulge === 0 ? "line" : "arc";
export const found = (all: Proposals, id: number): Proposal | undefined => all.find((one) => one.id === id);
/** One that has ends; undefined of a circle, and where it is not there. */
export const ended = (all: Proposals, id: number): Ended | undefined => {
  const own = found(all, id);
  return own?.shape.kind === "piece" ? (own as Ended) : undefined;
};

export const endsOf = ({ id, shape }: Proposal): readonly EndOf[] =>
  shape.kind === "circle" ? [] : (["a", "b"] as const).map((end) => ({ id, end, at: shape[end] }));

/** The other proposals' ends at an end: those of its own group first, as of the two arcs that a circle is cut into. */
export const metAt = (all: Proposals, { id, shape, group }: Proposal, end: End): readonly EndOf[] => {
  if (shape.kind === "circle") return [];
  const others = all.filter((one) => one.id !== id);
  return [...others.filter((one) => one.group === group), ...others.filter((one) => one.group !== group)].flatMap(
    (one) => endsOf(one).filter(({ at }) => distance(at, shape[end]) <= ONE),
  );
};

/** Ends of two that are the nearest to each other. */
export const nearestEnds = (one: Ended, other: Ended): readonly [EndOf, EndOf] =>
  endsOf(one)
    .flatMap((p) => endsOf(other).map((q) => [p, q] as const))
    .reduce((best, pair) => (distance(pair[0].at, pair[1].at) < distance(best[0].at, best[1].at) ? pair : best));

/** The line or circle nearest to some ink; undefined where it tells none. */
export const fitted = (ink: readonly Point[], kind: Kind): Carrier | undefined => {
  if (ink.length < FEWEST[kind]) return undefined;
  if (kind === "line") {
    const piece = lineToPoints(ink)?.piece;
    return piece && carrierOf({ kind: "piece", ...piece });
  }
  const circle = circleToPoints(ink)?.circle;
  return circle && { kind: "circle", ...circle };
};

/** The part of a carrier from one place to another over the middle of some ink. */
export const pieceOn = (carrier: Carrier, a: Point, b: Point, ink: readonly Point[]): Piece => {
  if (carrier.kind === "line") return { a, b, bulge: 0 };
  const { centre } = carrier;
  const left = sweepAbout(centre, a, b, true);
  const isLeft = sweepAbout(centre, a, ink[ink.length >> 1]!, true) <= left;
  return { a, b, bulge: Math.tan((isLeft ? left : sweepAbout(centre, a, b, false)) / 4) };
};

export const withShape = (own: Proposal, shape: Shape, ink = own.ink): Proposal => ({
  ...own,
  ink,
  shape,
  off: inkOff(ink, shape),
});

/** A proposal with an end at a place, on the carrier that it has. */
export const endedAt = (own: Ended, end: End, at: Point): Proposal => {
  const [a, b] = end === "a" ? [at, own.shape.b] : [own.shape.a, at];
  return withShape(own, { kind: "piece", ...pieceOn(carrierOf(own.shape)!, a, b, own.ink) });
};

/** Where two carriers meet nearest to a place; half way between them where they don't. */
export const meeting = (one: Carrier, other: Carrier, near: Point): { readonly at: Point; readonly meets: boolean } => {
  const places = meetingPoints(meetCarriers(one, other, RESOLUTION));
  if (places.length === 0)
    return { at: midpoint(carrierNearest(one, near), carrierNearest(other, near)), meets: false };
  const at = places.reduce((best, place) => (distance(place, near) < distance(best, near) ? place : best));
  return { at, meets: true };
};

/**
 * A proposal on another carrier, ended near two places: what met it meets it where both carriers do; an end that is
 * held stays where it is said to be.
 */
export const onCarrier = (
  all: Proposals,
  own: Proposal,
  carrier: Carrier,
  near: readonly [Point, Point],
  held?: End,
): Proposals => {
  const moved = new Map<number, Proposal>();
  const [a, b] = (["a", "b"] as const).map((end, k) => {
    if (end === held) return near[k]!;
    const met = metAt(all, own, end).map(({ id, end: into }) => ({
      id,
      into,
      other: (moved.get(id) ?? found(all, id)) as Ended,
    }));
    const at = met[0]
      ? meeting(carrier, carrierOf(met[0].other.shape)!, near[k]!).at
      : carrierNearest(carrier, near[k]!);
    for (const { id, into, other } of met) moved.set(id, endedAt(other, into, at));
    return at;
  }) as [Point, Point];
  const made = withShape(own, { kind: "piece", ...pieceOn(carrier, a, b, own.ink) });
  return all.map((one) => (one.id === own.id ? made : (moved.get(one.id) ?? one)));
};
