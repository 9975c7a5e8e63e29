import { arrivalOf, departureOf } from "../../construct/arcs.ts";
import type { WidthRun } from "../../construct/width.ts";
import { chainOfPieces, chainPieces, type Chain, type Vertex } from "../../contour/chain.ts";
import { reverseChain } from "../../contour/chainMeasure.ts";
import { entityOf, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import { reshaped, type Entity } from "../../drawing/entity.ts";
import type { Ref } from "../../drawing/ref.ts";
import { reversePiece, type Piece } from "../../geometry/piece.ts";
import { distance, type Point } from "../../geometry/point.ts";
import type { Id } from "../../numeric/id.ts";
import { RESOLUTION } from "../../numeric/tolerance.ts";
import { draftEdit } from "../draftEdit.ts";

/** Where an outline goes on from: a place, and the open chain or loose piece that ends there. */
export type OutlineStart = { readonly at: Point; readonly ref?: Ref };

/** What an outline that is being drawn looks like from its end. */
export type OutlineEnd = {
  /** In which direction (radians) the last piece arrives; undefined where nothing was drawn yet. */
  readonly arrives?: number;
  /** Where its first piece starts, and in which direction that leaves. */
  readonly first?: { readonly at: Point; readonly leaves: number };
  readonly pieces: number;
  /** How wide the last piece ends, where it was given a width. */
  readonly width?: number;
};

type OutlineRun = {
  readonly entity: Entity;
  readonly chain: Chain;
  readonly was: "chain" | "piece";
  readonly reversed: boolean;
};

/** The open chain or piece that ends at `start`, run so that it ends there. */
const runTo = (drawing: Drawing, { at, ref }: OutlineStart): OutlineRun | undefined => {
  const entity = ref && entityOf(drawing, ref.id);
  if (!entity) return undefined;
  const same = (p: Point): boolean => distance(p, at) <= RESOLUTION;
  if (entity.kind === "piece") {
    if (!same(entity.a) && !same(entity.b)) return undefined;
    const reversed = !same(entity.b);
    let vertex = -2; // ids of its own are given when the edit is made
    const chain = chainOfPieces([reversed ? reversePiece(entity) : entity], false, () => (vertex += 1));
    return { entity, chain, was: "piece", reversed };
  }
  if (entity.kind !== "chain" || entity.closed) return undefined;
  const { closed, vertices } = entity;
  if (same(vertices.at(-1)!.at)) return { entity, chain: { closed, vertices }, was: "chain", reversed: false };
  if (!same(vertices[0]!.at)) return undefined;
  return { entity, chain: reverseChain(entity), was: "chain", reversed: true };
};

/**
 * What an outline goes on from: the direction in which its run arrives, the run's own start, and how many pieces it
 * has.
 */
export const outlineEnd = (drawing: Drawing, start: OutlineStart): OutlineEnd => {
  const run = runTo(drawing, start);
  if (!run) return { pieces: 0 };
  const pieces = chainPieces(run.chain);
  const first = pieces[0]!;
  const last = run.chain.vertices.at(-2)!.width;
  return {
    arrives: arrivalOf(pieces.at(-1)!),
    first: { at: first.a, leaves: departureOf(first) },
    pieces: pieces.length,
    ...(last ? { width: last[1] } : {}),
  };
};

/**
 * Adds one piece to an outline: to the chain or piece that ends at `start`, else as a new open chain on `layer`. A
 * piece that ends where the outline began closes it. With a width, the piece keeps it until the contour round the
 * outline is made. Returns the new end to go on from, and the piece.
 */
export const extendOutline = (
  drawing: Drawing,
  start: OutlineStart,
  piece: Piece,
  layer: Id,
  width?: WidthRun,
): {
  readonly edit: (link?: (draft: ReturnType<typeof draftEdit>, ref: Ref) => void) => Edit;
  readonly closes: boolean;
  readonly end: (edit: Edit) => OutlineStart;
} => {
  const run = runTo(drawing, start);
  const first = run?.chain.vertices[0]!.at;
  const closes = first !== undefined && chainPieces(run!.chain).length > 1 && distance(first, piece.b) <= RESOLUTION;
  const edit = (link?: (draft: ReturnType<typeof draftEdit>, ref: Ref) => void): Edit => {
    const name = width ? "Outline with a width" : "Outline";
    const draft = draftEdit(
      drawing,
      `${name}: ${piece.bulge === 0 ? "line" : "arc"}`,
      width ? "wide-outline" : "outline",
    );
    const wide = width ? { width } : {};
    if (!run) {
      const made = chainOfPieces([piece], false, draft.newId);
      const chain = {
        ...made,
        vertices: made.vertices.map((vertex, i) => (i === 0 ? { ...vertex, ...wide } : vertex)),
      };
      const id = draft.add(chain, layer);
      link?.(draft, { id, vertex: chain.vertices[0]!.id });
      return draft.finish();
    }
    const own =
      run.was === "chain" ? run.chain.vertices : run.chain.vertices.map((vertex) => ({ ...vertex, id: draft.newId() }));
    const last = { ...own.at(-1)!, bulge: piece.bulge, ...wide };
    const vertices: Vertex[] = [...own.slice(0, -1), last];
    if (!closes) vertices.push({ id: draft.newId(), at: piece.b, bulge: 0 });
    draft.replace(reshaped(run.entity, { kind: "chain", closed: closes, vertices }));
    link?.(draft, { id: run.entity.id, vertex: last.id });
    return draft.finish();
  };
  const end = (made: Edit): OutlineStart => {
    const row = made.changes.find(({ table }) => table === "entity")!.after as { id: Id } & Chain;
    return { at: row.vertices.at(-1)!.at, ref: { id: row.id, vertex: row.vertices.at(-2)!.id, place: "end" } };
  };
  return { edit, closes, end };
};
