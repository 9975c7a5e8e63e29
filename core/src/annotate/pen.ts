import type { AnnotationStyle } from "../drawing/annotation.ts";
import { boundsOf, unionBounds, type Bounds } from "../geometry/bounds.ts";
import { arcAt, circleHalves } from "../geometry/circle.ts";
import { arcBetween, line, piecesBounds, type Piece } from "../geometry/piece.ts";
import { add, along, angleOf, between, distance, leftOf, subtract, times, type Point } from "../geometry/point.ts";
import { signedAngle, toRadians, unitAt } from "../numeric/angle.ts";
import { greatest } from "../numeric/greatest.ts";
import { DESCENT, LINE_STEP, textWidth } from "./letters.ts";

/**
 * What a dimension, a note or a mark is drawn with, in the drawing's unit: thin lines (full, or long dashes and dots
 * for centre lines), terminators (outlines that are filled or not), and one-line texts about their middles.
 */
export type Drawn =
  | { readonly kind: "stroke"; readonly pieces: readonly Piece[]; readonly centre?: true }
  | {
      readonly kind: "terminator";
      readonly points: readonly Point[];
      readonly closed: boolean;
      readonly filled: boolean;
    }
  | {
      readonly kind: "text";
      readonly text: string;
      /** The middle of its box: as wide as the text, as high as capitals. */
      readonly middle: Point;
      /** Radians; read from below or from the right. */
      readonly angle: number;
      /** Height of capitals. */
      readonly height: number;
    };
export type DrawnText = Extract<Drawn, { kind: "text" }>;

/** Angle of an arrowhead (ISO 129-1: closed and filled, 15° to 90°; from memory). */
const ARROW_ANGLE = toRadians(15);
/** Of an open one. */
const OPEN_ANGLE = toRadians(30);
/** Strokes of a terminator at an angle are this steep to the line. */
const TICK_ANGLE = Math.PI / 4;

/** Below this a direction counts as level: text is read from below, not from above, in spite of rounding. */
const LEVEL_WITHIN = 1e-9;

/** A direction along a line in which it is read from below or from the right (ISO 129-1, 7.1; from memory). */
export const readable = (angle: number): number => {
  const own = signedAngle(angle);
  if (own > Math.PI / 2 + LEVEL_WITHIN) return own - Math.PI;
  return own <= -Math.PI / 2 + LEVEL_WITHIN ? own + Math.PI : own;
};

/** Where the first letter of a text stands on its line of writing. */
export const drawnTextStart = ({ text, middle, angle, height }: DrawnText): Point =>
  along(along(middle, unitAt(angle), -textWidth(text, height) / 2), leftOf(unitAt(angle)), -height / 2);

/** The corners of a text's box, from its start on the line of writing, counter-clockwise. */
export const textCorners = ({ text, middle, angle, height }: DrawnText): readonly Point[] => {
  const [way, up] = [unitAt(angle), leftOf(unitAt(angle))];
  const half = textWidth(text, height) / 2;
  const corner = (x: number, y: number): Point => along(along(middle, way, x), up, y);
  const [low, high] = [-height / 2 - DESCENT * height, height / 2];
  return [corner(-half, low), corner(half, low), corner(half, high), corner(-half, high)];
};

/** The box of what is drawn. */
export const drawnBounds = (drawn: readonly Drawn[]): Bounds | undefined =>
  unionBounds(
    drawn.flatMap((one) => {
      if (one.kind === "stroke") return piecesBounds(one.pieces) ?? [];
      return boundsOf(one.kind === "text" ? textCorners(one) : one.points);
    }),
  );

/** Collects what one annotation is drawn with; sizes on paper come from the style, `per` drawing units to the mm. */
export class Pen {
  readonly drawn: Drawn[] = [];
  /** Height of capitals, length of an arrow, gap and overhang of extension lines, in drawing units. */
  readonly height: number;
  readonly arrow: number;
  readonly gap: number;
  readonly overhang: number;
  readonly style: AnnotationStyle;

  constructor(style: AnnotationStyle, per: number) {
    this.style = style;
    this.height = style.height * per;
    this.arrow = style.height * per;
    this.gap = style.gap * per;
    this.overhang = style.overhang * per;
  }

  width(text: string, height = this.height): number {
    return textWidth(text, height);
  }

  line(from: Point, to: Point, centre?: true): void {
    this.pieces([line(from, to)], centre);
  }

  pieces(all: readonly Piece[], centre?: true): void {
    const pieces = all.filter(({ a, b }) => distance(a, b) > 0);
    if (pieces.length > 0) this.drawn.push({ kind: "stroke", pieces, ...(centre ? { centre } : {}) });
  }

  /** An arc about a centre, from an angle on by a sweep (radians, either way, up to a whole turn). */
  arc(centre: Point, radius: number, from: number, sweep: number, centreLine?: true): void {
    const half = sweep / 2;
    const at = [0, half, sweep].map((by) => arcAt(centre, radius, from + by)) as [Point, Point, Point];
    const parts = [arcBetween(at[0], at[1], centre, sweep > 0), arcBetween(at[1], at[2], centre, sweep > 0)];
    this.pieces(parts, centreLine);
  }

  circle(centre: Point, radius: number, centreLine?: true): void {
    this.pieces(circleHalves({ centre, radius }), centreLine);
  }

