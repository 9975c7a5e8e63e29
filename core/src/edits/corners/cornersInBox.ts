import { chainPieces } from "../../contour/chain.ts";
import { entityOf, type Drawing } from "../../drawing/drawing.ts";
import { applyEdit, mergeEdits, type Edit } from "../../drawing/edit.ts";
import type { Entity } from "../../drawing/entity.ts";
import type { Ref } from "../../drawing/ref.ts";
import type { Bounds } from "../../geometry/bounds.ts";
import type { Point } from "../../geometry/point.ts";
import { searchIndex, type DrawingIndex } from "../../look/drawingIndex.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome, type Refusal } from "../../numeric/outcome.ts";
import type { Tie } from "../addShapes.ts";
import { runsOn, type ChainEntity } from "../path.ts";
import { cornerAt, cutCorners, cutLooseCorner, type CornerCut, type CornersCut, type LooseCorner } from "./corners.ts";

type InBox = { readonly chains: ReadonlyMap<Id, readonly Id[]>; readonly loose: readonly LooseCorner[] };

/** The corners inside a box: of chains, by their vertices, and where loose ends meet. Smooth joints are none. */
const cornersIn = (index: DrawingIndex, box: Bounds): InBox => {
  const { drawing } = index;
  const inside = ({ x, y }: Point): boolean => x >= box.minX && x <= box.maxX && y >= box.minY && y <= box.maxY;
  const chains = new Map<Id, readonly Id[]>();
  const loose = new Map<string, LooseCorner>();
  const ids = new Set(searchIndex(index, box).map(({ ref }) => ref.id));
  for (const id of ids) {
    const entity = entityOf(drawing, id);
    if (entity?.kind === "chain") {
      const corners = sharpVertices(entity).filter(({ at }) => inside(at));
      if (corners.length > 0)
        chains.set(
          id,
          corners.map((vertex) => vertex.id),
        );
    }
    for (const at of looseEnds(entity)) {
      const corner = inside(at) ? cornerAt(index, { id }, at) : undefined;
      if (corner?.kind === "loose") loose.set(corner.ends.map((end) => JSON.stringify(end)).join(), corner);
    }
  }
  return { chains, loose: [...loose.values()] };
};

const sharpVertices = (entity: ChainEntity): ChainEntity["vertices"] => {
  const pieces = chainPieces(entity);
  return entity.vertices.filter((_, i) => {
    const [before, after] = [entity.closed ? pieces.at(i - 1) : pieces[i - 1], pieces[i]];
    return before !== undefined && after !== undefined && !runsOn(before, after);
  });
};

const looseEnds = (entity: Entity | undefined): readonly Point[] => {
  if (entity?.kind === "piece") return [entity.a, entity.b];
  return entity?.kind === "chain" && !entity.closed ? [entity.vertices[0]!.at, entity.vertices.at(-1)!.at] : [];
};

/**
 * Cuts every corner inside a box, of as many contours as there are and of loose pieces, in one edit. Corners that can't
 * be cut are told; if none can, the first reason is the refusal. With `keepEdges` what is there stays as it is.
 */
export const cutCornersInBox = (
  index: DrawingIndex,
  box: Bounds,
  cut: CornerCut,
  label: string,
  link: (draft: Tie, refs: readonly Ref[]) => void,
  keepEdges: boolean,
): Outcome<CornersCut> => {
  const { chains, loose } = cornersIn(index, box);
  const edits: Edit[] = [];
  const refusals: Refusal[] = [];
  let count = 0;
  let drawing: Drawing = index.drawing;
  const take = (made: Outcome<CornersCut>): void => {
    if (!made.ok) return void refusals.push(made.refusal);
    edits.push(made.value.edit);
    count += made.value.count;
    for (const one of made.value.refusals) refusals.push(one);
    drawing = applyEdit(drawing, made.value.edit);
  };
  for (const [id, vertices] of chains) take(cutCorners(drawing, id, vertices, cut, label, link, { keepEdges }));
  for (const corner of loose) take(cutLooseCorner(drawing, corner, cut, label, keepEdges, link));
  if (count === 0) return refusals[0] ? { ok: false, refusal: refusals[0] } : refuse("no-corner-here");
  return done({ edit: mergeEdits(edits, label, "corner"), count, refusals });
};
