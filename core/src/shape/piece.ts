import { bulgeForRadius } from "../construct/bulgeForRadius.ts";
import {
  arcBetween,
  arcOf,
  pieceLength,
  piecePoint,
  sweepOf,
  pieceBounds,
  plainPiece,
  transformPiece,
  type Piece,
} from "../geometry/piece.ts";
import { along, angleOf, distance, subtract, turned, type Point } from "../geometry/point.ts";
import { toDegrees, toRadians, unitAt } from "../numeric/angle.ts";
import { NUMBER, POINT } from "../numeric/fields.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import { coordinates, oneCurve, withCoordinate, type Kind, type Property } from "./kind.ts";

const pieceProperties = (piece: Piece): readonly Property[] => {
  const ends = [...coordinates("a", "start", piece.a), ...coordinates("b", "end", piece.b)];
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

const changedPiece = (piece: Piece, name: string, value: number): Outcome<Piece> => {
  if (name.startsWith("a ")) return done({ ...piece, a: withCoordinate(piece.a, name, value) });
  if (name.startsWith("b ")) return done({ ...piece, b: withCoordinate(piece.b, name, value) });
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

/** A line or an arc on its own. */
export const pieceKind: Kind<"piece"> = {
  ...oneCurve,
  bounds: pieceBounds,
  transform: (m, piece) => ({ kind: "piece", ...transformPiece(m, piece) }),
  curves: (curve) => [{ curve }],
  pieces: (piece) => [plainPiece(piece)],
  properties: pieceProperties,
  withProperty: (piece, name, value) => {
    const made = changedPiece(piece, name, value);
    if (!made.ok) return made;
    if (distance(made.value.a, made.value.b) <= RESOLUTION) return refuse("no-length");
    return done({ ...piece, ...made.value });
  },
  handles: (piece) => [
    { kind: "end", at: piece.a, place: "start" },
    { kind: "end", at: piece.b, place: "end" },
    { kind: "middle", at: piecePoint(piece, 0.5), length: pieceLength(piece) },
  ],
  fields: { a: POINT, b: POINT, bulge: NUMBER },
};
