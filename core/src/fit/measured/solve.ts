import type { Carrier } from "../../geometry/curve.ts";
import { leftOf, times } from "../../geometry/point.ts";
import type { Equation, Parameters } from "./equations.ts";
import { levelOf, pairsOf, touchingAt, type Candidate } from "./hypotheses.ts";
import { factored, solvedFor, type Factors } from "./linear.ts";
import { placesOf, startOf, type Problem, type Start } from "./problem.ts";

/**
 * What each piece lies on, whether an arc turns to the left (1) or the right (-1), and the standard error of its radius
 * (NaN where that was not asked).
 */
export type Solved = {
  readonly carriers: readonly Carrier[];
  readonly turns: readonly number[];
  readonly errors: readonly number[];
};

/** Which pieces may touch which, at some values. */
export type Touches = (problem: Problem, start: Start, p: Parameters) => readonly Candidate[];

/** Each piece may touch the next. */
const touchesAlong: Touches = (problem, start, p) => {
  const { closed, segments } = problem;
  const count = segments.length;
  return segments
    .slice(0, closed && count > 1 ? count : count - 1)
    .flatMap((_, i) => touchingAt(problem, start, p, i, (i + 1) % count));
};

/** What an equation may cost that pieces touch, and any other. */
export type Rises = { readonly touching: number; readonly other: number };
/** 3 standard errors. */
const RISES: Rises = { touching: 9, other: 9 };
/** Gauss and Newton's steps, and the change of a parameter that ends them (lengths are about 1). */
const [STEPS, SETTLED] = [12, 1e-13];
/** An equation holds within this. */
const HELD = 1e-9;
/** More pieces than this are left as found: what holds among them is not asked. */
const MOST_PIECES = 250;
/** Keeps the system solvable where one equation follows from others, or a piece says nothing by its few points. */
const SLACK = 1e-9;

/**
 * The carriers with the least sum of squares under what holds: tangent joints, level and upright lines, one centre,
 * equal radii are each taken for true where that costs no more than three standard errors.
 */
export const solved = (problem: Problem, touches: Touches = touchesAlong, rises: Rises = RISES): Solved => {
  const { segments } = problem;
  const start = startOf(problem);
  const count = segments.length;
  const { turns } = start;
  if (count > MOST_PIECES) return { carriers: carriersOf(problem, start.p), turns, errors: turns.map(() => NaN) };
  let state = settled(problem, start.p, []);
  const at = placesOf(segments);
  const candidates: readonly (readonly [rise: number, asked: () => readonly Candidate[]])[] = [
    [rises.touching, () => touches(problem, start, state.p)],
    [rises.other, () => segments.flatMap(({ kind }, i) => (kind === "line" ? [levelOf(at[i]!, state.p)] : []))],
    [rises.other, () => pairsOf(segments, state.p, "centre")],
    [rises.other, () => pairsOf(segments, state.p, "radius")],
  ];
  for (const [rise, asked] of candidates) state = withThose(problem, state, asked(), rise);
  return { carriers: carriersOf(problem, state.p), turns, errors: errorsOf(problem, state) };
};

/** Parameters at the least squares under some equations, and χ² there. */
type State = { readonly p: Parameters; readonly equations: readonly Equation[]; readonly chi: number };

/** The normal equations of all points about the parameters, and χ² there. */
const normal = (
  { points, counts, segments, weightOf }: Problem,
  p: Parameters,
): { readonly h: Float64Array; readonly g: Float64Array; readonly chi: number } => {
  const size = p.length;
  const h = new Float64Array(size * size);
  const g = new Float64Array(size);
  let chi = 0;
  let at = 0;
  segments.forEach(({ from, to, kind }, piece) => {
    const own = kind === "line" ? 2 : 3;
    const weight = weightOf(piece);
    const slopes = [0, 0, -1];
    const [c, s] = [Math.cos(p[at]!), Math.sin(p[at]!)];
    for (let i = from; i < to; i++) {
      if (counts[i] === 0) continue;
      const { x, y } = points[i]!;
      let off: number;
      if (kind === "line") {
        off = y * c - x * s - p[at + 1]!;
        slopes[0] = -y * s - x * c;
        slopes[1] = -1;
      } else {
        const [dx, dy] = [x - p[at]!, y - p[at + 1]!];
        const away = Math.sqrt(dx * dx + dy * dy) || 1e-300;
        off = away - p[at + 2]!;
        slopes[0] = -dx / away;
        slopes[1] = -dy / away;
      }
      chi += weight * off * off;
      for (let k = 0; k < own; k++) {
        const slope = weight * slopes[k]!;
        g[at + k]! += slope * off;
        for (let l = 0; l <= k; l++) h[(at + k) * size + at + l]! += slope * slopes[l]!;
      }
    }
    for (let k = 0; k < own; k++)
      for (let l = 0; l < k; l++) h[(at + l) * size + at + k] = h[(at + k) * size + at + l]!;
    at += own;
  });
  return { h, g, chi };
};

const scaleOf = (h: Float64Array, size: number): number => {
  let scale = 0;
  for (let i = 0; i < size; i++) scale = Math.max(scale, h[i * size + i]!);
  return scale;
};

