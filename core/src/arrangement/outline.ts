import { weldPieces } from "../contour/joining.ts";
import { circleHalves, type Circle } from "../geometry/circle.ts";
import { pieceCentre, pieceDirection, pieceRadius, reversePiece, sweepOf, type Piece } from "../geometry/piece.ts";
import { cross, distance, dot } from "../geometry/point.ts";
import type { Arrangement } from "./arrange.ts";
import { spanOf, type Span } from "./span.ts";
import type { Fragment } from "./splitSpans.ts";
import { stitch } from "./stitch.ts";

/** A contour of lines and arcs, what it bounds on its left; or a whole circle. */
export type Outline = { readonly pieces: readonly Piece[]; readonly circle?: Circle };

/** An arc stays under this sweep (radians), so that its ends tell it well. */
const WHOLE = 5.5;

/**
 * The contours round some faces taken together: outer ones counter-clockwise, holes clockwise. Edges between two of
 * them go, pieces that run on in one line or circle become one, and what only touches stays apart.
 */
export const outlineOf = (arrangement: Arrangement, inside: (face: number) => boolean): readonly Outline[] => {
  const { edges, faceOf, vertices, resolution } = arrangement;
  const spans: Span[] = [];
  const fragments: Fragment[] = [];
  for (let half = 0; half < faceOf.length; half++) {
    if (!inside(faceOf[half]!) || inside(faceOf[half ^ 1]!)) continue;
    const { piece, start, end } = edges[half >> 1]!;
    const back = (half & 1) === 1;
    const span = spanOf(back ? reversePiece(piece) : piece);
    fragments.push({
      span: spans.length,
      last: spans.length,
      from: 0,
      to: span.length,
      start: back ? end : start,
      end: back ? start : end,
    });
    spans.push(span);
  }
  return stitch((i) => spans[i]!, { vertices, fragments, moved: false }, fragments, resolution)
    .filter(({ closed }) => closed)
    .map((run) =>
      simplified(
        run.fragments.map(({ span }) => spans[span]!.piece),
        resolution,
      ),
    );
};

const onOneCarrier = (p: Piece, q: Piece, resolution: number): boolean => {
  if ((p.bulge === 0) !== (q.bulge === 0)) return false;
  const [u, v] = [pieceDirection(p, 1), pieceDirection(q, 0)];
  if (dot(u, v) <= 0) return false;
  const off = Math.abs(cross(u, v));
  if (p.bulge === 0) return off * Math.min(distance(p.a, p.b), distance(q.a, q.b)) <= resolution / 4;
  return (
    p.bulge * q.bulge > 0 &&
    distance(pieceCentre(p)!, pieceCentre(q)!) <= resolution &&
    Math.abs(pieceRadius(p) - pieceRadius(q)) <= resolution
  );
};

const together = (p: Piece, q: Piece): Piece => ({
  a: p.a,
  b: q.b,
  bulge: p.bulge === 0 ? 0 : Math.tan((sweepOf(p.bulge) + sweepOf(q.bulge)) / 4),
});

const simplified = (run: readonly Piece[], resolution: number): Outline => {
  const goesOn = (p: Piece, q: Piece): boolean => onOneCarrier(p, q, resolution);
  if (run.every((piece, i) => piece.bulge !== 0 && (run.length > 1 ? goesOn(run.at(i - 1)!, piece) : false))) {
    const circle = { centre: pieceCentre(run[0]!)!, radius: pieceRadius(run[0]!) };
    const halves = circleHalves(circle);
    return { circle, pieces: run[0]!.bulge > 0 ? halves : halves.map(reversePiece).reverse() };
  }
  const first = run.findIndex((piece, i) => !goesOn(run.at(i - 1)!, piece));
  const pieces: Piece[] = [];
  for (const piece of [...run.slice(first), ...run.slice(0, first)]) {
    const last = pieces.at(-1);
    const fits = last && goesOn(last, piece) && Math.abs(sweepOf(last.bulge) + sweepOf(piece.bulge)) < WHOLE;
    if (fits) pieces[pieces.length - 1] = together(last, piece);
    else pieces.push(piece);
  }
  return { pieces: weldPieces(pieces, true) };
};
