import type { Piece } from "../../geometry/piece.ts";
import type { Point } from "../../geometry/point.ts";
import type { ReadGeometry } from "../readShapes.ts";
import { shapesOfPath } from "./paths.ts";

/** The corners of a `points` attribute as a chain; undefined where they are no numbers in pairs. */
export const chainOfCorners = (text: string, closed: boolean): readonly ReadGeometry[] | undefined => {
  const values = text
    .trim()
    .split(/[\s,]+/)
    .filter(Boolean)
    .map(Number);
  if (values.length % 2 !== 0 || !values.every((value) => Number.isFinite(value) && Math.abs(value) <= 1e9))
    return undefined;
  const corners: Point[] = [];
  for (let i = 0; i < values.length; i += 2) corners.push({ x: values[i]!, y: values[i + 1]! });
  if (corners.length < 2) return [];
  const pieces = corners.map((a, i): Piece => ({ a, b: corners[(i + 1) % corners.length]!, bulge: 0 }));
  return [{ kind: "chain", closed, pieces: closed ? pieces : pieces.slice(0, -1) }];
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
  if (rx === 0 || ry === 0) return chainOfCorners(`${x},${y} ${x + w},${y} ${x + w},${y + h} ${x},${y + h}`, true);
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
