import { joinRuns, runPieces } from "../contour/joining.ts";
import { fitShape } from "../fit/index.ts";
import type { Piece } from "../geometry/piece.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import type { ReadShape } from "./readShapes.ts";

const looksOf = ({ layer, colour, line }: ReadShape): Pick<ReadShape, "layer" | "colour" | "line"> => ({
  layer,
  ...(colour === undefined ? {} : { colour }),
  ...(line === undefined ? {} : { line }),
});

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
