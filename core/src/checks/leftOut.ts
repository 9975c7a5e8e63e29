import { entitiesOf, layersOf } from "../drawing/drawing.ts";
import type { Entity } from "../drawing/entity.ts";
import { LAYOUT_LAYER } from "../drawing/layer.ts";
import type { Point } from "../geometry/point.ts";
import type { Id } from "../numeric/id.ts";
import type { Check, Fault } from "./check.ts";

/** What encloses something, as what is cut does; circles of the layer that every drawing begins with are laid out. */
const looksCut = (entity: Entity): boolean =>
  entity.kind === "chain" ? entity.closed : entity.kind === "circle" && entity.layer !== LAYOUT_LAYER;

const placeOn = (entity: Entity): Point | undefined =>
  entity.kind === "circle" ? entity.centre : entity.kind === "chain" ? entity.vertices[0]?.at : undefined;

/**
 * Closed contours that are not cut since their layer is layout: only told on the layer that every drawing begins with,
 * where layout is what everyone puts there; on another a warning.
 */
export const leftOut: Check = {
  id: "left-out",
  name: "What looks cut is cut",
  source: "Common practice: nothing that encloses a part is left out unnoticed.",
  find: ({ drawing }) => {
    const on = new Map<Id, Entity[]>();
    for (const entity of entitiesOf(drawing)) {
      if (!looksCut(entity)) continue;
      void (on.get(entity.layer)?.push(entity) ?? on.set(entity.layer, [entity]));
    }
    return layersOf(drawing).flatMap(({ id, name, role }): Fault[] => {
      const things = role === "layout" ? on.get(id) : undefined;
      if (!things) return [];
      const at = placeOn(things[0]!);
      return [
        {
          code: "left-out",
          severity: id === LAYOUT_LAYER ? "info" : "warning",
          ...(at ? { at } : {}),
          ids: things.map((one) => one.id),
          values: { layer: name, things: things.length },
        },
      ];
    });
  },
  says: {
    "left-out": ({ layer, things }) =>
      things === 1
        ? `One closed contour lies on the layout layer ${layer}, and is not cut.`
        : `${things} closed contours lie on the layout layer ${layer}, and are not cut.`,
  },
  repairs: { "left-out": "to-layer" },
};
