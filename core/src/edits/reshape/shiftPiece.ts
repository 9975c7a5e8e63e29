import { arcFrom, departureOf } from "../../construct/arcs.ts";
import { endedAt, startedAt } from "../../construct/cornerCuts.ts";
import { entityOf, refuseLocked } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import type { Ref } from "../../drawing/ref.ts";
import { carrierNearest, pieceCarrier } from "../../geometry/curve.ts";
import { arcOf, pieceDirection, pieceLength, reversePiece, sweepOf, type Piece } from "../../geometry/piece.ts";
import { add, cross, distance, dot, leftOf, subtract, times, type Point } from "../../geometry/point.ts";
import { meetCarriers, meetingPoints } from "../../intersect/carriers.ts";
import type { DrawingIndex } from "../../look/drawingIndex.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { RESOLUTION, SAME_DIRECTION } from "../../numeric/tolerance.ts";
import { roundedAgain, sharpened, type Round } from "../corners/rounds.ts";
import { draftEdit } from "../draftEdit.ts";
import { beside, pathOf, runsOn } from "../path.ts";

/** How far left of a piece (seen along it) a place lies; for an arc, towards its centre where it turns left. */
export const leftOffset = (piece: Piece, p: Point): number => {
  const arc = arcOf(piece);
  if (!arc) return cross(pieceDirection(piece, 0), subtract(p, piece.a));
  return Math.sign(arc.sweep) * (arc.radius - distance(arc.centre, p));
};

/** The piece moved squarely off itself, to the left where `by` is above zero. */
const movedAside = (piece: Piece, by: number): Outcome<Piece> => {
  const arc = arcOf(piece);
  if (!arc) {
    const step = times(leftOf(pieceDirection(piece, 0)), by);
    return done({ ...piece, a: add(piece.a, step), b: add(piece.b, step) });
  }
  const radius = arc.radius - Math.sign(arc.sweep) * by;
  if (radius <= RESOLUTION) return refuse("shift-too-far", { limit: arc.radius }, arc.centre);
  const scaled = (p: Point): Point => add(arc.centre, times(subtract(p, arc.centre), radius / arc.radius));
  return done({ ...piece, a: scaled(piece.a), b: scaled(piece.b) });
};

/** A piece is turned over when what is left of it runs the other way, or, for an arc, nearly all the way round. */
const turnsOver = (was: Piece, is: Piece): boolean => {
  if (pieceLength(is) <= RESOLUTION) return true;
  if (was.bulge === 0) return dot(subtract(was.b, was.a), subtract(is.b, is.a)) <= 0;
  return Math.abs(sweepOf(is.bulge)) - Math.abs(sweepOf(was.bulge)) > Math.PI;
};

/**
 * What becomes of the neighbour that ends where `piece` starts when that moves aside, and where they meet then. An arc
 * that ran into the piece without a corner still does: also into its far neighbour where that runs straight beside the
 * piece (the end of a slot).
 */
const followed = (
  neighbour: Piece,
  far: Piece | undefined,
  piece: Piece,
  aside: Piece,
  staysTangent: boolean,
): Outcome<{ neighbour: Piece; at: Point }> => {
  if (staysTangent && neighbour.bulge !== 0 && runsOn(neighbour, piece)) {
    const farStraight = far && far.bulge === 0 && piece.bulge === 0 && runsOn(far, neighbour);
    const sameWay = farStraight && Math.abs(cross(pieceDirection(far, 1), pieceDirection(piece, 0))) <= SAME_DIRECTION;
    const at = sameWay ? carrierNearest(pieceCarrier(aside), neighbour.a) : aside.a;
    const made = sameWay
      ? arcFrom(neighbour.a, departureOf(neighbour), at)
      : arcFrom(aside.a, departureOf(aside) + Math.PI, neighbour.a);
    if (!made.ok) return made;
    return done({ neighbour: sameWay ? made.value : reversePiece(made.value), at });
  }
  const [own, next] = [pieceCarrier(neighbour), pieceCarrier(aside)];
  const at = [...meetingPoints(meetCarriers(own, next, RESOLUTION))].sort(
    (p, q) => distance(p, aside.a) - distance(q, aside.a),
  )[0];
  if (!at) return refuse("shift-no-meeting", {}, neighbour.b);
  const run = endedAt(neighbour, at);
  if (turnsOver(neighbour, run))
    return refuse("shift-too-far", { limit: Math.abs(leftOffset(piece, neighbour.a)) }, neighbour.a);
  return done({ neighbour: run, at });
};

/**
 * Moves a piece of a chain, or a loose one, squarely aside by `by` (to its left above zero, lines parallel, arcs about
 * their centre); its neighbours run on or are cut to meet it, an open end keeps its place on it. Rounded corners beside
 * it stay rounded with their radius, and tangent ones tangent, where `staysTangent`. Refused: a neighbour that would be
 * used up (with how far it goes), one that never meets the moved piece, and a rounding that no longer fits.
 */
export const shiftPiece = (index: DrawingIndex, ref: Ref, by: number, staysTangent: boolean): Outcome<Edit> => {
  const { drawing } = index;
  const entity = entityOf(drawing, ref.id);
  const path = pathOf(index, ref);
  const own = ref.vertex ?? ref.id;
  if (!entity || !path?.links.some(({ id }) => id === own)) return refuse("not-a-piece");
  const locked = refuseLocked(drawing, entity);
  if (locked) return locked;
  let run: Parameters<typeof sharpened>[0] = path;
  const position = (): number => run.links.findIndex(({ id }) => id === own);
  const rounds: Round[] = [];
  if (staysTangent)
    for (const side of [0, 1] as const) {
      const neighbour = beside(run, position())[side];
      const sharp = neighbour === undefined ? undefined : sharpened(run, neighbour);
      if (!sharp) continue;
      ({ run } = sharp);
      rounds.push(sharp.round);
    }
  const links = [...run.links];
  const i = position();
  const { piece } = links[i]!;
  const aside = movedAside(piece, by);
  if (!aside.ok) return aside;
  let moved = aside.value;
  const [before, after] = beside(run, i);
  if (before !== undefined) {
    const far = beside(run, before)[0];
    const found = followed(links[before]!.piece, farPiece(links, far, i), piece, aside.value, staysTangent);
    if (!found.ok) return found;
    links[before] = { ...links[before]!, piece: found.value.neighbour };
    moved = startedAt(moved, found.value.at);
  }
  if (after !== undefined) {
    const far = farPiece(links, beside(run, after)[1], i);
    const found = followed(
      reversePiece(links[after]!.piece),
      far && reversePiece(far),
      reversePiece(piece),
      reversePiece(aside.value),
      staysTangent,
    );
    if (!found.ok) return found;
    links[after] = { ...links[after]!, piece: reversePiece(found.value.neighbour) };
    moved = endedAt(moved, found.value.at);
  }
  if (turnsOver(piece, moved)) return refuse("shift-used-up", {}, piece.a);
  links[i] = { ...links[i]!, piece: moved };
  let result: Outcome<typeof run> = done({ links, closed: run.closed });
  for (const round of rounds) {
    if (!result.ok) return result;
    result = roundedAgain(result.value, round);
  }
  if (!result.ok) return result;
  const draft = draftEdit(drawing, "Shift", "handle");
  path.put(draft, result.value.links);
  return done(draft.finish());
};

const farPiece = (
  links: readonly { readonly piece: Piece }[],
  far: number | undefined,
  own: number,
): Piece | undefined => (far === undefined || far === own ? undefined : links[far]!.piece);
