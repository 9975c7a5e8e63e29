import {
  countAnnotations,
  describeAnnotation,
  displaysOf,
  givingWay,
  unitsPerPaper,
  type Display,
} from "@ash-edge/core/annotate";
import { annotationOf, settingsOf, styleOf, type Drawing, type Ref } from "@ash-edge/core/drawing";
import { countByKind, describeRef } from "@ash-edge/core/look";
import type { Id } from "@ash-edge/core/numeric";
import type { BenchState } from "./state/index.ts";

/** Capitals on the board are never lower and never higher than this, px: to be read at any zoom, and never absurd. */
const [LOWEST, HIGHEST] = [8, 18];

const NONE: readonly Display[] = [];

let paper: { readonly drawing: Drawing; readonly per: number } | undefined;
/** Drawing units to the millimetre of paper, worked out once for each drawing. */
const perPaper = (drawing: Drawing): number => {
  if (paper?.drawing !== drawing) paper = { drawing, per: unitsPerPaper(drawing, styleOf(drawing)) };
  return paper.per;
};

/** Drawing units to the millimetre of lettering at a zoom: that of the sheet as long as it can be read. */
export const perAt = (drawing: Drawing, scale: number): number => {
  const { height } = styleOf(drawing);
  const px = (size: number): number => size / height / scale;
  return Math.min(px(HIGHEST), Math.max(px(LOWEST), perPaper(drawing)));
};

/** A short name of what a reference names: geometry, or an annotation. */
export const describeThing = (drawing: Drawing, ref: Ref): string => {
  const annotation = annotationOf(drawing, ref.id);
  return annotation ? describeAnnotation(drawing, annotation) : describeRef(drawing, ref);
};

/** What is selected, counted by kind: `2 circles, 1 dimension`. */
export const countSelected = (drawing: Drawing, ids: ReadonlySet<Id>): string =>
  [countByKind(drawing, ids), countAnnotations(drawing, ids)].filter(Boolean).join(", ");

let last: { readonly drawing: Drawing; readonly scale: number; readonly displays: readonly Display[] } | undefined;

/** The dimensions, notes and marks that are shown at a zoom; none while they, or all signs, are out of the way. */
export const shownAnnotations = (drawing: Drawing, scale: number, signsHidden: boolean): readonly Display[] => {
  if (signsHidden || drawing.annotation.size === 0 || settingsOf(drawing).annotationsHidden) return NONE;
  if (last?.drawing === drawing && last.scale === scale) return last.displays;
  last = { drawing, scale, displays: displaysOf(drawing, styleOf(drawing), perAt(drawing, scale)) };
  return last.displays;
};

const NOBODY: ReadonlySet<Id> = new Set();
let crowd: { readonly displays: readonly Display[]; readonly gone: ReadonlySet<Id> } | undefined;

/**
 * Those whose texts give way where lettering is larger than on the sheet: what is zoomed out is not written over
 * itself; their lines stay, and what is hovered is shown with its text.
 */
export const withoutText = (drawing: Drawing, displays: readonly Display[], scale: number): ReadonlySet<Id> => {
  if (displays.length === 0 || perAt(drawing, scale) <= perPaper(drawing)) return NOBODY;
  if (crowd?.displays !== displays) crowd = { displays, gone: givingWay(displays) };
  return crowd.gone;
};

/** Those that can be picked: shown, and not locked. */
export const pickableAnnotations = ({ history: { drawing }, view }: BenchState): readonly Display[] =>
  settingsOf(drawing).annotationsLocked ? NONE : shownAnnotations(drawing, view.now.scale, view.signsHidden);
