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
/** A hole smaller than so many strokes in radius is one only with its centre mark, which leaves it on so many sides. */
const [SMALL_HOLE, MARKED] = [3.5, 3];

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
  const endsAt = drawn.map((_, i) =>
    (["a", "b"] as const).map((end) =>
      joints.find((one) => (one.one === i && one.end === end) || (one.other === i && one.into === end)),
    ),
  );
  const isLong = ({ shape }: Drawn): boolean => curveLength(shape) >= SHORT * width;
  // what goes on from end to end with a long one, or comes round; letters that lie on an outline hang on it loosely
  const leads = grouped(
    drawn.length,
    joints.filter(({ into }) => into),
  );
  const isHeld = drawn.map((_, i) => {
    const run = drawn.map((__, k) => k).filter((k) => leads[k] === leads[i]);
    return run.some((k) => isLong(drawn[k]!)) || run.every((k) => endsAt[k]!.every((joint) => joint?.into));
  });
  let own = drawn.map(() => true);
  const isOwn = (one: Drawn, i: number): boolean => {
    const { shape } = one;
    if (shape.kind === "circle")
      return (
        shape.radius >= SMALL_HOLE * width ||
        (shape.radius >= LEAST * width && crossedSides(shape, mask, width) >= MARKED)
      );
    if (curveLength(shape) < width || sizes[i]! < TOGETHER * width) return false;
    const ends = endsAt[i]!;
    const others = ends.map((joint) => joint && (joint.one === i ? joint.other : joint.one));
    const meets = others.map((other) => other !== undefined && own[other]!);
    const runsOn = ends.map((joint, k) => meets[k] && (joint!.into ?? joint!.tangent));
    const isBetween = others[0] !== others[1];
    // what only ends on it with one end, as a leader does, or hangs on one piece by both, as a letter, is none
    if (isLong(one))
      return (isBetween && meets.every((met) => met)) || ends.some((joint, k) => meets[k] && joint!.into);
    return isHeld[i]! && isBetween && runsOn.every((on) => on);
  };
  // what hangs on what is none, is none
  for (;;) {
    const next = drawn.map((one, i) => own[i]! && isOwn(one, i));
    if (next.every((one, i) => one === own[i])) return next;
    own = next;
  }
};

/** For each of some things one that all that hang together with it share. */
const grouped = (count: number, joints: readonly Joint[]): readonly number[] => {
  const leads = Array.from({ length: count }, (_, i) => i);
  const lead = (i: number): number => (leads[i] === i ? i : (leads[i] = lead(leads[i]!)));
  for (const { one, other } of joints) leads[lead(one)] = lead(other);
  return leads.map((_, i) => lead(i));
};

/** How far the pieces reach that hang together with each. */
const sizesOf = (drawn: readonly Drawn[], joints: readonly Joint[]): readonly number[] => {
  const leads = grouped(drawn.length, joints);
  const boxes = new Map<number, Bounds>();
  drawn.forEach(({ shape }, i) => {
    const own = curveBounds(shape)!;
    const box = boxes.get(leads[i]!);
    boxes.set(leads[i]!, box ? unionBounds([box, own])! : own);
  });
  return drawn.map((_, i) => {
    const { minX, minY, maxX, maxY } = boxes.get(leads[i]!)!;
    return Math.hypot(maxX - minX, maxY - minY);
  });
};
