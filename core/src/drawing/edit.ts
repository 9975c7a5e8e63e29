import type { Callout } from "../callouts/callout.ts";
import { pageGet, pageRows, pagesWith, type Pages } from "./pages.ts";
import { TABLES, type Drawing, type TableName } from "./drawing.ts";
import { sameRef, type Entity, type Id, type Ref, type Shape } from "./entity.ts";

export type Change = {
  readonly table: TableName;
  readonly id: Id;
  readonly before?: unknown;
  readonly after?: unknown;
};

/** Where geometry went: links to `from` follow to `to`. */
export type Lineage = readonly [from: Ref, to: readonly Ref[]];

/**
 * A change of a drawing as data: what each row was and is, with a label that people read. The inverse needs no code of its own.
 * `gesture` names what made it; `cutLoose` lists the links that found nothing to follow.
 */
export type Edit = {
  readonly label: string;
  readonly gesture: string;
  readonly changes: readonly Change[];
  readonly lineage: readonly Lineage[];
  readonly cutLoose: readonly Ref[];
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

const withRows = (before: unknown, after: unknown): { before?: unknown; after?: unknown } => ({
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
  return {
    label,
    gesture,
    changes,
    lineage: edits.flatMap(({ lineage }) => lineage),
    cutLoose: edits.flatMap(({ cutLoose }) => cutLoose),
  };
};

/** Collects what an action does to a drawing and makes the edit of it; lives inside one pure function. */
export type EditDraft = {
  /** The id that the new entity will have. */
  readonly add: (shape: Shape, layer: Id) => Id;
  readonly newId: () => Id;
  readonly remove: (id: Id) => void;
  readonly replace: (entity: Entity) => void;
  readonly follow: (from: Ref, to: readonly Ref[]) => void;
  /** Ties a callout to the geometry that answers it, in place of what answered it before, or beside it. */
  readonly link: (callout: Id, refs: readonly Ref[], beside?: boolean) => void;
  readonly set: (table: TableName, id: Id, row: unknown) => void;
  readonly finish: () => Edit;
};

export const draftEdit = (drawing: Drawing, label: string, gesture: string): EditDraft => {
  let nextId = drawing.nextId;
  const rows = new Map<string, { table: TableName; id: Id; after: unknown }>();
  const lineage: Lineage[] = [];
  const linked = new Map<Id, { refs: readonly Ref[]; beside: boolean }>();
  const put = (table: TableName, id: Id, after: unknown): void => void rows.set(`${table} ${id}`, { table, id, after });

  const finish = (): Edit => {
    const after = new Map(
      [...rows.values()]
        .filter(({ table }) => table === "entity")
        .map(({ id, after }) => [id, after as Entity | undefined]),
    );
    const { links, cutLoose } = carryLinks(drawing, after, lineage);
    for (const [id, { refs, beside }] of linked) {
      const former = links.get(id) ?? pageGet(drawing.callout, id)?.links ?? [];
      links.set(id, beside ? [...former.filter((ref) => !refs.some((other) => sameRef(ref, other))), ...refs] : refs);
    }
    for (const [id, refs] of links) {
      const callout = rows.get(`callout ${id}`)?.after ?? pageGet(drawing.callout, id);
      if (callout) put("callout", id, { ...(callout as Callout), links: refs });
    }
    const changes = [...rows.values()]
      .map(({ table, id, after }) => ({ table, id, ...withRows(pageGet(drawing[table] as Pages<unknown>, id), after) }))
      .sort((p, q) => TABLES.indexOf(p.table) - TABLES.indexOf(q.table) || p.id - q.id);
    return { label, gesture, changes, lineage, cutLoose };
  };

  return {
    newId: () => nextId++,
    add: (shape, layer) => {
      const id = nextId++;
      put("entity", id, { ...shape, id, layer });
      return id;
    },
    remove: (id) => put("entity", id, undefined),
    replace: (entity) => put("entity", entity.id, entity),
    follow: (from, to) => void lineage.push([from, to]),
    link: (callout, refs, beside = false) => {
      const former = beside ? linked.get(callout) : undefined;
      linked.set(callout, former ? { refs: [...former.refs, ...refs], beside: former.beside } : { refs, beside });
    },
    set: put,
    finish,
  };
};

/**
 * The one function that carries attachments along: links to geometry with a lineage follow it, links to what is gone without
 * one are cut loose. A callout that loses one of the two ends of a distance loses both.
 */
const carryLinks = (
  drawing: Drawing,
  after: ReadonlyMap<Id, Entity | undefined>,
  lineage: readonly Lineage[],
): { links: Map<Id, readonly Ref[]>; cutLoose: Ref[] } => {
  const links = new Map<Id, readonly Ref[]>();
  const cutLoose: Ref[] = [];
  if (after.size === 0) return { links, cutLoose };
  for (const callout of pageRows(drawing.callout)) {
    if (!callout.links.some((ref) => after.has(ref.id))) continue;
    const carried = callout.links.map((ref): readonly Ref[] => {
      const went = lineage.find(([from]) => sameRef(from, ref));
      if (went) return went[1].map((to) => ({ ...to, ...(ref.place ? { place: ref.place } : {}) }));
      if (!after.has(ref.id)) return [ref];
      const row = after.get(ref.id);
      const stands =
        row && (ref.vertex === undefined || (row.kind === "chain" && row.vertices.some(({ id }) => id === ref.vertex)));
      return stands ? [ref] : [];
    });
    cutLoose.push(...callout.links.filter((_, i) => carried[i]!.length === 0));
    const pair = callout.links.length === 2 && isDistance(callout);
    const kept = pair ? (carried.every((to) => to.length > 0) ? carried.map((to) => to[0]!) : []) : carried.flat();
    if (JSON.stringify(kept) !== JSON.stringify(callout.links)) links.set(callout.id, kept);
  }
  return { links, cutLoose };
};

const isDistance = ({ kind }: Callout): boolean => kind === "length" || kind === "centres";
