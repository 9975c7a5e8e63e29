import { WHOLE_WITHIN } from "../numeric/tolerance.ts";
import type { Free } from "../geometry/free.ts";
import { piecePoint, pieceRadius, sweepOf, type Piece } from "../geometry/piece.ts";
import { angleOf, distance, subtract, type Point } from "../geometry/point.ts";
import { signedAngle } from "../numeric/angle.ts";
import { arrivingAlong, biarc, leavingAlong, oneArc } from "./biarc.ts";

/**
 * Tangent arcs through points in their order, a pair between two neighbours: at each point in the direction of the
 * circle through it and its neighbours, at an open end so that one arc runs on from there. Fewer than three points are
 * a line, or nothing.
 */
export const arcsThrough = (points: readonly Point[], closed: boolean): readonly Piece[] => {
  const n = points.length;
  if (n < 3) return n === 2 ? [{ a: points[0]!, b: points[1]!, bulge: 0 }] : [];
  const at = (i: number): Point => points.at(i % n)!;
  const directions = points.map((p, i): Point | undefined => {
    if (!closed && (i === 0 || i === n - 1)) return undefined;
    const [u, v] = [subtract(p, at(i - 1)), subtract(at(i + 1), p)];
    const turn = signedAngle(angleOf(v) - angleOf(u));
    const [before, after] = [distance(p, at(i - 1)), distance(at(i + 1), p)];
    const angle = angleOf(u) + (turn * before) / (before + after);
    return { x: Math.cos(angle), y: Math.sin(angle) };
  });
  const pieces: Piece[] = [];
  for (let i = 0; i < (closed ? n : n - 1); i++) {
    const [a, b] = [at(i), at(i + 1)];
    const [u, v] = [directions[i], directions[(i + 1) % n]];
    if (!u) pieces.push(arrivingAlong(a, b, v!));
    else if (!v) pieces.push(leavingAlong(a, u, b));
    else {
      const one = oneArc(a, u, b, v);
      for (const piece of one ? [one] : (biarc(a, u, b, v) ?? [{ a, b, bulge: 0 }])) pieces.push(piece);
    }
  }
  return pieces;
};

/**
 * A cubic B-spline that points steer without its going through them; it ends in the first and last where it is not
 * closed.
 */
export const steeredBy = (points: readonly Point[], closed: boolean): Free | undefined => {
  if (points.length < 4) return undefined;
  if (closed) {
    const all = [...points, ...points.slice(0, 3)];
    return { degree: 3, knots: Array.from({ length: all.length + 4 }, (_, i) => i), points: all };
  }
  const inner = Array.from({ length: points.length - 4 }, (_, i) => i + 1);
  const last = points.length - 3;
  return { degree: 3, knots: [0, 0, 0, 0, ...inner, last, last, last, last], points };
};

/**
 * Pieces with each arc as straight pieces no farther than `tolerance` from it: sagitta r (1 - cos(step / 2)), as few as
 * that takes.
 */
export const straightPieces = (pieces: readonly Piece[], tolerance: number): readonly Piece[] =>
  pieces.flatMap((piece) => {
    if (piece.bulge === 0) return [piece];
    const step = 2 * Math.acos(Math.max(-1, 1 - tolerance / pieceRadius(piece)));
    const count = Math.max(1, Math.ceil(Math.abs(sweepOf(piece.bulge)) / step - WHOLE_WITHIN));
    return Array.from({ length: count }, (_, i): Piece => {
      return { a: piecePoint(piece, i / count), b: piecePoint(piece, (i + 1) / count), bulge: 0 };
    });
  });
