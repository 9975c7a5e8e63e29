import type { Callout } from "../drawing/callout.ts";
import type { Drawing } from "../drawing/drawing.ts";
import type { Edit } from "../drawing/edit.ts";
import { DATUM, type Ref } from "../drawing/ref.ts";
import { draftEdit } from "../edits/draftEdit.ts";
import type { Id } from "../numeric/id.ts";

/** Something that can be measured, of what, and what it measures now: x and y from the datum. */
export type Measured = {
  readonly what: "radius" | "x" | "y" | "length" | "angle";
  readonly of: "hole" | "arc" | "corner" | "edge";
  readonly ref: Ref;
  readonly value: number;
};

const rowOf = ({ what, of, ref, value }: Measured): Omit<Callout, "id"> => {
  const bare: Ref = ref.vertex === undefined ? { id: ref.id } : { id: ref.id, vertex: ref.vertex };
  switch (what) {
    case "radius":
      return of === "hole"
        ? { kind: "diameter", value: 2 * value, name: "hole", links: [bare] }
        : { kind: "radius", value, name: "arc", links: [bare] };
    case "length":
      return { kind: "length", value, name: "edge", links: [bare] };
    case "angle":
      return { kind: "angle", value: Math.abs(value), name: "edge", links: [bare] };
    default:
      return {
        kind: "length",
        value: Math.abs(value),
        axis: what,
        name: `${of}, ${what} from the datum`,
        links: [DATUM, ref],
      };
  }
};

/** Writes a measure down as a callout at what it measures now, placed on what it measures. */
export const addMeasured = (drawing: Drawing, measured: Measured): { readonly edit: Edit; readonly id: Id } => {
  const draft = draftEdit(drawing, "Write a callout", "callout");
  const id = draft.newId();
  draft.set("callout", id, { ...rowOf(measured), id });
  return { edit: draft.finish(), id };
};
