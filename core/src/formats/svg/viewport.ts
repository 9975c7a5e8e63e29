import type { Affine } from "../readShapes.ts";
import { numbersIn } from "./numbers.ts";

/** How large the nearest viewport is in the units of what lies in it: what percentages are of. */
export type Viewport = { readonly width: number; readonly height: number };

/** What a `viewBox` shows; undefined where there is none, or nothing in it. */
export const viewBoxOf = (text: string | undefined): readonly [number, number, number, number] | undefined => {
  const { values } = numbersIn(text ?? "");
  return values.length === 4 && values[2]! > 0 && values[3]! > 0
    ? (values as readonly number[] as [number, number, number, number])
    : undefined;
};

/** Where what is left over goes: none of it, half, or all of it before the box. */
const SHARE: Readonly<Record<string, number>> = { Min: 0, Mid: 0.5, Max: 1 };

/**
 * The matrix that fits a view box into a viewport at its origin by `preserveAspectRatio`: meet, slice, or none, aligned
 * as it says (SVG 1.1, 7.8; SVG 2, 8.2).
 */
export const fitted = (
  [x, y, w, h]: readonly [number, number, number, number],
  { width, height }: Viewport,
  preserve: string | undefined,
): Affine => {
  const [first = "", second] = (preserve ?? "")
    .trim()
    .replace(/^defer\s+/, "")
    .split(/\s+/);
  let [sx, sy] = [width / w, height / h];
  if (first === "none") return { a: sx, b: 0, c: 0, d: sy, e: -x * sx, f: -y * sy };
  sx = sy = second === "slice" ? Math.max(sx, sy) : Math.min(sx, sy);
  const [, across = "Mid", up = "Mid"] = /^x(Min|Mid|Max)Y(Min|Mid|Max)$/.exec(first) ?? [];
  return {
    a: sx,
    b: 0,
    c: 0,
    d: sy,
    e: -x * sx + SHARE[across]! * (width - w * sx),
    f: -y * sy + SHARE[up]! * (height - h * sy),
  };
};
