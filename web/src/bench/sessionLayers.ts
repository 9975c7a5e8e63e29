import {
  entityOf,
  layerOf,
  PROFILE_LAYER,
  type CutRole,
  type Drawing,
  type Edit,
  type Layer,
  type PictureSize,
} from "@ash-edge/core/drawing";
import {
  addLayer,
  changeLayer,
  changeProperty,
  layerOfRole,
  moveLayer,
  putInRole,
  putOnLayer,
  putOnOneLayer,
  dropColours,
  setLineStyle,
  showLayers,
  removeLayer,
  type LayerChange,
  setGeneralTolerance,
} from "@ash-edge/core/edits";
import type { Id, Outcome } from "@ash-edge/core/numeric";
import { changePicture } from "@ash-edge/core/picture";
import { roleChanges } from "@ash-edge/core/profile";
import { sayRoleChanges } from "@ash-edge/core/say";
import { countsFor, isLarge, profileFor } from "./derived.ts";
import type { SessionCore } from "./sessionCore.ts";

/** Layers, and what the panels change of things and pictures. Each change is one edit; a refusal is said. */
export const makeLayers = ({ get, send, say, sayNo, commit, refresh, notify }: SessionCore) => {
  const carry = (outcome: Outcome<Edit>): boolean => {
    if (!outcome.ok) {
      sayNo(outcome.refusal);
      return false;
    }
    return outcome.value.changes.length === 0 || commit(outcome.value);
  };
  const setLayer = (id: Id): void => {
    const layer = layerOf(get().history.drawing, id);
    if (layer?.locked) return say({ text: `${layer.name} is locked, so nothing could be drawn on it.`, tone: "fault" });
    send("selection", { type: "layer", id });
    refresh();
  };
  return {
    /** Takes the working layer: what is drawn from now on goes there. */
    setLayer,
    addLayer: (name: string, role: CutRole): boolean => {
      const added = addLayer(get().history.drawing, name, role);
      if (!carry(added) || !added.ok) return false;
      setLayer(added.value.changes[0]!.id);
      return true;
    },
    changeLayer: (id: Id, change: LayerChange): boolean => {
      const isWorking = get().selection.layer === id && (change.locked === true || change.role === "layout");
      const done = carry(changeLayer(get().history.drawing, id, change));
      if (done && isWorking && id !== PROFILE_LAYER) setLayer(PROFILE_LAYER);
      return done;
    },
    /** Takes a layer away, with what lies on it or after that was put elsewhere. */
    removeLayer: (layer: Layer, held?: Parameters<typeof removeLayer>[2]): void => {
      const count = countsFor(get().history.drawing).get(layer.id) ?? 0;
      if (!carry(removeLayer(get().history.drawing, layer.id, held))) return;
      if (get().selection.layer === layer.id) setLayer(PROFILE_LAYER);
      notify(`Layer ${layer.name} removed${held === "goes" && count > 0 ? `, with the ${count} on it` : ""}`);
    },
    moveLayer: (id: Id, by: -1 | 1): boolean => carry(moveLayer(get().history.drawing, id, by)),
    /** Shows one layer alone, or all of them; in one step. */
    showLayers: (which: Id | "all"): boolean => carry(showLayers(get().history.drawing, which)),
    /** Gives contours a role: they go onto a layer of that role. */
    putInRole: (ids: readonly Id[], role: CutRole): boolean => carry(putInRole(get().history.drawing, ids, role)),
    /** Says where a new contour made outer ones of holes, and offers to put the new one on the marks instead. */
    sayRoles: (before: Drawing, edit: Edit): void => {
      const { drawing } = get().history;
      if (isLarge(drawing) || isLarge(before)) return;
      const touched = new Set(edit.changes.flatMap(({ table, id }) => (table === "entity" ? [id] : [])));
      if (touched.size === 0) return;
      const { toOutside, toInside, by } = roleChanges(profileFor(before), profileFor(drawing), touched);
      if (!by || toOutside.length === 0) return;
      const marks = (): void => {
        const { drawing: now } = get().history;
        if (by.ids.every((id) => entityOf(now, id))) void carry(putInRole(now, by.ids, "mark"));
        else say({ text: "The new contour is not there any more as it was drawn.", tone: "fault" });
      };
      const to = layerOfRole(drawing, "mark")?.name ?? "a layer of marks";
      notify(sayRoleChanges({ toOutside, toInside }), { words: `Put the new one on ${to}`, take: marks });
    },
    putOnLayer: (ids: readonly Id[], layer: Id): boolean => carry(putOnLayer(get().history.drawing, ids, layer)),
    /** Puts things whose ends meet on the layer on which most of them lie. */
    putOnOneLayer: (ids: readonly Id[]): boolean => carry(putOnOneLayer(get().history.drawing, ids)),
    changeProperty: (name: string, value: number): boolean =>
      carry(changeProperty(get().history.drawing, [...get().selection.ids], name, value, get().selection.vertex)),
    /** Draws what is selected in a line style of its own, or as its role has it. */
    setLine: (line: string | undefined): boolean =>
      carry(setLineStyle(get().history.drawing, [...get().selection.ids], line)),
    dropColours: (): boolean => carry(dropColours(get().history.drawing, [...get().selection.ids])),
    stepVertex: (vertex: Id | undefined): void => send("selection", { type: "vertex", id: vertex }),
    changePicture: (picture: PictureSize, change: Parameters<typeof changePicture>[2]): boolean =>
      commit(changePicture(get().history.drawing, picture, change)),
    setGeneralTolerance: (tolerance: number | undefined): boolean =>
      commit(setGeneralTolerance(get().history.drawing, tolerance)),
  };
};
