import type { Circle } from "./circle.ts";
import type { Piece } from "./piece.ts";

/** Tells quickly that two curves lie apart, where boxes can't: slanting lines beside one another. */
export type ChordsApart = {
  /** True where one of two curves lies wholly beyond `reach` to one side of the other's chord; false tells nothing. */
  readonly apart: (i: number, j: number, reach: number) => boolean;
  /** The same of a curve and the straight way between two places. */
  readonly apartFrom: (i: number, ax: number, ay: number, bx: number, by: number, reach: number) => boolean;
};

/** Numbers of a chord: its start, its end, the unit normal, and how far its curve rises over it. */
const SIZE = 7;
/** What rounding may leave of a distance. */
const SLACK = 1e-9;

/**
 * The chords of curves. An arc of no more than half a turn lies within its height of its chord; of a longer one, of a
 * circle, and of what has no length nothing is told.
 */
export const chordsApart = (curves: readonly (Piece | Circle)[]): ChordsApart => {
  const chords = new Float64Array(SIZE * curves.length);
  for (let i = 0; i < curves.length; i++) {
    const curve = curves[i]!;
    const k = SIZE * i;
    chords[k] = NaN;
    if ("radius" in curve || Math.abs(curve.bulge) > 1) continue;
    const { a, b, bulge } = curve;
    const [x, y] = [b.x - a.x, b.y - a.y];
    const length = Math.sqrt(x * x + y * y);
    if (length > 0) chords.set([a.x, a.y, b.x, b.y, -y / length, x / length, (Math.abs(bulge) * length) / 2], k);
  }
  /** Whether two places lie beyond `far` to one side of a chord. */
  const beyond = (k: number, ax: number, ay: number, bx: number, by: number, far: number): boolean => {
    const [x, y, nx, ny] = [chords[k]!, chords[k + 1]!, chords[k + 4]!, chords[k + 5]!];
    const one = (ax - x) * nx + (ay - y) * ny;
    if (one > far) return (bx - x) * nx + (by - y) * ny > far;
    return one < -far && (bx - x) * nx + (by - y) * ny < -far;
  };
  return {
    apart: (i, j, reach) => {
      const [k, l] = [SIZE * i, SIZE * j];
      const far = reach + chords[k + 6]! + chords[l + 6]! + SLACK;
      return (
        beyond(k, chords[l]!, chords[l + 1]!, chords[l + 2]!, chords[l + 3]!, far) ||
        beyond(l, chords[k]!, chords[k + 1]!, chords[k + 2]!, chords[k + 3]!, far)
      );
    },
    apartFrom: (i, ax, ay, bx, by, reach) => beyond(SIZE * i, ax, ay, bx, by, reach + chords[SIZE * i + 6]! + SLACK),
  };
};
