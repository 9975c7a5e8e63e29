import { carrierOf, curveNearest, smoothOf, type Carrier, type Curve } from "../geometry/curve.ts";
import { ellipseAt, halfAxes, type Ellipse } from "../geometry/ellipse.ts";
import {
  along,
  angleOf,
  cross,
  distance,
  dot,
  leftOf,
  norm,
  subtract,
  turned,
  unit,
  type Point,
} from "../geometry/point.ts";
import { feetOn } from "../geometry/smooth.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { refined, rootsOn } from "../numeric/roots.ts";
import { RESOLUTION, SAME_SIZE, TANGENT_WITHIN } from "../numeric/tolerance.ts";
import type { TangentCircle } from "./tangentArcs.ts";
import type { TangentLine } from "./tangentLines.ts";

/** Something convex and round that a line can touch: a point, a circle or a whole ellipse. */
export type Round =
  | { readonly kind: "point"; readonly at: Point }
  | { readonly kind: "circle"; readonly centre: Point; readonly radius: number }
  | ({ readonly kind: "ellipse" } & Ellipse);

/** Directions looked at in a whole turn: between two of them at most one tangent is taken for granted. */
const LOOKS = 720;

/** How far a round thing reaches from its centre in a direction, and the point where it does (its support). */
const reachOf = (round: Round, normal: Point): { reach: number; at: Point } => {
  if (round.kind === "point") return { reach: 0, at: round.at };
  if (round.kind === "circle") return { reach: round.radius, at: along(round.centre, normal, round.radius) };
  const [a, b] = halfAxes(round);
  const local = turned(normal, -angleOf(round.major));
  const reach = Math.hypot(a * local.x, b * local.y);
  return { reach, at: ellipseAt(round, Math.atan2(b * local.y, a * local.x)) };
};
const middleOf = (round: Round): Point => (round.kind === "point" ? round.at : round.centre);

/**
 * All lines that touch both of two round things, at least one an ellipse: the outer ones, then the crossed ones. The
 * line with normal n touches the first where it reaches farthest along n, and the second there (outer) or farthest the
 * other way (crossed); the angle of n is found by bracketing, to resolution. One inside the other: a refusal. Source:
 * support functions of convex curves; derived here.
 */
export const tangentLinesOfRound = (from: Round, to: Round): Outcome<readonly TangentLine[]> => {
  const apart = subtract(middleOf(to), middleOf(from));
  const lines: TangentLine[] = [];
  const grid = refined([0, 2 * Math.PI], LOOKS);
  for (const crossed of to.kind === "point" || from.kind === "point" ? [false] : [false, true]) {
    const gap = (angle: number): number => {
      const n = { x: Math.cos(angle), y: Math.sin(angle) };
      const other = reachOf(to, n).reach * (crossed ? -1 : 1);
      return reachOf(from, n).reach - dot(n, apart) - other;
    };
    for (const angle of rootsOn(gap, grid)) {
      const n = { x: Math.cos(angle), y: Math.sin(angle) };
      const [a, b] = [reachOf(from, n).at, reachOf(to, crossed ? { x: -n.x, y: -n.y } : n).at];
      if (!lines.some((line) => distance(line.from, a) + distance(line.to, b) <= RESOLUTION))
        lines.push({ from: a, to: b });
    }
  }
  if (lines.length > 0) return done(lines);
  return refuse(from.kind === "point" || to.kind === "point" ? "point-inside-circle" : "circle-inside-circle");
};

/** The lines at `angle` that touch a round thing, both sides. */
export const roundTangentsAtAngle = (round: Round, angle: number): readonly Point[] => {
  const n = leftOf({ x: Math.cos(angle), y: Math.sin(angle) });
  return [reachOf(round, n).at, reachOf(round, { x: -n.x, y: -n.y }).at];
};

/**
 * The circles of radius `r` that touch an ellipse (or free curve) and another curve, from outside and inside: the
 * centre runs along the parallels of the smooth curve at r, and is where its distance from the other is r as well. By
 * bracketing along the curve, to resolution; circles that would lie deeper in a bend than its own radius are left out.
 * None: "no-tangent".
 */
export const tangentCirclesSmooth = (
  smooth: Curve & { kind: "ellipse" | "free" },
  other: Curve,
  r: number,
): Outcome<readonly TangentCircle[]> => {
  if (!(r > 0) || !Number.isFinite(r)) return refuse("value-not-positive", { what: "The radius" });
  const curve = smoothOf(smooth);
  const grid = refined(curve.breaks, 48);
  const found: TangentCircle[] = [];
  for (const side of [1, -1]) {
    const centreAt = (t: number): Point => along(curve.at(t), leftOf(unit(curve.first(t)) ?? { x: 1, y: 0 }), side * r);
    for (const gap of gapsOf(other, r))
      for (const t of rootsOn((s) => gap(centreAt(s)), grid)) {
        const centre = centreAt(t);
        const onA = curve.at(t);
        const onB = touchOn(other, centre, r);
        if (!onB || Math.abs(distance(onB, centre) - r) > TANGENT_WITHIN * Math.max(r, 1)) continue;
        if (cutsInto(curve, t, side, r)) continue;
        if (found.some((one) => distance(one.centre, centre) <= RESOLUTION)) continue;
        found.push({ centre, onA, onB });
      }
  }
  return found.length > 0 ? done(found) : refuse("no-tangent");
};

/** True when a circle touching from the side to which the curve bends is larger than the bend. */
const cutsInto = ({ first, second }: ReturnType<typeof smoothOf>, t: number, side: number, r: number): boolean => {
  const [v, w] = [first(t), second(t)];
  const bend = cross(v, w) / norm(v) ** 3; // positive: bends to the left
  return bend * side > 0 && r > (1 / Math.abs(bend)) * (1 + SAME_SIZE);
};

/**
 * What is 0 where a centre is at distance r from the other curve, each branch by itself so that it changes its sign
 * there.
 */
const gapsOf = (other: Curve, r: number): readonly ((p: Point) => number)[] => {
  const carrier = carrierOf(other);
  if (!carrier) return [(p) => curveNearest(other, p).distance - r];
  return carrierGaps(carrier, r);
};
const carrierGaps = (carrier: Carrier, r: number): readonly ((p: Point) => number)[] => {
  if (carrier.kind === "line")
    return [r, -r].map((reach) => (p: Point) => cross(carrier.direction, subtract(p, carrier.at)) - reach);
  return [carrier.radius + r, Math.abs(carrier.radius - r)].map(
    (reach) => (p: Point) => distance(p, carrier.centre) - reach,
  );
};

const touchOn = (other: Curve, centre: Point, r: number): Point | undefined => {
  const carrier = carrierOf(other);
  if (!carrier) {
    const smooth = smoothOf(other as Curve & { kind: "ellipse" | "free" });
    return feetOn(smooth, centre)
      .map(smooth.at)
      .sort((p, q) => Math.abs(distance(p, centre) - r) - Math.abs(distance(q, centre) - r))[0];
  }
  if (carrier.kind === "line") {
    const t = dot(subtract(centre, carrier.at), carrier.direction);
    return along(carrier.at, carrier.direction, t);
  }
  const direction = unit(subtract(centre, carrier.centre));
  if (!direction) return undefined;
  return [carrier.radius, -carrier.radius]
    .map((reach) => along(carrier.centre, direction, reach))
    .sort((p, q) => Math.abs(distance(p, centre) - r) - Math.abs(distance(q, centre) - r))[0];
};
