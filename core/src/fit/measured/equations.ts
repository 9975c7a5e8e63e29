import { signedAngle } from "../../numeric/angle.ts";

/**
 * Parameters of the pieces one after another: of a line the angle of its direction and how far it lies from the origin
 * to its left, of an arc its centre and its radius.
 */
export type Parameters = Float64Array;

/** A relation between pieces: how far from holding it is, and how that changes with the parameters that it names. */
export type Equation = {
  readonly at: readonly number[];
  readonly value: (p: Parameters) => number;
  readonly slopes: (p: Parameters) => readonly number[];
};

/** A line touches a circle on the side where it lies now. */
export const lineTouches = (line: number, arc: number, p: Parameters): Equation => {
  const away = (q: Parameters): number =>
    q[arc + 1]! * Math.cos(q[line]!) - q[arc]! * Math.sin(q[line]!) - q[line + 1]!;
  const side = away(p) < 0 ? -1 : 1;
  return {
    at: [line, line + 1, arc, arc + 1, arc + 2],
    value: (q) => side * away(q) - q[arc + 2]!,
    slopes: (q) => {
      const [c, s] = [Math.cos(q[line]!), Math.sin(q[line]!)];
      return [side * (-q[arc + 1]! * s - q[arc]! * c), -side, -side * s, side * c, -1];
    },
  };
};

/** Two circles touch, from inside where they turn alike. */
export const arcsTouch = (one: number, other: number, alike: boolean, p: Parameters): Equation => {
  const larger = p[one + 2]! >= p[other + 2]! ? 1 : -1;
  const [first, second] = alike ? [-larger, larger] : [-1, -1];
  return {
    at: [one, one + 1, one + 2, other, other + 1, other + 2],
    value: (q) =>
      Math.hypot(q[other]! - q[one]!, q[other + 1]! - q[one + 1]!) + first * q[one + 2]! + second * q[other + 2]!,
    slopes: (q) => {
      const [x, y] = [q[other]! - q[one]!, q[other + 1]! - q[one + 1]!];
      const apart = Math.hypot(x, y) || 1;
      return [-x / apart, -y / apart, first, x / apart, y / apart, second];
    },
  };
};

/** A line lies in the direction of an angle, this way or that. */
export const lineAt = (line: number, angle: number): Equation => ({
  at: [line],
  value: (q) => signedAngle(2 * (q[line]! - angle)) / 2,
  slopes: () => [1],
});

/** Two parameters are one. */
export const equalOnes = (one: number, other: number): Equation => ({
  at: [one, other],
  value: (q) => q[one]! - q[other]!,
  slopes: () => [1, -1],
});
