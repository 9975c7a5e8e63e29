import { idsIn } from "../attach/holders.ts";
import type { Annotation, AnnotationStyle } from "../drawing/annotation.ts";
import { annotationsOf, entityOf, layerOf, type Drawing } from "../drawing/drawing.ts";
import { pageGet } from "../drawing/pages.ts";
import { DATUM } from "../drawing/ref.ts";
import { displayOf, type Display } from "./display.ts";

/** What a display was made from; it stands as long as all of it does. */
type Made = {
  readonly from: readonly unknown[];
  readonly style: AnnotationStyle;
  readonly per: number;
  readonly display: Display;
};
const known = new WeakMap<Annotation, Made>();

/** The rows on which the display of an annotation depends. */
const dependsOn = (drawing: Drawing, { refs, callout }: Annotation): readonly unknown[] => [
  ...refs.flatMap(idsIn).map((id) => (id === 0 ? drawing.settings : entityOf(drawing, id))),
  callout === undefined ? undefined : pageGet(drawing.callout, callout),
  pageGet(drawing.settings, 0)!.unit,
];

/** True where an annotation is not hidden with the layers of all that it holds; the datum hides nothing, nor shows. */
export const isSeen = (drawing: Drawing, { refs }: Annotation): boolean => {
  const ids = refs.flatMap(idsIn).filter((id) => id !== DATUM.id);
  return (
    ids.length === 0 ||
    ids.some((id) => {
      const entity = entityOf(drawing, id);
      return !entity || layerOf(drawing, entity.layer)?.shown !== false;
    })
  );
};

/**
 * Annotations as they are drawn on the board, without those that hang on hidden layers alone, each worked out anew only
 * where something that it holds has changed, or the size at which it is drawn: an edit beside two thousand of them
 * costs next to nothing.
 */
export const displaysOf = (drawing: Drawing, style: AnnotationStyle, per: number): readonly Display[] =>
  annotationsOf(drawing).flatMap((annotation) => {
    if (!isSeen(drawing, annotation)) return [];
    const from = dependsOn(drawing, annotation);
    const made = known.get(annotation);
    const stands = made && made.per === per && made.style === style && from.every((row, i) => row === made.from[i]);
    if (stands) return made.display;
    const display = displayOf(drawing, annotation, style, per);
    known.set(annotation, { from, style, per, display });
    return display;
  });
