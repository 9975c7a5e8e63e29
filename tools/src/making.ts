import { curveAt, type Drawing, type Edit } from "@ash-edge/core/drawing";
import { addShapes, type Tie } from "@ash-edge/core/edits";
import type { Curve, Piece } from "@ash-edge/core/geometry";
import { changedShapes } from "@ash-edge/core/look";
import { done, type Id, type Outcome } from "@ash-edge/core/numeric";
import type { Shape } from "@ash-edge/core/shape";
import { refused, type Picked, type Proposal, type Tool, type Way } from "./tool.ts";

/** The curve that a pick stands for; undefined for a bare place, and for a place on something (an end, a centre). */
export const pickedCurve = (drawing: Drawing, picked: Picked | undefined): Curve | undefined =>
  picked?.ref && !picked.ref.place ? curveAt(drawing, picked.ref) : undefined;

/** A piece as the shape of an entity. */
export const pieceShape = ({ a, b, bulge }: Piece): Shape => ({ kind: "piece", a, b, bulge });

/** A way that changes what is there: the preview shows what its edit draws and what it takes away. */
export const changingWay = (edit: Edit, rest: Omit<Way, "preview" | "edit"> = {}): Way => {
  const { comes, goes } = changedShapes(edit);
  const preview = [...comes.map((shape) => ({ shape })), ...goes.map((shape) => ({ shape, goes: true }))];
  return { ...rest, preview, edit: () => done(edit) };
};

/** A way that adds shapes to a layer; `tie` ties callouts to what was made. */
export const makingWay = (
  tool: Pick<Tool, "id" | "name">,
  drawing: Drawing,
  layer: Id,
  shapes: readonly Shape[],
  tie?: (draft: Tie, ids: readonly Id[]) => void,
  rest: Omit<Way, "preview" | "edit"> = {},
): Way => ({
  ...rest,
  preview: shapes.map((shape) => ({ shape })),
  edit: () => addShapes(drawing, { label: tool.name, gesture: tool.id, layer, shapes }, tie),
});

/** A proposal of one changing way, or why there is none. */
export const changingProposal = (edit: Outcome<Edit>, rest: Omit<Proposal, "ways" | "refusal"> = {}): Proposal =>
  edit.ok ? { ways: [changingWay(edit.value)], ...rest } : { ...refused(edit), ...rest };
