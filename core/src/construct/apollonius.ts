import { greatest } from "../numeric/greatest.ts";
import type { Circle } from "../geometry/circle.ts";
import { carrierNearest, type Carrier } from "../geometry/curve.ts";
import { along, distance, dot, leftOf, subtract, unit, type Point } from "../geometry/point.ts";
import { meetCarriers } from "../intersect/carriers.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import {
  DISCRIMINANT,
  LAST_DIGIT,
  NEGLIGIBLE,
  RESOLUTION,
  ROUNDING,
  STRAYS,
  residualBound,
} from "../numeric/tolerance.ts";

/** A circle that touches three others, with its touching points in their order. */
export type TouchingCircle = Circle & { readonly touches: readonly [Point, Point, Point] };

/** One condition on (x, y, r) from the base: linear, a·(x, y, r) = b. */
type Row = readonly [x: number, y: number, r: number, b: number];

const NEWTON_STEPS = 12;

/**
 * All circles that touch three of lines and circles (arcs by their circle), from outside and from inside: up to eight,
 * in the fixed order of the signs outside before inside. None: "no-tangent"; two of the three the same: "curves-same".
 *
 * Each circle asks |c - cᵢ| = |r + sᵢ rᵢ| and each line n·c - d = sᵢ r. Differences of two circles' equations are
 * linear, so two linear conditions leave a line in (x, y, r), which meets the base's cone (or plane) in two points (or
 * one). Worked from the base's centre, then polished by Newton's steps on the conditions themselves. Source:
 * Apollonius' problem by Viète's and Gergonne's sign cases; algebra derived here. Residual: the bound of the contracts.
 */
export const circlesTouchingThree = (a: Carrier, b: Carrier, c: Carrier): Outcome<readonly TouchingCircle[]> => {
  const all = [a, b, c];
  const largest = greatest(all.map(largestOf));
  const bound = residualBound(greatest([...all.map(sizeOf), spread(all)]), largest);
  for (const [p, q] of [
    [a, b],
    [b, c],
    [a, c],
  ] as const)
    if (meetCarriers(p, q, bound).kind === "same") return refuse("curves-same");

  // the base: the smallest circle where there is one
  const order = [0, 1, 2].sort((i, j) => baseRank(all[i]!) - baseRank(all[j]!));
  const [base, second, third] = order.map((i) => all[i]!) as [Carrier, Carrier, Carrier];
  const origin = base.kind === "circle" ? base.centre : meetingOf(all);
  const found: { centre: Point; radius: number }[] = [];
  for (const s of SIGNS)
    for (const t of SIGNS) {
      const rows = [rowOf(second, s, base, origin), rowOf(third, t, base, origin)] as const;
      const solutions =
        base.kind === "circle" ? onCone(rows, base.radius) : onPlane([lineRow(base, 1, origin), ...rows]);
      for (const [x, y, r] of solutions) {
        const polished = polish({ x: origin.x + x, y: origin.y + y, r }, [
          [base, 1],
          [second, s],
          [third, t],
        ]);
        if (polished) found.push(polished);
      }
    }
  const circles: TouchingCircle[] = [];
  for (const { centre, radius } of found) {
    if (!(radius > RESOLUTION) || radius > 1e9) continue;
    const own = residualBound(
      greatest([radius, ...all.map(sizeOf)]),
      Math.max(largest, Math.abs(centre.x) + Math.abs(centre.y)),
    );
    if (circles.some((other) => distance(other.centre, centre) + Math.abs(other.radius - radius) <= 1e3 * own))
      continue;
    const touches = all.map((carrier) => touchOf(carrier, centre, radius));
    if (touches.some((touch) => !touch || missOf(touch, centre, radius) > 16 * own)) continue;
    circles.push({ centre, radius, touches: touches as [Point, Point, Point] });
  }
  if (circles.length === 0) return refuse("no-tangent");
  const inside = (circle: TouchingCircle): number =>
    all.reduce((sum, carrier) => sum * 2 + (isOutside(carrier, circle) ? 0 : 1), 0);
  return done(circles.sort((p, q) => inside(p) - inside(q) || p.radius - q.radius));
};

