import { freeThrough } from "../../construct/freeThrough.ts";
import { circlePoint } from "../../geometry/circle.ts";
import { arcBetween, type Piece } from "../../geometry/piece.ts";
import { leftOf, times, type Point } from "../../geometry/point.ts";
import { toRadians, TURN } from "../../numeric/angle.ts";
import type { ReadGeometry } from "../readShapes.ts";
import { numberIn, numberOf, sound, textOf, type DxfRecord } from "./records.ts";
import type { Token } from "./tokens.ts";

/** Why a record gave no shape: its numbers make no geometry, it is of no kind that is read, or it is a text. */
export type NoShape = "degenerate" | "left out" | "text";

/** The groups of a polyline's vertices, which are records of their own in the oldest versions. */
export type VertexRecords = readonly DxfRecord[];

const numbers = (groups: readonly Token[], ...codes: readonly number[]): number[] =>
  codes.map((code) => numberOf(groups, code));

/** How things are turned over: 1 as they are, -1 seen from behind (extrusion 0, 0, -1); undefined where they stand askew in space. */
export const facing = (groups: readonly Token[]): 1 | -1 | undefined => {
  const [x, y, z] = [numberOf(groups, 210, 0), numberOf(groups, 220, 0), numberOf(groups, 230, 1)];
  if (Math.abs(x) > 1e-9 || Math.abs(y) > 1e-9) return undefined;
  return z < 0 ? -1 : z > 0 ? 1 : undefined;
};

type Reader = (groups: readonly Token[], vertices: VertexRecords) => ReadGeometry | NoShape;

const line: Reader = (groups) => {
  const [x, y, x2, y2] = numbers(groups, 10, 20, 11, 21) as [number, number, number, number];
  return sound(x, y, x2, y2) ? { kind: "piece", a: { x, y }, b: { x: x2, y: y2 }, bulge: 0 } : "degenerate";
};

const circle: Reader = (groups) => {
  const [x, y, radius] = numbers(groups, 10, 20, 40) as [number, number, number];
  return sound(x, y, radius) && radius > 0 ? { kind: "circle", centre: { x, y }, radius } : "degenerate";
};

const arc: Reader = (groups) => {
  const [x, y, radius, from, to] = numbers(groups, 10, 20, 40, 50, 51) as [number, number, number, number, number];
  if (!sound(x, y, radius, from, to) || radius <= 0) return "degenerate";
  const own = { centre: { x, y }, radius };
  if (Math.abs(((to - from) % 360) + 0) === 0) return { kind: "circle", ...own };
  const [a, b] = [from, to].map((angle) => circlePoint(own, toRadians(angle)));
  return { kind: "piece", ...arcBetween(a!, b!, own.centre, true) };
};

const chainOf = (
  vertices: readonly { readonly x: number; readonly y: number; readonly bulge: number }[],
  closed: boolean,
): ReadGeometry | NoShape => {
  if (vertices.length < 2 || !vertices.every(({ x, y, bulge }) => sound(x, y, bulge))) return "degenerate";
  const pieces = vertices.map(({ x, y, bulge }, i): Piece => {
    const next = vertices[(i + 1) % vertices.length]!;
    return { a: { x, y }, b: { x: next.x, y: next.y }, bulge };
  });
  return { kind: "chain", closed, pieces: closed ? pieces : pieces.slice(0, -1) };
};

const lightPolyline: Reader = (groups) => {
  const vertices: { x: number; y: number; bulge: number }[] = [];
  for (const { code, text } of groups) {
    if (code === 10) vertices.push({ x: numberIn(text), y: NaN, bulge: 0 });
    else if (code === 20 && vertices.length > 0) vertices.at(-1)!.y = numberIn(text);
    else if (code === 42 && vertices.length > 0) vertices.at(-1)!.bulge = numberIn(text);
  }
  return chainOf(vertices, (numberOf(groups, 70, 0) & 1) === 1);
};

/** Bits of a polyline's flag: closed; a mesh; a mesh of faces. And of a vertex': a frame point of a spline. */
const [CLOSED, MESH, FACES, FRAME] = [1, 16, 64, 16];

const polyline: Reader = (groups, vertices) => {
  const flags = numberOf(groups, 70, 0);
  if ((flags & MESH) !== 0 || (flags & FACES) !== 0) return "left out";
  return chainOf(
    vertices
      .filter(({ groups: own }) => (numberOf(own, 70, 0) & FRAME) === 0)
      .map(({ groups: own }) => ({ x: numberOf(own, 10), y: numberOf(own, 20), bulge: numberOf(own, 42, 0) })),
    (flags & CLOSED) !== 0,
  );
};

