import { after } from "../../geometry/transform.ts";
import { toRadians } from "../../numeric/angle.ts";
import type { Affine } from "../readShapes.ts";

export const IDENTITY: Affine = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };

/**
 * One function of a `transform` attribute as a matrix, as the W3C's SVG 1.1, chapter 7.6, has them; undefined for none
 * of them.
 */
const matrixOf = (name: string, v: readonly number[]): Affine | undefined => {
  const [p = 0, q = 0] = v;
  switch (name) {
    case "matrix":
      return v.length === 6 ? { a: v[0]!, b: v[1]!, c: v[2]!, d: v[3]!, e: v[4]!, f: v[5]! } : undefined;
    case "translate":
      return { ...IDENTITY, e: p, f: q };
    case "scale":
      return { ...IDENTITY, a: p, d: v.length > 1 ? q : p };
    case "skewX":
      return { ...IDENTITY, c: Math.tan(toRadians(p)) };
    case "skewY":
      return { ...IDENTITY, b: Math.tan(toRadians(p)) };
    case "rotate": {
      const [c, s] = [Math.cos(toRadians(p)), Math.sin(toRadians(p))];
      const [x, y] = [v[1] ?? 0, v[2] ?? 0];
      return { a: c, b: s, c: -s, d: c, e: x - c * x + s * y, f: y - s * x - c * y };
    }
    default:
      return undefined;
  }
};

/** A `transform` attribute as one matrix; undefined where it can't be read. */
export const transformOf = (text: string | undefined): Affine | undefined => {
  if (!text?.trim()) return IDENTITY;
  let m = IDENTITY;
  let rest = text.trim();
  while (rest) {
    const found = /^([a-zA-Z]+)\s*\(([^)]*)\)[\s,]*/.exec(rest);
    const values = found?.[2]!
      .split(/[\s,]+/)
      .filter(Boolean)
      .map(Number);
    const own = found && values!.every(Number.isFinite) ? matrixOf(found[1]!, values!) : undefined;
    if (!own) return undefined;
    m = after(own, m); // the last one named is done first
    rest = rest.slice(found![0].length);
  }
  return m;
};
