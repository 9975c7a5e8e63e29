import type { Point } from "../geometry/point.ts";
import type { Similarity } from "../geometry/transform.ts";
import type { Id } from "../numeric/id.ts";
import { TABLES, type Drawing, type TableName } from "./drawing.ts";
import type { Entity } from "./entity.ts";
import { pagesWith, type Pages } from "./pages.ts";
import type { Ref } from "./ref.ts";

export type Change = {
  readonly table: TableName;
  readonly id: Id;
  readonly before?: unknown;
  readonly after?: unknown;
};

/**
 * What an edit states of its own geometry where places alone can't tell. `became`: what `from` names is what `to` names
 * now, its places by their names, the nearest within `within` of where they were (anywhere where it says nothing); with
 * `whole` only the curve as a whole. `reshaped`: changed on purpose, every place of it is the place of the same name.
 * `moved`: everything on it went by a similarity. `corner`: the sharp corner that stood at `at` is named by `sharp`
 * now.
 */
export type Hint =
  | {
      readonly kind: "became";
      readonly from: Ref;
      readonly to: readonly Ref[];
      readonly within?: number;
      readonly whole?: true;
    }
  | { readonly kind: "reshaped"; readonly id: Id }
  | { readonly kind: "moved"; readonly ids: readonly Id[]; readonly by: Similarity }
  | { readonly kind: "corner"; readonly at: Point; readonly sharp: Ref };

/**
 * A callout, or a dimension, note or mark, that an edit cut loose: what it held, and, where there is something like it
 * now, what could be held again.
 */
export type Loose = { readonly links: readonly Ref[]; readonly offer?: readonly Ref[] } & (
  { readonly callout: Id } | { readonly annotation: Id }
);

/**
 * A change of a drawing as data: what each row was and is, with a label that people read. The inverse needs no code of
 * its own. `gesture` names what made it; `lineage` states where geometry went; `cutLoose` lists the rows whose
 * references, all or some, found no place; `answered` those that the edit itself gave other links.
 */
export type Edit = {
  readonly label: string;
  readonly gesture: string;
  readonly changes: readonly Change[];
  readonly lineage: readonly Hint[];
  readonly cutLoose: readonly Loose[];
  readonly answered?: readonly Id[];
};

/** The drawing after an edit; the same one when nothing changes. */
export const applyEdit = (drawing: Drawing, edit: Edit): Drawing => {
  if (edit.changes.length === 0) return drawing;
  let nextId = drawing.nextId;
  const next: Record<string, unknown> = { ...drawing };
  for (const name of TABLES) {
    const rows = edit.changes.filter(({ table }) => table === name);
    if (rows.length === 0) continue;
    next[name] = pagesWith(
      drawing[name] as Pages<unknown>,
      rows.map(({ id, after }) => [id, after]),
    );
    for (const { id, after } of rows) {
      nextId = Math.max(nextId, id + 1);
      const row = name === "entity" ? (after as Entity | undefined) : undefined;
      if (row?.kind === "chain") for (const vertex of row.vertices) nextId = Math.max(nextId, vertex.id + 1);
    }
  }
  return { ...(next as Drawing), nextId };
};

/** The edit that takes `edit` back. */
export const invertEdit = (edit: Edit): Edit => ({
  ...edit,
  changes: edit.changes.map(({ table, id, before, after }) => ({ table, id, ...withRows(after, before) })).reverse(),
  lineage: [],
  cutLoose: [],
});

/** The two sides of a change, without a key for what is not there. */
export const withRows = (before: unknown, after: unknown): { before?: unknown; after?: unknown } => ({
  ...(before === undefined ? {} : { before }),
  ...(after === undefined ? {} : { after }),
});

/** Several edits made one after another, each on the drawing after the one before, as one: one step to undo. */
export const mergeEdits = (edits: readonly Edit[], label: string, gesture: string): Edit => {
  const rows = new Map<string, Change>();
  for (const { changes } of edits)
    for (const change of changes) {
      const key = `${change.table} ${change.id}`;
      const before = rows.has(key) ? rows.get(key)!.before : change.before;
      rows.set(key, { table: change.table, id: change.id, ...withRows(before, change.after) });
    }
  const changes = [...rows.values()]
    .filter(({ before, after }) => before !== after)
    .sort((p, q) => TABLES.indexOf(p.table) - TABLES.indexOf(q.table) || p.id - q.id);
  const answered = [...new Set(edits.flatMap((edit) => edit.answered ?? []))];
  return {
    label,
    gesture,
    changes,
    lineage: edits.flatMap(({ lineage }) => lineage),
    cutLoose: edits.flatMap(({ cutLoose }) => cutLoose),
    ...(answered.length > 0 ? { answered } : {}),
  };
};
