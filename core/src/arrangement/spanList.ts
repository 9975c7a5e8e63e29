import type { Circle } from "../geometry/circle.ts";
import { pieceCentre, pieceRadius, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { FLAT_BULGE } from "../numeric/tolerance.ts";
import { spanOf, type Span } from "./span.ts";

/** Pieces that are to be met with one another; one is made a span where it is asked for, which most never are. */
export type SpanList = {
  readonly pieces: readonly Piece[];
  /** Of some arcs the centres, known better than by their bulge. */
  readonly centres: readonly (Point | undefined)[];
  readonly span: (i: number) => Span;
  /**
   * Which one a piece goes on into with nothing to happen between them: they share the numbers of that end and meet
   * nowhere else (tangent, or both straight). That is the next one, or where a contour closes its first; -1 where there
   * is none.
   */
  readonly next: Int32Array;
};

/** Pieces as spans, each worked out when it is first asked for; `next` tells which piece follows which. */
export const spanList = (
  pieces: readonly Piece[],
  circles?: { readonly centres: readonly (Point | undefined)[]; readonly radii: Float64Array },
  next: Int32Array = new Int32Array(pieces.length).fill(-1),
): SpanList => {
  const made = new Array<Span | undefined>(pieces.length);
  const known = (i: number): Circle | undefined => {
    const centre = circles?.centres[i];
    return centre && { centre, radius: circles!.radii[i]! };
  };
  return { pieces, centres: circles?.centres ?? [], span: (i) => (made[i] ??= spanOf(pieces[i]!, known(i))), next };
};

/**
 * Centres and radii of arcs, three numbers each, NaN for what is straight or nearly so: what lies round one middle is
 * told apart by them in no time.
 */
export const circlesOf = ({ pieces, centres, span }: SpanList): Float64Array => {
  const circles = new Float64Array(3 * pieces.length).fill(NaN);
  for (let i = 0; i < pieces.length; i++) {
    const piece = pieces[i]!;
    if (Math.abs(piece.bulge) < FLAT_BULGE) continue;
    const { x, y } = centres[i] ?? pieceCentre(piece)!;
    circles[3 * i] = x;
    circles[3 * i + 1] = y;
    circles[3 * i + 2] = centres[i] ? span(i).radius : pieceRadius(piece);
  }
  return circles;
};
