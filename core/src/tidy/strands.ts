import { circleHalves } from "../geometry/circle.ts";
import { pieceLength, type Piece } from "../geometry/piece.ts";
import { distance } from "../geometry/point.ts";
import type { Origin, Thing } from "./things.ts";

/** A line, an arc or a whole circle that is being tidied, alone or as one piece of a chain. */
export type Strand = {
  /** For a whole circle, its upper half; `circle` says so. */
  readonly piece: Piece;
  readonly circle?: { readonly centre: { readonly x: number; readonly y: number }; readonly radius: number };
  /** The place of its thing among the things, and of the piece in it. */
  readonly thing: number;
  readonly place: number;
  readonly origins: readonly Origin[];
  /** An edge that two outlines share, or lies in part on one. */
  readonly shared?: boolean;
};

/** A number for each thing: two with the same can be duplicates of each other. */
export const classesOf = (
  things: readonly Thing[],
  ignore: ReadonlySet<"layer" | "colour" | "line">,
): readonly number[] => {
  const numbers = new Map<string, number>();
  return things.map(({ layer, colour, line }) => {
    const key = `${ignore.has("layer") ? "" : layer}\0${ignore.has("colour") ? "" : (colour ?? "")}\0${ignore.has("line") ? "" : (line ?? "")}`;
    const known = numbers.get(key);
    if (known !== undefined) return known;
    numbers.set(key, numbers.size);
    return numbers.size - 1;
  });
};

/** Every curve of the things. Pieces of no length are left out; `zero` names them. */
export const strandsOf = (things: readonly Thing[]): { strands: Strand[]; zero: { thing: number; piece: Piece }[] } => {
  const strands: Strand[] = [];
  const zero: { thing: number; piece: Piece }[] = [];
  things.forEach(({ id, shape }, thing) => {
    if (shape.kind === "circle") {
      const { centre, radius } = shape;
      strands.push({
        piece: circleHalves(shape)[0]!,
        circle: { centre, radius },
        thing,
        place: 0,
        origins: [{ id, piece: 0 }],
      });
      return;
    }
    const pieces = shape.kind === "chain" ? shape.pieces : [shape];
    pieces.forEach((piece, place) => {
      const { a, b, bulge } = piece;
      if (distance(a, b) <= JOINED_ENDS && pieceLength(piece) <= JOINED_ENDS) zero.push({ thing, piece });
      else strands.push({ piece: { a, b, bulge }, thing, place, origins: [{ id, piece: place }] });
    });
  });
  return { strands, zero };
};

/** A piece shorter than this has no length. */
const JOINED_ENDS = 1e-7;
