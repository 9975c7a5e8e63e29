import { combine, type Area, type Combination, type Outline } from "../../arrangement/index.ts";
import { windingNumber } from "../../contour/winding.ts";
import { entityOf, refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import type { Entity } from "../../drawing/entity.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import type { Contour } from "../../profile/profile.ts";
import { draftEdit } from "../draftEdit.ts";
import { outlineShape } from "./areas.ts";

const WORDS: Readonly<Record<Combination, string>> = {
  unite: "Unite",
  "take-away": "Take away",
  common: "Common part",
};

/** The contour that a thing belongs to, and with `holes` those right in it. */
const areaOf = (contours: readonly Contour[], id: Id, holes: boolean): readonly Contour[] => {
  const outer = contours.find(({ ids, role }) => role !== "mark" && ids.includes(id));
  if (!outer) return [];
  if (!holes) return [outer];
  const inner = contours.filter(
    ({ role, depth, pieces }) =>
      role !== "mark" && depth === outer.depth + 1 && windingNumber(outer.pieces, pieces[0]!.a) !== 0,
  );
  return [outer, ...inner];
};

/**
 * Contours united, the others taken away from the first, or what they have in common, on the layer of the first. Each
 * stands for its outline alone, or with its holes. They go unless they are kept; what answers a callout follows to
 * where it lies now. Refused where one is open, and where nothing is left.
 */
export const combineEntities = (
  drawing: Drawing,
  contours: readonly Contour[],
  ids: readonly Id[],
  how: Combination,
  { holes, keep }: { readonly holes: boolean; readonly keep: boolean },
): Outcome<{ readonly edit: Edit; readonly outlines: readonly Outline[]; readonly first: Id }> => {
  const groups: (readonly Contour[])[] = [];
  for (const id of ids) {
    const found = areaOf(contours, id, holes);
    if (found.length === 0) return refuse("not-closed");
    if (!groups.some(([outer]) => outer === found[0])) groups.push(found);
  }
  if (groups.length < 2) return refuse("combine-two");
  const areas = groups.map((group): Area => group.map(({ pieces }) => pieces));
  const combined = combine(areas, how);
  if (!combined.ok) return combined;
  const outlines = combined.value;
  if (outlines.length === 0) return refuse("combine-nothing");
  const { layer } = entityOf(drawing, ids[0]!)!;
  const gone = keep
    ? []
    : [...new Set(groups.flat().flatMap((contour) => contour.ids))].map((id) => entityOf(drawing, id)!);
  const locked = refuseLocked(drawing, { layer }, ...gone);
  if (locked) return locked;
  const draft = draftEdit(drawing, WORDS[how], how);
  const added = outlines.map((outline): Entity => {
    const shape = outlineShape(outline, draft.newId);
    return { ...shape, id: draft.add(shape, layer), layer };
  });
  for (const { id } of gone) draft.remove(id);
  return done({ edit: draft.finish(), outlines, first: added[0]!.id });
};
