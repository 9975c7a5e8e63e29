/** A sum of some unknowns, each times a number, and a number: what equations speak of. */
export type Lin = { readonly at: readonly number[]; readonly by: readonly number[]; readonly plus: number };

/** A place made of such sums. */
export type Spot = { readonly x: Lin; readonly y: Lin };

export const constant = (plus: number): Lin => ({ at: [], by: [], plus });
export const unknown = (i: number): Lin => ({ at: [i], by: [1], plus: 0 });

/** `k` times the one and `l` times the other. */
export const combined = (p: Lin, q: Lin, k = 1, l = 1): Lin => ({
  at: [...p.at, ...q.at],
  by: [...p.by.map((by) => k * by), ...q.by.map((by) => l * by)],
  plus: k * p.plus + l * q.plus,
});

export const spot = (x: number, y: number): Spot => ({ x: constant(x), y: constant(y) });

/** A line along x, as two places: directions are told from it. */
export const LEVEL: readonly [Spot, Spot] = [spot(0, 0), spot(1, 0)];

/** A place and another, each times a number. */
export const combinedSpots = (p: Spot, q: Spot, k = 1, l = 1): Spot => ({
  x: combined(p.x, q.x, k, l),
  y: combined(p.y, q.y, k, l),
});

export const linAt = ({ at, by, plus }: Lin, x: ArrayLike<number>): number => {
  let sum = plus;
  for (let k = 0; k < at.length; k++) sum += by[k]! * x[at[k]!]!;
  return sum;
};

export const spotAt = (p: Spot, x: ArrayLike<number>): { readonly x: number; readonly y: number } => ({
  x: linAt(p.x, x),
  y: linAt(p.y, x),
});
