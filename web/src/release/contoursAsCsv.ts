import { entityOf, layerOf, unitOf, type Drawing } from "@ash-edge/core/drawing";
import { profileOf } from "@ash-edge/core/profile";

/** The table of a drawing's contours, with the names of its own layers; the writer is fetched when it is wanted. */
export const contoursAsCsv = async (drawing: Drawing): Promise<string> => {
  const { contourCsv } = await import("@ash-edge/core/formats/csv");
  return contourCsv(
    profileOf(drawing).contours.map(({ ids, role, depth, area, length, lines, arcs, circle, bounds }) => ({
      closed: true,
      role,
      depth,
      area,
      length,
      lines: circle ? 0 : lines,
      arcs: circle ? 0 : arcs,
      circle: circle !== undefined,
      layer: layerOf(drawing, entityOf(drawing, ids[0]!)!.layer)!.name,
      bounds: [bounds.minX, bounds.minY, bounds.maxX, bounds.maxY],
    })),
    unitOf(drawing),
  );
};
