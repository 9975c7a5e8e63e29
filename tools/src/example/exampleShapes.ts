import { freeThrough } from "@ash-edge/core/construct";
import { chainOfPieces } from "@ash-edge/core/contour";
import { arcsThrough } from "@ash-edge/core/fit";
import type { Shape } from "@ash-edge/core/shape";
import type { At } from "./example.ts";

/** A line for a tool's drawing in the help. */
export const exampleLine = (a: At, b: At): Shape => ({
  kind: "piece",
  a: { x: a[0], y: a[1] },
  b: { x: b[0], y: b[1] },
  bulge: 0,
});
/** An arc for a tool's drawing in the help. */
export const exampleArc = (a: At, b: At, bulge: number): Shape => ({ ...exampleLine(a, b), bulge }) as Shape;
/** A circle for a tool's drawing in the help. */
export const exampleCircle = (x: number, y: number, radius: number): Shape => ({
  kind: "circle",
  centre: { x, y },
  radius,
});
/** A point for a tool's drawing in the help. */
export const exampleDot = (x: number, y: number): Shape => ({ kind: "point", at: { x, y } });
/** A rectangle for a tool's drawing in the help. */
export const exampleBox = (x: number, y: number, width: number, height: number): Shape => ({
  kind: "chain",
  closed: true,
  vertices: (
    [
      [x, y],
      [x + width, y],
      [x + width, y + height],
      [x, y + height],
    ] as const
  ).map(([px, py], i) => ({ id: 900 + i, at: { x: px, y: py }, bulge: 0 })),
});

/** A free curve for a tool's drawing in the help. */
export const exampleWave = (...all: readonly At[]): Shape => {
  const made = freeThrough(all.map(([x, y]) => ({ x, y })));
  if (!made.ok) throw new Error(made.refusal.code);
  return { kind: "free", ...made.value };
};
/** Tangent arcs through three places. */
export const exampleArcs = (...all: readonly At[]): Shape => {
  let id = 900;
  return chainOfPieces(
    arcsThrough(
      all.map(([x, y]) => ({ x, y })),
      false,
    ),
    false,
    () => id++,
  );
};
/** A box whose last corner is rounded. */
export const exampleRounded = (width: number, height: number, r: number): Shape => ({
  kind: "chain",
  closed: true,
  vertices: (
    [
      [0, 0, 0],
      [width, 0, 0],
      [width, height - r, Math.tan(Math.PI / 8)],
      [width - r, height, 0],
      [0, height, 0],
    ] as const
  ).map(([x, y, bulge], i) => ({ id: 900 + i, at: { x, y }, bulge })),
});
