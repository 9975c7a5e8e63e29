import { placeOf } from "../attach/places.ts";
import type { Callout } from "../drawing/callout.ts";
import { calloutsOf, entityOf, type Drawing } from "../drawing/drawing.ts";
import { applyEdit, mergeEdits, type Edit } from "../drawing/edit.ts";
import { curvesOf, type Entity } from "../drawing/entity.ts";
import { DATUM, type Ref } from "../drawing/ref.ts";
import { distance, type Point } from "../geometry/point.ts";
import { draftEdit } from "../edits/draftEdit.ts";
import type { Id } from "../numeric/id.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import { measureCallout } from "./measure.ts";

/**
 * A callout whose number made something: where it helped to give a place, that place, from where it counted, and along
 * which axis, or without one as a distance or a direction.
 */
export type UsedCallout = {
  readonly id: Id;
  readonly along?: { readonly axis?: "x" | "y"; readonly at: Point; readonly from: Ref | undefined };
};

/** So many curves of what was made are looked at: the first of a great pattern tell what its numbers mean. */
const LOOKED_AT = 24;

const madeBy = (after: Drawing, { changes }: Edit): readonly Entity[] =>
  changes
    .filter(({ table, after: row }) => table === "entity" && row !== undefined)
    .flatMap(({ id }) => entityOf(after, id) ?? [])
    .filter(({ kind }) => kind !== "endless")
    .slice(0, LOOKED_AT);

const pairs = (refs: readonly Ref[]): (readonly [Ref, Ref])[] =>
  refs.flatMap((one, i) => refs.slice(i + 1).map((other) => [one, other] as const));

/** What may answer a callout among what was made and what it was made from, likelier answers first. */
const candidates = (callout: Callout, made: readonly Entity[], from: readonly Ref[]): (readonly Ref[])[] => {
  const curves = made.flatMap((entity) => curvesOf(entity).map(({ ref }) => ref)).slice(0, LOOKED_AT);
  const centres = made.filter(({ kind }) => kind === "circle").map(({ id }): Ref => ({ id, place: "centre" }));
  switch (callout.kind) {
    case "radius":
    case "diameter":
    case "thread":
      return [...curves.map((ref) => [ref]), ...(centres.length > 2 ? [centres] : [])];
    case "length":
    case "centres":
      return [
        ...curves.map((ref) => [ref]),
        ...pairs(curves),
        ...from.flatMap((ref) => curves.map((own) => [ref, own] as const)),
        ...pairs(centres),
        ...centres.map((centre) => [DATUM, centre] as const),
        ...from.flatMap((ref) => centres.map((centre) => [ref, centre] as const)),
      ];
    case "angle":
      return [
        ...curves.map((ref) => [ref]),
        ...pairs(curves),
        ...from.flatMap((ref) => curves.map((own) => [ref, own] as const)),
        ...centres.map((centre) => [DATUM, centre] as const),
        ...from.flatMap((ref) => centres.map((centre) => [ref, centre] as const)),
      ];
    case "count":
      return [made.map(({ id }) => ({ id }))];
    case "chamfer":
      return curves.map((ref) => [ref]);
  }
};

/** The place of what was made that lies where a typed point was. */
const placeMade = (after: Drawing, made: readonly Entity[], at: Point): Ref | undefined => {
  const places = made.flatMap((entity) =>
    curvesOf(entity).flatMap(({ ref }): Ref[] =>
      entity.kind === "circle"
        ? [{ ...ref, place: "centre" }]
        : [
            { ...ref, place: "start" },
            { ...ref, place: "end" },
            { ...ref, place: "centre" },
          ],
    ),
  );
  return places.find((ref) => {
    const place = placeOf(after, ref);
    return place !== undefined && distance(place, at) <= RESOLUTION;
  });
};

/**
 * An edit with the callouts whose numbers made it tied to what was made, where that measures what they call. What the
 * edit ties itself is left as it is; a callout that nothing there answers stays as it was.
 */
export const answerMade = (drawing: Drawing, edit: Edit, used: readonly UsedCallout[], from: readonly Ref[]): Edit => {
  const open = used.filter(({ id }) => !edit.answered?.includes(id));
  if (open.length === 0) return edit;
  const after = applyEdit(drawing, edit);
  const made = madeBy(after, edit);
  const draft = draftEdit(after, edit.label, edit.gesture);
  let tied = 0;
  for (const { id, along } of open) {
    const callout = calloutsOf(after).find((one) => one.id === id);
    if (!callout) continue;
    const holds = (one: Callout): boolean => measureCallout(after, one).state === "true";
    const place = along && placeMade(after, made, along.at);
    if (along && place) {
      const { axis: _, ...unaligned } = callout;
      const counted: Callout = along.axis ? { ...unaligned, axis: along.axis } : unaligned;
      const links = [along.from ?? DATUM, place];
      if (!holds({ ...counted, links })) continue;
      draft.set("callout", id, counted);
      draft.link(id, links);
      tied += 1;
    } else if (!along) {
      const { times: _, ...single } = callout;
      const links = candidates(callout, made, from).find((refs) => holds({ ...single, links: refs }));
      if (!links) continue;
      draft.link(id, links, callout.kind === "radius" || callout.kind === "diameter");
      tied += 1;
    }
  }
  return tied === 0 ? edit : mergeEdits([edit, draft.finish()], edit.label, edit.gesture);
};
