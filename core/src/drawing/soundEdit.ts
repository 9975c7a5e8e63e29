import type { Id } from "../numeric/id.ts";
import type { Edit } from "./edit.ts";
import { hasIds, idsOfRow, unsoundRow } from "./rows.ts";

/** What was to be made could not be stored and read back: a fault of whatever made it, never of the drafter. */
export class UnsoundEdit extends Error {
  readonly reason: string;
  constructor(label: string, reason: string) {
    super(`${label} would make what can't be stored: ${reason}`);
    this.reason = reason;
  }
}

/**
 * What is wrong with an edit, in words; undefined where every row that it makes can be stored and read back, and where
 * no id of it was used by something else before (`nextId` is the first that was not). Costs about a microsecond a row.
 */
export const unsoundEdit = (edit: Edit, nextId: Id = 0): string | undefined => {
  let known: Set<Id> | undefined;
  /** Ids in any row that the edit changes: what one gives up another may take over. */
  const wasThere = (id: Id): boolean => {
    known ??= new Set(
      edit.changes.flatMap(({ table, before }) => (before === undefined ? [] : idsOfRow(table, before))),
    );
    return known.has(id);
  };
  for (const { table, id, before, after } of edit.changes) {
    if (after === undefined) continue;
    const wrong = unsoundRow(table, after);
    if (wrong !== undefined) return `${table} ${id}: ${wrong}`;
    if ((after as { id: Id }).id !== id) return `${table} ${id} calls itself ${(after as { id: Id }).id}`;
    if (nextId === 0 || (before !== undefined && !hasIds(table, after))) continue;
    const reused = idsOfRow(table, after).find((one) => one < nextId && !wasThere(one));
    if (reused !== undefined) return `${table} ${id}: the id ${reused} was used before`;
  }
  return undefined;
};
