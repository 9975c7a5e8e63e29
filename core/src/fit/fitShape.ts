import type { Circle } from "../geometry/circle.ts";
import { halfAxes, isWhole, type Ellipse } from "../geometry/ellipse.ts";
import type { Free } from "../geometry/free.ts";
import type { Piece } from "../geometry/piece.ts";
import { CORNER, fitCurve, fitRun } from "./fitArcs.ts";

/** What can be fitted, and what comes of it. */
export type Fittable =
  | ({ readonly kind: "ellipse" } & Ellipse)
  | ({ readonly kind: "free" } & Free)
  | { readonly kind: "chain"; readonly closed: boolean; readonly pieces: readonly Piece[] };
export type Fitted =
  | ({ readonly kind: "circle" } & Circle)
  | { readonly kind: "chain"; readonly closed: boolean; readonly pieces: readonly Piece[] };

/**
 * A shape as lines and arcs within `tolerance`: an ellipse that is a circle as near as that becomes one, smooth curves
 * tangent arcs, and in a chain each run of straight pieces what it can be made of with fewer. Undefined for a curve
 * that can't be followed.
 */
export const fitShape = (shape: Fittable, tolerance: number, cornerAngle = CORNER): Fitted | undefined => {
  if (shape.kind === "chain")
    return { kind: "chain", closed: shape.closed, pieces: withFewer(shape, tolerance, cornerAngle) };
  if (shape.kind === "ellipse" && isWhole(shape)) {
    const [long, short] = halfAxes(shape);
    if ((long - short) / 2 <= tolerance) return { kind: "circle", centre: shape.centre, radius: (long + short) / 2 };
  }
  const fit = fitCurve(shape, tolerance);
  return fit && { kind: "chain", closed: fit.closed, pieces: fit.pieces };
};

const withFewer = (
  { pieces, closed }: Extract<Fittable, { kind: "chain" }>,
  tolerance: number,
  cornerAngle: number,
): readonly Piece[] => {
  const straight = ({ bulge }: Piece): boolean => bulge === 0;
  if (pieces.every(straight)) return fewer(pieces, closed, tolerance, cornerAngle);
  // from an arc on, so that no run of straight pieces is cut in two
  const first = closed ? pieces.findIndex((piece) => !straight(piece)) : 0;
  const order = [...pieces.slice(first), ...pieces.slice(0, first)];
  const out: Piece[] = [];
  for (let i = 0; i < order.length;) {
    let end = i;
    while (end < order.length && straight(order[end]!)) end++;
    if (end > i) for (const piece of fewer(order.slice(i, end), false, tolerance, cornerAngle)) out.push(piece);
    else out.push(order[end++]!);
    i = end;
  }
  return out;
};

const fewer = (run: readonly Piece[], closed: boolean, tolerance: number, cornerAngle: number): readonly Piece[] => {
  if (run.length < 3) return run;
  const fit = fitRun(run, closed, tolerance, cornerAngle);
  return fit && fit.pieces.length < run.length ? fit.pieces : run;
};
