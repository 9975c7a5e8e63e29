import type { Callout } from "../drawing/callout.ts";
import { entityOf, type Drawing } from "../drawing/drawing.ts";
import type { Edit } from "../drawing/edit.ts";
import { curvesOf } from "../drawing/entity.ts";
import { pageGet } from "../drawing/pages.ts";
import type { Ref } from "../drawing/ref.ts";
import { draftEdit } from "../edits/draftEdit.ts";
import type { Id } from "../numeric/id.ts";
import { measureCallout } from "./measure.ts";
import type { WrittenCallout } from "./readLedgerLine.ts";

/** Writes callouts down, in one edit; with a pin where they stand on the sketch. */
export const addCallouts = (drawing: Drawing, written: readonly WrittenCallout[], pin?: Callout["pin"]): Edit => {
  const count = written.length;
  const draft = draftEdit(drawing, count === 1 ? "Write a callout" : `Write ${count} callouts`, "callout");
  for (const one of written) {
    const id = draft.newId();
    draft.set("callout", id, { ...one, ...(pin ? { pin } : {}), id, links: [] });
  }
  return draft.finish();
};

/** Changes what a callout says; its links and, where no other is given, its pin stay. */
export const changeCallout = (
  drawing: Drawing,
  id: Id,
  written: WrittenCallout,
  pin?: Callout["pin"],
): Edit | undefined => {
  const former = pageGet(drawing.callout, id);
  if (!former) return undefined;
  const draft = draftEdit(drawing, "Change a callout", "callout");
  const where = pin ?? former.pin;
  draft.set("callout", id, { ...written, ...(where ? { pin: where } : {}), id, links: former.links });
  return draft.finish();
};

/** Takes a callout off the ledger; undefined where there is none of that id. */
export const removeCallout = (drawing: Drawing, id: Id): Edit | undefined => {
  if (!pageGet(drawing.callout, id)) return undefined;
  const draft = draftEdit(drawing, "Remove a callout", "callout");
  draft.set("callout", id, undefined);
  return draft.finish();
};

const withRow = (drawing: Drawing, id: Id, label: string, change: (row: Callout) => Callout): Edit | undefined => {
  const former = pageGet(drawing.callout, id);
  if (!former) return undefined;
  const draft = draftEdit(drawing, label, "prove");
  draft.set("callout", id, change(former));
  return draft.finish();
};

/** Lets a callout be as it measures, for a reason; without a waiver it is to hold again. None of that id: undefined. */
export const waiveCallout = (drawing: Drawing, id: Id, waived: Callout["waived"]): Edit | undefined =>
  withRow(drawing, id, waived ? "Waive" : "Waive no more", ({ waived: _, ...callout }) =>
    waived ? { ...callout, waived } : callout,
  );

/** A callout was looked at while it measured so much; undefined where it is to be looked at again. */
export const lookAtCallout = (drawing: Drawing, id: Id, measured: number | undefined): Edit | undefined =>
  withRow(drawing, id, "Looked at", ({ looked: _, ...callout }) =>
    measured === undefined ? callout : { ...callout, looked: measured },
  );

/**
 * Says which geometry answers a callout; none lets it go. Told how it is measured, it is from then on: along an axis,
 * or straight. Sizes may come beside what answers it already.
 */
export const answerCallout = (
  drawing: Drawing,
  id: Id,
  refs: readonly Ref[],
  measured?: { readonly axis?: "x" | "y" | undefined; readonly beside?: boolean },
): Edit | undefined => {
  const callout = pageGet(drawing.callout, id);
  if (!callout) return undefined;
  const draft = draftEdit(
    drawing,
    refs.length > 0 ? `Answer ${callout.name || "a callout"}` : "Let a callout go",
    "link",
  );
  if (measured && measured.axis !== callout.axis) {
    const { axis: _, ...straight } = callout;
    draft.set("callout", id, measured.axis ? { ...straight, axis: measured.axis } : straight);
  }
  draft.link(id, refs, measured?.beside);
  return draft.finish();
};

/**
 * The references by which picked entities answer a callout: the entity itself, or, of a chain, the one piece that comes
 * nearest to the called value.
 */
export const refsAnswering = (drawing: Drawing, callout: Callout, ids: readonly Id[]): readonly Ref[] =>
  ids.flatMap((id) => {
    const entity = entityOf(drawing, id);
    if (entity?.kind !== "chain") return entity ? [{ id }] : [];
    const miss = (ref: Ref): number => {
      const state = measureCallout(drawing, { ...callout, links: [ref] });
      return state.state === "not placed" ? Infinity : Math.abs(state.by);
    };
    const refs = curvesOf(entity).map(({ ref }) => ref);
    const best = refs.reduce((near, ref) => (miss(ref) < miss(near) ? ref : near));
    return miss(best) === Infinity ? [] : [best];
  });
