import type { Display } from "../../annotate/display.ts";
import { FONT_FAMILY, FONT_SIZE } from "../../annotate/letters.ts";
import type { Drawn, DrawnText } from "../../annotate/pen.ts";
import { boundsOf, growBounds, unionBounds, type Bounds } from "../../geometry/bounds.ts";
import { circleBounds } from "../../geometry/circle.ts";
import { ellipseAt, ellipseBounds, halfAxes, isWhole } from "../../geometry/ellipse.ts";
import { pieceBounds, pieceRadius, piecesBounds, type Piece } from "../../geometry/piece.ts";
import type { Point } from "../../geometry/point.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import type { Unit } from "../../numeric/units.ts";
import type { ReadShape } from "../readShapes.ts";

/** The shortest text that reads back to the same double; 0 without a sign. */
const text = (value: number): string => String(value === 0 ? 0 : value);
const place = ({ x, y }: Point): string => `${text(x)} ${text(-y)}`;

/**
 * An SVG in true size: its width and height in the drawing's unit, one unit of its coordinates a unit of the drawing, y
 * down; arcs stay arcs, each layer is a group. B-splines that are no single Bézier of degree 2 or 3 have no place in
 * it: a refusal. Dimensions, notes and marks are a group of their own, as they are drawn.
 */
export const writeSvg = (
  shapes: readonly ReadShape[],
  unit: Unit,
  displays: readonly Display[] = [],
): Outcome<string> => {
  if (shapes.some((shape) => shape.kind === "free" && !isBezier(shape))) return refuse("svg-no-splines");
  const box =
    unionBounds([...shapes.map(boxOf), ...displays.map(({ bounds }) => bounds)]) ?? boundsOf([{ x: 0, y: 0 }]);
  const { minX, minY, maxX, maxY } = growBounds(
    box,
    Math.max(1e-3, 0.02 * Math.max(box.maxX - box.minX, box.maxY - box.minY)),
  );
  const [width, height] = [maxX - minX, maxY - minY];
  const stroke = text(Math.max(width, height) / 800);
  const thin = Math.max(width, height) / 1600;
  const layers = [...new Set(shapes.map(({ layer }) => layer))];
  return done(
    [
      `<svg xmlns="http://www.w3.org/2000/svg" width="${text(width)}${unit}" height="${text(height)}${unit}" ` +
        `viewBox="${text(minX)} ${text(-maxY)} ${text(width)} ${text(height)}">`,
      ...layers.flatMap((layer) => [
        `<g id="${escaped(layer)}" fill="none" stroke="#000" stroke-width="${stroke}">`,
        ...shapes.filter((shape) => shape.layer === layer).map(element),
        "</g>",
      ]),
      ...(displays.length > 0
        ? [
            `<g id="DIMENSIONS" fill="none" stroke="#000" stroke-width="${text(thin)}">`,
            ...displays.flatMap(({ drawn }) => drawn.map((one) => drawnElement(one, thin))),
            "</g>",
          ]
        : []),
      "</svg>",
      "",
    ].join("\n"),
  );
};

const escaped = (name: string): string =>
  name.replace(/[&<>"]/g, (char) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" })[char]!);

type FreeShape = Extract<ReadShape, { kind: "free" }>;
const isBezier = ({ degree, points, weights }: FreeShape): boolean =>
  !weights && (degree === 2 || degree === 3) && points.length === degree + 1;

const boxOf = (shape: ReadShape): Bounds => {
  switch (shape.kind) {
    case "circle":
      return circleBounds(shape);
    case "ellipse":
      return ellipseBounds(shape);
    case "piece":
      return pieceBounds(shape);
    case "chain":
      return piecesBounds(shape.pieces)!;
    case "free":
      return boundsOf(shape.points);
    case "point":
      return boundsOf([shape.at]);
  }
};

/**
 * One piece of a path, from where the pen is; an arc over half a turn is the large one, left turns run against the
 * page's y.
 */
const along = (piece: Piece): string => {
  if (piece.bulge === 0) return `L${place(piece.b)}`;
  const radius = text(pieceRadius(piece));
  return `A${radius} ${radius} 0 ${Math.abs(piece.bulge) > 1 ? 1 : 0} ${piece.bulge > 0 ? 0 : 1} ${place(piece.b)}`;
};

const path = (data: string): string => `<path d="${data}"/>`;

/** What a dimension is drawn with as an element: strokes, outlines, and letters about the middle of their line. */
const drawnElement = (one: Drawn, thin: number): string => {
  if (one.kind === "stroke") {
    const dash = one.centre ? ` stroke-dasharray="${CENTRE_DASH.map((part) => text(part * thin)).join(" ")}"` : "";
    const data = one.pieces.map((piece) => `M${place(piece.a)}${along(piece)}`).join("");
    return `<path d="${data}"${dash}/>`;
  }
  if (one.kind === "terminator") {
    const data = `M${one.points.map(place).join("L")}${one.closed ? "Z" : ""}`;
    return `<path d="${data}"${one.filled ? ' fill="#000"' : ""}/>`;
  }
  const at = lineOf(one);
  const turn = (-one.angle * 180) / Math.PI;
  return (
    `<text x="${text(at.x)}" y="${text(-at.y)}" text-anchor="middle" fill="#000" stroke="none" xml:space="preserve" ` +
    `font-family="${FONT_FAMILY}, monospace" font-size="${text(one.height * FONT_SIZE)}" ` +
    `transform="rotate(${text(turn)} ${place(at)})">${escaped(one.text)}</text>`
  );
};

/** Long dashes and dots of centre lines, in widths of the line (ISO 128-2, line 10; the parts from memory). */
const CENTRE_DASH = [24, 3, 1, 3] as const;

/** The middle of the line on which a text is written. */
const lineOf = ({ middle, angle, height }: DrawnText): Point => ({
  x: middle.x + (Math.sin(angle) * height) / 2,
  y: middle.y - (Math.cos(angle) * height) / 2,
});

const element = (shape: ReadShape): string => {
  switch (shape.kind) {
    case "circle":
      return `<circle cx="${text(shape.centre.x)}" cy="${text(-shape.centre.y)}" r="${text(shape.radius)}"/>`;
    case "piece":
      return path(`M${place(shape.a)}${along(shape)}`);
    case "chain": {
      const { pieces, closed } = shape;
      // the last straight side of a closed outline is drawn by closing it
      const drawn = closed && pieces.at(-1)!.bulge === 0 ? pieces.slice(0, -1) : pieces;
      return path(`M${place(pieces[0]!.a)}${drawn.map(along).join("")}${closed ? "Z" : ""}`);
    }
    case "ellipse": {
      const [long, short] = halfAxes(shape).map(text);
      const turn = text((-Math.atan2(shape.major.y, shape.major.x) * 180) / Math.PI);
      const [start, middle, end] = [0, 0.5, 1].map((t) => place(ellipseAt(shape, shape.from + t * shape.sweep)));
      const way = shape.sweep > 0 ? 0 : 1;
      const arc = (to: string, large: boolean): string => `A${long} ${short} ${turn} ${large ? 1 : 0} ${way} ${to}`;
      if (isWhole(shape)) return path(`M${start!}${arc(middle!, false)}${arc(start!, false)}Z`);
      return path(`M${start!}${arc(end!, Math.abs(shape.sweep) > Math.PI)}`);
    }
    case "free": {
      const [first, ...rest] = shape.points;
      return path(`M${place(first!)}${shape.degree === 3 ? "C" : "Q"}${rest.map(place).join(" ")}`);
    }
    case "point":
      return path(`M${place(shape.at)}l0 0`);
  }
};
