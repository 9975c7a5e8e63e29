import { refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import type { Ref } from "../../drawing/ref.ts";
import { arcBetween, arcOf, pieceDirection, pieceLength, sweepOf, type Piece } from "../../geometry/piece.ts";
import { along, angleOf, dot, subtract, turned, add, type Point } from "../../geometry/point.ts";
import { TURN } from "../../numeric/angle.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { RESOLUTION } from "../../numeric/tolerance.ts";
import { draftEdit, type EditDraft } from "../draftEdit.ts";
import { endPiece } from "./stretch.ts";

/**
 * The piece with another length along its own line or circle; its start stays. Not above zero, or a whole turn: a
 * refusal.
 */
export const lengthened = (piece: Piece, length: number): Outcome<Piece> => {
  if (!(length > RESOLUTION)) return refuse("length-used-up", { limit: pieceLength(piece) }, piece.b);
  const arc = arcOf(piece);
  if (!arc) return done({ ...piece, b: along(piece.a, pieceDirection(piece, 0), length) });
  const whole = TURN * arc.radius;
  if (length >= whole - RESOLUTION) return refuse("arc-whole-turn", { limit: whole }, arc.centre);
  const sweep = (Math.sign(arc.sweep) * length) / arc.radius;
  const b = add(arc.centre, turned(subtract(piece.a, arc.centre), sweep));
  return done(arcBetween(piece.a, b, arc.centre, arc.sweep > 0));
};

/** The length at which the piece, run on or cut, ends nearest to a place. */
export const lengthTo = (piece: Piece, p: Point): number => {
  const arc = arcOf(piece);
  if (!arc) return dot(subtract(p, piece.a), pieceDirection(piece, 0));
  const way = Math.sign(sweepOf(piece.bulge));
  const turn = way * (angleOf(subtract(p, arc.centre)) - angleOf(subtract(piece.a, arc.centre)));
  return arc.radius * (turn - TURN * Math.floor(turn / TURN));
};

/**
 * Gives a loose piece, or the end piece of an open chain, another length from the end at `ref`; its direction, or
 * circle, stays.
 */
export const lengthenEnd = (
  drawing: Drawing,
  ref: Ref,
  length: number,
  link?: (draft: EditDraft) => void,
): Outcome<Edit> => {
  const end = endPiece(drawing, ref);
  if (!end) return refuse("no-end-here");
  const locked = refuseLocked(drawing, end.entity);
  if (locked) return locked;
  const made = lengthened(end.piece, length);
  if (!made.ok) return made;
  const draft = draftEdit(drawing, "Lengthen", "handle");
  draft.reshape(end.put(made.value));
  link?.(draft);
  return done(draft.finish());
};
