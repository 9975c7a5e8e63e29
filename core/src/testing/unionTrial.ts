import { combine } from "../arrangement/index.ts";
import { enclosedArea } from "../contour/chainMeasure.ts";
import { pieceLength, type Piece } from "../geometry/piece.ts";
import { after, moving, transformPoint, turning, type Similarity } from "../geometry/transform.ts";
import { arcsRound, mapped, polygon, randomFrom, roundedCorners, roundedRectangle, star } from "./contours.ts";

/** How far edges lie apart: from nothing to what anybody sees, most of them about the resolution. */
const APART = [0, 1e-9, 2e-9, 1e-8, 5e-8, 1e-7, 1.5e-7, 2.2e-7, 1e-6, 1e-5, 1e-4, 1e-3] as const;

export type UnionTrial = {
  readonly parts: readonly (readonly Piece[])[];
  readonly isRefused: boolean;
  /** Of both united. */
  readonly united: number;
  readonly faults: readonly string[];
};

/**
 * Two contours whose edges lie nearly on one another, by a shift and a turn as small as that, anywhere: united, one
 * taken from the other, and what they share. The areas must add up: |A ∪ B| + |A ∩ B| = |A| + |B|, |A - B| + |A ∩ B| =
 * |A|, to what moving every edge by a few resolutions makes.
 */
export const unionTrial = (seed: number): UnionTrial => {
  const random = randomFrom(seed);
  const tiny = (): number => APART[Math.floor(random() * APART.length)]!;
  const [w, h, r] = [5 + 40 * random(), 5 + 30 * random(), 0.5 + 2 * random()];
  const made = [
    () => roundedRectangle(w, h, r),
    () => arcsRound(w / 2, 2 + Math.floor(random() * 4), random()),
    () =>
      polygon([
        [0, 0],
        [w, 0],
        [w, h],
        [0, h],
      ]),
    () =>
      roundedCorners(
        star(7, random).map(({ a }) => a),
        0.5,
      ),
  ];
  const shape = (among: number): readonly Piece[] => made[Math.floor(random() * among)]!();
  const one = shape(4);
  const to = (move: Similarity, pieces: readonly Piece[]): Piece[] => mapped(pieces, (p) => transformPoint(move, p));
  const other = [
    () => one,
    () => to(moving({ x: w, y: 0 }), roundedRectangle(w, h, r)),
    () => to(moving({ x: w / 2, y: h / 2 }), arcsRound(5, 2, 0)),
    () => shape(3),
  ][Math.floor(random() * 4)]!();
  const origin = { x: 0, y: 0 };
  const aside = after(
    turning(origin, random() < 0.5 ? 0 : tiny() / 20),
    moving({ x: random() < 0.5 ? tiny() : -tiny(), y: random() < 0.5 ? 0 : tiny() }),
  );
  const far = random() < 0.3 ? 1e5 : 0;
  const place = after(turning(origin, random() < 0.5 ? 0 : 6 * random()), moving({ x: far, y: far }));
  const parts = [to(place, one), to(after(aside, place), other)];
  const united = combine([[parts[0]!], [parts[1]!]], "unite");
  const common = combine([[parts[0]!], [parts[1]!]], "common");
  const less = combine([[parts[0]!], [parts[1]!]], "take-away");
  if (!united.ok || !common.ok || !less.ok) return { parts, isRefused: true, united: 0, faults: [] };
  const areaOf = (outlines: readonly { readonly pieces: readonly Piece[] }[]): number =>
    outlines.reduce((sum, { pieces }) => sum + enclosedArea(pieces), 0);
  const [u, i, d] = [areaOf(united.value), areaOf(common.value), areaOf(less.value)];
  const [a, b] = parts.map((pieces) => Math.abs(enclosedArea(pieces))) as [number, number];
  const length = parts.flat().reduce((sum, piece) => sum + pieceLength(piece), 0);
  const slack = 3e-6 * length + 1e-9 * (a + b);
  const faults: string[] = [];
  if (Math.abs(u + i - a - b) > slack) faults.push(`united ${u} and common ${i} of ${a} and ${b}`);
  if (Math.abs(d + i - a) > slack) faults.push(`less ${d} and common ${i} of ${a}`);
  if (u < Math.max(a, b) - slack || i > Math.min(a, b) + slack) faults.push(`united ${u}, common ${i} out of bounds`);
  return { parts, isRefused: false, united: u, faults };
};
