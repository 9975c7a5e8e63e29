import type { Drawing } from "@ash-edge/core/drawing";
import { profileOf, type Contour } from "@ash-edge/core/profile";

const known = new WeakMap<Drawing, readonly Contour[]>();

/** Which contours there are does not depend on the pointer, so each move of it need not look for them anew. */
export const contoursOnce = (drawing: Drawing): readonly Contour[] => {
  const last = known.get(drawing);
  if (last) return last;
  const { contours } = profileOf(drawing);
  known.set(drawing, contours);
  return contours;
};
