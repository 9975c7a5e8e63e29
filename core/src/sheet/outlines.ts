import { cutEntities, entitiesOf, isLayout, layerOf, unitOf, type Drawing } from "../drawing/drawing.ts";
import { curvesOf } from "../drawing/entity.ts";
import type { Bounds } from "../geometry/bounds.ts";
import { chordPieces } from "../geometry/smooth.ts";
import { isSmooth, smoothOf } from "../geometry/curve.ts";
import { piecesBounds, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { convertLength } from "../numeric/units.ts";
import { profileOf } from "../profile/profile.ts";
import { lineMark, NARROW, outlineMark, type Mark, type OnPaper } from "./page.ts";

/** Ellipses and free curves are drawn as chords that stay within this of them, mm. */
const WITHIN = 0.005;
/** Arms of the cross at a point, and at the centre of a circle on a template, mm. */
const CROSS = 3;

/** What is drawn of a drawing, in its unit: everything that is cut or marked, or could be; no layout. */
export type Outlines = {
  readonly runs: readonly {
    readonly pieces: readonly Piece[];
    readonly closed: boolean;
    readonly isMark: boolean;
    readonly bounds: Bounds;
  }[];
  readonly points: readonly Point[];
  /** Centres of circles. */
  readonly centres: readonly Point[];
};

/** Everything of a drawing that is no layout; open runs, ellipses and free curves too, though no machine cuts them. */
export const outlinesOf = (drawing: Drawing): Outlines => {
  const { contours, open, marks } = profileOf(drawing);
  const within = convertLength(WITHIN, "mm", unitOf(drawing));
  const smooth = cutEntities(drawing).flatMap((entity) =>
    curvesOf(entity).flatMap(({ curve }) => {
      if (!isSmooth(curve)) return [];
      const pieces = chordPieces(smoothOf(curve), within);
      const isMark = layerOf(drawing, entity.layer)?.role === "mark";
      return [{ pieces, closed: false, isMark, bounds: piecesBounds(pieces)! }];
    }),
  );
  return {
    runs: [
      ...contours.map(({ pieces, role, bounds }) => ({ pieces, closed: true, isMark: role === "mark", bounds })),
      ...open.map(({ pieces, bounds }) => ({ pieces, closed: false, isMark: false, bounds })),
      ...marks.map(({ pieces, bounds }) => ({ pieces, closed: false, isMark: true, bounds })),
      ...smooth,
    ],
    points: [...entitiesOf(drawing)].flatMap((one) =>
      one.kind === "point" && !isLayout(drawing, one) ? [one.at] : [],
    ),
    centres: contours.flatMap(({ circle }) => circle?.centre ?? []),
  };
};

/** The boxes of outlines; of a point itself. */
export const outlineBoxes = ({ runs, points }: Outlines): readonly Bounds[] => [
  ...runs.map(({ bounds }) => bounds),
  ...points.map(({ x, y }) => ({ minX: x, minY: y, maxX: x, maxY: y })),
];

/** Outlines on paper; points as crosses. */
export const outlineMarks = (on: OnPaper, { runs, points }: Outlines): readonly Mark[] => [
  ...runs.map(({ pieces, closed, isMark }) => outlineMark(on, pieces, closed, isMark)),
  ...points.flatMap((at) => crossMarks(on, at)),
];

/** A cross at a place of the drawing. */
export const crossMarks = ({ by, move }: OnPaper, { x, y }: Point): readonly Mark[] => {
  const [u, v] = [x * by + move.x, y * by + move.y];
  const arm = (dx: number, dy: number): Mark =>
    lineMark(
      [
        { x: u - dx, y: v - dy },
        { x: u + dx, y: v + dy },
      ],
      NARROW,
    );
  return [arm(CROSS, 0), arm(0, CROSS)];
};
