import type { Entity } from "../drawing/entity.ts";
import type { Ref } from "../drawing/ref.ts";
import { distance, type Point } from "../geometry/point.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import { shapeHandles, type OwnHandle } from "../shape/index.ts";

/**
 * A place of a selected thing by which it is changed. `refs` says of what: an end of a loose piece by its place, a
 * corner of a chain by its vertex, a piece of one by the vertex it starts at. An end may be of several loose pieces
 * that meet there.
 */
export type Handle = Omit<OwnHandle, "place" | "vertex"> & { readonly refs: readonly Ref[] };

/** The handles of what is selected, ends that lie at one place as one. */
export const handlesOf = (entities: readonly Entity[]): readonly Handle[] => {
  const all = entities.flatMap(ownHandles);
  const ends: Handle[] = [];
  const grid = new Map<string, Handle[]>();
  const cell = ({ x, y }: Point): string => `${Math.round(x * 1e4)} ${Math.round(y * 1e4)}`;
  for (const handle of all) {
    if (handle.kind !== "end") continue;
    const near = grid.get(cell(handle.at)) ?? [];
    const same = near.find(({ at }) => distance(at, handle.at) <= RESOLUTION);
    const joined = same ? { ...same, refs: [...same.refs, ...handle.refs] } : handle;
    if (same) ends[ends.indexOf(same)] = joined;
    else ends.push(joined);
    grid.set(cell(handle.at), [...near.filter((one) => one !== same), joined]);
  }
  return [...ends, ...all.filter(({ kind }) => kind !== "end")];
};

const ownHandles = (entity: Entity): readonly Handle[] =>
  shapeHandles(entity).map(({ place, vertex, ...rest }) => ({
    ...rest,
    refs: [{ id: entity.id, ...(vertex === undefined ? {} : { vertex }), ...(place ? { place } : {}) }],
  }));
