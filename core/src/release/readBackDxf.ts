import DxfParser from "dxf-parser";
import type { FoundEntity, FoundFile } from "../formats/dxf/compareRead.ts";

type Place = { readonly x: number; readonly y: number };
type ReadEntity = {
  readonly type: string;
  readonly layer: string;
  readonly shape?: boolean;
  readonly center?: Place;
  readonly radius?: number;
  readonly startAngle?: number;
  readonly endAngle?: number;
  readonly position?: Place;
  readonly vertices?: readonly (Place & { readonly bulge?: number })[];
};

/** What a reader that is not ours finds in a DXF, in neutral words; throws where it finds nothing. */
export const readBackDxf = (text: string): FoundFile => {
  const read = new DxfParser().parseSync(text);
  if (!read) throw new Error("The reader found nothing in the file.");
  const entities = (read.entities as unknown as readonly ReadEntity[]).map((entity): FoundEntity => {
    const { type, layer, center, radius, startAngle, endAngle, position, vertices } = entity;
    if (type === "CIRCLE" && center) return { kind: "circle", layer, x: center.x, y: center.y, radius: radius! };
    if (type === "ARC" && center && startAngle !== undefined && endAngle !== undefined)
      return { kind: "arc", layer, x: center.x, y: center.y, radius: radius!, from: startAngle, to: endAngle };
    if (type === "LINE" && vertices?.length === 2) {
      const [a, b] = vertices.map(({ x, y }) => ({ x, y })) as [Place, Place];
      return { kind: "line", layer, a, b };
    }
    if (type === "POINT" && position) return { kind: "point", layer, x: position.x, y: position.y };
    if ((type === "LWPOLYLINE" || type === "POLYLINE") && vertices)
      return {
        kind: "polyline",
        layer,
        closed: entity.shape === true,
        vertices: vertices.map(({ x, y, bulge }) => ({ x, y, bulge: bulge ?? 0 })),
      };
    return { kind: "other", layer, type };
  });
  return { insunits: read.header?.$INSUNITS as number | undefined, entities };
};
