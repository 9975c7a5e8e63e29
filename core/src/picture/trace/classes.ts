import { curveBounds, curveLength } from "../../geometry/curve.ts";
import type { Drawn } from "./explained.ts";
import { unionBounds, type Bounds } from "../../geometry/bounds.ts";
import type { Mask } from "./ink.ts";
import type { Joint } from "./jointsOf.ts";
import { crossedSides, LEAST } from "./rings.ts";

/** What a proposal is for: the outline, what is thin (centre and dimension lines), or neither plainly. */
export type Group = "outline" | "thin" | "doubtful";

/** Strokes have two weights where the heavier has so many times as much ink across it. */
const HEAVIER = 1.45;
/** The mean of each class is looked for anew so often. */
const TURNS = 12;
/** What is shorter than so many strokes is the outline's only between pieces that it goes on into. */
const SHORT = 12;
/** Pieces that hang together reach over so many strokes at least. */
const TOGETHER = 22;
/** A hole smaller than so many strokes in radius is one only with its centre mark. */
const SMALL_HOLE = 3.5;

/** The ink across a line that divides heavy from thin ones; 0 where all are alike. */
export const dividing = (drawn: readonly Drawn[]): number => {
  const own = drawn.map(({ stroke, shape }) => ({ mass: stroke.mass, long: curveLength(shape) }));
  const sorted = own.map(({ mass }) => mass).sort((p, q) => p - q);
  let [thin, heavy] = [sorted[Math.floor(sorted.length * 0.1)] ?? 0, sorted[Math.floor(sorted.length * 0.9)] ?? 0];
  for (let turn = 0; turn < TURNS; turn++) {
    const middle = Math.sqrt(thin * heavy);
    const mean = (some: typeof own): number =>
      some.reduce((sum, one) => sum + one.mass * one.long, 0) / some.reduce((sum, one) => sum + one.long, 0);
    const [low, high] = [own.filter(({ mass }) => mass < middle), own.filter(({ mass }) => mass >= middle)];
    if (low.length === 0 || high.length === 0) return 0;
    [thin, heavy] = [mean(low), mean(high)];
  }
  return heavy / thin >= HEAVIER ? Math.sqrt(thin * heavy) : 0;
};

/**
 * Which of the heavy pieces are the outline's: holes, and what meets others of it. A short one needs another at either
 * end that it goes on into; arrows' barbs and what is left of lettering have none.
 */
export const isOutline = (
  drawn: readonly Drawn[],
  joints: readonly Joint[],
  mask: Mask,
  width: number,
): readonly boolean[] => {
  const sizes = sizesOf(drawn, joints);
  return drawn.map(({ shape }, i) => {
    if (shape.kind === "circle")
      return (
        shape.radius >= SMALL_HOLE * width || (shape.radius >= LEAST * width && crossedSides(shape, mask, width) >= 2)
      );
    const ends = (["a", "b"] as const).map((end) =>
      joints.find((one) => (one.one === i && one.end === end) || (one.other === i && one.into === end)),
    );
    if (curveLength(shape) < width || sizes[i]! < TOGETHER * width) return false;
    const goesOn = ends.filter((joint) => joint && (joint.into || joint.tangent)).length;
    const [p, q] = ends.map((joint) => joint && (joint.one === i ? joint.other : joint.one));
    return curveLength(shape) < SHORT * width ? goesOn === 2 && p !== q : ends.some((joint) => joint !== undefined);
  });
};

/** How far the pieces reach that hang together with each. */
const sizesOf = (drawn: readonly Drawn[], joints: readonly Joint[]): readonly number[] => {
  const leads = drawn.map((_, i) => i);
  const lead = (i: number): number => (leads[i] === i ? i : (leads[i] = lead(leads[i]!)));
  for (const { one, other } of joints) leads[lead(one)] = lead(other);
  const boxes = new Map<number, Bounds>();
  drawn.forEach(({ shape }, i) => {
    const own = curveBounds(shape)!;
    const box = boxes.get(lead(i));
    boxes.set(lead(i), box ? unionBounds([box, own])! : own);
  });
  return drawn.map((_, i) => {
    const { minX, minY, maxX, maxY } = boxes.get(lead(i))!;
    return Math.hypot(maxX - minX, maxY - minY);
  });
};
