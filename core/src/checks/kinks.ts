import { pieceDirection, type Piece } from "../geometry/piece.ts";
import { cross, dot } from "../geometry/point.ts";
import { toDegrees } from "../numeric/angle.ts";
import { TANGENT_WITHIN } from "../numeric/tolerance.ts";
import type { Check } from "./check.ts";

/** A joint that turns by more than this (degrees) is a corner that somebody meant. */
const LARGEST = 5;

/** How far a contour turns where one piece goes on as the next: radians, to the left above 0. */
export const turnBetween = (before: Piece, after: Piece): number => {
  const [from, to] = [pieceDirection(before, 1), pieceDirection(after, 0)];
  return Math.atan2(cross(from, to), dot(from, to));
};

/** Joints with an arc that are nearly smooth: off by a little, they were meant to be tangent. */
export const kinks: Check = {
  id: "kinks",
  name: "Arcs run on smoothly",
  source: "Common practice: a turn between 0.00006° and 5° beside an arc was meant as none.",
  find: ({ profile: { contours, open } }) =>
    [...contours, ...open].flatMap(({ ids, pieces, closed }) =>
      pieces.flatMap((piece, i) => {
        const before = i > 0 ? pieces[i - 1]! : closed ? pieces.at(-1)! : undefined;
        if (!before || before === piece || (piece.bulge === 0 && before.bulge === 0)) return [];
        const turn = Math.abs(turnBetween(before, piece));
        if (turn <= TANGENT_WITHIN || toDegrees(turn) > LARGEST) return [];
        return [{ code: "kink", severity: "warning" as const, at: piece.a, ids, values: { degrees: toDegrees(turn) } }];
      }),
    ),
  says: {
    kink: ({ degrees }) =>
      `An arc runs on with a kink of ${Number(Number(degrees).toPrecision(2))}°. A tangent joint has none.`,
  },
};
