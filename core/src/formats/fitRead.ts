import { joinRuns, runPieces } from "../contour/joining.ts";
import { fitCurve, fitShape } from "../fit/index.ts";
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
 * What was read with ellipses, splines and runs of tiny straight pieces, in chains or loose end to end, as tangent arcs
 * and lines within `tolerance` of them. What can't be followed, and what would not get fewer pieces, stays as it is.
 */
export const fitRead = (shapes: readonly ReadShape[], tolerance: number): readonly ReadShape[] => {
  const out: (ReadShape | undefined)[] = shapes.map((shape) => {
    if (shape.kind !== "ellipse" && shape.kind !== "free" && shape.kind !== "chain") return shape;
    const fitted = fitShape(shape, tolerance);
    return fitted ? { ...fitted, ...looksOf(shape) } : shape;
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
      const fitted = fitShape({ kind: "chain", closed: run.closed, pieces: joined }, tolerance);
      if (fitted?.kind !== "chain" || fitted.pieces.length >= run.links.length) continue;
      const members = run.links.map(({ part }) => own[part]!).sort((p, q) => p - q);
      for (const i of members) out[i] = undefined;
      out[members[0]!] = { ...fitted, ...looksOf(shapes[members[0]!]!) };
    }
  }
  return out.filter((shape) => shape !== undefined);
};
