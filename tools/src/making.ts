import { curveAt, type Drawing, type Edit } from "@ash-edge/core/drawing";
import { draftEdit, type EditDraft } from "@ash-edge/core/edits";
import type { Curve, Piece } from "@ash-edge/core/geometry";
import { changedShapes } from "@ash-edge/core/look";
import type { Id } from "@ash-edge/core/numeric";
import type { Shape } from "@ash-edge/core/shape";
import type { Picked, Way, Tool } from "./tool.ts";

/** The curve that a pick stands for; undefined for a bare place, and for a place on something (an end, a centre). */
export const pickedCurve = (drawing: Drawing, picked: Picked | undefined): Curve | undefined =>
  picked?.ref && !picked.ref.place ? curveAt(drawing, picked.ref) : undefined;

export const pieceShape = ({ a, b, bulge }: Piece): Shape => ({ kind: "piece", a, b, bulge });

/** A way that changes what is there: the preview shows what its edit draws and what it takes away. */
export const changingWay = (edit: Edit, rest: Omit<Way, "preview" | "edit"> = {}): Way => {
  const { comes, goes } = changedShapes(edit);
  const preview = [...comes.map((shape) => ({ shape })), ...goes.map((shape) => ({ shape, goes: true }))];
  return { ...rest, preview, edit: () => edit };
};

/** A way that adds shapes to a layer; `after` ties callouts to what was made. */
export const makingWay = (
  tool: Pick<Tool, "id" | "name">,
  drawing: Drawing,
  layer: Id,
  shapes: readonly Shape[],
  after?: (draft: EditDraft, ids: readonly Id[]) => void,
  rest: Omit<Way, "preview" | "edit"> = {},
): Way => ({
  ...rest,
  preview: shapes.map((shape) => ({ shape })),
  edit: () => {
    const draft = draftEdit(drawing, tool.name, tool.id);
    const ids = shapes.map((shape) => draft.add(shape, layer));
    after?.(draft, ids);
    return draft.finish();
  },
});
