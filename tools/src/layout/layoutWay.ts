import { LAYOUT_LAYER, type Drawing } from "@ash-edge/core/drawing";
import { addShapes } from "@ash-edge/core/edits";
import type { Endless } from "@ash-edge/core/geometry";
import type { Shape } from "@ash-edge/core/shape";
import type { Way } from "../tool.ts";

/** A layout line as the shape of an entity. */
export const endless = (line: Endless): Shape => ({ kind: "endless", ...line });

/** A way that puts shapes on the layout layer. */
export const layoutWay = (drawing: Drawing, shapes: readonly Shape[], label: string, gesture: string): Way => ({
  preview: shapes.map((shape) => ({ shape })),
  edit: () => addShapes(drawing, { label, gesture, layer: LAYOUT_LAYER, shapes }),
});
