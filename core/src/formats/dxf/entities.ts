import { freeThrough } from "../../construct/freeThrough.ts";
import { circlePoint } from "../../geometry/circle.ts";
import { arcBetween, type Piece } from "../../geometry/piece.ts";
import { leftOf, times, type Point } from "../../geometry/point.ts";
import { toRadians, TURN } from "../../numeric/angle.ts";
import { RESOLUTION, SAME_DIRECTION, WHOLE_TURN_WITHIN } from "../../numeric/tolerance.ts";
import type { ReadGeometry } from "../readShapes.ts";
import { numberOf, numbersOf, pointsOf, sound, textOf, type DxfRecord, type Groups } from "./records.ts";

/**
 * Why a record gave no shape: its numbers make no geometry; it is geometry that can't be read (of a kind unknown here,
 * or askew in space); it is no cut geometry; it is marked invisible; it is a text.
 */
export type NoShape = "degenerate" | "left out" | "aside" | "invisible" | "text";

export type Corner = { readonly x: number; readonly y: number; readonly bulge: number };

/**
 * How things are turned over: 1 as they are, -1 seen from behind (extrusion 0, 0, -1); undefined where they stand askew
 * in space.
 */
export const facing = (groups: Groups): 1 | -1 | undefined => {
  const x = numberOf(groups, 210, 0);
  const y = numberOf(groups, 220, 0);
  const z = numberOf(groups, 230, 1);
  if (Math.abs(x) > SAME_DIRECTION || Math.abs(y) > SAME_DIRECTION) return undefined;
  return z < 0 ? -1 : z > 0 ? 1 : undefined;
};

type Reader = (groups: Groups) => ReadGeometry | NoShape;

const soundPoint = ({ x, y }: Point): boolean => sound(x) && sound(y);

const line: Reader = (groups) => {
  const a = groups.point(10);
  const b = groups.point(11);
  return soundPoint(a) && soundPoint(b) ? { kind: "piece", a, b, bulge: 0 } : "degenerate";
};

const circle: Reader = (groups) => {
  const [centre, radius] = [groups.point(10), numberOf(groups, 40)];
  return soundPoint(centre) && sound(radius) && radius > 0 ? { kind: "circle", centre, radius } : "degenerate";
};

const arc: Reader = (groups) => {
  const own = circle(groups);
  if (typeof own === "string" || own.kind !== "circle") return own;
  const [from, to] = [numberOf(groups, 50), numberOf(groups, 51)];
  if (!sound(from) || !sound(to)) return "degenerate";
  const missing = (((from - to) % 360) + 360) % 360;
  // what ends where it starts, as near as places are told apart, is the whole circle
  if (own.radius * toRadians(missing) <= RESOLUTION) return own;
  const [a, b] = [circlePoint(own, toRadians(from)), circlePoint(own, toRadians(to))];
  return { kind: "piece", ...arcBetween(a, b, own.centre, true) };
};

/** Neighbours share their corner. */
const chainOf = (corners: readonly Point[], bulges: readonly number[], closed: boolean): ReadGeometry | NoShape => {
  if (corners.length < 2) return "degenerate";
  const pieces: Piece[] = [];
  for (let i = 0; i < corners.length; i++) {
    const a = corners[i]!;
    if (!soundPoint(a) || !sound(bulges[i]!)) return "degenerate";
    if (closed || i + 1 < corners.length) pieces.push({ a, b: corners[i + 1] ?? corners[0]!, bulge: bulges[i]! });
  }
  return { kind: "chain", closed, pieces };
};

const lightPolyline: Reader = (groups) => {
  const corners: { x: number; y: number }[] = [];
  const bulges: number[] = [];
  for (let i = 0; i < groups.count; i++) {
    const code = groups.code(i);
    if (code === 10) {
      corners.push({ x: groups.number(i), y: NaN });
      bulges.push(0);
    } else if (code === 20 && corners.length > 0) corners.at(-1)!.y = groups.number(i);
    else if (code === 42 && corners.length > 0) bulges[corners.length - 1] = groups.number(i);
  }
  return chainOf(corners, bulges, (numberOf(groups, 70, 0) & 1) === 1);
};

/** Bits of a polyline's flag: closed; a mesh; a mesh of faces. And of a vertex': a frame point of a spline. */
const [CLOSED, MESH, FACES, FRAME] = [1, 16, 64, 16];

/** What an old polyline says of itself; its corners are records of their own that follow it. */
export type PolylineHead = { readonly closed: boolean; readonly side: 1 | -1 | undefined };

/** What a polyline says of itself before its corners; no shape where it is a mesh or lies in space. */
export const polylineHead = (groups: Groups): PolylineHead | NoShape => {
  const flags = numberOf(groups, 70, 0);
  const aside = asideBy(groups);
  if (aside) return aside;
  if ((flags & MESH) !== 0 || (flags & FACES) !== 0) return "left out";
  return { closed: (flags & CLOSED) !== 0, side: facing(groups) };
};

