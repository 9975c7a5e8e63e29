import { settingsOf } from "../drawing/drawing.ts";
import { pieceLength } from "../geometry/piece.ts";
import { lengthIn, type Check } from "./check.ts";

/** Pieces shorter than what joins: leftovers of other programs' rounding, on which machines stutter. */
export const tinyPieces: Check = {
  id: "tiny",
  name: "No tiny pieces",
  source: "Common practice: shorter than the join tolerance.",
  find: ({ drawing, profile: { contours, open } }) => {
    const least = settingsOf(drawing).joinTolerance;
    return [...contours, ...open].flatMap(({ ids, pieces }) =>
      pieces.flatMap((piece) => {
        const length = pieceLength(piece);
        if (length >= least) return [];
        return [{ code: "tiny", severity: "warning" as const, at: piece.a, ids, values: { length, least } }];
      }),
    );
  },
  says: {
    tiny: ({ length, least }, unit) =>
      `A piece is only ${lengthIn(length, unit)} ${unit} long, less than what joins (${lengthIn(least, unit)}).`,
  },
  repairs: { tiny: "tidy" },
};
