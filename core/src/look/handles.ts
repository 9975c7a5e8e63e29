import { freePoints } from "../construct/freePoints.ts";
import { centroidOf } from "../contour/centroid.ts";
import { chainPieces } from "../contour/chain.ts";
import type { Entity } from "../drawing/entity.ts";
import type { Ref } from "../drawing/ref.ts";
import { pieceLength, piecePoint } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import { shapeBounds } from "../shape/kinds.ts";

/**
 * A place of a selected thing by which it is changed. `refs` says of what: an end of a loose piece by its place, a
 * corner of a chain by its vertex, a piece of one by the vertex it starts at. An end may be of several loose pieces
 * that meet there.
 */
export type Handle = {
  readonly kind: "end" | "corner" | "chain end" | "middle" | "centre" | "radius" | "curve point";
  readonly at: Point;
  readonly refs: readonly Ref[];
  /** The length of the piece that it is the middle of, so that short ones can be left out. */
  readonly length?: number;
};

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

const ownHandles = (entity: Entity): readonly Handle[] => {
  const { id } = entity;
  const centre = (at: Point): Handle => ({ kind: "centre", at, refs: [{ id }] });
  switch (entity.kind) {
    case "point":
      return [centre(entity.at)];
    case "endless":
      return [centre(entity.through)];
    case "piece":
      return [
        { kind: "end", at: entity.a, refs: [{ id, place: "start" }] },
        { kind: "end", at: entity.b, refs: [{ id, place: "end" }] },
        { kind: "middle", at: piecePoint(entity, 0.5), refs: [{ id }], length: pieceLength(entity) },
      ];
    case "circle": {
      const { centre: at, radius } = entity;
      const quarters = [
        { x: at.x + radius, y: at.y },
        { x: at.x, y: at.y + radius },
        { x: at.x - radius, y: at.y },
        { x: at.x, y: at.y - radius },
      ];
      return [centre(at), ...quarters.map((place): Handle => ({ kind: "radius", at: place, refs: [{ id }] }))];
    }
    case "ellipse":
      return [centre(entity.centre)];
    case "free":
      return [
        ...(freePoints(entity) ?? []).map((at): Handle => ({ kind: "curve point", at, refs: [{ id }] })),
        centre(middleOf(entity)),
      ];
    case "chain": {
      const pieces = chainPieces(entity);
      const n = entity.vertices.length;
      const isEnd = (i: number): boolean => !entity.closed && (i === 0 || i === n - 1);
      return [
        ...entity.vertices.map(({ id: vertex, at }, i): Handle => ({
          kind: isEnd(i) ? "chain end" : "corner",
          at,
          refs: [{ id, vertex }],
        })),
        ...pieces.map((piece, i): Handle => ({
          kind: "middle",
          at: piecePoint(piece, 0.5),
          refs: [{ id, vertex: entity.vertices[i]!.id }],
          length: pieceLength(piece),
        })),
        centre((entity.closed ? centroidOf(pieces) : undefined) ?? middleOf(entity)),
      ];
    }
  }
};

const middleOf = (entity: Entity): Point => {
  const { minX, minY, maxX, maxY } = shapeBounds(entity)!;
  return { x: (minX + maxX) / 2, y: (minY + maxY) / 2 };
};
