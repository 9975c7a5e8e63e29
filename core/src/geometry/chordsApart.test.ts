import fc from "fast-check";
import { expect, it } from "vitest";
import { chordsApart } from "./chordsApart.ts";
import { piecePoint, type Piece } from "./piece.ts";
import { distance } from "./point.ts";

const coordinate = fc.integer({ min: -5000, max: 5000 }).map((value) => value / 100);
const piece = fc
  .tuple(coordinate, coordinate, coordinate, coordinate, fc.constantFrom(0, 0, 0.2, -0.7, 1, -1, 1.5))
  .map(([x, y, u, v, bulge]): Piece => ({ a: { x, y }, b: { x: u, y: v }, bulge }));
const places = (one: Piece) => Array.from({ length: 60 }, (_, k) => piecePoint(one, k / 59));

it("what is told to be apart is farther apart than that, wherever it is and however large", () => {
  let told = 0;
  fc.assert(
    fc.property(
      piece,
      piece,
      fc.double({ min: 0, max: 20, noNaN: true }),
      fc.constantFrom(0, 1e5),
      (p, q, reach, far) => {
        const moved = (one: Piece): Piece => ({
          a: { x: one.a.x + far, y: one.a.y - far },
          b: { x: one.b.x + far, y: one.b.y - far },
          bulge: one.bulge,
        });
        const [one, other] = [moved(p), moved(q)];
        const { apart, apartFrom } = chordsApart([one, other]);
        expect(apart(0, 1, reach)).toBe(apart(1, 0, reach));
        const nearest = Math.min(...places(one).flatMap((at) => places(other).map((to) => distance(at, to))));
        if (apart(0, 1, reach)) {
          told += 1;
          expect(nearest).toBeGreaterThan(reach);
        }
        if (other.bulge === 0 && apartFrom(0, other.a.x, other.a.y, other.b.x, other.b.y, reach))
          expect(nearest).toBeGreaterThan(reach);
      },
    ),
    { numRuns: 2000 },
  );
  expect(told).toBeGreaterThan(300);
});

it("of slanting lines side by side all are told apart, of crossing ones and of circles none", () => {
  const slanting = Array.from({ length: 5 }, (_, i) => ({ a: { x: i, y: 0 }, b: { x: i + 100, y: 100 }, bulge: 0 }));
  const { apart } = chordsApart([...slanting, { a: { x: 0, y: 50 }, b: { x: 60, y: 40 }, bulge: 0 }]);
  for (let i = 1; i < 5; i++) expect(apart(0, i, 0.5)).toBe(true);
  expect(apart(0, 5, 0)).toBe(false);
  const round = { centre: { x: 0, y: 0 }, radius: 1 };
  expect(chordsApart([round, { ...round, centre: { x: 9, y: 0 } }]).apart(0, 1, 0)).toBe(false);
});
