import { arcOf } from "../../geometry/piece.ts";
import type { Point } from "../../geometry/point.ts";
import { normalAngle, toDegrees } from "../../numeric/angle.ts";
import { roundedTo } from "../../numeric/roundedTo.ts";
import { ANGLES_AGREE } from "../../numeric/tolerance.ts";
import type { Unit } from "../../numeric/units.ts";
import type { ReadShape } from "../readShapes.ts";
import { INSUNITS } from "./writeDxf.ts";

/** What an independent reader found in a file, in neutral words; angles in radians, counter-clockwise. */
export type FoundEntity = { readonly layer: string } & (
  | { readonly kind: "circle"; readonly x: number; readonly y: number; readonly radius: number }
  | {
      readonly kind: "polyline";
      readonly closed: boolean;
      readonly vertices: readonly { readonly x: number; readonly y: number; readonly bulge: number }[];
    }
  | { readonly kind: "line"; readonly a: Point; readonly b: Point }
  | {
      readonly kind: "arc";
      readonly x: number;
      readonly y: number;
      readonly radius: number;
      readonly from: number;
      readonly to: number;
    }
  | { readonly kind: "point"; readonly x: number; readonly y: number }
  | { readonly kind: "other"; readonly type: string }
);
export type FoundFile = { readonly insunits: number | undefined; readonly entities: readonly FoundEntity[] };

/**
 * What differs between the shapes that were to be written and what was read back; empty when nothing does. Numbers must
 * be the same to the last bit, since the shortest round-trip text was written; the centre and the radius of an arc of
 * its own with as many decimals as were asked for, and its angles as far as degrees and radians agree.
 */
export const compareRead = (
  written: readonly ReadShape[],
  unit: Unit,
  found: FoundFile,
  decimals: "exact" | number = "exact",
): readonly string[] => {
  const differences: string[] = [];
  if (found.insunits !== INSUNITS[unit])
    differences.push(`The unit reads as ${found.insunits ?? "none"}, not ${INSUNITS[unit]}.`);
  if (found.entities.length !== written.length)
    differences.push(`${found.entities.length} things read, ${written.length} written.`);
  written.forEach((shape, i) => {
    const entity = found.entities[i];
    if (!entity || shape.layer !== entity.layer || !sameShape(shape, entity, decimals))
      differences.push(`Thing ${i + 1} on ${shape.layer} reads differently.`);
  });
  return differences;
};

const samePlace = (p: Point, q: Point): boolean => p.x === q.x && p.y === q.y;

const sameShape = (shape: ReadShape, found: FoundEntity, decimals: "exact" | number): boolean => {
  switch (shape.kind) {
    case "circle":
      return found.kind === "circle" && samePlace(shape.centre, found) && shape.radius === found.radius;
    case "point":
      return found.kind === "point" && samePlace(shape.at, found);
    case "chain": {
      if (found.kind !== "polyline") return false;
      const { pieces, closed } = shape;
      const end = found.vertices.at(-1);
      return (
        found.closed === closed &&
        found.vertices.length === pieces.length + (closed ? 0 : 1) &&
        pieces.every(({ a, bulge }, i) => {
          const vertex = found.vertices[i]!;
          return samePlace(vertex, a) && vertex.bulge === bulge;
        }) &&
        (closed || (end !== undefined && samePlace(end, pieces.at(-1)!.b)))
      );
    }
    case "piece": {
      const arc = arcOf(shape);
      if (!arc) return found.kind === "line" && samePlace(found.a, shape.a) && samePlace(found.b, shape.b);
      if (found.kind !== "arc") return false;
      const [from, to] = arc.sweep > 0 ? [arc.from, arc.from + arc.sweep] : [arc.from + arc.sweep, arc.from];
      const round = (value: number): number => roundedTo(value, decimals);
      return (
        samePlace(found, { x: round(arc.centre.x), y: round(arc.centre.y) }) &&
        found.radius === round(arc.radius) &&
        sameAngle(found.from, from) &&
        sameAngle(found.to, to)
      );
    }
    default:
      return false;
  }
};

const sameAngle = (p: number, q: number): boolean => {
  const apart = toDegrees(normalAngle(p - q));
  return Math.min(apart, 360 - apart) <= ANGLES_AGREE;
};
