import { entitiesOf, entityOf, layerOf, layersOf, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import { FIRST_LAYERS, type CutRole, type Layer } from "../../drawing/layer.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { plainName } from "../../numeric/plainName.ts";
import { draftEdit, type EditDraft } from "../draftEdit.ts";

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

/** What of a layer can be changed; a colour of `undefined` lets its role have it. */
export type LayerChange = Partial<Omit<Layer, "id" | "order" | "colour">> & { readonly colour?: string | undefined };

/** Renames a layer, changes its role or its colour, shows, hides, locks or unlocks it. */
export const changeLayer = (drawing: Drawing, id: Id, change: LayerChange): Outcome<Edit> => {
  const layer = layerOf(drawing, id);
  if (!layer) return refuse("pick-first");
  const name = change.name === undefined ? undefined : plainName(change.name);
  if (name === "") return refuse("value-empty");
  if (name !== undefined && nameTaken(drawing, name, id)) return refuse("layer-name-taken", { layer: name });
  const draft = draftEdit(drawing, `Layer ${layer.name}`, "layer");
  const { colour, ...changed } = { ...layer, ...change, ...(name === undefined ? {} : { name }) };
  draft.set("layer", id, colour === undefined ? changed : { ...changed, colour });
  return done(draft.finish());
};

/** Shows one layer alone, or all of them. */
export const showLayers = (drawing: Drawing, which: Id | "all"): Outcome<Edit> => {
  const draft = draftEdit(drawing, which === "all" ? "All layers shown" : "One layer shown alone", "layer");
  for (const layer of layersOf(drawing)) {
    const shown = which === "all" || layer.id === which;
    if (layer.shown !== shown) draft.set("layer", layer.id, { ...layer, shown });
  }
  return done(draft.finish());
};

/** Puts a layer one place up (`by` -1) or down (1) in the list; nothing changes at its end. */
export const moveLayer = (drawing: Drawing, id: Id, by: -1 | 1): Outcome<Edit> => {
  const layers = [...layersOf(drawing)];
  const at = layers.findIndex((layer) => layer.id === id);
  if (at < 0) return refuse("pick-first");
  const draft = draftEdit(drawing, `Layer ${layers[at]!.name} moved`, "layer");
  const to = Math.min(layers.length - 1, Math.max(0, at + by));
  layers.splice(to, 0, ...layers.splice(at, 1));
  if (to !== at)
    layers.forEach((layer, order) => layer.order !== order && draft.set("layer", layer.id, { ...layer, order }));
  return done(draft.finish());
};

/**
 * Takes a layer away; the ones that every drawing has stay. What lies on it goes with it, or is put on another layer
 * first, as `held` says; without that only an empty layer goes.
 */
export const removeLayer = (drawing: Drawing, id: Id, held?: "goes" | { readonly to: Id }): Outcome<Edit> => {
  const layer = layerOf(drawing, id);
  if (!layer) return refuse("pick-first");
  if (FIRST_LAYERS.some((first) => first.id === id)) return refuse("layer-last", { layer: layer.name });
  const on = [...entitiesOf(drawing)].filter((entity) => entity.layer === id);
  const draft = draftEdit(drawing, `Layer ${layer.name} removed`, "layer");
  if (on.length > 0) {
    if (held === undefined) return refuse("layer-not-empty", { layer: layer.name, held: on.length });
    if (layer.locked) return refuse("layer-locked", { layer: layer.name });
    const to = held === "goes" ? undefined : layerOf(drawing, held.to);
    if (held !== "goes" && (!to || to.id === id)) return refuse("pick-first");
    if (to?.locked) return refuse("layer-locked", { layer: to.name });
    if (to && to.role !== "layout" && on.some(({ kind }) => kind === "endless")) return refuse("endless-is-layout");
    for (const entity of on) {
      if (to) draft.replace({ ...entity, layer: to.id });
      else draft.remove(entity.id);
    }
  }
  draft.set("layer", id, undefined);
  return done(draft.finish());
};

/** The layer of a role that contours are put on: where every drawing has one that, else the first not locked. */
export const layerOfRole = (drawing: Drawing, role: CutRole): Layer | undefined => {
  const fitting = layersOf(drawing).filter((layer) => layer.role === role && !layer.locked);
  return fitting.find(({ id }) => FIRST_LAYERS.some((first) => first.id === id)) ?? fitting[0];
};

const ROLE_NAMES: Readonly<Partial<Record<CutRole, string>>> = { outside: "Outside", inside: "Inside" };

/**
 * Gives contours a role: they are put on a layer of that role, which is made where there is none (`Outside`, `Inside`).
 * Nothing named, something on a locked layer, or an endless line that would be cut: a refusal.
 */
export const putInRole = (drawing: Drawing, ids: readonly Id[], role: CutRole): Outcome<Edit> => {
  if (ids.length === 0) return refuse("nothing-selected");
  const there = layerOfRole(drawing, role);
  if (there) return putOnLayer(drawing, ids, there.id);
  const wanted = ROLE_NAMES[role];
  const name = wanted === undefined || nameTaken(drawing, wanted) ? freeLayerName(drawing) : wanted;
  const draft = draftEdit(drawing, `To layer ${name}`, "to-layer");
  const id = draft.newId();
  draft.set("layer", id, { id, name, role, shown: true, locked: false } satisfies Layer);
  const refused = putThere(drawing, draft, ids, { id, name, role });
  return refused ?? done(draft.finish());
};

/** Puts what is named on a layer, in a draft; why that can't be, where it can't. */
const putThere = (
  drawing: Drawing,
  draft: EditDraft,
  ids: readonly Id[],
  to: Pick<Layer, "id" | "name" | "role">,
): ReturnType<typeof refuse> | undefined => {
  for (const id of ids) {
    const entity = entityOf(drawing, id);
    if (!entity || entity.layer === to.id) continue;
    if (entity.kind === "endless" && to.role !== "layout") return refuse("endless-is-layout");
    const own = layerOf(drawing, entity.layer);
    if (own?.locked) return refuse("layer-locked", { layer: own.name });
    draft.replace({ ...entity, layer: to.id });
  }
  return undefined;
};

/** Puts what is named on a layer. Endless lines stay on layout layers only. */
export const putOnLayer = (drawing: Drawing, ids: readonly Id[], to: Id): Outcome<Edit> => {
  const layer = layerOf(drawing, to);
  if (!layer || ids.length === 0) return refuse("nothing-selected");
  if (layer.locked) return refuse("layer-locked", { layer: layer.name });
  const draft = draftEdit(drawing, `To layer ${layer.name}`, "to-layer");
  return putThere(drawing, draft, ids, layer) ?? done(draft.finish());
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
