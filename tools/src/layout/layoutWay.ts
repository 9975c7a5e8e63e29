import { LAYOUT_LAYER, curveAt, type Drawing } from "@ash-edge/core/drawing";
import { addShapes } from "@ash-edge/core/edits";
import type { Endless, Curve } from "@ash-edge/core/geometry";
import type { Shape } from "@ash-edge/core/shape";
import type { Way, Picked } from "../tool.ts";

export const endless = (line: Endless): Shape => ({ kind: "endless", ...line });

/** A way that puts shapes on the layout layer. */
export const layoutWay = (drawing: Drawing, shapes: readonly Shape[], label: string, gesture: string): Way => ({
  preview: shapes.map((shape) => ({ shape })),
  edit: () => addShapes(drawing, { label, gesture, layer: LAYOUT_LAYER, shapes }),
});

export const curveOf = (drawing: Drawing, picked: Picked | undefined): Curve | undefined =>
  picked?.ref && !picked.ref.place ? curveAt(drawing, picked.ref) : undefined;
