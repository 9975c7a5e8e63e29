import { placeOf } from "../attach/places.ts";
import { spanBetween } from "../attach/spanBetween.ts";
import type { Callout } from "../drawing/callout.ts";
import { curveAt, entityOf, roundAt, settingsOf, threadMarkOn, type Drawing } from "../drawing/drawing.ts";
import type { Ref } from "../drawing/ref.ts";
import { carrierOf, curveLength, isSmooth } from "../geometry/curve.ts";
import { circleThrough } from "../construct/circlesThrough.ts";
import { chainPieces } from "../contour/chain.ts";
import { pieceLength } from "../geometry/piece.ts";
import { angleOf, cross, distance, subtract, type Point } from "../geometry/point.ts";
import { signedAngle, toDegrees } from "../numeric/angle.ts";
import { SAME_DIRECTION, TRUE_WITHIN } from "../numeric/tolerance.ts";

/** How a callout stands: by `by` = measured - called. */
export type CalloutState =
  /** `placed`: so many of the things that it speaks of answer it already. */
  | { readonly state: "not placed"; readonly placed?: number }
  | { readonly state: "true" | "within" | "off"; readonly measured: number; readonly by: number };

/** The outer diameter of the thread that a hole bears by its mark; undefined where it bears none, or is too wide. */
const threadIn = (drawing: Drawing, hole: Ref): number | undefined => {
  const size = threadMarkOn(drawing, hole)?.size;
  const core = 2 * (roundAt(drawing, hole)?.radius ?? Infinity);
  return size !== undefined && size > core ? size : undefined;
};

/** The distance between two things: points, parallel lines, concentric circles, or a point and a curve. */
export const distanceBetween = (drawing: Drawing, p: Ref, q: Ref): number | undefined => {
  const span = spanBetween(drawing, p, q);
  return span && distance(span.from, span.to);
};

/** The direction of a referenced straight line (radians), the way it is seen; undefined for what is not straight. */
const directionOf = (drawing: Drawing, ref: Ref): number | undefined => {
  const curve = curveAt(drawing, ref);
  const carrier = curve && carrierOf(curve);
  return carrier?.kind === "line" ? angleOf(carrier.direction) + (ref.turned ? Math.PI : 0) : undefined;
};

const measureLinks = (drawing: Drawing, callout: Callout): number | undefined => {
  const { kind, links, value } = callout;
  const [first, second] = links;
  if (!first) return undefined;
  switch (kind) {
    case "radius":
    case "diameter":
    case "thread": {
      if (links.length > 2 && links.every(({ place }) => place === "centre")) return pitchCircle(drawing, callout);
      const sizes = links.flatMap((ref) => {
        const round = roundAt(drawing, ref)?.radius;
        if (round === undefined) return [];
        return kind === "radius" ? round : ((kind === "thread" ? threadIn(drawing, ref) : undefined) ?? 2 * round);
      });
      const worst = sizes.sort((p, q) => Math.abs(q - value) - Math.abs(p - value));
      return worst[0];
    }
    case "length":
    case "centres": {
      if (second && callout.axis) return alongAxis(drawing, first, second, callout.axis);
      if (second) return distanceBetween(drawing, first, second);
      if (first.place !== undefined) return undefined;
      const curve = curveAt(drawing, first);
      if (curve?.kind === "piece") return pieceLength(curve);
      return curve && isSmooth(curve) ? curveLength(curve) : undefined;
    }
    case "chamfer":
      return chamferMeasured(drawing, callout);
    case "angle": {
      const [from, to] = [placeOf(drawing, first), second && placeOf(drawing, second)];
      // the direction from one place to another, as near as it comes to what is called
      if (from && to) return nearestTurn(toDegrees(angleOf(subtract(to, from))), value);
      const [one, other] = [directionOf(drawing, first), second ? directionOf(drawing, second) : 0];
      if (one === undefined || other === undefined) return undefined;
      return Math.abs(toDegrees(signedAngle(one - other)));
    }
    case "count":
      return links.filter((ref) => (ref.vertex === undefined ? entityOf(drawing, ref.id) : curveAt(drawing, ref)))
        .length;
  }
};

/** How far two places are apart along an axis; undefined where one of them is gone. */
const alongAxis = (drawing: Drawing, p: Ref, q: Ref, axis: "x" | "y"): number | undefined => {
  const [one, other] = [placeOf(drawing, p), placeOf(drawing, q)];
  return one && other && Math.abs(other[axis] - one[axis]);
};

/** An angle in degrees, counted round so that it is as near as it comes to another. */
const nearestTurn = (degrees: number, to: number): number => degrees + 360 * Math.round((to - degrees) / 360);

/**
 * The size of the circle that centres lie on, by the one that lies farthest off it; undefined where they lie on none.
 */
