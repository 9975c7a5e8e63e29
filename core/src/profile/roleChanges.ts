import type { Id } from "../numeric/id.ts";
import type { Contour, Profile } from "./profile.ts";

/** Contours whose role an edit changed that did not touch them, and the only new one that lies round them. */
export type RoleChanges = {
  readonly toOutside: readonly Contour[];
  readonly toInside: readonly Contour[];
  readonly by: Contour | undefined;
};

/**
 * What became of contours that stayed where they were: those that are outer ones now and were holes, and the other way
 * round. `touched` are the entities that the edit changed. `by` is the one contour that is new, if there is just one.
 */
export const roleChanges = (before: Profile, after: Profile, touched: ReadonlySet<Id>): RoleChanges => {
  const roles = new Map<Id, Contour["role"]>();
  for (const { ids, role } of before.contours) for (const id of ids) roles.set(id, role);
  const changed = (to: Contour["role"], from: Contour["role"]): readonly Contour[] =>
    after.contours.filter(
      ({ ids, role }) => role === to && ids.every((id) => !touched.has(id) && roles.get(id) === from),
    );
  const fresh = after.contours.filter(({ ids }) => ids.some((id) => touched.has(id) && !roles.has(id)));
  return {
    toOutside: changed("outside", "inside"),
    toInside: changed("inside", "outside"),
    by: fresh.length === 1 ? fresh[0] : undefined,
  };
};
