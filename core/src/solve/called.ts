import { placeOf } from "../attach/places.ts";
import { entityOf, roundAt } from "../drawing/drawing.ts";
import type { Callout } from "../drawing/callout.ts";
import type { Ref } from "../drawing/ref.ts";
import { distance, subtract, type Point } from "../geometry/point.ts";
import { circleThrough } from "../construct/circlesThrough.ts";
import { TRUE_WITHIN } from "../numeric/tolerance.ts";
import { agree, along, apart, beside, turnedBy, vanishes, type Equation } from "./equations.ts";
import { combined, combinedSpots, constant, LEVEL, linAt, spotAt, type Spot } from "./lin.ts";
import type { Model } from "./model.ts";

const HALF_TURN = Math.PI;

/**
 * What makes a placed callout measure `value` (units of the job, or degrees), as `measureCallout` measures it; on which
 * side a distance lies and which way an angle turns is as it is drawn. Undefined where that is not told by moving
 * geometry: counts, threads, places on ellipses and free curves.
 */
export const calledEquations = (model: Model, callout: Callout, value: number): readonly Equation[] | undefined => {
  const { kind, links } = callout;
  const [first, second] = links;
  if (!first) return undefined;
  const far = value / model.size;
  switch (kind) {
    case "radius":
    case "diameter": {
      const radius = kind === "radius" ? far : far / 2;
      if (links.length > 2 && links.every(({ place }) => place === "centre")) return pitchCircle(model, links, radius);
      const sizes = links.flatMap((ref) => {
        if (!roundAt(model.drawing, ref)) return [];
        const round = model.roundOf(ref);
        return [round && agree(round.radius, constant(radius))];
      });
      return allOf(sizes);
    }
    case "length":
    case "centres": {
      if (second && callout.axis) return alongAxis(model, first, second, callout.axis, far);
      if (second) return farApart(model, first, second, far);
      if (first.place !== undefined) return undefined;
      const edge = model.edgeOf(first);
      if (!edge || edge.flat) return undefined;
      if (!edge.arc) return [apart(edge.a, edge.b, constant(far))];
      const { centre, radius, sweep } = edge.arc;
      return [along(edge.a, edge.b, centre, radius, Math.sign(sweep), Math.abs(sweep), constant(far))];
    }
    case "angle":
      return angled(model, callout, value);
    case "chamfer":
      return chamfered(model, callout, value);
    // a hole is drilled for its thread by the table, never to the thread's own size
    case "thread":
    case "count":
      return undefined;
  }
};

const allOf = (equations: readonly (Equation | undefined)[]): readonly Equation[] | undefined =>
  equations.length === 0 || equations.some((one) => !one) ? undefined : (equations as readonly Equation[]);

const now = (model: Model, p: Spot): Point => spotAt(p, model.start);

/** The circle that centres lie on, its middle an unknown of its own. */
const pitchCircle = (model: Model, links: readonly Ref[], radius: number): readonly Equation[] | undefined => {
  const spots = links.map((ref) => model.spotOf(ref));
  if (spots.some((one) => !one)) return undefined;
  const places = (spots as Spot[]).map((one) => now(model, one));
  const circle = circleThrough(places[0]!, places[1]!, places[2]!);
  if (!circle.ok) return undefined;
  const { centre } = circle.value;
  const middle = model.helpSpot(centre);
  return (spots as Spot[]).map((one) => apart(one, middle, constant(radius)));
};

const alongAxis = (model: Model, p: Ref, q: Ref, axis: "x" | "y", far: number): readonly Equation[] | undefined => {
  const [one, other] = [model.spotOf(p), model.spotOf(q)];
  if (!one || !other) return undefined;
  const by = combined(other[axis], one[axis], 1, -1);
  const way = linAt(by, model.start) < 0 ? -1 : 1;
  return [vanishes({ ...by, plus: by.plus - way * far })];
};

