import { entitiesOf, entityOf, layerOf, layersOf, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import { FIRST_LAYERS, type CutRole, type Layer } from "../../drawing/layer.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { plainName } from "../../numeric/plainName.ts";
import { draftEdit } from "../draftEdit.ts";

/** A name for a new layer that no other has. */
export const freeLayerName = (drawing: Drawing): string => {
  const names = new Set(layersOf(drawing).map(({ name }) => name));
  let n = layersOf(drawing).length + 1;
  while (names.has(`Layer ${n}`)) n += 1;
  return `Layer ${n}`;
};

const nameTaken = (drawing: Drawing, name: string, id?: Id): boolean =>
  layersOf(drawing).some((layer) => layer.id !== id && layer.name.toLowerCase() === name.toLowerCase());

/** Adds a layer; its id is the first of the edit's changes. */
export const addLayer = (drawing: Drawing, name: string, role: CutRole): Outcome<Edit> => {
  const clean = plainName(name);
  if (clean === "") return refuse("value-empty");
  if (nameTaken(drawing, clean)) return refuse("layer-name-taken", { layer: clean });
  const draft = draftEdit(drawing, `New layer ${clean}`, "layer");
  const id = draft.newId();
  draft.set("layer", id, { id, name: clean, role, shown: true, locked: false } satisfies Layer);
  return done(draft.finish());
};

/** Renames a layer, changes its role, shows, hides, locks or unlocks it. */
export const changeLayer = (drawing: Drawing, id: Id, change: Partial<Omit<Layer, "id">>): Outcome<Edit> => {
  const layer = layerOf(drawing, id);
  if (!layer) return refuse("pick-first");
  const name = change.name === undefined ? undefined : plainName(change.name);
  if (name === "") return refuse("value-empty");
  if (name !== undefined && nameTaken(drawing, name, id)) return refuse("layer-name-taken", { layer: name });
  const draft = draftEdit(drawing, `Layer ${layer.name}`, "layer");
  draft.set("layer", id, { ...layer, ...change, ...(name === undefined ? {} : { name }) });
  return done(draft.finish());
};

/** Takes an empty layer away; the ones that every drawing has stay. */
export const removeLayer = (drawing: Drawing, id: Id): Outcome<Edit> => {
  const layer = layerOf(drawing, id);
  if (!layer) return refuse("pick-first");
  if (FIRST_LAYERS.some((first) => first.id === id)) return refuse("layer-last", { layer: layer.name });
  const held = [...entitiesOf(drawing)].filter((entity) => entity.layer === id).length;
  if (held > 0) return refuse("layer-not-empty", { layer: layer.name, held });
  const draft = draftEdit(drawing, `Layer ${layer.name} removed`, "layer");
  draft.set("layer", id, undefined);
  return done(draft.finish());
};

/** Puts what is named on a layer. Endless lines stay on layout layers only. */
export const putOnLayer = (drawing: Drawing, ids: readonly Id[], to: Id): Outcome<Edit> => {
  const layer = layerOf(drawing, to);
  if (!layer || ids.length === 0) return refuse("nothing-selected");
  if (layer.locked) return refuse("layer-locked", { layer: layer.name });
  const draft = draftEdit(drawing, `To layer ${layer.name}`, "to-layer");
  for (const id of ids) {
    const entity = entityOf(drawing, id);
    if (!entity || entity.layer === to) continue;
    if (entity.kind === "endless" && layer.role !== "layout") return refuse("endless-is-layout");
    const own = layerOf(drawing, entity.layer);
    if (own?.locked) return refuse("layer-locked", { layer: own.name });
    draft.replace({ ...entity, layer: to });
  }
  return done(draft.finish());
};

/** Puts things on that of their layers on which most of them lie; refused for nothing, and where one is locked. */
export const putOnOneLayer = (drawing: Drawing, ids: readonly Id[]): Outcome<Edit> => {
  const counts = new Map<Id, number>();
  for (const id of ids) {
    const entity = entityOf(drawing, id);
    if (entity) counts.set(entity.layer, (counts.get(entity.layer) ?? 0) + 1);
  }
  const [most] = [...counts].filter(([id]) => !layerOf(drawing, id)?.locked).sort(([, p], [, q]) => q - p);
  return most ? putOnLayer(drawing, ids, most[0]) : refuse("nothing-selected");
};
