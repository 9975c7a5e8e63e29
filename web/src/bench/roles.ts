import type { Id } from "@ash-edge/core/numeric";
import type { Profile } from "@ash-edge/core/profile";

/** Which entities bound something, and on which side it is cut. */
export const rolesOf = ({ contours }: Pick<Profile, "contours">): ReadonlyMap<Id, "outside" | "inside"> =>
  new Map(
    contours.flatMap(({ ids, role }) =>
      role === "mark" ? [] : ids.map((id) => [id, role] as readonly [Id, "outside" | "inside"]),
    ),
  );
