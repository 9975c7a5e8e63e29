import { carry } from "../attach/carry.ts";
import { heldIds, idsIn, looseId } from "../attach/holders.ts";
import type { Callout } from "../drawing/callout.ts";
import { TABLES, type Drawing, type TableName } from "../drawing/drawing.ts";
import { applyEdit, withRows, type Change, type Edit, type Hint } from "../drawing/edit.ts";
import type { Entity } from "../drawing/entity.ts";
import { pageGet, type Pages } from "../drawing/pages.ts";
import { sameRef, type Ref } from "../drawing/ref.ts";
import { unsoundEdit, UnsoundEdit } from "../drawing/soundEdit.ts";
import type { Point } from "../geometry/point.ts";
import type { Similarity } from "../geometry/transform.ts";
import type { Id } from "../numeric/id.ts";
import type { Shape } from "../shape/shape.ts";

/** Collects what an action does to a drawing and makes the edit of it; lives inside one pure function. */
export type EditDraft = {
  /** Adds a shape to a layer, in a line style where one is given; returns the id that it will have. */
  readonly add: (shape: Shape & Pick<Entity, "line" | "traced">, layer: Id) => Id;
  readonly newId: () => Id;
  readonly remove: (id: Id) => void;
  /** Puts an entity in its row's place. What is attached to it stays with the places that it still has. */
  readonly replace: (entity: Entity) => void;
  /**
   * Puts an entity that was changed on purpose in its row's place: what is attached follows its places by their names,
   * with new numbers.
   */
  readonly reshape: (entity: Entity) => void;
  /** Puts entities that went by a similarity in their rows' places: what is attached goes with them. */
  readonly move: (entities: readonly Entity[], by: Similarity) => void;
  /** States that what `from` named is what `to` names now; see `Hint`. */
  readonly became: (from: Ref, to: readonly Ref[], how?: { readonly within?: number; readonly whole?: true }) => void;
  /** States that the sharp corner at a place was cut, and what names it now. */
  readonly corner: (at: Point, sharp: Ref) => void;
  /** Ties a callout to the geometry that answers it, in place of what answered it before, or beside it. */
  readonly link: (callout: Id, refs: readonly Ref[], beside?: boolean) => void;
  readonly set: (table: TableName, id: Id, row: unknown) => void;
  /** The edit; throws `UnsoundEdit` for what could not be stored and read back: a fault of what made it. */
  readonly finish: () => Edit;
};

/** Only hints about what is held are worth keeping with an edit of 100 000 pieces. */
const speaksOf = (hint: Hint, held: ReadonlySet<Id>): boolean => {
  if (hint.kind === "became") return held.has(hint.from.id);
  if (hint.kind === "reshaped") return held.has(hint.id);
  return (hint.kind === "corner" ? idsIn(hint.sharp) : hint.ids).some((id) => held.has(id));
};

/** Nothing answers twice: of one thing named again the last naming stands. */
const eachOnce = (refs: readonly Ref[]): readonly Ref[] =>
  refs.filter((ref, i) => !refs.slice(i + 1).some((other) => sameRef(ref, other)));

/**
 * Is told of every edit that a draft made, with the drawing before it: tests and the development build check it there.
 */
export const edits: { made?: ((before: Drawing, edit: Edit) => void) | undefined } = {};

/** Starts an edit of a drawing: `label` is what people read, `gesture` names what makes it. */
export const draftEdit = (drawing: Drawing, label: string, gesture: string): EditDraft => {
  let nextId = drawing.nextId;
  const rows = new Map<string, { table: TableName; id: Id; after: unknown }>();
  const hints: Hint[] = [];
  const linked = new Map<Id, { refs: readonly Ref[]; beside: boolean }>();
  const put = (table: TableName, id: Id, after: unknown): void => void rows.set(`${table} ${id}`, { table, id, after });
  const before = (table: TableName, id: Id): unknown => pageGet(drawing[table] as Pages<unknown>, id);
  const changesNow = (): Change[] =>
    [...rows.values()]
      .map(({ table, id, after }) => ({ table, id, ...withRows(before(table, id), after) }))
      .sort((p, q) => TABLES.indexOf(p.table) - TABLES.indexOf(q.table) || p.id - q.id);

  const finish = (): Edit => {
    const held = heldIds(drawing);
    const lineage = hints.filter((hint) => speaksOf(hint, held));
    const bare: Edit = { label, gesture, changes: changesNow(), lineage, cutLoose: [] };
    const { rows: carried, loose, gone } = carry(drawing, () => applyEdit(drawing, bare), bare.changes, lineage);
    for (const { table, id, row } of carried.values()) {
      // a callout may be changed by the edit itself as well: only what it holds is carried then
      const own = table === "callout" ? rows.get(`callout ${id}`)?.after : undefined;
      if (own !== undefined) put(table, id, { ...own, links: (row as Callout).links });
      else if (!rows.has(`${table} ${id}`)) put(table, id, row);
    }
    for (const id of gone) put("annotation", id, undefined);
    for (const [id, { refs, beside }] of linked) {
      const callout = (rows.get(`callout ${id}`)?.after ?? pageGet(drawing.callout, id)) as Callout | undefined;
      if (callout) put("callout", id, { ...callout, links: eachOnce([...(beside ? callout.links : []), ...refs]) });
    }
    const edit: Edit = {
      ...bare,
      ...(carried.size > 0 || linked.size > 0 || gone.length > 0 ? { changes: changesNow() } : {}),
      cutLoose: loose.filter((one) => !linked.has(looseId(one)) || linked.get(looseId(one))!.beside),
      ...(linked.size > 0 ? { answered: [...linked.keys()] } : {}),
    };
    const wrong = unsoundEdit(edit, drawing.nextId);
    if (wrong !== undefined) throw new UnsoundEdit(edit.label, wrong);
    edits.made?.(drawing, edit);
    return edit;
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
    reshape: (entity) => {
      put("entity", entity.id, entity);
      hints.push({ kind: "reshaped", id: entity.id });
    },
    move: (entities, by) => {
      for (const entity of entities) put("entity", entity.id, entity);
      hints.push({ kind: "moved", ids: entities.map(({ id }) => id), by });
    },
    became: (from, to, how = {}) => void hints.push({ kind: "became", from, to, ...how }),
    corner: (at, sharp) => void hints.push({ kind: "corner", at, sharp }),
    link: (callout, refs, beside = false) => {
      const former = beside ? linked.get(callout) : undefined;
      linked.set(callout, former ? { refs: [...former.refs, ...refs], beside: former.beside } : { refs, beside });
    },
    set: put,
    finish,
  };
};
