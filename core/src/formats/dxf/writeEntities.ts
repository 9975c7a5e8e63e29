import { isColour } from "../../drawing/colour.ts";
import { arcOf, type Arc, type Piece } from "../../geometry/piece.ts";
import type { Point } from "../../geometry/point.ts";
import { normalAngle, toDegrees } from "../../numeric/angle.ts";
import { roundedTo } from "../../numeric/roundedTo.ts";
import type { ReadShape } from "../readShapes.ts";
import type { GroupText } from "./groups.ts";

/** The decimals of centres and radii; all of them as they are by themselves. */
type Decimals = "exact" | number;

/** Colour and line style of its own, where a shape has them. */
const looks = (out: GroupText, { colour, line }: ReadShape): void => {
  if (line !== undefined) out.put(6, line);
  // a colour that says nothing is the layer's
  if (colour === undefined || !isColour(colour)) return;
  if (colour.startsWith("#")) out.put(420, parseInt(colour.slice(1), 16));
  else out.put(62, Number(colour));
};

/** The colour alone: older readers know no line style that the file does not define, and no deep colours. */
const oldLooks = (out: GroupText, { colour }: ReadShape): void => {
  if (colour !== undefined && !colour.startsWith("#") && isColour(colour)) out.put(62, Number(colour));
};

/** The arc that an ARC entity is written from: its centre and its radius with as many decimals as are asked for. */
const writtenArc = (piece: Piece, decimals: Decimals): Arc | undefined => {
  const arc = arcOf(piece);
  if (!arc || decimals === "exact") return arc;
  const round = (value: number): number => roundedTo(value, decimals);
  return { ...arc, centre: { x: round(arc.centre.x), y: round(arc.centre.y) }, radius: round(arc.radius) };
};

/** Where an arc starts and ends, counter-clockwise, in degrees. */
const anglesOf = (out: GroupText, { from, sweep }: Arc): void => {
  const [start, end] = sweep > 0 ? [from, from + sweep] : [from + sweep, from];
  out.real(50, toDegrees(normalAngle(start))).real(51, toDegrees(normalAngle(end)));
};

/** A chain's corners: where each piece starts and how it bends; an open one's last end. */
const cornersOf = (pieces: readonly Piece[], closed: boolean): readonly { a: Point; bulge: number }[] =>
  closed ? pieces : [...pieces, { a: pieces.at(-1)!.b, bulge: 0 }];

/** The handle of the block record to which what is drawn belongs. */
export const MODEL_SPACE = "1F";

/** Puts an entity as the newer versions have it, with its handle and class marks. */
export const putEntity = (
  out: GroupText,
  shape: ReadShape,
  handle: string,
  { owner = MODEL_SPACE, decimals = "exact" }: { owner?: string; decimals?: Decimals } = {},
): void => {
  const head = (type: string, mark: string): GroupText => {
    out.put(0, type, 5, handle, 330, owner, 100, "AcDbEntity", 8, shape.layer);
    looks(out, shape);
    return out.put(100, mark);
  };
  switch (shape.kind) {
    case "point":
      return void head("POINT", "AcDbPoint").place(10, shape.at);
    case "circle":
      return void head("CIRCLE", "AcDbCircle").place(10, shape.centre).real(40, shape.radius);
    case "piece": {
      const arc = writtenArc(shape, decimals);
      if (!arc) return void head("LINE", "AcDbLine").place(10, shape.a).place(11, shape.b);
      head("ARC", "AcDbCircle").place(10, arc.centre).real(40, arc.radius).put(100, "AcDbArc");
      return anglesOf(out, arc);
    }
    case "ellipse": {
      const { centre, major, ratio, from, sweep } = shape;
      const [start, end] = sweep > 0 ? [from, from + sweep] : [from + sweep, from];
      head("ELLIPSE", "AcDbEllipse").place(10, centre).place(11, major).put(210, "0.0", 220, "0.0", 230, "1.0");
      return void out.real(40, ratio).real(41, start).real(42, end);
    }
    case "free": {
      const { degree, knots, points, weights } = shape;
      // planar, and rational where it has weights
      const kind = weights ? 12 : 8;
      head("SPLINE", "AcDbSpline").put(70, kind, 71, degree, 72, knots.length, 73, points.length, 74, 0);
      for (const knot of knots) out.real(40, knot);
      for (const weight of weights ?? []) out.real(41, weight);
      for (const point of points) out.place(10, point);
      return;
    }
    case "chain": {
      const corners = cornersOf(shape.pieces, shape.closed);
      head("LWPOLYLINE", "AcDbPolyline").put(90, corners.length, 70, shape.closed ? 1 : 0, 43, "0.0");
      for (let i = 0; i < corners.length; i++) {
        const { a, bulge } = corners[i]!;
        out.real(10, a.x).real(20, a.y);
        if (bulge !== 0) out.real(42, bulge);
      }
    }
  }
};

/** Puts an entity as the oldest version has it; nothing for what has no place there. */
export const putOldEntity = (out: GroupText, shape: ReadShape, decimals: Decimals = "exact"): void => {
  const head = (type: string): GroupText => {
    out.put(0, type, 8, shape.layer);
    oldLooks(out, shape);
    return out;
  };
  switch (shape.kind) {
    case "point":
      return void head("POINT").place(10, shape.at);
    case "circle":
      return void head("CIRCLE").place(10, shape.centre).real(40, shape.radius);
    case "piece": {
      const arc = writtenArc(shape, decimals);
      if (!arc) return void head("LINE").place(10, shape.a).place(11, shape.b);
      head("ARC").place(10, arc.centre).real(40, arc.radius);
      return anglesOf(out, arc);
    }
    case "chain": {
      head("POLYLINE")
        .put(66, 1)
        .place(10, { x: 0, y: 0 })
        .put(70, shape.closed ? 1 : 0);
      for (const { a, bulge } of cornersOf(shape.pieces, shape.closed)) {
        out.put(0, "VERTEX", 8, shape.layer).place(10, a);
        if (bulge !== 0) out.real(42, bulge);
      }
      return void out.put(0, "SEQEND", 8, shape.layer);
    }
    default:
  }
};
