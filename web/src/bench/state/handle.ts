import type { AnnotationHandle } from "@ash-edge/core/annotate";
import type { Handle as ShapeHandle } from "@ash-edge/core/look";

/** A handle of what is selected: of geometry, or of a dimension, a note or a mark. */
export type Handle = ShapeHandle | AnnotationHandle;
