import { along, angleOf, dot, subtract, type Point } from "@ash-edge/core/geometry";
import { signedAngle, unitAt } from "@ash-edge/core/numeric";

export type HeldDirection = { readonly word: "level" | "upright" | "along" | "square"; readonly at: Point };

/** The pointer brought onto the nearest held direction from `from`: level, upright, along the last piece or square to it. */
export const holdDirection = (from: Point, pointer: Point, lastAngle: number | undefined): HeldDirection => {
  const directions: (readonly [HeldDirection["word"], number])[] = [
    ["level", 0],
    ["upright", Math.PI / 2],
  ];
  if (lastAngle !== undefined) directions.push(["along", lastAngle], ["square", lastAngle + Math.PI / 2]);
  const way = subtract(pointer, from);
  const away = ([, angle]: readonly [string, number]): number => {
    const turn = Math.abs(signedAngle(angleOf(way) - angle));
    return Math.min(turn, Math.PI - turn);
  };
  const [word, angle] = directions.reduce((best, one) => (away(one) < away(best) - 1e-9 ? one : best));
  const direction = unitAt(angle);
  return { word, at: along(from, direction, dot(way, direction)) };
};
