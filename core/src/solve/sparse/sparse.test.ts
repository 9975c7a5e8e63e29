import fc from "fast-check";
import { Matrix, SingularValueDecomposition, solve } from "ml-matrix";
import { describe, expect, it } from "vitest";
import { randomFrom } from "../../testing/contours.ts";
import { factoring } from "./ldl.ts";
import { rankOf, type Row } from "./rank.ts";

/** Sparse rows over some unknowns; some are made of those before. */
const randomRows = (seed: number, width: number, count: number, dependent: number): readonly Row[] => {
  const random = randomFrom(seed);
  // slopes of order 1, as the equations have
  const slope = (): number => (random() < 0.5 ? -1 : 1) * (0.3 + 0.7 * random());
  const rows: Row[] = [];
  for (let k = 0; k < count; k++) {
    const parts = new Map<number, number>();
    const put = (i: number, by: number): void => void parts.set(i, (parts.get(i) ?? 0) + by);
    if (k > 2 && random() < dependent)
      for (let n = 0; n < 3; n++) {
        const other = rows[Math.floor(random() * k)]!;
        const by = slope();
        other.at.forEach((i, j) => put(i, by * other.by[j]!));
      }
    else for (let n = 0; n < 4; n++) put(Math.floor(random() * width), slope());
    rows.push({ at: [...parts.keys()], by: [...parts.values()] });
  }
  return rows;
};

const dense = (width: number, rows: readonly Row[]): Matrix => {
  const matrix = Matrix.zeros(Math.max(1, rows.length), width);
  rows.forEach(({ at, by }, k) => at.forEach((i, n) => void matrix.set(k, i, matrix.get(k, i) + by[n]!)));
  return matrix;
};

describe("sparse systems, against dense ones by ml-matrix", () => {
  it("the rank is that of a dense singular value decomposition, row by row", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 2, max: 24 }), (seed, width) => {
        const rows = randomRows(seed, width, 20, 0.4);
        const rank = rankOf(width, rows);
        rows.forEach((row, k) => {
          rank.add(row);
          const values = new SingularValueDecomposition(dense(width, rows.slice(0, k + 1)), { autoTranspose: true })
            .diagonal;
          // what lies between what is rounding and what is not can't be told by anyone
          if (values.some((value) => value > 1e-13 && value < 1e-6)) return;
          expect(rank.count()).toBe(values.filter((value) => value > 1e-9).length);
        });
      }),
      { numRuns: 150 },
    );
  });

  it("a quasi-definite system is solved as a dense one is; rows that follow from others do no harm", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.constantFrom(0, 0.3), (seed, dependent) => {
        const random = randomFrom(seed);
        const [width, rows] = [18, randomRows(seed, 18, 12, dependent)];
        const size = width + rows.length;
        const [at, to, values]: [number[], number[], number[]] = [[], [], []];
        const whole = Matrix.zeros(size, size);
        const put = (i: number, j: number, value: number): void => {
          at.push(i);
          to.push(j);
          values.push(value);
          whole.set(i, j, whole.get(i, j) + value);
          if (i !== j) whole.set(j, i, whole.get(j, i) + value);
        };
        for (let i = 0; i < width; i++) put(i, i, 0.1 + random());
        rows.forEach(({ at: own, by }, k) => {
          put(width + k, width + k, -1e-13);
          own.forEach((i, n) => put(i, width + k, by[n]!));
        });
        const wanted = Float64Array.from({ length: width }, () => 2 * random() - 1);
        const right = new Float64Array(size);
        // a right side that some unknowns have, with what pulls at them in the rows' space
        for (let i = 0; i < width; i++) right[i] = random();
        rows.forEach(({ at: own, by }, k) => {
          right[width + k] = own.reduce((sum, i, n) => sum + by[n]! * wanted[i]!, 0);
        });
        const found = factoring(size, Int32Array.from(at), Int32Array.from(to), width)
          .factor(Float64Array.from(values))!
          .solve(right);
        const best = solve(whole, Matrix.columnVector([...right]), true).to1DArray();
        const far = Math.max(...best.slice(0, width).map(Math.abs), 1);
        for (let i = 0; i < width; i++) expect(Math.abs(found[i]! - best[i]!) / far).toBeLessThan(1e-6);
        rows.forEach(({ at: own, by }, k) => {
          const off = own.reduce((sum, i, n) => sum + by[n]! * found[i]!, -right[width + k]!);
          expect(Math.abs(off)).toBeLessThan(1e-7 * far);
        });
      }),
      { numRuns: 200 },
    );
  });
});
