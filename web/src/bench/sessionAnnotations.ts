import {
  changeAnnotations,
  dimensionAllCalled,
  noteOfThread,
  promoteToCallout,
  setAnnotations,
  setAnnotationStyle,
} from "@ash-edge/core/annotate";
import { annotationOf, settingsOf, type Annotation, type AnnotationStyle } from "@ash-edge/core/drawing";
import type { SessionCore } from "./sessionCore.ts";

/** Dimensions, notes and marks as panels and actions change them. Each change is one edit; a refusal is said. */
export const makeAnnotating = ({ get, send, say, sayNo, commit }: SessionCore) => {
  /** What can't be picked any more is not selected either. */
  const dropSelected = (): void => {
    const { history, selection } = get();
    const ids = [...selection.ids].filter((id) => !annotationOf(history.drawing, id));
    if (ids.length < selection.ids.size) send("selection", { type: "selected", ids });
  };
  const set = (to: Parameters<typeof setAnnotations>[1]): void => {
    if (commit(setAnnotations(get().history.drawing, to)) && (to.hidden || to.locked)) dropSelected();
  };
  return {
    /** Shows or hides, locks or unlocks all of them. */
    setAnnotations: set,
    /** How they look in this job. */
    setAnnotationStyle: (style: AnnotationStyle): boolean => commit(setAnnotationStyle(get().history.drawing, style)),
    /** Takes all of them out of the way, or shows them again. */
    showAnnotations: (): void => {
      const { drawing } = get().history;
      const hidden = settingsOf(drawing).annotationsHidden !== true;
      if (drawing.annotation.size === 0 && hidden)
        return say({ text: "There are no dimensions and notes to take out of the way yet.", tone: "said" });
      set({ hidden });
      const words = hidden ? "out of the way" : "shown";
      say({ text: `Dimensions and notes are ${words}.`, tone: "said" });
    },
    /** Gives every callout that is placed its dimension. */
    dimensionAll: (): void => {
      const all = dimensionAllCalled(get().history.drawing);
      if (!all.ok) return sayNo(all.refusal);
      const { edit, count } = all.value;
      if (commit(edit)) say({ text: `${count} dimension${count === 1 ? "" : "s"} placed.`, tone: "said" });
    },
    /** Adds the designation of a thread as a note that points to its hole. */
    noteThread: (mark: Annotation): void => {
      const note = noteOfThread(get().history.drawing, mark);
      if (!note.ok) sayNo(note.refusal);
      else commit(note.value);
    },
    /** Writes the number of a dimension into the ledger. */
    promote: (annotation: Annotation): void => {
      const edit = promoteToCallout(get().history.drawing, annotation);
      if (!edit.ok) sayNo(edit.refusal);
      else commit(edit.value);
    },
    /** Puts annotations in the place of those with the same ids; false where that was refused. */
    changeAnnotations: (all: readonly Annotation[], label: string): boolean => {
      const edit = changeAnnotations(get().history.drawing, all, label, "annotation");
      if (!edit.ok) {
        sayNo(edit.refusal);
        return false;
      }
      return edit.value.changes.length === 0 || commit(edit.value);
    },
  };
};
