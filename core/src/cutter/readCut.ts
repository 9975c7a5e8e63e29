import { joinRuns, runPieces } from "../contour/joining.ts";
import { nestingDepths } from "../contour/nesting.ts";
import { meetingPlaces } from "../contour/meetingPlaces.ts";
import { INSUNITS } from "../formats/dxf/writeDxf.ts";
import type { FoundEntity } from "../formats/dxf/compareRead.ts";
import { unionBounds } from "../geometry/bounds.ts";
import { circleHalves } from "../geometry/circle.ts";
import { arcBetween, line, piecesBounds, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { TooMuch, withinMoment } from "../numeric/effort.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { convertLength, type Unit } from "../numeric/units.ts";
import type { LayerUse } from "../release/machineProfile.ts";
import { readBackDxf } from "../release/readBackDxf.ts";
import type { Process } from "./process.ts";

/** Something that the cutter goes along, or a single hole, in mm on its bed. */
export type CutPath =
  | { readonly use: LayerUse; readonly kind: "run"; readonly closed: boolean; readonly pieces: readonly Piece[] }
  | { readonly use: LayerUse; readonly kind: "point"; readonly at: Point };

/** Which layer of a file is cut as what; a `profile` outside or inside by its nesting. */
export type LayerTable = Readonly<Record<string, LayerUse | "profile">>;

/** Ends as near as this are one for the cutter's control, mm. */
const JOINS = 0.01;

/**
 * What a file tells the cutter to do, or why it does not start: each refusal is what a machine would choke on. Read by
 * a reader that is not ours, so by none that wrote it.
 */
export const readCut = (text: string, process: Process, layers: LayerTable): Outcome<readonly CutPath[]> => {
  if (/^\s*</.test(text)) return refuse("cutter-format");
  let found: ReturnType<typeof readBackDxf>;
  try {
    found = readBackDxf(text);
  } catch {
    return refuse("cutter-format");
  }
  const unit = (Object.keys(INSUNITS) as Unit[]).find((one) => INSUNITS[one] === found.insunits);
  if (!unit) return refuse("cutter-unit");
  const known = new Map(Object.entries(layers).map(([name, use]) => [name.toUpperCase(), use]));
  const loose = new Map<LayerUse | "profile", (readonly Piece[])[]>();
  const paths: Read[] = [];
  for (const entity of found.entities) {
    const use = known.get(entity.layer.toUpperCase());
    if (!use) return refuse("cutter-layer", { layer: entity.layer });
    if (entity.kind === "other") return refuse("cutter-entity", { type: entity.type });
    if (entity.kind === "point") {
      if (!process.points) return refuse("cutter-point", { process: process.kind });
      paths.push({ use, kind: "point", at: inMm(entity, unit) });
      continue;
    }
    const { pieces, closed } = piecesOf(entity, unit);
    if (pieces.length === 0) continue;
    if (closed) paths.push({ use, kind: "run", closed, pieces });
    else void (loose.get(use)?.push(pieces) ?? loose.set(use, [pieces]));
  }
  for (const [use, runs] of loose)
    for (const run of joinRuns(
      runs.map((pieces) => ({ a: pieces[0]!.a, b: pieces.at(-1)!.b })),
      JOINS,
    )) {
      const pieces = runPieces(run, (part) => runs[part]!);
      if (!run.closed && use !== "mark") return refuse("cutter-open", {}, pieces[0]!.a);
      paths.push({ use, kind: "run", closed: run.closed, pieces });
    }
  const cut = paths.filter((path) => path.kind === "run" && path.use !== "mark") as Extract<Read, { kind: "run" }>[];
  if (cut.length === 0) return refuse("cutter-nothing");
  const wrong = crossing(cut);
  if (wrong) return wrong;
  return onBed(byNesting(paths), process);
};

type Read = CutPath | (Omit<Extract<CutPath, { kind: "run" }>, "use"> & { readonly use: "profile" }) | ProfilePoint;
type ProfilePoint = Omit<Extract<CutPath, { kind: "point" }>, "use"> & { readonly use: "profile" };

/** What is a profile is outside or inside by how deep it lies. */
const byNesting = (paths: readonly Read[]): readonly CutPath[] => {
  const closed = paths.flatMap((path) => (path.kind === "run" && path.closed && path.use !== "mark" ? [path] : []));
  const depths = nestingDepths(closed.map(({ pieces }) => pieces));
  const uses = new Map(closed.map((path, i) => [path as Read, depths[i]! % 2 === 0 ? "outside" : "inside"] as const));
  return paths.map((path) =>
    path.use === "profile" ? ({ ...path, use: uses.get(path) ?? "outside" } as CutPath) : (path as CutPath),
  );
};

const crossing = (cut: readonly Extract<Read, { kind: "run" }>[]): ReturnType<typeof refuse> | undefined => {
  try {
    const [first] = withinMoment(() => meetingPlaces(cut)).filter(({ kind }) => kind !== "touching");
    if (!first) return undefined;
    return refuse(first.kind === "doubled" ? "cutter-doubled" : "cutter-crossing", {}, first.at);
  } catch (reason) {
    if (!(reason instanceof TooMuch)) throw reason;
    return refuse("cutter-crossing", {}, reason.at);
  }
};

/** Everything moved to the lower left of the bed, with room for leading in; refused where it is larger. */
const onBed = (paths: readonly CutPath[], { bed, leadIn }: Process): Outcome<readonly CutPath[]> => {
  const box = unionBounds(
    paths.map((path) =>
      path.kind === "run"
        ? piecesBounds(path.pieces)!
        : { minX: path.at.x, minY: path.at.y, maxX: path.at.x, maxY: path.at.y },
    ),
  )!;
  const [width, height] = [box.maxX - box.minX + 2 * leadIn, box.maxY - box.minY + 2 * leadIn];
  if (width > bed[0] || height > bed[1])
    return refuse("cutter-bed", { x: width, y: height, width: bed[0], height: bed[1] });
  const moved = ({ x, y }: Point): Point => ({ x: x - box.minX + leadIn, y: y - box.minY + leadIn });
  return done(
    paths.map((path): CutPath =>
      path.kind === "point"
        ? { ...path, at: moved(path.at) }
        : { ...path, pieces: path.pieces.map(({ a, b, bulge }) => ({ a: moved(a), b: moved(b), bulge })) },
    ),
  );
};

const inMm = ({ x, y }: Point, unit: Unit): Point => ({
  x: convertLength(x, unit, "mm"),
  y: convertLength(y, unit, "mm"),
});

const piecesOf = (
  found: Exclude<FoundEntity, { kind: "point" | "other" }>,
  unit: Unit,
): { readonly pieces: readonly Piece[]; readonly closed: boolean } => {
  const mm = (at: Point): Point => inMm(at, unit);
  switch (found.kind) {
    case "circle": {
      const radius = convertLength(found.radius, unit, "mm");
      return { pieces: radius > 0 ? circleHalves({ centre: mm(found), radius }) : [], closed: true };
    }
    case "line":
      return { pieces: [line(mm(found.a), mm(found.b))], closed: false };
    case "arc": {
      const at = (angle: number): Point =>
        mm({ x: found.x + found.radius * Math.cos(angle), y: found.y + found.radius * Math.sin(angle) });
      return { pieces: [arcBetween(at(found.from), at(found.to), mm(found), true)], closed: false };
    }
    case "polyline": {
      const { vertices, closed } = found;
      const starts = closed ? vertices : vertices.slice(0, -1);
      const pieces = starts
        .map((from, i) => ({ a: mm(from), b: mm(vertices[(i + 1) % vertices.length]!), bulge: from.bulge }))
        .filter(({ a, b }) => a.x !== b.x || a.y !== b.y);
      return { pieces, closed };
    }
  }
};
