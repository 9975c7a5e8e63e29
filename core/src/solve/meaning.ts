import { measureCallout } from "../callouts/measure.ts";
import { calloutsOf, cutEntities, unitOf, type Drawing } from "../drawing/drawing.ts";
import { relationsIn, strongestFirst, type Relation } from "./holds/index.ts";
import { touching } from "./holds/touching.ts";
import type { Model } from "./model.ts";

/** What holds in a drawing, or is meant to: as it is exact, or was rounded by a file, or drawn by hand. */
export type Meaning = { readonly relations: readonly Relation[]; readonly isExact: boolean };

/** What a file rounds, to two decimals at the worst, is off by less than this, in the job's unit. */
const ROUNDED = { mm: 0.02, in: 0.001 } as const;
/** The centres that follow from rounded places and bulges are off by more: joints that are smooth are told by this. */
const ROUNDED_JOINTS = 3e-4;
/** Bulges are ratios, and are written to a decimal more than places, to four at the worst. */
const BULGE_ROUNDED = 1e-4;
/** Where more of what is told does not hold exactly but nearly, a file rounded it. */
const ROUNDED_PART = 0.1;
/** By hand hardly anything holds exactly, and hardly a number is true. */
const [BY_HAND, FEW_TRUE] = [0.2, 0.2];
/** What a file rounded still holds nearly, but for this part. */
const UNROUNDED = 0.7;
/** So much of it tells more than a few numbers that are true already. */
const [TELLING, HALF_TRUE] = [4, 0.5];
/** Told by joints and directions, of which there are many. */
const TOLD_BY: ReadonlySet<string> = new Set(["tangent", "level", "upright", "parallel", "square"]);

const told = (all: readonly Relation[]): number => all.filter(({ kind }) => TOLD_BY.has(kind)).length;

/** Which part of the placed sizes is true as it is drawn; 0 where none is placed. */
const trueAsDrawn = (drawing: Drawing): number => {
  const states = calloutsOf(drawing)
    .filter(({ kind }) => kind !== "count" && kind !== "thread")
    .map((callout) => measureCallout(drawing, callout).state)
    .filter((state) => state !== "not placed");
  return states.length === 0 ? 0 : states.filter((state) => state === "true").length / states.length;
};

/**
 * Finds out which of the three a drawing is, and what holds in it then. What is drawn exactly but nearly level, such as
 * a taper, must never be taken for drawn by hand: that asks for nearly nothing to hold, and for few numbers to be true.
 */
export const meaningOf = (model: Model): Meaning => {
  const exact = relationsIn(model, "exact");
  const near = Math.max(model.near, ROUNDED[unitOf(model.drawing)] / model.size / 4);
  const joints = touching({ ...model, near: Math.max(near, ROUNDED_JOINTS / 4) }, "exact");
  const rounded = strongestFirst([
    ...joints,
    ...relationsIn({ ...model, near, bulgeOff: BULGE_ROUNDED }, "exact").filter(({ kind }) => kind !== "tangent"),
  ]);
  const rough = relationsIn(model, "rough");
  const hardly = told(exact) < BY_HAND * told(rough) && told(rounded) < UNROUNDED * told(rough);
  const part = trueAsDrawn(model.drawing);
  // what was traced has smooth joints, and no sizes
  const isTraced = cutEntities(model.drawing).some((one) => one.traced);
  const isRough = part < (isTraced ? HALF_TRUE : hardly ? (told(rough) >= TELLING ? HALF_TRUE : FEW_TRUE) : 0);
  if (isRough) return { relations: rough, isExact: false };
  return told(rounded) - told(exact) > ROUNDED_PART * told(rounded)
    ? { relations: rounded, isExact: false }
    : { relations: exact, isExact: true };
};