const ellipse: Reader = (groups) => {
  const [x, y, mx, my, ratio] = numbers(groups, 10, 20, 11, 21, 40) as [number, number, number, number, number];
  const [from, to] = [numberOf(groups, 41, 0), numberOf(groups, 42, TURN)];
  const major = { x: mx, y: my };
  if (!sound(x, y, mx, my, ratio, from, to) || !(ratio > 0) || Math.hypot(mx, my) === 0) return "degenerate";
  const turn = (((to - from) % TURN) + TURN) % TURN;
  const own = { centre: { x, y }, from, sweep: turn < 1e-12 ? TURN : turn };
  // the longer half axis leads
  if (ratio > 1)
    return { kind: "ellipse", ...own, major: times(leftOf(major), ratio), ratio: 1 / ratio, from: from - Math.PI / 2 };
  return { kind: "ellipse", ...own, major, ratio };
};

const all = (groups: readonly Token[], code: number): number[] =>
  groups.filter((group) => group.code === code).map(({ text }) => numberIn(text));
const pointsOf = (groups: readonly Token[], x: number): Point[] => {
  const ys = all(groups, x + 10);
  return all(groups, x).map((value, i) => ({ x: value, y: ys[i] ?? NaN }));
};

const spline: Reader = (groups) => {
  const [degree, knots, points, weights] = [
    numberOf(groups, 71, 3),
    all(groups, 40),
    pointsOf(groups, 10),
    all(groups, 41),
  ];
  const through = pointsOf(groups, 11);
  if (points.length === 0 && through.length > 1) {
    if (!through.every(({ x, y }) => sound(x, y))) return "degenerate";
    const made = freeThrough(through, {}, (numberOf(groups, 70, 0) & 1) === 1 && through.length > 2);
    return made.ok ? { kind: "free", ...made.value } : "degenerate";
  }
  const rising = knots.every((knot, i) => i === 0 || knot >= knots[i - 1]!);
  const fits = knots.length === points.length + degree + 1 && points.length > degree;
  const weighted = weights.length === 0 || (weights.length === points.length && weights.every((w) => w > 0));
  if (!Number.isInteger(degree) || degree < 1 || degree > 25 || !rising || !fits || !weighted) return "degenerate";
  if (!sound(...knots, ...weights) || !points.every(({ x, y }) => sound(x, y))) return "degenerate";
  const plain = weights.every((w) => w === weights[0]);
  return { kind: "free", degree, knots, points, ...(plain ? {} : { weights }) };
};

const READERS: Readonly<Record<string, Reader>> = {
  LINE: line,
  CIRCLE: circle,
  ARC: arc,
  LWPOLYLINE: lightPolyline,
  POLYLINE: polyline,
  ELLIPSE: ellipse,
  SPLINE: spline,
  POINT: (groups) => {
    const [x, y] = numbers(groups, 10, 20) as [number, number];
    return sound(x, y) ? { kind: "point", at: { x, y } } : "degenerate";
  },
  TEXT: () => "text",
  MTEXT: () => "text",
  ATTRIB: () => "text",
  ATTDEF: () => "text",
};

/** Entities whose numbers lie in the drawing's own plane whatever their extrusion. */
const IN_WORLD: ReadonlySet<string> = new Set(["LINE", "POINT", "ELLIPSE", "SPLINE"]);

/** The shape of an entity; turned over where it is seen from behind. */
export const shapeOf = (record: DxfRecord, vertices: VertexRecords): ReadGeometry | NoShape => {
  const read = READERS[record.type];
  if (!read || textOf(record.groups, 67) === "1") return "left out";
  const made = read(record.groups, vertices);
  if (typeof made === "string") return made;
  const side = facing(record.groups);
  if (record.type === "ELLIPSE" && side === -1 && made.kind === "ellipse")
    return { ...made, from: -made.from, sweep: -made.sweep };
  if (IN_WORLD.has(record.type) || side === 1) return made;
  return side === undefined ? "left out" : overTurned(made);
};

/** Mirrored in x, as things seen from behind lie. */
const overTurned = (shape: ReadGeometry): ReadGeometry => {
  const over = ({ x, y }: Point): Point => ({ x: -x, y });
  const piece = ({ a, b, bulge }: Piece): Piece => ({ a: over(a), b: over(b), bulge: bulge === 0 ? 0 : -bulge });
  switch (shape.kind) {
    case "circle":
      return { ...shape, centre: over(shape.centre) };
    case "piece":
      return { kind: "piece", ...piece(shape) };
    case "chain":
      return { ...shape, pieces: shape.pieces.map(piece) };
    default:
      return shape;
  }
};