/** Two things so far apart, as `spanBetween` measures them. */
const farApart = (model: Model, p: Ref, q: Ref, far: number): readonly Equation[] | undefined => {
  const { drawing, start, size } = model;
  const [placeP, placeQ] = [placeOf(drawing, p), placeOf(drawing, q)];
  if ((p.place !== undefined && !placeP) || (q.place !== undefined && !placeQ)) return undefined;
  if (placeP && placeQ) {
    const [one, other] = [model.spotOf(p), model.spotOf(q)];
    if (!one || !other) return undefined;
    if (far === 0) return [agree(one.x, other.x), agree(one.y, other.y)];
    return [apart(one, other, constant(far))];
  }
  if (placeP || placeQ) {
    const place = model.spotOf(placeP ? p : q);
    return place && toCurve(model, place, placeP ? q : p, far);
  }
  const [lineP, lineQ] = [model.lineOf(p), model.lineOf(q)];
  const [roundP, roundQ] = [model.roundOf(p), model.roundOf(q)];
  if (lineP && lineQ) {
    const u = subtract(now(model, lineP[1]), now(model, lineP[0]));
    const length = Math.hypot(u.x, u.y);
    const middle = combinedSpots(lineP[0], lineP[1], 0.5, 0.5);
    return [...(toCurve(model, middle, q, far) ?? []), turnedBy(lineQ, lineP, 0, HALF_TURN, length)];
  }
  if (roundP && roundQ) {
    const [c, d] = [now(model, roundP.centre), now(model, roundQ.centre)];
    if (distance(c, d) * size > TRUE_WITHIN) return [apart(roundP.centre, roundQ.centre, constant(far))];
    const by = combined(roundP.radius, roundQ.radius, 1, -1);
    const way = linAt(by, start) < 0 ? -1 : 1;
    return [
      agree(roundP.centre.x, roundQ.centre.x),
      agree(roundP.centre.y, roundQ.centre.y),
      vanishes({ ...by, plus: by.plus - way * far }),
    ];
  }
  if (roundP && lineQ) return toCurve(model, roundP.centre, q, far);
  return roundQ && lineP ? toCurve(model, roundQ.centre, p, far) : undefined;
};

/** A place so far from a line, or from a circle's edge, on the side on which it is. */
const toCurve = (model: Model, place: Spot, ref: Ref, far: number): readonly Equation[] | undefined => {
  const at = now(model, place);
  const line = model.lineOf(ref);
  if (line) {
    const [a, b] = [now(model, line[0]), now(model, line[1])];
    const side = (b.x - a.x) * (at.y - a.y) - (b.y - a.y) * (at.x - a.x) < 0 ? -1 : 1;
    return [beside(line[0], line[1], place, constant(far), side)];
  }
  const round = model.roundOf(ref);
  if (!round) return undefined;
  const side = distance(at, now(model, round.centre)) < linAt(round.radius, model.start) ? -1 : 1;
  return [apart(place, round.centre, combined(round.radius, constant(side * far)))];
};

/** Two lines, or the direction between two places, at an angle; in the direction in which they are drawn. */
const angled = (model: Model, { links }: Callout, degrees: number): readonly Equation[] | undefined => {
  const [first, second] = links;
  const [p, q] = [first && model.spotOf(first), second && model.spotOf(second)];
  const called = (degrees * Math.PI) / 180;
  if (p && q) {
    const length = distance(now(model, p), now(model, q));
    return [turnedBy(LEVEL, [p, q], called, 2 * Math.PI, length)];
  }
  const turned = (ref: Ref): readonly [Spot, Spot] | undefined => {
    const line = model.lineOf(ref);
    return line && ref.turned ? [line[1], line[0]] : line;
  };
  const one = first && turned(first);
  const other = second ? turned(second) : LEVEL;
  if (!one || !other) return undefined;
  const [u, v] = [one, other].map(([a, b]) => subtract(now(model, b), now(model, a))) as [Point, Point];
  const by = Math.atan2(v.x * u.y - v.y * u.x, v.x * u.x + v.y * u.y);
  const way = by < 0 ? -1 : 1;
  return [turnedBy(other, one, way * called, 2 * Math.PI, Math.hypot(u.x, u.y))];
};

/** A chamfer's legs from the sharp corner, the nearer way round. */
const chamfered = (model: Model, { links, angle, other }: Callout, value: number): readonly Equation[] | undefined => {
  const legs = [value, other ?? value * Math.tan(((angle ?? 45) * Math.PI) / 180)].map((leg) => leg / model.size);
  const all = links.map((ref): readonly Equation[] | undefined => {
    const edge = model.edgeOf(ref);
    const corner = edge && model.spotOf({ ...ref, place: "sharp" });
    if (!edge || !corner || entityOf(model.drawing, ref.id)?.kind !== "chain") return undefined;
    const [a, b] = [edge.a, edge.b].map((end) => distance(now(model, end), now(model, corner))) as [number, number];
    const straight = Math.max(Math.abs(a - legs[0]!), Math.abs(b - legs[1]!));
    const crossed = Math.max(Math.abs(a - legs[1]!), Math.abs(b - legs[0]!));
    const [one, two] = straight <= crossed ? legs : [legs[1]!, legs[0]!];
    return [apart(edge.a, corner, constant(one!)), apart(edge.b, corner, constant(two!))];
  });
  return all.some((one) => !one) ? undefined : all.flatMap((one) => one!);
};
