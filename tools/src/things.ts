import { entityOf, type Drawing } from "@ash-edge/core/drawing";
import type { Similarity } from "@ash-edge/core/geometry";
import type { Id } from "@ash-edge/core/numeric";
import { transformShape, type Shape } from "@ash-edge/core/shape";

/** How many things an edit's label speaks of; one needs no number. */
export const describeThings = (ids: readonly Id[]): string => (ids.length === 1 ? "" : `${ids.length}`);

/** More than this many things are shown moved in part only, so that the pointer stays quick. */
const PREVIEWED = 2000;

/** What is named, as it would lie under `m`. */
export const thingsPreview = (drawing: Drawing, ids: readonly Id[], m: Similarity): readonly Shape[] =>
  ids.slice(0, PREVIEWED).flatMap((id) => {
    const entity = entityOf(drawing, id);
    return entity ? [transformShape(m, entity)] : [];
  });