const SIGNS = [1, -1] as const;
const sizeOf = (carrier: Carrier): number => (carrier.kind === "circle" ? carrier.radius : 0);
const placeOf = (carrier: Carrier): Point => (carrier.kind === "circle" ? carrier.centre : carrier.at);
const largestOf = (carrier: Carrier): number => {
  const { x, y } = placeOf(carrier);
  return Math.max(Math.abs(x), Math.abs(y)) + sizeOf(carrier);
};
/** How far apart three carriers lie: what is involved is of this size. */
const spread = (all: readonly Carrier[]): number => {
  const circles = all.filter((carrier) => carrier.kind === "circle");
  if (circles.length === 0) return 1;
  return greatest(all.map((carrier) => distance(carrierNearest(carrier, circles[0]!.centre), circles[0]!.centre)));
};
const baseRank = (carrier: Carrier): number => (carrier.kind === "circle" ? carrier.radius : Infinity);

/** Three lines are worked from where two of them meet, so that nothing cancels far from the origin. */
const meetingOf = (all: readonly Carrier[]): Point => {
  for (const [i, j] of [
    [0, 1],
    [1, 2],
    [0, 2],
  ] as const) {
    const meeting = meetCarriers(all[i]!, all[j]!, 0);
    if (meeting.kind === "crossing") return meeting.at[0]!;
  }
  return placeOf(all[0]!);
};

const lineRow = (line: Carrier & { kind: "line" }, sign: number, origin: Point): Row => {
  const n = leftOf(line.direction);
  return [n.x, n.y, -sign, dot(n, subtract(line.at, origin))];
};

/** The linear condition of another carrier: a line's own, or a circle's less the base's. */
const rowOf = (other: Carrier, sign: number, base: Carrier, origin: Point): Row => {
  if (other.kind === "line") return lineRow(other, sign, origin);
  const { x, y } = subtract(other.centre, origin);
  const own = base.kind === "circle" ? base.radius : 0;
  // |c|² = (r + R)² and |c - ci|² = (r + s Ri)², taken from each other
  return [2 * x, 2 * y, 2 * (sign * other.radius - own), x * x + y * y - other.radius * other.radius + own * own];
};

const crossRows = (p: Row, q: Row): readonly [number, number, number] => [
  p[1] * q[2] - p[2] * q[1],
  p[2] * q[0] - p[0] * q[2],
  p[0] * q[1] - p[1] * q[0],
];

/** Where the line of two linear conditions meets the cone x² + y² = (r + R)². */
const onCone = ([p, q]: readonly [Row, Row], radius: number): readonly (readonly [number, number, number])[] => {
  const d = crossRows(p, q);
  const size = Math.hypot(...d);
  const scale = Math.hypot(p[0], p[1], p[2]) * Math.hypot(q[0], q[1], q[2]);
  if (!(size > ROUNDING * scale)) return [];
  // the point of the line nearest to the origin: (b_p (q × d) + b_q (d × p)) / d²
  const [qd, dp] = [crossRows(q, [d[0], d[1], d[2], 0]), crossRows([d[0], d[1], d[2], 0], p)];
  const at = [0, 1, 2].map((i) => (p[3] * qd[i]! + q[3] * dp[i]!) / (size * size)) as [number, number, number];
  const w = d.map((value) => value / size) as [number, number, number];
  const k = at[2] + radius;
  const [qa, qb, qc] = [
    w[0] * w[0] + w[1] * w[1] - w[2] * w[2],
    2 * (at[0] * w[0] + at[1] * w[1] - k * w[2]),
    at[0] * at[0] + at[1] * at[1] - k * k,
  ];
  return quadratic(qa, qb, qc).map((t) => [at[0] + t * w[0], at[1] + t * w[1], at[2] + t * w[2]] as const);
};

