import type { Drawn } from "./explained.ts";
import { jointsOf, type Joint } from "./jointsOf.ts";
import { inkAside } from "./proposal.ts";
import type { Shape } from "./shapes.ts";
import { solvedPieces } from "./solvedPieces.ts";
import { pointsIn, type Frame } from "./strokes.ts";

/** A piece of the outline lies no farther off its ink than so many strokes. */
const MOST_OFF = 2.5;

export type Outline = {
  readonly drawn: readonly Drawn[];
  readonly joints: readonly Joint[];
  readonly shapes: readonly Shape[];
  /** What could not be brought to meet the others without leaving its ink. */
  readonly strays: readonly Drawn[];
};

/**
 * The pieces of an outline solved to meet. What that moves far from its ink, by what it was taken to touch, does not
 * touch it; what is far off still is none of it.
 */
export const settledOutline = (drawn: readonly Drawn[], frame: Frame): Outline => {
  const joints = jointsOf(drawn, frame.stroke);
  const shapes = solvedPieces(drawn, joints, frame);
  // a hand runs on past where it was to end: that bends nothing
  const isOff = (some: readonly Shape[]) => (one: Drawn, i: number) =>
    inkAside(pointsIn(one.stroke), some[i]!) > MOST_OFF * frame.stroke;
  const bent = new Set(drawn.flatMap((one, i) => (isOff(shapes)(one, i) ? [i] : [])));
  if (bent.size === 0) return { drawn, joints, shapes, strays: [] };
  const looser = joints.map((one) => (bent.has(one.one) || bent.has(one.other) ? { ...one, tangent: false } : one));
  const again = solvedPieces(drawn, looser, frame);
  const strays = drawn.filter(isOff(again));
  if (strays.length === 0) return { drawn, joints: looser, shapes: again, strays };
  const rest = drawn.filter((one) => !strays.includes(one));
  const left = jointsOf(rest, frame.stroke);
  return { drawn: rest, joints: left, shapes: solvedPieces(rest, left, frame), strays };
};
