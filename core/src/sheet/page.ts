import type { Bounds } from "../geometry/bounds.ts";
import { circleHalves } from "../geometry/circle.ts";
import { line, type Piece } from "../geometry/piece.ts";
import { add, times, type Point } from "../geometry/point.ts";
import { FONT_SIZE, missingLetter, textWidth } from "../annotate/letters.ts";
import { drawnTextStart, type Drawn } from "../annotate/pen.ts";

/** Widths of lines, mm: wide and narrow ones of line group 0.5 (ISO 128-2), and the frame's (ISO 5457). */
export const WIDE = 0.5;
export const NARROW = 0.25;
export const FRAME = 0.7;
/** Dashes, mm: long dashes and dots of centre lines, dashes of marks. */
const [CENTRE_DASHES, MARK_DASHES] = [
  [6, 1.5, 0.75, 1.5],
  [3, 1.5],
];

/** What stands on paper. Places in mm from the lower left corner of the page, y up. */
export type Mark =
  | {
      readonly kind: "line";
      readonly pieces: readonly Piece[];
      readonly width: number;
      readonly closed?: boolean;
      readonly filled?: boolean;
      readonly dashes?: readonly number[];
    }
  /** `at` is where its first letter stands on the line of writing; `height` of capitals; radians. */
  | {
      readonly kind: "text";
      readonly text: string;
      readonly at: Point;
      readonly height: number;
      readonly angle: number;
    }
  /** A picture known by its name, in a box. */
  | { readonly kind: "picture"; readonly name: string; readonly box: Bounds };

/** A page of paper: what stands on it, some of it cut off at a box; what moves can be put elsewhere on it. */
export type PaperPage = {
  readonly width: number;
  readonly height: number;
  readonly groups: readonly { readonly clip?: Bounds; readonly moves?: true; readonly marks: readonly Mark[] }[];
};

/** The size of the font, mm, whose capitals are so high. */
export const fontSize = (height: number): number => height * FONT_SIZE;

/** How the drawing lies on paper: times `by`, then moved. */
export type OnPaper = { readonly by: number; readonly move: Point };

const placeOn = ({ by, move }: OnPaper, p: Point): Point => add(times(p, by), move);
const pieceOn = (on: OnPaper, { a, b, bulge }: Piece): Piece => ({ a: placeOn(on, a), b: placeOn(on, b), bulge });

/** Contours and open runs on paper: what is cut wide, marks narrow and dashed. */
export const outlineMark = (on: OnPaper, pieces: readonly Piece[], closed: boolean, isMark: boolean): Mark => ({
  kind: "line",
  pieces: pieces.map((piece) => pieceOn(on, piece)),
  width: isMark ? NARROW : WIDE,
  closed,
  ...(isMark ? { dashes: MARK_DASHES } : {}),
});

/** What a dimension or a note is drawn with, on paper. */
export const drawnMark = (on: OnPaper, drawn: Drawn): Mark => {
  switch (drawn.kind) {
    case "stroke":
      return {
        kind: "line",
        pieces: drawn.pieces.map((piece) => pieceOn(on, piece)),
        width: NARROW,
        ...(drawn.centre ? { dashes: CENTRE_DASHES } : {}),
      };
    case "terminator": {
      const points = drawn.points.map((p) => placeOn(on, p));
      const pieces = points.slice(1).map((p, i) => line(points[i]!, p));
      return { kind: "line", pieces, width: NARROW, closed: drawn.closed, filled: drawn.filled };
    }
    case "text":
      return {
        kind: "text",
        text: withLetters(drawn.text),
        at: placeOn(on, drawnTextStart(drawn)),
        height: drawn.height * on.by,
        angle: drawn.angle,
      };
  }
};

/** A text with what the lettering lacks as a question mark, so that nothing is left out unseen; about is written ~. */
export const withLetters = (text: string): string =>
  [...text.replaceAll("≈", "~")].map((letter) => (missingLetter(letter) === undefined ? letter : "?")).join("");

/** A text that is no wider than so much, its end cut off with an ellipsis. */
export const fitted = (text: string, height: number, width: number): string => {
  const own = withLetters(text);
  if (textWidth(own, height) <= width) return own;
  const letters = [...own];
  while (letters.length > 0 && textWidth(`${letters.join("")}…`, height) > width) letters.pop();
  return `${letters.join("").trimEnd()}…`;
};

/** A level text. */
export const textMark = (text: string, x: number, y: number, height: number): Mark => ({
  kind: "text",
  text,
  at: { x, y },
  height,
  angle: 0,
});

/** A straight line from place to place. */
export const lineMark = (points: readonly Point[], width: number, closed = false): Mark => ({
  kind: "line",
  pieces: points.slice(1).map((p, i) => line(points[i]!, p)),
  width,
  closed,
});

/** A box round. */
export const boxMark = ({ minX, minY, maxX, maxY }: Bounds, width: number): Mark =>
  lineMark(
    [
      { x: minX, y: minY },
      { x: maxX, y: minY },
      { x: maxX, y: maxY },
      { x: minX, y: maxY },
      { x: minX, y: minY },
    ],
    width,
    true,
  );

/** A circle on paper. */
export const ringMark = (centre: Point, radius: number, width: number): Mark => ({
  kind: "line",
  pieces: circleHalves({ centre, radius }),
  width,
  closed: true,
});
