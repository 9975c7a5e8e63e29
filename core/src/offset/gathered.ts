import type { Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";

/** What stands at a corner that opens to the side of the offset: its spokes' ends, and what is between them. */
export type Spread = {
  readonly start: Point;
  readonly end: Point;
  readonly kind: "round" | "flat" | "sharp" | "square";
  /** Of a sharp one, where the carriers meet. */
  readonly apex?: Point;
};

/** Raw pieces in running order, ready to be met with one another. */
export type Raw = {
  readonly pieces: readonly Piece[];
  /** Of arcs the centres and radii. */
  readonly centres: readonly (Point | undefined)[];
  readonly radii: Float64Array;
  /** For each the piece it comes from. */
  readonly from: Int32Array;
  /** Which one each goes on into with nothing to happen between them, -1 for none. */
  readonly next: Int32Array;
  /** Spokes: for some the pieces whose bands they end. */
  readonly ends: ReadonlyMap<number, readonly number[]>;
  /** For each corner that opens to the left what stands there, else undefined; nothing where all are round. */
  readonly spreads: readonly (Spread | undefined)[];
};

/** The raw pieces while they are put together, with room for so many and more. */
export class Gathered {
  readonly pieces: Piece[] = [];
  readonly centres: (Point | undefined)[] = [];
  readonly ends = new Map<number, readonly number[]>();
  radii: Float64Array;
  from: Int32Array;
  next: Int32Array;

  constructor(room: number) {
    this.radii = new Float64Array(room);
    this.from = new Int32Array(room);
    this.next = new Int32Array(room);
  }
  put(piece: Piece, centre: Point | undefined, radius: number, from: number): void {
    const at = this.pieces.push(piece) - 1;
    this.centres.push(centre);
    if (at === this.from.length) {
      const room = <A extends Float64Array | Int32Array>(made: A, old: A): A => {
        made.set(old);
        return made;
      };
      this.radii = room(new Float64Array(2 * at), this.radii);
      this.from = room(new Int32Array(2 * at), this.from);
      this.next = room(new Int32Array(2 * at), this.next);
    }
    this.radii[at] = radius;
    this.from[at] = from;
    this.next[at] = -1;
  }
  putOther(from: number, { piece, ends }: Put): void {
    if (ends) this.ends.set(this.pieces.length, ends);
    this.put(piece, undefined, 0, from);
  }
  /** The last one goes on into what is put next. */
  goesOn(): void {
    this.next[this.pieces.length - 1] = this.pieces.length;
  }
  done(): Omit<Raw, "spreads"> {
    const { pieces, centres, ends, radii, from, next } = this;
    const count = pieces.length;
    return {
      pieces,
      centres,
      ends,
      radii: radii.subarray(0, count),
      from: from.subarray(0, count),
      next: next.subarray(0, count),
    };
  }
}

/** A straight piece that stands at a corner, and the pieces whose bands it ends. */
export type Put = { readonly piece: Piece; readonly ends?: readonly number[] };
