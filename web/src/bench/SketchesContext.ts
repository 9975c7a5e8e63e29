import { createContext, useContext } from "react";
import { picturesOf, type Drawing } from "@ash-edge/core/drawing";
import type { ShownSketch } from "../ui/useSketch.ts";
import { useBench } from "./SessionContext.tsx";

/** The job's sketch pictures, loaded once for the sketch card and the board; undefined until they are there. */
export const SketchesContext = createContext<readonly ShownSketch[] | undefined>(undefined);

/** Straightened pictures count only as far as the drawing speaks of them: undo takes them out of sight. */
const inUse = (drawing: Drawing, { id, from }: ShownSketch): boolean =>
  from === undefined || picturesOf(drawing).some(({ blob }) => blob === id);

export const useShownSketches = (): readonly ShownSketch[] | undefined => {
  const all = useContext(SketchesContext);
  const drawing = useBench((state) => state.history.drawing);
  return all?.filter((sketch) => inUse(drawing, sketch));
};
