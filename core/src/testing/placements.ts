import fc from "fast-check";
import { after, mirroring, moving, scaling, turning, type Similarity } from "../geometry/transform.ts";

const origin = { x: 0, y: 0 };

/** Where and how a construction is put: turned, mirrored or not, scaled from 1e-2 to 1e4, at the origin or 1e5 away. */
export const placements: fc.Arbitrary<Similarity> = fc
  .record({
    turn: fc.double({ min: 0, max: 6.28, noNaN: true }),
    mirrored: fc.boolean(),
    power: fc.double({ min: -2, max: 4, noNaN: true }),
    away: fc.constantFrom({ x: 0, y: 0 }, { x: 1e5, y: 0 }, { x: -7e4, y: 7e4 }),
  })
  .map(({ turn, mirrored, power, away }) =>
    [
      mirrored ? mirroring(origin, 0.7) : scaling(origin, 1),
      turning(origin, turn),
      scaling(origin, 10 ** power),
      moving(away),
    ].reduce(after),
  );

export const between = (min: number, max: number): fc.Arbitrary<number> => fc.double({ min, max, noNaN: true });
export const points = (reach = 100): fc.Arbitrary<{ x: number; y: number }> =>
  fc.record({ x: between(-reach, reach), y: between(-reach, reach) });

/** The residual bound of the contracts, for what has this size and lies this far out. */
export { residualBound } from "../numeric/tolerance.ts";
