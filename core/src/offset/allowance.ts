import { withMaterialLeft } from "../contour/materialLeft.ts";
import { pieceCentre, pieceDirection, pieceLength, piecePoint, pieceRadius, type Piece } from "../geometry/piece.ts";
import { along, distance, leftOf, type Point } from "../geometry/point.ts";
import { RESOLUTION, SMOOTH_TURN } from "../numeric/tolerance.ts";
import type { OffsetRun } from "./offset.ts";
import { offsetRegion } from "./regionOffset.ts";
import { cornerPlace, cornersOf } from "./sources.ts";
import { zoneOf } from "./zone.ts";

/** Where the cutter can't get: into an inside corner, or between edges closer than its width. */
export type Unreached = { readonly kind: "corner" | "narrow"; readonly contour: number; readonly at: Point };

/** The way of a cutter's middle round some contours. */
export type Allowance = {
  readonly runs: readonly OffsetRun[];
  readonly unreached: readonly Unreached[];
  /** Contours into which it doesn't get at all. */
  readonly vanished: readonly number[];
  readonly failed: readonly Point[];
  /** Contours with less than a cutter's width between them: each list would be cut as one. */
  readonly merged: readonly (readonly number[])[];
};

/**
 * Contours for the middle of a cutter of `radius` (half the kerf): outside of outer ones, inside of inner ones, corners
 * rounded about; and where it leaves material because an inside corner is sharper than it is round, or edges are closer
 * together.
 */
export const allowanceFor = (contours: readonly (readonly Piece[])[], radius: number): Allowance => {
  const { runs, vanished, failed, merged } = offsetRegion(contours, radius, { corners: "round" });
  const turned = withMaterialLeft(contours);
  const joined = cornersOf(turned.map((own) => ({ pieces: own, closed: true })));
  const { pieces, owners, corners } = joined;
  const zone = zoneOf(joined, [], radius);
  const gone = new Set(vanished);
  const unreached: Unreached[] = [];
  corners.before.forEach((before, k) => {
    const contour = owners[before]!;
    if (corners.halfTurn[k]! < -SMOOTH_TURN / 2 && !gone.has(contour))
      unreached.push({ kind: "corner", contour, at: cornerPlace(joined, k) });
  });
  pieces.forEach((piece, i) => {
    const contour = owners[i]!;
    if (gone.has(contour)) return;
    const middle = piecePoint(piece, 0.5);
    if (piece.bulge < 0 && pieceRadius(piece) < radius - RESOLUTION) {
      // a rounded corner smaller than the cutter, unless it is half a turn and more: then it is a narrow slot's end
      unreached.push({
        kind: distance(piece.a, piece.b) < 1.99 * pieceRadius(piece) ? "corner" : "narrow",
        contour,
        at: middle,
      });
      return;
    }
    if (pieceLength(piece) <= RESOLUTION || (piece.bulge !== 0 && !pieceCentre(piece))) return;
    const cutter = along(middle, leftOf(pieceDirection(piece, 0.5)), -radius);
    if (zone.holds(cutter, RESOLUTION)) unreached.push({ kind: "narrow", contour, at: middle });
  });
  return { runs, unreached, vanished, failed, merged };
};
