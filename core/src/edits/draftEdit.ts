import type { Callout } from "../drawing/callout.ts";
import { TABLES, type Drawing, type TableName } from "../drawing/drawing.ts";
import { withRows, type Edit, type Lineage } from "../drawing/edit.ts";
import type { Entity } from "../drawing/entity.ts";
import { pageGet, pageRows, type Pages } from "../drawing/pages.ts";
import { sameRef, type Ref } from "../drawing/ref.ts";
import type { Id } from "../numeric/id.ts";
import type { Shape } from "../shape/shape.ts";

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
