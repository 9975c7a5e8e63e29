import { after } from "../../geometry/transform.ts";
import { toRadians } from "../../numeric/angle.ts";
import type { Affine } from "../readShapes.ts";
import { lengthOf, numbersIn } from "./numbers.ts";

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

/** Angles of CSS in degrees. */
const DEGREES: Readonly<Record<string, number>> = { deg: 1, grad: 0.9, rad: 180 / Math.PI, turn: 360 };
const LENGTHS: ReadonlySet<string> = new Set(["translate", "translateX", "translateY"]);

/** What the functions of CSS have beside those of the attribute. */
const longhand = (name: string, v: readonly number[]): readonly [string, readonly number[]] => {
  const [p = 0, q] = v;
  switch (name) {
    case "translateX":
      return ["translate", [p, 0]];
    case "translateY":
      return ["translate", [0, p]];
    case "scaleX":
      return ["scale", [p, 1]];
    case "scaleY":
      return ["scale", [1, p]];
    case "skew":
      return ["matrix", [1, Math.tan(toRadians(q ?? 0)), Math.tan(toRadians(p)), 1, 0, 0]];
    default:
      return [name, v];
  }
};

/** One value of a function of CSS: a length in user units, an angle in degrees, a plain number; NaN for others. */
const valueOf = (text: string, name: string): number => {
  const angle = /^([-+\d.eE]+)(deg|grad|rad|turn)$/.exec(text);
  if (angle) return Number(angle[1]) * DEGREES[angle[2]!]!;
  return LENGTHS.has(name) ? lengthOf(text, NaN) : Number(text);
};

/**
 * A transform as one matrix, as the attribute writes it or as CSS does, with units; undefined where it can't be read,
 * or asks for the size of what it moves.
 */
export const transformOf = (text: string | undefined): Affine | undefined => {
  if (!text?.trim() || text.trim() === "none") return IDENTITY;
  let m = IDENTITY;
  let rest = text.trim();
  while (rest) {
    const found = /^([a-zA-Z]+)\s*\(([^)]*)\)[\s,]*/.exec(rest);
    if (!found) return undefined;
    const [, name, inside] = found;
    const plain = numbersIn(inside!);
    const values = plain.isWhole
      ? plain.values
      : inside!
          .trim()
          .split(/[\s,]+/)
          .map((one) => valueOf(one, name!));
    const own = values.every(Number.isFinite) ? matrixOf(...longhand(name!, values)) : undefined;
    if (!own) return undefined;
    m = after(own, m); // the last one named is done first
    rest = rest.slice(found[0].length);
  }
  return m;
};
