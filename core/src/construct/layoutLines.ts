import type { Circle } from "../geometry/circle.ts";
import {
  carrierOf,
  curveNearest,
  curvePoint,
  directionAt,
  isSmooth,
  smoothOf,
  type Carrier,
  type Curve,
} from "../geometry/curve.ts";
import { endlessSide, endlessThrough, type Endless } from "../geometry/endless.ts";
import { piecePoint } from "../geometry/piece.ts";
import { along, angleOf, cross, distance, dot, leftOf, subtract, times, add, type Point } from "../geometry/point.ts";
import { equalParts } from "../geometry/smooth.ts";
import { meetCarriers } from "../intersect/carriers.ts";
import { meetings } from "../intersect/meetings.ts";
import { unitAt } from "../numeric/angle.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";

/**
 * The endless line through two points; the same point twice is a refusal. Exactly level or upright where the points
 * are.
 */
export const lineThrough = (p: Point, q: Point): Outcome<Endless> =>
  distance(p, q) <= RESOLUTION ? refuse("same-point", {}, p) : done(endlessThrough(p, q));

/**
 * The endless line through `p` square to a curve: to a straight one along its normal, to a round one through its
 * centre, to an ellipse or a free curve square to it where it is nearest. From a centre itself there is no one
 * direction: a refusal. Source: Euclid I.11, I.12 and III.18.
 */
export const lineSquareTo = (of: Curve, p: Point): Outcome<Endless> => {
  const carrier = carrierOf(of);
  if (!carrier) return done({ through: p, angle: directionAt(of, p) + Math.PI / 2 });
  if (carrier.kind === "circle") return lineThrough(p, carrier.centre);
  return done({ through: p, angle: (of.kind === "endless" ? of.angle : angleOf(carrier.direction)) + Math.PI / 2 });
};

/**
 * The bisectors of two straight curves: both of crossing ones, the one between the places picked first; the middle line
 * of parallel ones. Lines that do not reach each other are taken as far as they would meet. Source: Euclid I.9; unit
 * directions added.
 */
export const bisectorsOf = (a: Curve, pickA: Point, b: Curve, pickB: Point): Outcome<readonly Endless[]> => {
  const [onA, onB] = [carrierOf(a), carrierOf(b)];
  if (onA?.kind !== "line" || onB?.kind !== "line") return refuse("not-straight");
  const meeting = meetCarriers(onA, onB, RESOLUTION);
  if (meeting.kind === "same") return refuse("curves-same");
  if (meeting.kind !== "crossing") {
    const angle = a.kind === "endless" ? a.angle : angleOf(onA.direction);
    const across = dot(subtract(onB.at, onA.at), leftOf(onA.direction)) / 2;
    return done([{ through: along(onA.at, leftOf(onA.direction), across), angle }]);
  }
  const through = meeting.at[0]!;
  const [u, v] = [towards(onA, through, pickA), towards(onB, through, pickB)];
  const between = angleOf(add(u, v));
  return done([
    { through, angle: between },
    { through, angle: between + Math.PI / 2 },
  ]);
};

/** The carrier's direction, turned to where the pick lies from the meeting. */
const towards = (carrier: Extract<Carrier, { kind: "line" }>, from: Point, pick: Point): Point =>
  dot(subtract(pick, from), carrier.direction) < 0 ? times(carrier.direction, -1) : carrier.direction;

/** The angle between two straight curves, in radians from 0 to a quarter turn; round ones have none. */
export const angleOfLines = (a: Curve, b: Curve): Outcome<number> => {
  const [onA, onB] = [carrierOf(a), carrierOf(b)];
  if (onA?.kind !== "line" || onB?.kind !== "line") return refuse("not-straight");
  const [sine, cosine] = [cross(onA.direction, onB.direction), dot(onA.direction, onB.direction)];
  return done(Math.atan2(Math.abs(sine), Math.abs(cosine)));
};

/** The two endless lines at `angle` that touch a circle, the one nearer to `near` first. Source: Euclid III.16. */
export const tangentsAtAngle = ({ centre, radius }: Circle, angle: number, near: Point): readonly Endless[] => {
  const normal = leftOf(unitAt(angle));
  const lines = [1, -1].map((side) => ({ through: along(centre, normal, side * radius), angle }));
  return lines.sort((p, q) => Math.abs(endlessSide(p, near)) - Math.abs(endlessSide(q, near)));
};

/**
 * The points that divide a curve into `n` equal parts: between the ends of a line or arc; all round a circle, starting
 * at the point of the circle nearest to `start`. Endless lines can't be divided.
 */
export const dividingPoints = (curve: Curve, n: number, start: Point): Outcome<readonly Point[]> => {
  if (curve.kind === "endless") return refuse("cannot-divide");
  if (curve.kind === "piece") return done(Array.from({ length: n - 1 }, (_, i) => piecePoint(curve, (i + 1) / n)));
  if (isSmooth(curve)) {
    const parts = equalParts(smoothOf(curve), n);
    return done(smoothOf(curve).closed ? parts.slice(0, -1) : parts.slice(1, -1));
  }
  const from = curveNearest(curve, start).t;
  return done(Array.from({ length: n }, (_, i) => curvePoint(curve, from + (i * 2 * Math.PI) / n)));
};

/**
 * What becomes of a layout curve that is made into something to cut: an endless line is cut at the meetings next to
 * `pick` on both sides; everything else stays as it is. An endless line met on fewer than two sides is a refusal.
 */
export const cutPartOf = (layout: Curve, others: readonly Curve[], pick: Point): Outcome<Curve> => {
  if (layout.kind !== "endless") return done(layout);
  const here = curveNearest(layout, pick).t;
  const places = others
    .flatMap((other) => meetings(layout, other, RESOLUTION))
    .flatMap((meeting) => (meeting.kind === "overlap" ? [meeting.from, meeting.to] : [meeting.at]))
    .map((at) => ({ at, t: curveNearest(layout, at).t }))
    .sort((p, q) => p.t - q.t);
  const before = places.filter(({ t }) => t <= here).at(-1);
  const after = places.find(({ t }) => t > here);
  if (!before || !after) return refuse("layout-not-crossed");
  return done({ kind: "piece", a: before.at, b: after.at, bulge: 0 });
};