/** The roots of a t² + b t + c, without cancelling; one that just touches counts. */
const quadratic = (a: number, b: number, c: number): readonly number[] => {
  const scale = Math.max(b * b, Math.abs(4 * a * c));
  if (Math.abs(a) < NEGLIGIBLE * Math.max(Math.abs(b), 1)) return b === 0 ? [] : [-c / b];
  const under = b * b - 4 * a * c;
  if (under < -DISCRIMINANT * scale) return [];
  const root = Math.sqrt(Math.max(0, under));
  const q = -(b + (b < 0 ? -root : root)) / 2;
  if (q === 0) return [0];
  return under <= DISCRIMINANT * scale ? [-b / (2 * a)] : [q / a, c / q];
};

/** Three linear conditions: Cramer's rule. */
const onPlane = ([p, q, s]: readonly [Row, Row, Row]): readonly (readonly [number, number, number])[] => {
  const d = crossRows(p, q);
  const determinant = d[0] * s[0] + d[1] * s[1] + d[2] * s[2];
  if (Math.abs(determinant) < ROUNDING) return [];
  const [qs, sp] = [crossRows(q, s), crossRows(s, p)];
  const at = [0, 1, 2].map((i) => (p[3] * qs[i]! + q[3] * sp[i]! + s[3] * d[i]!) / determinant);
  return [at as [number, number, number]];
};

type Sign = readonly [Carrier, number];

/** Newton's steps on the three conditions, then the radius without its sign. */
const polish = (
  start: { x: number; y: number; r: number },
  signs: readonly Sign[],
): { centre: Point; radius: number } | undefined => {
  let { x, y, r } = start;
  if (![x, y, r].every(Number.isFinite)) return undefined;
  for (let i = 0; i < NEWTON_STEPS; i++) {
    const rows = signs.map(([carrier, sign]): Row => {
      if (carrier.kind === "line") {
        const n = leftOf(carrier.direction);
        return [n.x, n.y, -sign, sign * r - dot(n, { x: x - carrier.at.x, y: y - carrier.at.y })];
      }
      const out = { x: x - carrier.centre.x, y: y - carrier.centre.y };
      const away = Math.hypot(out.x, out.y);
      const sum = r + sign * carrier.radius;
      if (away === 0) return [0, 0, 0, 0];
      return [out.x / away, out.y / away, -Math.sign(sum), Math.abs(sum) - away];
    });
    const [step] = onPlane(rows as [Row, Row, Row]);
    if (!step) break;
    const size = Math.abs(x) + Math.abs(y) + Math.abs(r);
    // far from converging: the start was a double root
    if (Math.hypot(...step) > STRAYS * (Math.abs(r) + Number.MIN_VALUE)) break;
    [x, y, r] = [x + step[0], y + step[1], r + step[2]];
    if (Math.hypot(...step) < LAST_DIGIT * size) break;
  }
  return { centre: { x, y }, radius: Math.abs(r) };
};

const touchOf = (carrier: Carrier, centre: Point, radius: number): Point | undefined => {
  if (carrier.kind === "line") return carrierNearest(carrier, centre);
  const direction = unit(subtract(centre, carrier.centre));
  if (!direction) return undefined;
  // the far side where the found circle holds this one
  const near = along(carrier.centre, direction, carrier.radius);
  const far = along(carrier.centre, direction, -carrier.radius);
  const miss = (p: Point): number => Math.abs(distance(p, centre) - radius);
  return miss(near) <= miss(far) ? near : far;
};
const missOf = (touch: Point, centre: Point, radius: number): number => Math.abs(distance(touch, centre) - radius);

const isOutside = (carrier: Carrier, circle: Circle): boolean => {
  if (carrier.kind === "circle")
    return distance(carrier.centre, circle.centre) > Math.max(carrier.radius, circle.radius);
  return dot(leftOf(carrier.direction), subtract(circle.centre, carrier.at)) > 0;
};
