import DxfParser from "dxf-parser";
import type { FoundEntity, FoundFile } from "@ash-edge/core/formats/dxf";

type ReadEntity = {
  readonly type: string;
  readonly layer: string;
  readonly shape?: boolean;
  readonly center?: { x: number; y: number };
  readonly radius?: number;
  readonly vertices?: readonly { x: number; y: number; bulge?: number }[];
};

/** What a reader that is not ours finds in a DXF, in neutral words. */
export const readBackDxf = (text: string): FoundFile => {
  const read = new DxfParser().parseSync(text);
  if (!read) throw new Error("The reader found nothing in the file.");
  const entities = (read.entities as unknown as readonly ReadEntity[]).map((entity): FoundEntity => {
    const { type, layer } = entity;
    if (type === "CIRCLE" && entity.center)
      return { kind: "circle", layer, x: entity.center.x, y: entity.center.y, radius: entity.radius! };
    if ((type === "LWPOLYLINE" || type === "POLYLINE") && entity.vertices)
      return {
        kind: "polyline",
        layer,
        closed: entity.shape === true,
        vertices: entity.vertices.map(({ x, y, bulge }) => ({ x, y, bulge: bulge ?? 0 })),
      };
    return { kind: "other", layer, type };
  });
  return { insunits: read.header?.$INSUNITS as number | undefined, entities };
};
