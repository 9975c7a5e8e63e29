import { angleSides, linearSpan } from "../attach/frame.ts";
import { MOST_LETTERS, type Annotation } from "../drawing/annotation.ts";
import {
  annotationOf,
  curveAt,
  roundAt,
  settingsOf,
  styleOf,
  type Drawing,
  type Settings,
} from "../drawing/drawing.ts";
import type { Edit } from "../drawing/edit.ts";
import { draftEdit } from "../edits/draftEdit.ts";
import { refuseAnnotationsLocked } from "../edits/removeEntities.ts";
import { dot, subtract } from "../geometry/point.ts";
import { done, refuse, type Outcome, type Refusal } from "../numeric/outcome.ts";
import { TRUE_WITHIN } from "../numeric/tolerance.ts";
import { pitchCircleOf } from "./centres.ts";
import { missingLetter } from "./letters.ts";
import { unitsPerPaper } from "./sheet.ts";

/** A dimension, a note or a mark that has no id yet. */
export type NewAnnotation = Omit<Annotation, "id">;

/** Why an annotation would say nothing, or nothing that can be drawn; undefined where it is sound. */
export const senseless = (drawing: Drawing, annotation: Omit<NewAnnotation, "at">): Refusal | undefined => {
  const { kind, refs, text } = annotation;
  const no = (...[code, values]: Parameters<typeof refuse>): Refusal => refuse(code, values).refusal;
  const letter = text === undefined ? undefined : missingLetter(text);
  if (letter !== undefined) return no("letter-missing", { letter });
  if ((text?.length ?? 0) > MOST_LETTERS) return no("note-too-long", { most: MOST_LETTERS });
  switch (kind) {
    case "linear": {
      const span = linearSpan(drawing, annotation);
      if (!span)
        return no(refs.length === 2 && refs.every(({ place }) => !place) ? "lines-not-parallel" : "same-point");
      const length = Math.abs(dot(subtract(span.to, span.from), span.way));
      return length > TRUE_WITHIN ? undefined : no(annotation.angle === undefined ? "same-point" : "measures-nothing");
    }
    case "angle":
      if (angleSides(drawing, refs)) return undefined;
      return no(refs.length === 3 ? "same-point" : "lines-parallel");
    case "radius":
    case "diameter":
    case "thread mark":
    case "centre mark":
      return refs.length > 0 && refs.every((ref) => roundAt(drawing, ref)) ? undefined : no("not-round");
    case "arc length": {
      const curve = refs[0] && curveAt(drawing, refs[0]);
      return curve?.kind === "piece" && curve.bulge !== 0 ? undefined : no("not-an-arc");
    }
    case "note":
      return text?.trim() ? undefined : no("note-empty");
    case "centre line":
      return refs.length > 2 && !pitchCircleOf(drawing, refs) ? no("not-on-a-circle") : undefined;
    case "ordinate":
      return undefined;
  }
};

/**
 * Adds dimensions, notes or marks in one edit; hidden ones are shown again with it. Refused where one of them would
 * say nothing, or where they are locked.
 */
export const addAnnotations = (
  drawing: Drawing,
  all: readonly NewAnnotation[],
  label: string,
  gesture: string,
): Outcome<Edit> => {
  const locked = refuseAnnotationsLocked(drawing);
  if (locked) return locked;
  for (const annotation of all) {
    const refusal = senseless(drawing, annotation);
    if (refusal) return { ok: false, refusal };
  }
  const draft = draftEdit(drawing, label, gesture);
  for (const annotation of all) {
    const id = draft.newId();
    draft.set("annotation", id, { ...annotation, id });
  }
  const { annotationsHidden, ...rest } = settingsOf(drawing);
  if (annotationsHidden) draft.set("settings", 0, rest);
  return done(draft.finish());
};

/** Puts annotations in the place of those with the same ids, in one edit; what holds again is lost no more. */
export const changeAnnotations = (
  drawing: Drawing,
  all: readonly Annotation[],
  label: string,
  gesture: string,
): Outcome<Edit> => {
  const locked = refuseAnnotationsLocked(drawing);
  if (locked) return locked;
  const draft = draftEdit(drawing, label, gesture);
  for (const { lost, ...annotation } of all) {
    if (!annotationOf(drawing, annotation.id)) continue;
    const still = lost && annotation.refs.length === 0 && annotation.kind !== "note";
    const refusal = still ? undefined : senseless(drawing, annotation);
    if (refusal) return { ok: false, refusal };
    draft.set("annotation", annotation.id, still ? { ...annotation, lost } : annotation);
  }
  return done(draft.finish());
};

/** Takes all dimensions, notes and marks out of the way, or shows them again; locks them, or unlocks them. */
export const setAnnotations = (
  drawing: Drawing,
  to: { readonly hidden?: boolean; readonly locked?: boolean },
): Edit => {
  const { annotationsHidden, annotationsLocked, ...rest } = settingsOf(drawing);
  const { hidden = annotationsHidden === true, locked = annotationsLocked === true } = to;
  const label =
    to.hidden === undefined
      ? `${locked ? "Lock" : "Unlock"} dimensions and notes`
      : `${hidden ? "Hide" : "Show"} dimensions and notes`;
  const draft = draftEdit(drawing, label, "settings");
  const row: Settings = {
    ...rest,
    ...(hidden ? { annotationsHidden: true } : {}),
    ...(locked ? { annotationsLocked: true } : {}),
  };
  draft.set("settings", 0, row);
  return draft.finish();
};

/** How dimensions and notes of this job look; undefined for as in the shop. */
export const setAnnotationStyle = (drawing: Drawing, style: Settings["annotationStyle"]): Edit => {
  const draft = draftEdit(drawing, "Style of dimensions", "settings");
  const { annotationStyle: _, ...rest } = settingsOf(drawing);
  draft.set("settings", 0, style ? { ...rest, annotationStyle: style } : rest);
  return draft.finish();
};

/** The designation of a thread as a note that points to its hole, beside it to the upper right. */
export const noteOfThread = (drawing: Drawing, { refs, size = 0, text }: Annotation): Outcome<Edit> => {
  const style = styleOf(drawing);
  const out = size / 2 + NOTE_OUT * style.height * unitsPerPaper(drawing, style);
  return addAnnotations(drawing, [{ kind: "note", refs, at: { x: out, y: out }, text: text ?? "" }], "Note", "note");
};
/** So many heights of lettering off the thread. */
const NOTE_OUT = 3;
