import type { ReleasedContour } from "../../checks/releasePlan.ts";
import type { Unit } from "../../numeric/units.ts";
import { INSUNITS } from "./writeDxf.ts";

/** What an independent reader found in a file, in neutral words. */
export type FoundEntity =
  | { readonly kind: "circle"; readonly layer: string; readonly x: number; readonly y: number; readonly radius: number }
  | {
      readonly kind: "polyline";
      readonly layer: string;
      readonly closed: boolean;
      readonly vertices: readonly { readonly x: number; readonly y: number; readonly bulge: number }[];
    }
  | { readonly kind: "other"; readonly layer: string; readonly type: string };
export type FoundFile = { readonly insunits: number | undefined; readonly entities: readonly FoundEntity[] };

/**
 * What differs between the contours that were to be written and what was read back; empty when nothing does. Numbers
 * must be the same to the last bit, since the shortest round-trip text was written.
 */
export const compareRead = (written: readonly ReleasedContour[], unit: Unit, found: FoundFile): readonly string[] => {
  const differences: string[] = [];
  if (found.insunits !== INSUNITS[unit])
    differences.push(`The unit reads as ${found.insunits ?? "none"}, not ${INSUNITS[unit]}.`);
  if (found.entities.length !== written.length)
    differences.push(`${found.entities.length} contours read, ${written.length} written.`);
  written.forEach((contour, i) => {
    const entity = found.entities[i];
    if (!entity || !sameContour(contour, entity))
      differences.push(`Contour ${i + 1} on ${contour.layer} reads differently.`);
  });
  return differences;
};

const sameContour = (contour: ReleasedContour, found: FoundEntity): boolean => {
  if (contour.kind !== found.kind || contour.layer !== found.layer) return false;
  if (contour.kind === "circle" && found.kind === "circle")
    return contour.centre.x === found.x && contour.centre.y === found.y && contour.radius === found.radius;
  if (contour.kind !== "polyline" || found.kind !== "polyline") return false;
  const { pieces, closed } = contour;
  const end = found.vertices.at(-1);
  return (
    found.closed === closed &&
    found.vertices.length === pieces.length + (closed ? 0 : 1) &&
    pieces.every(({ a, bulge }, i) => {
      const vertex = found.vertices[i]!;
      return vertex.x === a.x && vertex.y === a.y && vertex.bulge === bulge;
    }) &&
    (closed || (end?.x === pieces.at(-1)!.b.x && end.y === pieces.at(-1)!.b.y))
  );
};
