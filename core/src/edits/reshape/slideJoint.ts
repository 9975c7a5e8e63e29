import { chainPieces } from "../../contour/chain.ts";
import { entityOf, refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import { biarc } from "../../fit/biarc.ts";
import { pieceDirection, plainPiece, type Piece } from "../../geometry/piece.ts";
import { distance, type Point } from "../../geometry/point.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { draftEdit } from "../draftEdit.ts";
import { runsOn } from "../path.ts";

/** Tangent lengths of the two pieces are tried in ratios up to this, both ways. */
const MOST_RATIO = 60;
const STEPS = 60;
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/**
 * Where a chain's tangent joint lies nearest to a place: its vertex, as its number; undefined where two pieces don't
 * run on.
 */
export const jointNear = (drawing: Drawing, id: Id, at: Point): number | undefined => {
  const entity = entityOf(drawing, id);
  if (entity?.kind !== "chain") return undefined;
  const pieces = chainPieces(entity);
  let best: number | undefined;
  entity.vertices.forEach((vertex, i) => {
    const before = i > 0 ? pieces[i - 1] : entity.closed ? pieces.at(-1) : undefined;
    const after = pieces[i];
    if (!before || !after || !runsOn(before, after)) return;
    if (best === undefined || distance(vertex.at, at) < distance(entity.vertices[best]!.at, at)) best = i;
  });
  return best;
};

/**
 * Slides the joint of two tangent pieces of a chain towards a place: both keep their other ends and their directions
 * there, so they stay tangent to each other and to their neighbours, and there is one joint for each ratio of their
 * tangent lengths, all on one circle. The one nearest to the place by golden section. Refused where the two don't run
 * on.
 */
export const slideJoint = (
  drawing: Drawing,
  id: Id,
  joint: number,
  to: Point,
): Outcome<{ readonly edit: Edit; readonly pieces: readonly Piece[] }> => {
  const entity = entityOf(drawing, id);
  if (entity?.kind !== "chain") return refuse("chain-needed");
  const locked = refuseLocked(drawing, entity);
  if (locked) return locked;
  const all = chainPieces(entity).map(plainPiece);
  const i = (joint - 1 + all.length) % all.length;
  const [before, after] = [all[i], all[joint]];
  if (!before || !after || !runsOn(before, after)) return refuse("joint-none");
  const [u, v] = [pieceDirection(before, 0), pieceDirection(after, 1)];
  const made = (log: number): readonly [Piece, Piece] | undefined => biarc(before.a, u, after.b, v, Math.exp(log));
  const away = (log: number): number => {
    const arcs = made(log);
    return arcs ? distance(arcs[0].b, to) : Infinity;
  };
  let [low, high] = [-Math.log(MOST_RATIO), Math.log(MOST_RATIO)];
  for (let step = 0; step < STEPS; step++) {
    const [p, q] = [high - GOLDEN * (high - low), low + GOLDEN * (high - low)];
    if (away(p) <= away(q)) high = q;
    else low = p;
  }
  const arcs = made((low + high) / 2);
  if (!arcs) return refuse("joint-none");
  const draft = draftEdit(drawing, "Slide a joint", "slide-joint");
  const vertices = entity.vertices.map((vertex, k) => {
    if (k === joint) return { ...vertex, at: arcs[0].b, bulge: arcs[1].bulge };
    return k === i ? { ...vertex, bulge: arcs[0].bulge } : vertex;
  });
  draft.reshape({ ...entity, vertices });
  return done({ edit: draft.finish(), pieces: arcs });
};
