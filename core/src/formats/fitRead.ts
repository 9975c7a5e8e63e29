import { joinRuns, runPieces } from "../contour/joining.ts";
import {
  fitCurve,
  fitMeasured,
  fitShape,
  TRACED_POINTS,
  type Fittable,
  type Fitted,
  type Measured,
} from "../fit/index.ts";
import type { Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import type { ReadShape } from "./readShapes.ts";

const looksOf = ({ layer, colour, line }: ReadShape): Pick<ReadShape, "layer" | "colour" | "line"> => ({
  layer,
  ...(colour === undefined ? {} : { colour }),
  ...(line === undefined ? {} : { line }),
});

/** A smooth curve that arcs stand for: where it starts, of what kind it is, in how many arcs, and how far off. */
export type Stood = {
  readonly kind: "ellipse" | "free";
  readonly at: Point;
  readonly arcs: number;
  readonly deviation: number;
};

/** What was read, its ellipses and splines as tangent arcs within `tolerance`, and which of them are. */
export const smoothAsArcs = (
  shapes: readonly ReadShape[],
  tolerance: number,
): { readonly shapes: readonly ReadShape[]; readonly stood: readonly Stood[] } => {
  const stood: Stood[] = [];
  const made = shapes.map((shape): ReadShape => {
    if (shape.kind !== "ellipse" && shape.kind !== "free") return shape;
    const fit = fitCurve(shape, tolerance);
    if (!fit) return shape;
    const { pieces, closed, deviation } = fit;
    stood.push({ kind: shape.kind, at: pieces[0]!.a, arcs: pieces.length, deviation });
    return { kind: "chain", closed, pieces, ...looksOf(shape) };
  });
  return { shapes: made, stood };
};

/**
 * An outline of measured points: where it begins, how many points it had, and what came of it; `tooFar` where the
 * nearest lines and arcs lie farther off than the tolerance, and `untold` where the points don't tell.
 */
export type Traced = { readonly at: Point; readonly points: number } & (
  | { readonly kind: "followed"; readonly fit: Measured }
  | { readonly kind: "tooFar"; readonly largest: number }
  | { readonly kind: "untold" }
);

/** How a file is fitted: within what, and whether corners in it are points that were measured along an outline. */
export type FitAsked = { readonly tolerance: number; readonly traced: boolean };
export type FitRead = { readonly shapes: readonly ReadShape[]; readonly traced: readonly Traced[] };

/**
 * What was read with ellipses, splines and runs of tiny straight pieces, in chains or loose end to end, as tangent arcs
 * and lines within the tolerance of them; with `traced`, runs of straight pieces as the fewest lines and arcs for
 * points that scatter. What can't be followed, and what would not get fewer pieces, stays as it is.
 */
export const fitRead = (shapes: readonly ReadShape[], asked: FitAsked): FitRead => {
  const traced: Traced[] = [];
  const fitted = (shape: Fittable): Fitted | undefined => {
    const measured = asked.traced && shape.kind === "chain" ? tracedOf(shape, asked.tolerance) : undefined;
    if (measured) traced.push(measured);
    if (measured?.kind !== "followed") return fitShape(shape, asked.tolerance);
    const { circle, closed, pieces } = measured.fit;
    return circle ? { kind: "circle", ...circle } : { kind: "chain", closed, pieces };
  };
  const out: (ReadShape | undefined)[] = shapes.map((shape) => {
    if (shape.kind !== "ellipse" && shape.kind !== "free" && shape.kind !== "chain") return shape;
    const made = fitted(shape);
    return made ? { ...made, ...looksOf(shape) } : shape;
  });
  const loose = new Map<string, number[]>();
  shapes.forEach((shape, i) => {
    if (shape.kind !== "piece" || shape.bulge !== 0) return;
    const key = JSON.stringify(looksOf(shape));
    void (loose.get(key)?.push(i) ?? loose.set(key, [i]));
  });
  for (const own of loose.values()) {
    const pieces = own.map((i): Piece => {
      const { a, b, bulge } = shapes[i] as Extract<ReadShape, { kind: "piece" }>;
      return { a, b, bulge };
    });
    for (const run of joinRuns(pieces, RESOLUTION)) {
      if (run.links.length < 3) continue;
      const joined = runPieces(run, (part) => [pieces[part]!]);
      const made = fitted({ kind: "chain", closed: run.closed, pieces: joined });
      if (!made || (made.kind === "chain" && made.pieces.length >= run.links.length)) continue;
      const members = run.links.map(({ part }) => own[part]!).sort((p, q) => p - q);
      for (const i of members) out[i] = undefined;
      out[members[0]!] = { ...made, ...looksOf(shapes[members[0]!]!) };
    }
  }
  return { shapes: out.filter((shape) => shape !== undefined), traced };
};

/** Straight pieces taken as points that were measured; undefined for others, and for too few to tell of. */
const tracedOf = ({ pieces, closed }: Extract<Fittable, { kind: "chain" }>, tolerance: number): Traced | undefined => {
  if (pieces.length < TRACED_POINTS || pieces.some(({ bulge }) => bulge !== 0)) return undefined;
  const points = [...pieces.map(({ a }) => a), ...(closed ? [] : [pieces.at(-1)!.b])];
  const own = { at: points[0]!, points: points.length };
  const fit = fitMeasured(points, closed);
  if (!fit) return { ...own, kind: "untold" };
  return fit.largest <= tolerance
    ? { ...own, kind: "followed", fit }
    : { ...own, kind: "tooFar", largest: fit.largest };
};
