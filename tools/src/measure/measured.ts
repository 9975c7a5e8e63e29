import { curveAt, type Drawing } from "@ash-edge/core/drawing";
import type { Curve } from "@ash-edge/core/geometry";
import type { Shape } from "@ash-edge/core/shape";
import type { Picked, Proposal } from "../tool.ts";

export const curveOf = (drawing: Drawing, picked: Picked | undefined): Curve | undefined =>
  picked?.ref && !picked.ref.place ? curveAt(drawing, picked.ref) : undefined;

/** What is measured is said, and nothing is made. */
export const measured = (said: string, preview: readonly Shape[] = []): Proposal => ({
  ways: [{ preview: preview.map((shape) => ({ shape })), said }],
  note: said,
});