/** A corner of an old polyline; undefined for a frame point of a spline. */
export const cornerOf = (groups: Groups): Corner | undefined =>
  (numberOf(groups, 70, 0) & FRAME) !== 0
    ? undefined
    : { x: numberOf(groups, 10), y: numberOf(groups, 20), bulge: numberOf(groups, 42, 0) };

/** The chain through the corners of a polyline, in drawing coordinates. */
export const polylineOf = ({ closed, side }: PolylineHead, corners: readonly Corner[]): ReadGeometry | NoShape => {
  const made = chainOf(
    corners.map(({ x, y }) => ({ x, y })),
    corners.map(({ bulge }) => bulge),
    closed,
  );
  return typeof made === "string" || side === 1 ? made : side === undefined ? "left out" : overTurned(made);
};

const ellipse: Reader = (groups) => {
  const [centre, major, ratio] = [groups.point(10), groups.point(11), numberOf(groups, 40)];
  const [from, to] = [numberOf(groups, 41, 0), numberOf(groups, 42, TURN)];
  if (!soundPoint(centre) || !soundPoint(major) || ![ratio, from, to].every(sound)) return "degenerate";
  if (!(ratio > 0) || Math.hypot(major.x, major.y) === 0) return "degenerate";
  const turn = (((to - from) % TURN) + TURN) % TURN;
  const own = { centre, from, sweep: turn < WHOLE_TURN_WITHIN ? TURN : turn };
  // the longer half axis leads
  if (ratio > 1)
    return { kind: "ellipse", ...own, major: times(leftOf(major), ratio), ratio: 1 / ratio, from: from - Math.PI / 2 };
  return { kind: "ellipse", ...own, major, ratio };
};

const spline: Reader = (groups) => {
  const [degree, knots, points, weights] = [
    numberOf(groups, 71, 3),
    numbersOf(groups, 40),
    pointsOf(groups, 10),
    numbersOf(groups, 41),
  ];
  const through = pointsOf(groups, 11);
  if (points.length === 0 && through.length > 1) {
    if (!through.every(soundPoint)) return "degenerate";
    const made = freeThrough(through, {}, (numberOf(groups, 70, 0) & 1) === 1 && through.length > 2);
    return made.ok ? { kind: "free", ...made.value } : "degenerate";
  }
  const rising = knots.every((knot, i) => i === 0 || knot >= knots[i - 1]!);
  const fits = knots.length === points.length + degree + 1 && points.length > degree;
  const weighted = weights.length === 0 || (weights.length === points.length && weights.every((w) => w > 0));
  if (!Number.isInteger(degree) || degree < 1 || degree > 25 || !rising || !fits || !weighted) return "degenerate";
  if (!knots.every(sound) || !weights.every(sound) || !points.every(soundPoint)) return "degenerate";
  const plain = weights.every((w) => w === weights[0]);
  return { kind: "free", degree, knots, points, ...(plain ? {} : { weights }) };
};

const READERS: Readonly<Record<string, Reader>> = {
  LINE: line,
  CIRCLE: circle,
  ARC: arc,
  LWPOLYLINE: lightPolyline,
  ELLIPSE: ellipse,
  SPLINE: spline,
  POINT: (groups) => {
    const at = groups.point(10);
    return soundPoint(at) ? { kind: "point", at } : "degenerate";
  },
  TEXT: () => "text",
  MTEXT: () => "text",
  ATTRIB: () => "text",
  ATTDEF: () => "text",
};

/** Entities whose numbers lie in the drawing's own plane whatever their extrusion. */
const IN_WORLD: ReadonlySet<string> = new Set(["LINE", "POINT", "ELLIPSE", "SPLINE"]);

/** What explains, shades, builds or shows a drawing, and is nothing that is cut. */
const NOT_CUT: ReadonlySet<string> = new Set([
  ...["DIMENSION", "ARC_DIMENSION", "LEADER", "MLEADER", "MULTILEADER", "TOLERANCE", "ACAD_TABLE", "TABLE"],
  ...["HATCH", "SOLID", "TRACE", "WIPEOUT", "IMAGE", "PDFUNDERLAY", "DWFUNDERLAY", "DGNUNDERLAY", "OLEFRAME"],
  ...["OLE2FRAME", "RAY", "XLINE", "VIEWPORT", "LIGHT", "SUN", "CAMERA", "SECTIONOBJECT", "RTEXT", "ARCALIGNEDTEXT"],
]);

/** What an entity is where it is no part of the drawing: on a sheet of paper that shows it, or marked invisible. */
export const asideBy = (groups: Groups): "aside" | "invisible" | undefined =>
  textOf(groups, 60)?.trim() === "1" ? "invisible" : textOf(groups, 67)?.trim() === "1" ? "aside" : undefined;

/** The shape of an entity; turned over where it is seen from behind. */
export const readRecord = (record: DxfRecord): ReadGeometry | NoShape => {
  const read = READERS[record.type];
  const aside = asideBy(record.groups);
  if (aside) return aside;
  if (!read) return NOT_CUT.has(record.type) ? "aside" : "left out";
  const made = read(record.groups);
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
