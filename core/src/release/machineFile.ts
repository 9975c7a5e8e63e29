import type { FileLayer, PlannedContour, ReleasePlan } from "../checks/releasePlan.ts";
import { enclosedArea } from "../contour/chainMeasure.ts";
import { releasedShapes, type ReadShape } from "../formats/readShapes.ts";
import { unionBounds } from "../geometry/bounds.ts";
import { circleBounds } from "../geometry/circle.ts";
import { piecesBounds, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { roundedTo } from "../numeric/roundedTo.ts";
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
  const length = (value: number): number => roundedTo(convertLength(value, own, unit), decimals);
  const place = ({ x, y }: Point): Point => ({ x: length(x - from.x), y: length(y - from.y) });
  const shapes: ReadShape[] = [];
  const roles: PlannedContour["role"][] = [];
  for (const contour of contours) {
    const moved = inFile(contour, place, length);
    if (!moved) return refuse("rounds-away", { decimals });
    const layer = layerInFile(contour, profile);
    if (contour.tapped && tapped === "point" && moved.kind === "circle")
      shapes.push({ kind: "point", at: moved.centre, layer });
    else for (const shape of inPieces({ ...releasedShapes([moved])[0]!, layer }, profile)) shapes.push(shape);
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

/** A contour with its places and lengths as the file has them; undefined where nothing is left of it. */
const inFile = (
  contour: PlannedContour,
  place: (at: Point) => Point,
  length: (value: number) => number,
): PlannedContour | undefined => {
  if (contour.kind === "circle") {
    const radius = length(contour.radius);
    return radius > 0 ? { ...contour, centre: place(contour.centre), radius } : undefined;
  }
  const pieces = contour.pieces
    .map((piece): Piece => ({ a: place(piece.a), b: place(piece.b), bulge: piece.bulge }))
    .filter(({ a, b }) => a.x !== b.x || a.y !== b.y);
  const isLeft = contour.closed ? enclosedArea(pieces) !== 0 : pieces.length > 0;
  return isLeft ? { ...contour, pieces } : undefined;
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
