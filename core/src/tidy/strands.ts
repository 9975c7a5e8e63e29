import { JOINED } from "../numeric/tolerance.ts";
import { circleRound } from "../contour/joining.ts";
import { circleHalves } from "../geometry/circle.ts";
import { pieceLength, type Piece } from "../geometry/piece.ts";
import { distance } from "../geometry/point.ts";
import { type Origin, type Thing, type TidyOptions } from "./things.ts";

/** A line, an arc or a whole circle that is being tidied, alone or as one piece of a chain. */
export type Strand = {
  /** For a whole circle, its upper half; `circle` says so. */
  readonly piece: Piece;
  readonly circle?: { readonly centre: { readonly x: number; readonly y: number }; readonly radius: number };
  /** The place of its thing among the things, and of the piece in it. */
  readonly thing: number;
  readonly place: number;
  /** The pieces that it came from; undefined where it is still that of its thing at its place. */
  readonly origins: readonly Origin[] | undefined;
  /** An edge that two outlines share, or lies in part on one. */
  readonly shared?: boolean;
};

/** The pieces that a strand came from. */
export const originsOf = ({ origins, thing, place }: Strand, things: readonly Thing[]): readonly Origin[] =>
  origins ?? [{ id: things[thing]!.id, piece: place }];

/** Which of two copies is first to stay: what something is attached to, then what closes. */
export const rankOf = ({ attached, shape }: Thing): number =>
  (attached ? 2 : 0) + (shape.kind === "chain" && shape.closed ? 1 : 0);

const classesOf = (things: readonly Thing[], ignore: TidyOptions["ignore"]): readonly number[] => {
  const numbers = new Map<string, number>();
  let last: Thing | undefined;
  let number = 0;
  return things.map((thing) => {
    const { layer, colour, line } = thing;
    // mostly the same as the one before
    if (last?.layer === layer && last.colour === colour && last.line === line) return number;
    last = thing;
    const key = [
      ignore.has("layer") ? "" : layer,
      ignore.has("colour") ? "" : (colour ?? ""),
      ignore.has("line") ? "" : (line ?? ""),
    ].join("\0");
    number = numbers.get(key) ?? numbers.size;
    numbers.set(key, number);
    return number;
  });
};

/**
 * Numbers for each thing: two of one class can be duplicates of each other, and those of one kind, which share a layer
 * too, are joined.
 */
export type Looks = { readonly classes: readonly number[]; readonly kinds: readonly number[] };

/**
 * What each thing looks like, as numbers that are alike where the looks are: all that counts, and all but the layer.
 */
export const looksOf = (things: readonly Thing[], ignore: TidyOptions["ignore"]): Looks => {
  const classes = classesOf(things, ignore);
  if (!ignore.has("layer")) return { classes, kinds: classes };
  return { classes, kinds: classesOf(things, new Set([...ignore].filter((look) => look !== "layer"))) };
};

/**
 * Every curve of the things. Pieces of no length are left out; `zero` names them. A closed chain that is a circle is
 * one where `asCircle` says so.
 */
export const strandsOf = (
  things: readonly Thing[],
  asCircle: (thing: number, pieces: readonly Piece[]) => boolean,
): { strands: Strand[]; zero: { thing: number; piece: Piece }[] } => {
  const strands: Strand[] = [];
  const zero: { thing: number; piece: Piece }[] = [];
  const isNothing = (piece: Piece): boolean => distance(piece.a, piece.b) <= JOINED && pieceLength(piece) <= JOINED;
  const put = (piece: Piece, thing: number, place: number): void => {
    const { a, b, bulge } = piece;
    if (isNothing(piece)) zero.push({ thing, piece });
    else strands.push({ piece: { a, b, bulge }, thing, place, origins: undefined });
  };
  for (let thing = 0; thing < things.length; thing++) {
    const { shape } = things[thing]!;
    if (shape.kind === "piece") put(shape, thing, 0);
    else if (shape.kind === "chain") {
      const { pieces } = shape;
      // with a doubled vertex it is one all the same
      const circle = shape.closed ? circleRound(pieces.filter((piece) => !isNothing(piece))) : undefined;
      if (!circle || !asCircle(thing, pieces)) pieces.forEach((piece, place) => put(piece, thing, place));
      else {
        const origins = pieces.map((_, piece): Origin => ({ id: things[thing]!.id, piece }));
        for (const piece of pieces) if (isNothing(piece)) zero.push({ thing, piece });
        strands.push({ piece: circleHalves(circle)[0], circle, thing, place: 0, origins });
      }
    } else {
      const { centre, radius } = shape;
      const [piece] = circleHalves(shape);
      strands.push({ piece, circle: { centre, radius }, thing, place: 0, origins: undefined });
    }
  }
  return { strands, zero };
};