const pitchCircle = (drawing: Drawing, { kind, links, value }: Callout): number | undefined => {
  const places = links.map((ref) => placeOf(drawing, ref));
  if (places.some((place) => !place)) return undefined;
  const [p, q, ...rest] = places as Point[];
  const circles = rest.flatMap((r) => {
    const circle = circleThrough(p!, q!, r);
    return circle.ok ? [circle.value] : [];
  });
  const [circle] = circles;
  if (!circle) return undefined;
  const factor = kind === "radius" ? 1 : 2;
  const sizes = (places as Point[]).map((place) => factor * distance(place, circle.centre));
  return sizes.reduce((worst, size) => (Math.abs(size - value) > Math.abs(worst - value) ? size : worst));
};

/**
 * How far a chamfer lies along the sides of the corner that it cuts, called so that by its greater miss: of a chain's
 * straight piece between straight neighbours; undefined for anything else.
 */
const chamferMeasured = (drawing: Drawing, { links, value, angle, other }: Callout): number | undefined => {
  const called = [value, other ?? value * Math.tan(((angle ?? 45) * Math.PI) / 180)] as const;
  const misses = links.map((ref) => {
    const legs = chamferLegs(drawing, ref);
    if (!legs) return undefined;
    const [one, two] = legs;
    const ways = [
      [one - called[0], two - called[1]],
      [two - called[0], one - called[1]],
    ].map((by) => (Math.abs(by[0]!) > Math.abs(by[1]!) ? by[0]! : by[1]!));
    return Math.abs(ways[0]!) <= Math.abs(ways[1]!) ? ways[0]! : ways[1]!;
  });
  if (misses.some((miss) => miss === undefined)) return undefined;
  return value + misses.reduce<number>((worst, miss) => (Math.abs(miss!) > Math.abs(worst) ? miss! : worst), 0);
};

/** From where its neighbours would meet to both ends of a straight piece of a chain. */
const chamferLegs = (drawing: Drawing, { id, vertex }: Ref): readonly [number, number] | undefined => {
  const chain = entityOf(drawing, id);
  if (chain?.kind !== "chain" || vertex === undefined) return undefined;
  const pieces = chainPieces(chain);
  const at = chain.vertices.findIndex((one) => one.id === vertex);
  const [before, own, after] = [-1, 0, 1].map((by) => {
    const n = at + by;
    return pieces[chain.closed ? (n + pieces.length) % pieces.length : n];
  });
  if (!before || !own || !after || before.bulge !== 0 || own.bulge !== 0 || after.bulge !== 0) return undefined;
  const [u, v] = [subtract(before.b, before.a), subtract(after.b, after.a)];
  const turn = cross(u, v);
  if (Math.abs(turn) <= SAME_DIRECTION * Math.hypot(u.x, u.y) * Math.hypot(v.x, v.y)) return undefined;
  const t = cross(subtract(after.a, before.a), v) / turn;
  const corner = { x: before.a.x + t * u.x, y: before.a.y + t * u.y };
  return [distance(corner, own.a), distance(corner, own.b)];
};

/**
 * How far a callout may be off, below and above: its own limits or tolerance, else the job's; angles and counts have
 * only their own.
 */
export const allowedOff = (drawing: Drawing, callout: Callout): { low: number; high: number } | undefined => {
  const { kind, limits, tolerance } = callout;
  if (limits) return limits;
  const general = ["length", "centres", "radius", "diameter", "chamfer"].includes(kind)
    ? settingsOf(drawing).generalTolerance
    : undefined;
  const either = tolerance ?? general;
  return either === undefined ? undefined : { low: -either, high: either };
};

/**
 * How a callout stands against the drawing now. True within 1e-6 of its value; inside its tolerance but not true is
 * "within".
 */
export const measureCallout = (drawing: Drawing, callout: Callout): CalloutState => {
  const measured = measureLinks(drawing, callout);
  if (measured === undefined) return { state: "not placed" };
  const { times, links } = callout;
  if (times !== undefined && links.length < times) return { state: "not placed", placed: links.length };
  return standingAt(drawing, callout, measured);
};

/** How a callout stands where what it calls measures so much. */
export const standingAt = (
  drawing: Drawing,
  callout: Callout,
  measured: number,
): Exclude<CalloutState, { state: "not placed" }> => {
  const { bound } = callout;
  const by = measured - callout.value;
  if (bound) {
    const kept = bound === "max" ? by <= TRUE_WITHIN : by >= -TRUE_WITHIN;
    return { state: Math.abs(by) <= TRUE_WITHIN ? "true" : kept ? "within" : "off", measured, by };
  }
  if (Math.abs(by) <= TRUE_WITHIN) return { state: "true", measured, by };
  const allowed = allowedOff(drawing, callout);
  const within = allowed !== undefined && by >= allowed.low - TRUE_WITHIN && by <= allowed.high + TRUE_WITHIN;
  return { state: within ? "within" : "off", measured, by };
};
