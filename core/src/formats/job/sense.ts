import type { Annotation } from "../../drawing/annotation.ts";
import type { Entity } from "../../drawing/entity.ts";
import type { Callout } from "../../drawing/callout.ts";
import type { Layer } from "../../drawing/layer.ts";
import type { Ref } from "../../drawing/ref.ts";
import { idsOfRow } from "../../drawing/rows.ts";
import { TABLES } from "../../drawing/drawing.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { plainName } from "../../numeric/plainName.ts";
import { shapeBounds } from "../../shape/kinds.ts";
import { MOST_CURVES } from "../readShapes.ts";
import { unsoundRows, type DrawingRows } from "./rows.ts";

/** Rows that make sense, the next free id, and what was mended to get there, in sentences. */
export type Sensible = { readonly drawing: DrawingRows; readonly nextId: Id; readonly mended: readonly string[] };

/** Nothing that is cut lies further out than this, in whatever unit: beyond it doubles are too coarse. */
const FURTHEST = 1e9;

const wrong = (reason: string): Outcome<never> => refuse("file-not-readable", { reason });

/**
 * Whether the rows of a drawing that came from outside make sense together, each by itself and all with each other.
 * What can be put right without a guess is, and said: a next id that is too low, a callout that points at nothing. What
 * would have to be guessed is refused, named.
 */
export const sensible = (rows: DrawingRows, nextId: Id): Outcome<Sensible> => {
  const mended: string[] = [];
  const owners = new Map<Id, string>();
  let highest = 0;
  let vertices = 0;
  const unsound = unsoundRows(rows);
  if (unsound !== undefined) return wrong(unsound);
  for (const table of TABLES) {
    if (table === "settings") continue;
    for (const row of rows[table] ?? []) {
      const ids = idsOfRow(table, row);
      vertices += ids.length;
      for (const id of ids) {
        const other = owners.get(id);
        if (other !== undefined) return wrong(`${table} and ${other} both bear the number ${id}`);
        owners.set(id, table);
        highest = Math.max(highest, id);
      }
    }
  }
  if (vertices > MOST_CURVES) return refuse("file-too-many", { limit: MOST_CURVES });
  const layers = new Set((rows.layer as readonly Layer[]).map(({ id }) => id));
  for (const entity of (rows.entity ?? []) as readonly Entity[]) {
    if (!layers.has(entity.layer))
      return wrong(`${entity.kind} ${entity.id} lies on the layer ${entity.layer}, which is not there`);
    const box = shapeBounds(entity);
    if (box && !(Math.max(-box.minX, -box.minY, box.maxX, box.maxY) <= FURTHEST))
      return wrong(`${entity.kind} ${entity.id} reaches further out than ${FURTHEST}`);
  }
  const namesOf = (ref: Ref): readonly Id[] => {
    const { place } = ref;
    const crossed = typeof place === "object" && "crosses" in place ? namesOf(place.crosses) : [];
    return [ref.id, ...(ref.vertex === undefined ? [] : [ref.vertex]), ...crossed];
  };
  const stands = (refs: readonly Ref[]): boolean =>
    refs.every((ref) => namesOf(ref).every((id) => id === 0 || owners.has(id)));
  let loose = 0;
  const callout = ((rows.callout ?? []) as readonly Callout[]).map((one): Callout => {
    if (stands(one.links)) return one;
    loose += 1;
    return { ...one, links: [] };
  });
  if (loose > 0)
    mended.push(`${loose} callout${loose === 1 ? "" : "s"} pointed at what is not there: not placed any more.`);
  let lost = 0;
  const annotation = ((rows.annotation ?? []) as readonly Annotation[]).map((one): Annotation => {
    if (stands(one.refs)) return one;
    lost += 1;
    return { ...one, refs: [], lost: [one.at, one.at] };
  });
  if (lost > 0) mended.push(`${lost} dimension${lost === 1 ? "" : "s"} pointed at what is not there: lost.`);
  let renamed = 0;
  const names = new Set<string>();
  const layer = (rows.layer as readonly Layer[]).map((one): Layer => {
    const plain = plainName(one.name) || `Layer ${one.id}`;
    let name = plain;
    for (let n = 2; names.has(name.toLowerCase()); n++) name = `${plain} ${n}`;
    names.add(name.toLowerCase());
    if (name === one.name) return one;
    renamed += 1;
    return { ...one, name };
  });
  if (renamed > 0) mended.push(`${renamed} layer name${renamed === 1 ? " was" : "s were"} cleaned.`);
  if (nextId <= highest)
    mended.push(
      "Its next free number was taken already, so that a new thing would have replaced an old one: put right.",
    );
  return done({
    drawing: { ...rows, callout, ...(rows.annotation ? { annotation } : {}), layer },
    nextId: Math.max(nextId, highest + 1),
    mended,
  });
};
