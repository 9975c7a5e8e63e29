import type { Piece } from "../../geometry/piece.ts";
import type { Point } from "../../geometry/point.ts";
import type { ReadGeometry } from "../readShapes.ts";
import { numbersIn } from "./numbers.ts";
import { shapesOfPath } from "./paths.ts";

/**
 * The corners of a `points` attribute as a chain, up to the first that is no number or has no partner, where `isWhole`
 * is false (SVG 1.1, 9.7.1: drawn up to the error).
 */
export const chainOfCorners = (
  text: string,
  closed: boolean,
): { readonly made: readonly ReadGeometry[]; readonly isWhole: boolean } => {
  const { values, isWhole } = numbersIn(text);
  const good = values.findIndex((value) => !(Math.abs(value) <= 1e9));
  const count = (good < 0 ? values.length : good) >> 1;
  const corners = Array.from({ length: count }, (_, i): Point => ({ x: values[2 * i]!, y: values[2 * i + 1]! }));
  const whole = isWhole && 2 * count === values.length;
  if (corners.length < 2) return { made: [], isWhole: whole };
  const pieces = corners.map((a, i): Piece => ({ a, b: corners[(i + 1) % corners.length]!, bulge: 0 }));
  return { made: [{ kind: "chain", closed, pieces: closed ? pieces : pieces.slice(0, -1) }], isWhole: whole };
};

/** A rectangle, its corners rounded where it says so; radii too large are cut to half the sides (SVG 1.1, 9.2). */
export const roundedBox = (
  x: number,
  y: number,
  w: number,
  h: number,
  wantedX: number,
  wantedY: number,
): readonly ReadGeometry[] | undefined => {
  const [rx, ry] = [Math.min(Math.max(0, wantedX), w / 2), Math.min(Math.max(0, wantedY), h / 2)];
  if (rx === 0 || ry === 0) return chainOfCorners(`${x},${y} ${x + w},${y} ${x + w},${y + h} ${x},${y + h}`, true).made;
  const arc = (u: number, v: number): string => `A${rx} ${ry} 0 0 1 ${u} ${v}`;
  const sides = [
    `M${x + rx} ${y}`,
    w > 2 * rx ? `H${x + w - rx}` : "",
    arc(x + w, y + ry),
    h > 2 * ry ? `V${y + h - ry}` : "",
    arc(x + w - rx, y + h),
    w > 2 * rx ? `H${x + rx}` : "",
    arc(x, y + h - ry),
    h > 2 * ry ? `V${y + ry}` : "",
    arc(x + rx, y),
    "Z",
  ];
  return shapesOfPath(sides.join(""));
};
