import { entityOf, layersOf, type CutRole, type Drawing } from "@ash-edge/core/drawing";
import { agreed, type Id } from "@ash-edge/core/numeric";
import { useBench, useSession } from "./SessionContext.tsx";

/** What becomes of what is cut, marked or laid out, in the words in which it is chosen. */
export const ROLES: readonly (readonly [CutRole, string])[] = [
  ["profile", "by nesting"],
  ["outside", "outside"],
  ["inside", "inside"],
  ["mark", "mark"],
  ["layout", "layout"],
];

/** The role that the layers of what is named give; undefined where they differ. */
const roleOf = (drawing: Drawing, ids: readonly Id[]): CutRole | undefined => {
  const roles = new Map(layersOf(drawing).map(({ id, role }) => [id, role]));
  return agreed(ids.map((id) => roles.get(entityOf(drawing, id)?.layer ?? -1)));
};

/** The role of what is named, as a choice: another one puts it on a layer of that role. */
export const RoleChoice = ({ ids, className }: { ids: readonly Id[]; className: string }) => {
  const { act } = useSession();
  const role = useBench((state) => roleOf(state.history.drawing, ids));
  return (
    <select
      aria-label="role"
      title="Puts it on a layer of that role"
      value={role ?? ""}
      onChange={(event) => act.putInRole(ids, event.target.value as CutRole)}
      className={className}
    >
      {role === undefined && <option value="">differs</option>}
      {ROLES.map(([one, words]) => (
        <option key={one} value={one}>
          {words}
        </option>
      ))}
    </select>
  );
};
