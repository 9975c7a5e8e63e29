import { carrierNearest, carrierOf, curveNearest } from "../../geometry/curve.ts";
import { distance, type Point } from "../../geometry/point.ts";
import type { Group } from "./classes.ts";
import type { Shape } from "./shapes.ts";

/** What a picture may show, for a drafter to take or leave. Places are pixels of the picture, y down. */
export type Proposal = {
  readonly id: number;
  readonly shape: Shape;
  readonly group: Group;
  /** How far its ink lies off it, but for a twentieth that strays. */
  readonly off: number;
  /** Places on the middle of its ink from one end to the other, no more than 64. */
  readonly ink: readonly Point[];
};

/** Of how far ink lies off a piece so much is left aside. */
const STRAYS = 0.05;

/** How far ink lies off a shape, but for what strays; 0 of none. */
export const inkOff = (ink: readonly Point[], shape: Shape): number =>
  mostOf(ink.map((p) => curveNearest(shape, p).distance));

/** How far ink lies off what a shape lies on, wherever that ends; but for what strays; 0 of none. */
export const inkAside = (ink: readonly Point[], shape: Shape): number => {
  const carrier = carrierOf(shape);
  return mostOf(ink.map((p) => distance(carrierNearest(carrier, p), p)));
};

const mostOf = (offs: readonly number[]): number =>
  [...offs].sort((p, q) => p - q)[Math.floor((1 - STRAYS) * (offs.length - 1))] ?? 0;
