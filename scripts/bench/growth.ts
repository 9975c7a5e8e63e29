import { combine } from "@ash-edge/core/arrangement";
import { nestingDepths } from "@ash-edge/core/contour";
import { circleHalves, type Piece } from "@ash-edge/core/geometry";
import { offset, offsetRegion } from "@ash-edge/core/offset";
import { polygon } from "../../core/src/testing/contours.ts";
import { say } from "./report.ts";

const SIZES = [1000, 2000, 4000] as const;

const nested = (n: number): readonly (readonly Piece[])[] =>
  Array.from({ length: n }, (_, i) => circleHalves({ centre: { x: 0, y: 0 }, radius: 10 + i }));
const frames = (n: number): readonly (readonly Piece[])[] =>
  Array.from({ length: n }, (_, i) => {
    const r = 10 + i;
    return polygon([
      [-r, -r],
      [r, -r],
      [r, r],
      [-r, r],
    ]);
  });
const grid = (n: number): readonly (readonly Piece[])[] => {
  const side = Math.round(Math.sqrt(n));
  return Array.from({ length: side * side }, (_, i) =>
    circleHalves({ centre: { x: (i % side) * 10, y: Math.floor(i / side) * 10 }, radius: 4 }),
  );
};
const burst = (n: number): readonly Piece[] =>
  polygon(
    Array.from({ length: 2 * n }, (_, i) => {
      const [angle, r] = [(Math.PI * i) / n, i % 2 === 0 ? 100 : 10];
      return [r * Math.cos(angle), r * Math.sin(angle)] as const;
    }),
  );

const FAMILIES: readonly (readonly [name: string, work: (n: number) => unknown])[] = [
  ["concentric circles, nested", (n) => nestingDepths(nested(n))],
  ["concentric circles, grown 0.2", (n) => offsetRegion(nested(n), 0.2, { corners: "round" })],
  ["concentric circles, grown until they merge", (n) => offsetRegion(nested(n), 0.6, { corners: "round" })],
  ["nested frames, grown 0.2", (n) => offsetRegion(frames(n), 0.2, { corners: "round" })],
  ["a grid of circles, grown until they merge", (n) => offsetRegion(grid(n), 1.5, { corners: "round" })],
  ["a starburst, its tips shortened", (n) => offset([{ pieces: burst(n), closed: true }], 0.01, { corners: "round" })],
  ["a starburst, grown 5", (n) => offset([{ pieces: burst(n), closed: true }], -5, { corners: "round" })],
  [
    "nested frames, a quarter of them united",
    (n) =>
      combine(
        frames(n / 4).map((one) => [one]),
        "unite",
      ),
  ],
];

/** How the dense families grow: each once, so only the growth means something. */
export const growth = (): void => {
  say("\n## Growth of dense families\n");
  say(`| family | ${SIZES.map((n) => `${n}`).join(" | ")} | growth a doubling |`);
  say(`| --- | ${SIZES.map(() => "---:").join(" | ")} | ---: |`);
  for (const [name, work] of FAMILIES) {
    const times = SIZES.map((n) => {
      const start = performance.now();
      work(n);
      return performance.now() - start;
    });
    const each = (times.at(-1)! / times[0]!) ** (1 / (SIZES.length - 1));
    say(`| ${name} | ${times.map((ms) => `${ms.toFixed(0)} ms`).join(" | ")} | ${each.toFixed(1)} |`);
  }
};
