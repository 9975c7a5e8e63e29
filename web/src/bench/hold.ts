import { along, angleOf, dot, subtract, type Point } from "@ash-edge/core/geometry";
import { signedAngle, toDegrees, toRadians, unitAt, WHOLE_WITHIN } from "@ash-edge/core/numeric";

export type HeldDirection = { readonly word: string; readonly at: Point };

/** A direction that stays held until it is let go: its angle in degrees, and the word that says what it is. */
export type Hold = { readonly degrees: number; readonly word: string };
export const HOLD_LEVEL: Hold = { degrees: 0, word: "level" };
export const HOLD_UPRIGHT: Hold = { degrees: 90, word: "upright" };
export const holdAngle = (degrees: number): Hold => ({ degrees, word: `${Number(degrees.toFixed(4))}°` });
export const holdEdge = (angle: number, how: "along" | "square"): Hold => ({
  degrees: toDegrees(angle) + (how === "square" ? 90 : 0),
  word: how === "square" ? "square to an edge" : "along an edge",
});

/** The pointer brought onto a direction from `from`. */
export const heldAt = (from: Point, pointer: Point, { degrees, word }: Hold): HeldDirection => {
  const direction = unitAt(toRadians(degrees));
  return { word, at: along(from, direction, dot(subtract(pointer, from), direction)) };
};

/**
 * The pointer brought onto the nearest held direction from `from`: level, upright, along the last piece or square to
 * it.
 */
export const holdDirection = (from: Point, pointer: Point, lastAngle: number | undefined): HeldDirection => {
  const directions = [HOLD_LEVEL, HOLD_UPRIGHT];
  if (lastAngle !== undefined) {
    const degrees = toDegrees(lastAngle);
    directions.push({ degrees, word: "along" }, { degrees: degrees + 90, word: "square" });
  }
  const way = angleOf(subtract(pointer, from));
  const away = ({ degrees }: Hold): number => {
    const turn = Math.abs(signedAngle(way - toRadians(degrees)));
    return Math.min(turn, Math.PI - turn);
  };
  return heldAt(
    from,
    pointer,
    directions.reduce((best, one) => (away(one) < away(best) - WHOLE_WITHIN ? one : best)),
  );
};
