import { arcOf, type Piece } from "../../geometry/piece.ts";
import type { Point } from "../../geometry/point.ts";
import { normalAngle, toDegrees } from "../../numeric/angle.ts";
import type { ReadShape } from "../readShapes.ts";
import { group, groups, place, real } from "./groups.ts";

/** Colour and line style of its own, where a shape has them. */
const looksOf = ({ colour, line }: ReadShape): string => {
  const style = line === undefined ? "" : group(6, line);
  if (colour === undefined) return style;
  return style + (colour.startsWith("#") ? group(420, parseInt(colour.slice(1), 16)) : group(62, Number(colour)));
};

/** The colour alone: older readers know no line style that the file does not define, and no deep colours. */
const oldLooksOf = ({ colour }: ReadShape): string =>
  colour === undefined || colour.startsWith("#") ? "" : group(62, Number(colour));

const angles = ({ from, sweep }: { from: number; sweep: number }): string => {
  const [start, end] = sweep > 0 ? [from, from + sweep] : [from + sweep, from];
  return real(50, toDegrees(normalAngle(start))) + real(51, toDegrees(normalAngle(end)));
};

/** A chain's corners: where each piece starts and how it bends; an open one's last end. */
const cornersOf = (pieces: readonly Piece[], closed: boolean): readonly { a: Point; bulge: number }[] =>
  closed ? pieces : [...pieces, { a: pieces.at(-1)!.b, bulge: 0 }];

/** An entity as the newer versions have it, with its handle and class marks. */
export const entityText = (shape: ReadShape, handle: string): string => {
  const head = (type: string, mark: string): string =>
    `  0\n${type}\n  5\n${handle}\n330\n1F\n100\nAcDbEntity\n  8\n${shape.layer}\n${looksOf(shape)}100\n${mark}\n`;
  switch (shape.kind) {
    case "point":
      return head("POINT", "AcDbPoint") + place(10, shape.at);
    case "circle":
      return head("CIRCLE", "AcDbCircle") + place(10, shape.centre) + real(40, shape.radius);
    case "piece": {
      const arc = arcOf(shape);
      if (!arc) return head("LINE", "AcDbLine") + place(10, shape.a) + place(11, shape.b);
      const round = place(10, arc.centre) + real(40, arc.radius);
      return head("ARC", "AcDbCircle") + round + group(100, "AcDbArc") + angles(arc);
    }
    case "ellipse": {
      const { centre, major, ratio, from, sweep } = shape;
      const [start, end] = sweep > 0 ? [from, from + sweep] : [from + sweep, from];
      const facing = groups(210, "0.0", 220, "0.0", 230, "1.0");
      const part = real(40, ratio) + real(41, start) + real(42, end);
      return head("ELLIPSE", "AcDbEllipse") + place(10, centre) + place(11, major) + facing + part;
    }
    case "free": {
      const { degree, knots, points, weights } = shape;
      return [
        head("SPLINE", "AcDbSpline"),
        // planar, and rational where it has weights
        groups(70, weights ? 12 : 8, 71, degree, 72, knots.length, 73, points.length, 74, 0),
        ...knots.map((knot) => real(40, knot)),
        ...(weights ?? []).map((weight) => real(41, weight)),
        ...points.map((p) => place(10, p)),
      ].join("");
    }
    case "chain": {
      const corners = cornersOf(shape.pieces, shape.closed);
      let text = head("LWPOLYLINE", "AcDbPolyline");
      text += groups(90, corners.length, 70, shape.closed ? 1 : 0, 43, "0.0");
      for (const { a, bulge } of corners) text += real(10, a.x) + real(20, a.y) + (bulge === 0 ? "" : real(42, bulge));
      return text;
    }
  }
};

/** An entity as the oldest version has it; nothing for what has no place there. */
export const oldEntityText = (shape: ReadShape): string => {
  const head = (type: string): string => groups(0, type, 8, shape.layer) + oldLooksOf(shape);
  switch (shape.kind) {
    case "point":
      return head("POINT") + place(10, shape.at);
    case "circle":
      return head("CIRCLE") + place(10, shape.centre) + real(40, shape.radius);
    case "piece": {
      const arc = arcOf(shape);
      if (!arc) return head("LINE") + place(10, shape.a) + place(11, shape.b);
      return head("ARC") + place(10, arc.centre) + real(40, arc.radius) + angles(arc);
    }
    case "chain": {
      let text = head("POLYLINE") + group(66, 1) + place(10, { x: 0, y: 0 }) + group(70, shape.closed ? 1 : 0);
      for (const { a, bulge } of cornersOf(shape.pieces, shape.closed))
        text += groups(0, "VERTEX", 8, shape.layer) + place(10, a) + (bulge === 0 ? "" : real(42, bulge));
      return text + groups(0, "SEQEND", 8, shape.layer);
    }
    default:
      return "";
  }
};
