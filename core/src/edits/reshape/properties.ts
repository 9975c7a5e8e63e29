import { chainPiece } from "../../contour/chain.ts";
import { entityOf, refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import type { Entity } from "../../drawing/entity.ts";
import { halfAxes } from "../../geometry/ellipse.ts";
import { arcBetween, arcOf, bulgeOf, pieceLength, sweepOf, type Piece } from "../../geometry/piece.ts";
import { along, angleOf, distance, subtract, times, turned, type Point } from "../../geometry/point.ts";
import { toDegrees, toRadians, unitAt } from "../../numeric/angle.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { RESOLUTION } from "../../numeric/tolerance.ts";
import { draftEdit } from "../draftEdit.ts";

/** Something about an entity that can be read and typed: lengths in the job's unit, angles in degrees. */
export type Property = {
  readonly name: string;
  readonly label: string;
  readonly kind: "length" | "coordinate" | "angle";
  readonly value: number;
};

const point = (name: string, label: string, at: Point): Property[] => [
  { name: `${name} x`, label: `${label} x`, kind: "coordinate", value: at.x },
  { name: `${name} y`, label: `${label} y`, kind: "coordinate", value: at.y },
];

const pieceProperties = (piece: Piece): Property[] => {
  const ends = [...point("a", "start", piece.a), ...point("b", "end", piece.b)];
  const length: Property = { name: "length", label: "length", kind: "length", value: pieceLength(piece) };
  const arc = arcOf(piece);
  if (arc)
    return [
      { name: "radius", label: "radius", kind: "length", value: arc.radius },
      { name: "sweep", label: "sweep", kind: "angle", value: toDegrees(Math.abs(arc.sweep)) },
      length,
      ...ends,
    ];
  const angle = toDegrees(angleOf(subtract(piece.b, piece.a)));
  return [length, { name: "angle", label: "angle", kind: "angle", value: angle }, ...ends];
};

/**
 * What can be read and typed of an entity; of a chain what belongs to the vertex named, and to the piece that starts
 * there.
 */
export const propertiesOf = (entity: Entity, vertex?: Id): readonly Property[] => {
  switch (entity.kind) {
    case "point":
      return point("at", "", entity.at).map((one) => ({ ...one, label: one.label.trim() }));
    case "circle":
      return [
        { name: "radius", label: "radius", kind: "length", value: entity.radius },
        { name: "diameter", label: "diameter", kind: "length", value: 2 * entity.radius },
        ...point("centre", "centre", entity.centre),
      ];
    case "endless":
      return [
        { name: "angle", label: "angle", kind: "angle", value: toDegrees(entity.angle) },
        ...point("through", "through", entity.through),
      ];
    case "ellipse": {
      const [long, short] = halfAxes(entity);
      return [
        { name: "long", label: "long axis", kind: "length", value: 2 * long },
        { name: "short", label: "short axis", kind: "length", value: 2 * short },
        { name: "angle", label: "angle", kind: "angle", value: toDegrees(angleOf(entity.major)) },
        ...point("centre", "centre", entity.centre),
      ];
    }
    case "free":
      return [];
    case "piece":
      return pieceProperties(entity);
    case "chain": {
      const i = entity.vertices.findIndex(({ id }) => id === vertex);
      const own = entity.vertices[i];
      if (!own) return [];
      const piece = chainPiece(entity, i);
      const round = piece && piece.bulge !== 0 ? arcOf(piece) : undefined;
      return [
        ...point("vertex", "", own.at).map((one) => ({ ...one, label: one.label.trim() })),
        ...(round ? [{ name: "radius", label: "radius", kind: "length", value: round.radius } as const] : []),
      ];
    }
  }
};

const at = (p: Point, name: string, value: number): Point =>
  name.endsWith(" x") ? { x: value, y: p.y } : { x: p.x, y: value };

/** The bulge of a round piece with its ends kept and its radius changed; the same side, the same way round. */
const bulgeForRadius = (piece: Piece, radius: number): Outcome<number> => {
  const half = distance(piece.a, piece.b) / 2;
  if (radius < half - RESOLUTION) return refuse("radius-too-small", { typed: radius, limit: half });
  const sine = Math.min(1, half / radius);
  const minor = 2 * Math.asin(sine);
  const sweep = Math.abs(piece.bulge) <= 1 ? minor : 2 * Math.PI - minor;
  return done(Math.sign(piece.bulge) * bulgeOf(sweep));
};

const changedPiece = (piece: Piece, name: string, value: number): Outcome<Piece> => {
  if (name.startsWith("a ")) return done({ ...piece, a: at(piece.a, name, value) });
  if (name.startsWith("b ")) return done({ ...piece, b: at(piece.b, name, value) });
  if (name === "radius") {
    const bulge = bulgeForRadius(piece, value);
    return bulge.ok ? done({ ...piece, bulge: bulge.value }) : bulge;
  }
  if (name === "angle")
    return done({ ...piece, b: along(piece.a, unitAt(toRadians(value)), distance(piece.a, piece.b)) });
  const arc = arcOf(piece);
  if (!arc) return done({ ...piece, b: along(piece.a, directionOf(piece), value) });
  // an arc keeps its start and its circle
  const sweep = Math.sign(arc.sweep) * (name === "sweep" ? toRadians(value) : value / arc.radius);
  if (!(Math.abs(sweep) < 2 * Math.PI)) return refuse("property-impossible");
  const b = turned(subtract(piece.a, arc.centre), sweep);
  return done(
    arcBetween(piece.a, { x: arc.centre.x + b.x, y: arc.centre.y + b.y }, arc.centre, sweepOf(piece.bulge) > 0),
  );
};

const directionOf = (piece: Piece): Point => unitAt(angleOf(subtract(piece.b, piece.a)));

const changed = (entity: Entity, name: string, value: number, vertex: Id | undefined): Outcome<Entity> => {
  switch (entity.kind) {
    case "point":
      return done({ ...entity, at: at(entity.at, name, value) });
    case "circle":
      if (name === "radius") return done({ ...entity, radius: value });
      if (name === "diameter") return done({ ...entity, radius: value / 2 });
      return done({ ...entity, centre: at(entity.centre, name, value) });
    case "endless":
      if (name === "angle") return done({ ...entity, angle: toRadians(value) });
      return done({ ...entity, through: at(entity.through, name, value) });
    case "ellipse": {
      const [long, short] = halfAxes(entity);
      if (name.startsWith("centre")) return done({ ...entity, centre: at(entity.centre, name, value) });
      if (name === "angle") return done({ ...entity, major: along({ x: 0, y: 0 }, unitAt(toRadians(value)), long) });
      const [a, b] = name === "long" ? [value / 2, short] : [long, value / 2];
      if (b > a) return refuse("axes-swapped");
      return done({ ...entity, major: times(entity.major, a / long), ratio: b / a });
    }
    case "free":
      return refuse("property-impossible");
    case "piece": {
      const piece = changedPiece(entity, name, value);
      return piece.ok ? done({ ...entity, ...piece.value }) : piece;
    }
    case "chain": {
      const i = entity.vertices.findIndex(({ id }) => id === vertex);
      const own = entity.vertices[i];
      if (!own) return refuse("pick-first");
      const bulge = name === "radius" ? bulgeForRadius(chainPiece(entity, i)!, value) : done(own.bulge);
      if (!bulge.ok) return bulge;
      const next = { ...own, at: name === "radius" ? own.at : at(own.at, name, value), bulge: bulge.value };
      return done({ ...entity, vertices: entity.vertices.map((one) => (one === own ? next : one)) });
    }
  }
};

/**
 * Changes one property of all that is named (things that don't have it are left alone). Lengths must be above zero; a
 * radius smaller than half the chord, a sweep of a whole turn and a piece without length are refused. Lines keep their
 * start and their direction, arcs their start and their circle.
 */
export const changeProperty = (
  drawing: Drawing,
  ids: readonly Id[],
  name: string,
  value: number,
  vertex?: Id,
): Outcome<Edit> => {
  const draft = draftEdit(drawing, `Change ${name.replace(/^(at|vertex) /, "")}`, "property");
  let any = false;
  for (const id of ids) {
    const entity = entityOf(drawing, id);
    const property = entity && propertiesOf(entity, vertex).find((one) => one.name === name);
    if (!entity || !property) continue;
    const locked = refuseLocked(drawing, entity);
    if (locked) return locked;
    if (property.kind === "length" && !(value > 0))
      return refuse("value-not-positive", { what: `The ${property.label}` });
    const next = changed(entity, name, value, vertex);
    if (!next.ok) return next;
    if (next.value.kind === "piece" && distance(next.value.a, next.value.b) <= RESOLUTION) return refuse("no-length");
    draft.reshape(next.value);
    any = true;
  }
  return any ? done(draft.finish()) : refuse("nothing-selected");
};