/** The system of the parameters and what each equation pulls with, taken apart. */
const systemOf = (h: Float64Array, p: Parameters, equations: readonly Equation[]): Factors | undefined => {
  const size = p.length + equations.length;
  const matrix = new Float64Array(size * size);
  const scale = scaleOf(h, p.length);
  for (let i = 0; i < p.length; i++) {
    for (let j = 0; j < p.length; j++) matrix[i * size + j] = h[i * p.length + j]! / scale;
    matrix[i * size + i]! += SLACK * SLACK;
  }
  equations.forEach((equation, k) => {
    const row = p.length + k;
    const slopes = equation.slopes(p);
    equation.at.forEach((at, i) => {
      matrix[row * size + at] = slopes[i]!;
      matrix[at * size + row] = slopes[i]!;
    });
    matrix[row * size + row] = -SLACK;
  });
  return factored(matrix, size);
};

/** From somewhere to the least squares under some equations. */
const settled = (problem: Problem, from: Parameters, equations: readonly Equation[]): State => {
  const p = from.slice();
  for (let step = 0; step < STEPS; step++) {
    const { h, g } = normal(problem, p);
    const system = systemOf(h, p, equations);
    if (!system) break;
    const scale = scaleOf(h, p.length);
    const right = new Float64Array(system.size);
    for (let i = 0; i < p.length; i++) right[i] = -g[i]! / scale;
    equations.forEach((equation, k) => void (right[p.length + k] = -equation.value(p)));
    const moves = solvedFor(system, right);
    let most = 0;
    for (let i = 0; i < p.length; i++) {
      p[i]! += moves[i]!;
      most = Math.max(most, Math.abs(moves[i]!));
    }
    if (!Number.isFinite(most)) return { p: from, equations, chi: Infinity };
    if (most < SETTLED) break;
  }
  return { p, equations, chi: normal(problem, p).chi };
};

/**
 * Takes what costs little by itself, all at once where that costs no more together, else one after the other, the
 * cheapest first.
 */
const withThose = (problem: Problem, state: State, candidates: readonly Candidate[], rise: number): State => {
  const priced = costsOf(problem, state, candidates)
    .filter(({ cost, one }) => cost <= rise * one.length)
    .sort((p, q) => p.cost - q.cost)
    .map(({ one }) => one);
  if (priced.length === 0) return state;
  const holds = ({ chi, p, equations }: State, before: State): boolean =>
    chi - before.chi <= rise * (equations.length - before.equations.length) &&
    equations.every((equation) => Math.abs(equation.value(p)) < HELD);
  const together = settled(problem, state.p, [...state.equations, ...priced.flat()]);
  if (holds(together, state)) return together;
  let now = state;
  for (const one of priced) {
    const next = settled(problem, now.p, [...now.equations, ...one]);
    if (holds(next, now)) now = next;
  }
  return now;
};

/** What each would cost by itself, to first order: e² over its variance under what holds already. */
const costsOf = (
  problem: Problem,
  state: State,
  candidates: readonly Candidate[],
): readonly { readonly cost: number; readonly one: Candidate }[] => {
  const spread = spreadOf(problem, state);
  return candidates.map((one) => {
    const cost = one.reduce((sum, equation) => {
      const own = spread(equation);
      const value = equation.value(state.p);
      // what is fixed already costs nothing where it holds
      return sum + (own > 0 ? (value * value) / own : value === 0 ? 0 : Infinity);
    }, 0);
    return { cost, one };
  });
};

/** The variance of what equations speak of, under what holds; NaN where the points don't tell. */
const spreadOf = (problem: Problem, { p, equations }: State): ((equation: Equation) => number) => {
  const { h } = normal(problem, p);
  const system = systemOf(h, p, equations);
  const scale = scaleOf(h, p.length);
  return ({ at, slopes }) => {
    if (!system) return NaN;
    const own = slopes(p);
    const right = new Float64Array(system.size);
    at.forEach((place, i) => void (right[place] = own[i]!));
    const moves = solvedFor(system, right);
    return at.reduce((total, place, i) => total + own[i]! * moves[place]!, 0) / scale;
  };
};

const errorsOf = (problem: Problem, state: State): readonly number[] => {
  const spread = spreadOf(problem, state);
  const at = placesOf(problem.segments);
  return problem.segments.map(({ kind }, i) =>
    kind === "line" ? NaN : Math.sqrt(spread({ at: [at[i]! + 2], value: () => 0, slopes: () => [1] })),
  );
};

const carriersOf = ({ segments }: Problem, p: Parameters): readonly Carrier[] => {
  const at = placesOf(segments);
  return segments.map(({ kind }, i): Carrier => {
    const own = at[i]!;
    if (kind === "arc") return { kind: "circle", centre: { x: p[own]!, y: p[own + 1]! }, radius: p[own + 2]! };
    const direction = { x: Math.cos(p[own]!), y: Math.sin(p[own]!) };
    return { kind: "line", at: times(leftOf(direction), p[own + 1]!), direction };
  });
};
