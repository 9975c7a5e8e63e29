import type { FileLayer, PlannedContour, ReleasePlan } from "../checks/releasePlan.ts";
import { enclosedArea } from "../contour/chainMeasure.ts";
import { meetingPlaces } from "../contour/meetingPlaces.ts";
import { releasedShapes, type ReadShape } from "../formats/readShapes.ts";
import { unionBounds } from "../geometry/bounds.ts";
import { circleBounds, circleHalves } from "../geometry/circle.ts";
import { bulgeOf, piecePoint, piecesBounds, sweepOf, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { TooMuch, withinMoment } from "../numeric/effort.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { roundedTo } from "../numeric/roundedTo.ts";
import { SAME_PARAMETER } from "../numeric/tolerance.ts";
import { convertLength, type Unit } from "../numeric/units.ts";
import { fileUnit, usedLayers, type MachineFormat, type MachineProfile } from "./machineProfile.ts";

/** What a file for a machine holds: everything in it, in its unit, before it is text. */
export type MachineFile = {
  readonly format: MachineFormat;
  readonly unit: Unit;
  readonly shapes: readonly ReadShape[];
  /** What each of them is cut as. */
  readonly roles: readonly PlannedContour["role"][];
  readonly layers: readonly FileLayer[];
  readonly decimals: MachineProfile["decimals"];
};

/**
 * What a plan is as a machine's file, by its profile: moved so that the origin lies where it asks, in its unit, rounded
 * where it asks, on its layers, each contour in one or in pieces. Refused where something would be nothing with so few
 * decimals. `datum` is the job's, in its unit.
 */
export const machineFile = (
  { contours, unit: own, layers }: Pick<ReleasePlan, "contours" | "unit" | "layers">,
  profile: MachineProfile,
  datum: Point,
): Outcome<MachineFile> => {
  const unit = fileUnit(profile, own);
  const { decimals, format, tapped } = profile;
  const from = profile.origin === "datum" ? datum : (cornerOf(contours) ?? datum);
  if (profile.layersBy === "own" && tapped !== "cut") {
    const name = profile.layers.tapped.name.toUpperCase();
    const other = contours.find(({ layer, tapped: isTapped }) => !isTapped && layer.toUpperCase() === name);
    if (other) return refuse("tapped-layer", { layer: other.layer });
  }
  const exact = contours.map((contour) => inUnit(contour, from, (value) => convertLength(value, own, unit)));
  const moved = decimals === "exact" ? exact : exact.map((contour) => rounded(contour, decimals));
  const left = moved.filter((one) => one !== undefined);
  if (left.length < moved.length) return refuse("rounds-away", { decimals });
  if (decimals !== "exact" && cross(left) && !cross(exact)) return refuse("rounds-into", { decimals });
  const shapes: ReadShape[] = [];
  const roles: PlannedContour["role"][] = [];
  for (const contour of left) {
    const layer = layerInFile(contour, profile);
    if (contour.tapped && tapped === "point" && contour.kind === "circle")
      shapes.push({ kind: "point", at: contour.centre, layer });
    else for (const shape of inPieces({ ...releasedShapes([contour])[0]!, layer }, profile)) shapes.push(shape);
    while (roles.length < shapes.length) roles.push(contour.role);
  }
  return done({ format, unit, shapes, roles, layers: fileLayers(layers, profile), decimals });
};

/** The layer of a machine's file that a contour lies on. */
export const layerInFile = ({ tapped, role, layer }: PlannedContour, profile: MachineProfile): string => {
  if (tapped && profile.tapped !== "cut") return profile.layers.tapped.name;
  return profile.layersBy === "role" ? profile.layers[role].name : layer;
};

/** The least x and the least y of all that is written. */
const cornerOf = (contours: readonly PlannedContour[]): Point | undefined => {
  const box = unionBounds(
    contours.map((one) => (one.kind === "circle" ? circleBounds(one) : piecesBounds(one.pieces)!)),
  );
  return box && { x: box.minX, y: box.minY };
};

/** A contour from where the file counts, in its unit. */
const inUnit = (contour: PlannedContour, from: Point, length: (value: number) => number): PlannedContour => {
  const place = ({ x, y }: Point): Point => ({ x: length(x - from.x), y: length(y - from.y) });
  if (contour.kind === "circle") return { ...contour, centre: place(contour.centre), radius: length(contour.radius) };
  return { ...contour, pieces: contour.pieces.map(({ a, b, bulge }) => ({ a: place(a), b: place(b), bulge })) };
};

/**
 * A contour with so many decimals; undefined where nothing is left of it. No place of it moves by more than about the
 * rounding: arcs are parted so that none turns by more than a quarter, since the ends of a longer one tell its middle
 * worse than they are rounded, and each goes by the height of its own middle.
 */
const rounded = (contour: PlannedContour, decimals: number): PlannedContour | undefined => {
  const place = ({ x, y }: Point): Point => ({ x: roundedTo(x, decimals), y: roundedTo(y, decimals) });
  if (contour.kind === "circle") {
    const radius = roundedTo(contour.radius, decimals);
    return radius > 0 ? { ...contour, centre: place(contour.centre), radius } : undefined;
  }
  const pieces = contour.pieces
    .flatMap((piece) => quarters(piece))
    .map((piece): Piece => {
      const [a, b] = [place(piece.a), place(piece.b)];
      return { a, b, bulge: piece.bulge === 0 ? 0 : bulgeOver(a, b, piecePoint(piece, 0.5)) };
    })
    .filter(({ a, b }) => a.x !== b.x || a.y !== b.y);
  const isLeft = contour.closed ? enclosedArea(pieces) !== 0 : pieces.length > 0;
  return isLeft ? { ...contour, pieces } : undefined;
};

/** A piece in equal parts that turn by no more than a quarter. */
const quarters = (piece: Piece): readonly Piece[] => {
  const parts = Math.ceil(Math.abs(sweepOf(piece.bulge)) / (Math.PI / 2) - SAME_PARAMETER);
  if (parts < 2) return [piece];
  const bulge = bulgeOf(sweepOf(piece.bulge) / parts);
  const at = (k: number): Point => (k === 0 ? piece.a : k === parts ? piece.b : piecePoint(piece, k / parts));
  return Array.from({ length: parts }, (_, k) => ({ a: at(k), b: at(k + 1), bulge }));
};

/** The bulge of an arc from one place to another as high as a place lies over them: twice that over the chord. */
const bulgeOver = (a: Point, b: Point, middle: Point): number => {
  const [x, y] = [b.x - a.x, b.y - a.y];
  const chord = x * x + y * y;
  return chord === 0 ? 0 : (-2 * (x * (middle.y - a.y) - y * (middle.x - a.x))) / chord;
};

/** True where contours cross one another or themselves, or lie on one another. */
const cross = (contours: readonly PlannedContour[]): boolean => {
  const runs = contours
    .filter(({ role }) => role !== "mark")
    .map((one) => (one.kind === "circle" ? { circle: one, pieces: circleHalves(one), closed: true } : one));
  try {
    return withinMoment(() => meetingPlaces(runs)).some(({ kind }) => kind !== "touching");
  } catch (reason) {
    if (!(reason instanceof TooMuch)) throw reason;
    return true;
  }
};

/** A shape as the profile asks for it: whole, or its pieces by themselves, arcs in their polyline or as they are. */
const inPieces = (shape: ReadShape, { arcs, chains }: MachineProfile): readonly ReadShape[] => {
  if (shape.kind !== "chain" || (arcs === "bulges" && chains === "one")) return [shape];
  const { pieces, closed: _, kind: __, ...look } = shape;
  const alone = (piece: Piece): ReadShape => ({ ...look, kind: "piece", ...piece });
  const run = (some: readonly Piece[]): ReadShape => ({ ...look, kind: "chain", closed: false, pieces: some });
  if (chains === "loose")
    return pieces.map((piece) => (piece.bulge !== 0 && arcs === "bulges" ? run([piece]) : alone(piece)));
  if (pieces.every(({ bulge }) => bulge === 0)) return [shape];
  // straight stretches stay polylines between the arcs
  const made: ReadShape[] = [];
  let straight: Piece[] = [];
  const end = (): void => {
    if (straight.length > 0) made.push(run(straight));
    straight = [];
  };
  for (const piece of pieces) {
    if (piece.bulge === 0) straight.push(piece);
    else {
      end();
      made.push(alone(piece));
    }
  }
  end();
  return made;
};

const fileLayers = (own: readonly FileLayer[], profile: MachineProfile): readonly FileLayer[] => {
  const used = usedLayers(profile).map((use): FileLayer => {
    const { name, colour } = profile.layers[use];
    return { name, colour: String(colour) };
  });
  const names = new Set(used.map(({ name }) => name));
  return [...(profile.layersBy === "own" ? own.filter(({ name }) => !names.has(name)) : []), ...used];
};
