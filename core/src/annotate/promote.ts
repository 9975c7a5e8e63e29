import type { Annotation } from "../drawing/annotation.ts";
import type { Callout } from "../drawing/callout.ts";
import type { Drawing } from "../drawing/drawing.ts";
import type { Edit } from "../drawing/edit.ts";
import { draftEdit } from "../edits/draftEdit.ts";
import { refuseAnnotationsLocked } from "../edits/removeEntities.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { derivedNumber } from "../numeric/showValue.ts";
import { SAME_DIRECTION, TRUE_WITHIN } from "../numeric/tolerance.ts";
import { measureAnnotation } from "./measure.ts";

/** The axis along which a linear dimension is measured; undefined where it is along its places, or askew. */
const axisOf = ({ kind, angle }: Annotation): "x" | "y" | undefined => {
  if (kind !== "linear" || angle === undefined) return undefined;
  if (Math.abs(Math.sin(angle)) <= SAME_DIRECTION) return "x";
  return Math.abs(Math.cos(angle)) <= SAME_DIRECTION ? "y" : undefined;
};

const kindOf = ({ kind, refs }: Annotation): Callout["kind"] | undefined => {
  if (kind === "linear")
    return refs.length === 2 && refs.every(({ place }) => place === "centre") ? "centres" : "length";
  return kind === "radius" || kind === "diameter" || kind === "angle" ? kind : undefined;
};

/**
 * Writes the number of a dimension into the ledger as a callout that the same things answer, and shows that from now
 * on. Refused for what no callout says: notes and marks, ordinates, arc lengths, directions askew, sizes that differ.
 */
export const promoteToCallout = (drawing: Drawing, annotation: Annotation): Outcome<Edit> => {
  const locked = refuseAnnotationsLocked(drawing);
  if (locked) return locked;
  const { refs, id } = annotation;
  const [kind, sizes, axis] = [kindOf(annotation), measureAnnotation(drawing, annotation), axisOf(annotation)];
  const askew = annotation.kind === "linear" && annotation.angle !== undefined && axis === undefined;
  // an angle is called between two edges, the smaller one: three places and the supplement have no callout
  const beyond = kind === "angle" && (refs.length !== 2 || (sizes?.most ?? 0) > 180);
  if (!kind || !sizes || askew || beyond || sizes.most - sizes.least > TRUE_WITHIN) return refuse("not-called");
  // a distance along an axis is called between two places
  const links = refs;
  if (axis !== undefined && links.length !== 2) return refuse("not-called");
  const draft = draftEdit(drawing, "Write into the ledger", "promote");
  const callout = draft.newId();
  const row: Callout = {
    id: callout,
    kind,
    value: derivedNumber(sizes.most),
    name: "",
    links,
    ...(axis === undefined ? {} : { axis }),
    ...(links.length > 1 && (kind === "radius" || kind === "diameter") ? { times: links.length } : {}),
  };
  draft.set("callout", callout, row);
  draft.set("annotation", id, { ...annotation, callout });
  return done(draft.finish());
};
