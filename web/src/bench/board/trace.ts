import { chainPieces } from "@ash-edge/core/contour";
import {
  angleOf,
  arcOf,
  chordsOf,
  endlessDirection,
  halfAxes,
  piecePoint,
  smoothOf,
  type Bounds,
  type Piece,
  type Point,
} from "@ash-edge/core/geometry";
import type { Shape } from "@ash-edge/core/shape";
import { toScreen, type View } from "./view.ts";

/** The part of a canvas that tracing needs, so that tests can stand in for it. */
export type Pen = Pick<CanvasRenderingContext2D, "moveTo" | "lineTo" | "arc" | "ellipse" | "closePath">;

/** Canvas arcs lose their ends at radii beyond this many pixels; flatter arcs are traced by chords. */
const LARGEST_ARC_PX = 20_000;
const CHORDS = 96;

export const tracePiece = (pen: Pen, view: View, piece: Piece, start: boolean): void => {
  if (start) {
    const a = toScreen(view, piece.a);
    pen.moveTo(a.x, a.y);
  }
  const b = toScreen(view, piece.b);
  const arc = arcOf(piece);
  if (!arc) return pen.lineTo(b.x, b.y);
  const radius = arc.radius * view.scale;
  if (radius > LARGEST_ARC_PX) {
    for (let i = 1; i <= CHORDS; i++) {
      const p = toScreen(view, piecePoint(piece, i / CHORDS));
      pen.lineTo(p.x, p.y);
    }
    return;
  }
  const centre = toScreen(view, arc.centre);
  // screen angles run the other way, y being down
  pen.arc(centre.x, centre.y, radius, -arc.from, -(arc.from + arc.sweep), arc.sweep > 0);
};

export const tracePieces = (pen: Pen, view: View, pieces: readonly Piece[], closed: boolean): void => {
  pieces.forEach((piece, i) => tracePiece(pen, view, piece, i === 0));
  if (closed) pen.closePath();
};

/** The part of an endless line within `box`; undefined where it passes by. */
export const clipEndless = (through: Point, direction: Point, box: Bounds): readonly [Point, Point] | undefined => {
  let [low, high] = [-Infinity, Infinity];
  for (const [p, d, min, max] of [
    [through.x, direction.x, box.minX, box.maxX],
    [through.y, direction.y, box.minY, box.maxY],
  ] as const) {
    if (d === 0) {
      if (p < min || p > max) return undefined;
      continue;
    }
    const [s, t] = [(min - p) / d, (max - p) / d];
    low = Math.max(low, Math.min(s, t));
    high = Math.min(high, Math.max(s, t));
  }
  if (low >= high) return undefined;
  const at = (t: number): Point => ({ x: through.x + direction.x * t, y: through.y + direction.y * t });
  return [at(low), at(high)];
};

/** Traces any shape; `box` is what is in sight. */
export const traceShape = (pen: Pen, view: View, shape: Shape, box: Bounds): void => {
  switch (shape.kind) {
    case "piece":
      return tracePiece(pen, view, shape, true);
    case "chain":
      return tracePieces(pen, view, chainPieces(shape), shape.closed);
    case "circle": {
      const centre = toScreen(view, shape.centre);
      pen.moveTo(centre.x + shape.radius * view.scale, centre.y);
      return pen.arc(centre.x, centre.y, shape.radius * view.scale, 0, 2 * Math.PI);
    }
    case "ellipse": {
      const centre = toScreen(view, shape.centre);
      const [a, b] = halfAxes(shape);
      const start = toScreen(view, smoothOf(shape).at(0));
      pen.moveTo(start.x, start.y);
      return pen.ellipse(
        centre.x,
        centre.y,
        a * view.scale,
        b * view.scale,
        -angleOf(shape.major),
        -shape.from,
        -(shape.from + shape.sweep),
        shape.sweep > 0,
      );
    }
    case "free": {
      const smooth = smoothOf(shape);
      chordsOf(smooth, 0.2 / view.scale).forEach((t, i) => {
        const { x, y } = toScreen(view, smooth.at(t));
        if (i === 0) pen.moveTo(x, y);
        else pen.lineTo(x, y);
      });
      return;
    }
    case "endless": {
      const ends = clipEndless(shape.through, endlessDirection(shape), box);
      if (!ends) return;
      const [a, b] = ends.map((end) => toScreen(view, end)) as [Point, Point];
      pen.moveTo(a.x, a.y);
      return pen.lineTo(b.x, b.y);
    }
    case "point": {
      const { x, y } = toScreen(view, shape.at);
      pen.moveTo(x - 4, y);
      pen.lineTo(x + 4, y);
      pen.moveTo(x, y - 4);
      return pen.lineTo(x, y + 4);
    }
  }
};
