import { idsIn } from "../attach/holders.ts";
import type { Annotation, AnnotationStyle } from "../drawing/annotation.ts";
import { annotationsOf, entityOf, type Drawing } from "../drawing/drawing.ts";
import { pageGet } from "../drawing/pages.ts";
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

/**
 * All annotations as they are drawn, each worked out anew only where something that it holds has changed, or the size
 * at which it is drawn: an edit beside two thousand of them costs next to nothing.
 */
export const displaysOf = (drawing: Drawing, style: AnnotationStyle, per: number): readonly Display[] =>
  annotationsOf(drawing).map((annotation) => {
    const from = dependsOn(drawing, annotation);
    const made = known.get(annotation);
    const stands = made && made.per === per && made.style === style && from.every((row, i) => row === made.from[i]);
    if (stands) return made.display;
    const display = displayOf(drawing, annotation, style, per);
    known.set(annotation, { from, style, per, display });
    return display;
  });