  /** A terminator at a tip that points in a direction (radians). */
  terminator(tip: Point, angle: number): void {
    const { arrow, style } = this;
    const back = (by: number, length: number): Point => along(tip, unitAt(angle + Math.PI + by), length);
    if (style.arrow === "dot") {
      const points = Array.from({ length: 16 }, (_, i) => along(tip, unitAt((i * Math.PI) / 8), arrow / 5));
      this.drawn.push({ kind: "terminator", points, closed: true, filled: true });
    } else if (style.arrow === "tick") {
      const way = unitAt(angle + TICK_ANGLE);
      const points = [along(tip, way, -arrow / 2), along(tip, way, arrow / 2)];
      this.drawn.push({ kind: "terminator", points, closed: false, filled: false });
    } else {
      const filled = style.arrow === "filled";
      const half = (filled ? ARROW_ANGLE : OPEN_ANGLE) / 2;
      const length = arrow / Math.cos(half);
      const points = [back(-half, length), tip, back(half, length)];
      this.drawn.push({ kind: "terminator", points, closed: filled, filled });
    }
  }

  /** A text about its middle. */
  text(text: string, middle: Point, angle: number, height = this.height): void {
    if (text) this.drawn.push({ kind: "text", text, middle, angle: readable(angle), height });
  }

  /** How far the middle of a text stands above the line that it is written along. */
  get rise(): number {
    return this.height * 1.1;
  }

  /** Width of a figure with what it may be off behind it. */
  figureWidth(figure: string, tolerance: readonly string[]): number {
    if (tolerance.length === 0) return this.width(figure);
    const small = tolerance.length > 1 ? SMALL * this.height : this.height;
    return this.width(figure) + SPACE * this.height + greatest(tolerance.map((text) => this.width(text, small)));
  }

  /**
   * A figure written along a line through `on`, above it as it is read, with what it may be off behind it: one text in
   * the same height, or two stacked ones in smaller lettering. Above means: to the left of the way it is read.
   */
  figure(figure: string, tolerance: readonly string[], on: Point, angle: number): void {
    const read = readable(angle);
    const [way, up] = [unitAt(read), leftOf(unitAt(read))];
    const middle = along(on, up, this.rise);
    const whole = this.figureWidth(figure, tolerance);
    const own = this.width(figure);
    this.text(figure, along(middle, way, (own - whole) / 2), read);
    if (tolerance.length === 0) return;
    const start = along(middle, way, own - whole / 2 + SPACE * this.height);
    const stacked = tolerance.length > 1;
    const small = stacked ? SMALL * this.height : this.height;
    tolerance.forEach((text, i) => {
      const off = stacked ? (i === 0 ? STACK : -STACK) * this.height : 0;
      this.text(text, along(along(start, way, this.width(text, small) / 2), up, off), read, small);
    });
  }

  /** Lines of a note from the top left of their block. */
  lines(lines: readonly string[], topLeft: Point, height = this.height): void {
    lines.forEach((text, i) => {
      const middle = add(topLeft, { x: this.width(text, height) / 2, y: -height / 2 - i * LINE_STEP * height });
      this.text(text, middle, 0, height);
    });
  }
}

/** Stacked tolerances are written smaller (ISO 129-1; the part from memory), this far off the middle. */
const SMALL = 0.6;
const STACK = 0.42;
const SPACE = 0.5;

/** Draws an extension line from what is measured to where it is: a gap at the start, an overhang past the end. */
export const extensionLine = (pen: Pen, from: Point, to: Point): void => {
  const length = distance(from, to);
  if (length <= pen.gap) return;
  const way = times(subtract(to, from), 1 / length);
  pen.line(along(from, way, pen.gap), along(to, way, pen.overhang));
};

/**
 * Draws a straight dimension line between two places and its figure above it. `shift`: how far the figure stands from
 * the middle. Where there is no room the arrows go outside, then the figure goes outside too, past the second place.
 * What is `flipped` has its arrows the other way round.
 */
export const dimensionLine = (
  pen: Pen,
  a: Point,
  b: Point,
  figure: string,
  tolerance: readonly string[],
  { shift, flipped, way }: { readonly shift: number; readonly flipped: boolean; readonly way: Point },
): void => {
  const length = distance(a, b);
  const width = pen.figureWidth(figure, tolerance);
  const [middle, angle] = [between(a, b, 0.5), angleOf(way)];
  const roomFor = { arrows: length >= width + 2 * pen.arrow, figure: length >= width + pen.height / 2 };
  const inside = roomFor.arrows !== flipped;
  const tail = inside ? 0 : 2 * pen.arrow;
  const outside = length / 2 + (tail || 2 * pen.arrow) + pen.height / 2 + width / 2;
  const at = shift !== 0 || roomFor.figure ? shift : outside;
  // the line goes on under a figure that stands beside it
  const reach = (side: 1 | -1): number => Math.max(length / 2 + tail, side * at > 0 ? side * at + width / 2 : 0);
  pen.line(along(middle, way, -reach(-1)), along(middle, way, reach(1)));
  if (length > 0 || tail > 0) {
    pen.terminator(a, inside ? angle + Math.PI : angle);
    pen.terminator(b, inside ? angle : angle + Math.PI);
  }
  pen.figure(figure, tolerance, along(middle, way, at), angle);
};
