import { relationsIn, type Relation } from "./holds/index.ts";
import type { Model } from "./model.ts";

/** What holds in a drawing, or is meant to: as it is exact, or was rounded by a file, or drawn by hand. */
export type Meaning = { readonly relations: readonly Relation[]; readonly isExact: boolean };

/** What a file rounds is off by less than this part of the size. */
const ROUNDED = 3e-4;
/** More of what is meant than this that does not hold exactly: then it was rounded, or drawn by hand. */
const [ROUNDED_PART, ROUGH_PART] = [0.1, 0.3];
/** Told by joints and directions, of which there are many. */
const TOLD_BY: ReadonlySet<string> = new Set(["tangent", "level", "upright"]);

const told = (all: readonly Relation[]): number => all.filter(({ kind }) => TOLD_BY.has(kind)).length;

/** Finds out which of the three a drawing is, and what holds in it then. */
export const meaningOf = (model: Model): Meaning => {
  const exact = relationsIn(model, "exact");
  const rounded = relationsIn({ ...model, near: Math.max(model.near, ROUNDED / 4) }, "exact");
  const nearly = told(rounded) - told(exact);
  const rough = relationsIn(model, "rough");
  const most = Math.max(told(exact), told(rounded));
  if (told(rough) > 0 && (told(rough) - most) / told(rough) > ROUGH_PART) return { relations: rough, isExact: false };
  return nearly > ROUNDED_PART * told(rounded)
    ? { relations: rounded, isExact: false }
    : { relations: exact, isExact: true };
};
