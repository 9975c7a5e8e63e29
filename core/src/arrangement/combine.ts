import { enclosedArea } from "../contour/chainMeasure.ts";
import { withMaterialLeft } from "../contour/materialLeft.ts";
import { pieceLength, type Piece } from "../geometry/piece.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { SAME_SIZE } from "../numeric/tolerance.ts";
import { arrange, type Arrangement, type Owned } from "./arrange.ts";
import { outlineOf, type Outline } from "./outline.ts";

export const COMBINATIONS = ["unite", "take-away", "common"] as const;
export type Combination = (typeof COMBINATIONS)[number];

/** An area: closed contours with their holes, whatever way they turn. */
export type Area = readonly (readonly Piece[])[];

/**
 * Edges that lie nearly on one another, just told apart, can cross so flatly that no order of them is certain. What
 * does not add up is done again with places told apart so many times as coarsely, so that they are one.
 */
const COARSER = [1, 8, 64] as const;

/**
 * Areas united, the others taken away from the first, or what all have in common: contours of lines and arcs, arcs kept
 * as they are, shared edges and touching places right. Nothing left: an empty list. The faces of each area must add up
 * to it, and what comes out to the faces taken; else it is refused, never silently less.
 */
export const combine = (areas: readonly Area[], how: Combination): Outcome<readonly Outline[]> => {
  const sided = areas.map(withMaterialLeft);
  const pieces = sided.flatMap((area, owner) =>
    area.flatMap((contour) => contour.map(({ a, b, bulge }): Owned => ({ a, b, bulge, owner }))),
  );
  const within = (winding: ReadonlyMap<number, number>): boolean => {
    const holding = [...winding].filter(([, times]) => times > 0).map(([owner]) => owner);
    if (how === "unite") return holding.length > 0;
    return how === "common" ? holding.length === areas.length : holding.length === 1 && holding[0] === 0;
  };
  for (const coarser of COARSER) {
    const arrangement = arrange(pieces, coarser);
    if (!addsUp(arrangement, sided)) continue;
    const faces = arrangement.windings.map(within);
    const outlines = outlineOf(arrangement, (face) => faces[face]!);
    if (isWhole(arrangement, faces, outlines)) return done(outlines);
  }
  return refuse("areas-uncertain");
};

/** What an edge of a length may be moved by adds so much to an area. */
const slackOf = (length: number, area: number, resolution: number): number =>
  4 * resolution * length + SAME_SIZE * Math.abs(area);

const lengthOf = (pieces: readonly Piece[]): number => pieces.reduce((sum, piece) => sum + pieceLength(piece), 0);

/** True where the faces of each operand add up to it: what it winds round is what it is. */
const addsUp = ({ windings, areaOf, resolution }: Arrangement, areas: readonly Area[]): boolean => {
  const found = areas.map(() => 0);
  windings.forEach((winding, face) => {
    if (face === 0 || winding.size === 0) return;
    const area = areaOf(face);
    for (const [owner, times] of winding) found[owner]! += times * area;
  });
  return areas.every((contours, owner) => {
    const area = contours.reduce((sum, pieces) => sum + enclosedArea(pieces), 0);
    const length = contours.reduce((sum, pieces) => sum + lengthOf(pieces), 0);
    return Math.abs(found[owner]! - area) <= slackOf(length, area, resolution);
  });
};

/** True where the outlines that come out hold what the faces taken do: none was lost for not closing. */
const isWhole = (
  { areaOf, resolution }: Arrangement,
  taken: readonly boolean[],
  outlines: readonly Outline[],
): boolean => {
  const faces = taken.reduce((sum, one, face) => (one ? sum + areaOf(face) : sum), 0);
  const came = outlines.reduce((sum, { pieces }) => sum + enclosedArea(pieces), 0);
  const length = outlines.reduce((sum, { pieces }) => sum + lengthOf(pieces), 0);
  return Math.abs(faces - came) <= slackOf(length, faces, resolution);
};
