import type { Point } from "../geometry/point.ts";
import type { Id } from "../numeric/id.ts";
import type { Ref } from "./ref.ts";

/** What speaks of geometry without being cut: dimensions, notes, centre and thread marks. */
export const ANNOTATION_KINDS = [
  "linear",
  "angle",
  "radius",
  "diameter",
  "arc length",
  "ordinate",
  "note",
  "centre mark",
  "centre line",
  "thread mark",
] as const;
export type AnnotationKind = (typeof ANNOTATION_KINDS)[number];

export type Annotation = {
  readonly id: Id;
  readonly kind: AnnotationKind;
  /**
   * What it holds. Linear: an edge, or two places, edges or one of each. Angle: two edges, or a vertex and two places.
   * Radius and diameter: a round curve, or several equal ones. Arc length: an arc. Ordinate: the datum and a place.
   * Note: its tips, or nothing. Centre mark: round curves. Centre line: two edges, two places, or three and more round
   * a circle. Thread mark: the hole.
   */
  readonly refs: readonly Ref[];
  /**
   * Where its text stands in its own frame (`attach/frame.ts`), along and off it, in the job's unit. Of a linear
   * dimension `y` is how far its line lies off and `x` how far the text stands from the middle of the line.
   */
  readonly at: Point;
  /** Linear: its direction, radians; along its places where it says nothing. Ordinate: 0 for x. */
  readonly angle?: number;
  /** The words of a note, or what stands before a measured number. */
  readonly text?: string;
  /** Of a thread mark: the outer diameter of the thread. */
  readonly size?: number;
  /** Arrows from outside, or from inside, against what the room says. */
  readonly flipped?: true;
  /** Of a note: the leader ends at its text without a landing. */
  readonly bare?: true;
  /** The callout that it shows and with which it agrees. */
  readonly callout?: Id;
  /** It lost what it measured: where its text and the nearest of what it measured stood, in the drawing. */
  readonly lost?: readonly [text: Point, from: Point];
};

/** How dimensions and notes look: lettering by ISO 3098, lines and arrows by ISO 129. Millimetres on paper. */
export type AnnotationStyle = {
  /** Height of capitals, mm on paper. */
  readonly height: (typeof LETTERING)[number];
  readonly arrow: (typeof ARROWS)[number];
  /** Decimals of millimetres and degrees at most; inches have one more. */
  readonly decimals: number;
  /** Decimals are filled up with zeros. */
  readonly zeros: boolean;
  /** The finest fraction of an inch shown; decimals where it is 0. */
  readonly denominator: number;
  /** The unit stands behind a length. */
  readonly unit: boolean;
  /** The other unit stands behind it in brackets. */
  readonly dual: boolean;
  /** Between what is measured and the start of an extension line, mm on paper. */
  readonly gap: number;
  /** How far an extension line passes the dimension line, mm on paper. */
  readonly overhang: number;
  /** Drawing to paper, 5 for 1 : 5; from the size of the drawing where it says nothing. */
  readonly sheet?: number;
};

/** A note has no more letters than this. */
export const MOST_LETTERS = 2000;
/** Heights of lettering by ISO 3098-1. */
export const LETTERING = [2.5, 3.5, 5, 7] as const;
/** Terminators by ISO 129-1. */
export const ARROWS = ["filled", "open", "tick", "dot"] as const;
/** Denominators of fractions of an inch; 0 for decimals. */
export const DENOMINATORS = [0, 2, 4, 8, 16, 32, 64] as const;

export const FIRST_STYLE: AnnotationStyle = {
  height: 3.5,
  arrow: "filled",
  decimals: 3,
  zeros: false,
  denominator: 0,
  unit: false,
  dual: false,
  gap: 1,
  overhang: 2,
};
