import Flatbush from "flatbush";
import { windingNumber } from "../contour/winding.ts";
import { growBounds } from "../geometry/bounds.ts";
import { pieceBounds, pieceDirection, pieceNearest, piecePoint, piecesBounds, type Piece } from "../geometry/piece.ts";
import { along, distance, leftOf, type Point } from "../geometry/point.ts";
import { meetings } from "../intersect/meetings.ts";

/** Answers how far a place lies from the nearest of some pieces, by looking at all that can be nearest. */
export const distanceTo = (pieces: readonly Piece[]): ((p: Point) => number) => {
  const index = new Flatbush(pieces.length);
  const boxes = pieces.map(pieceBounds);
  for (const { minX, minY, maxX, maxY } of boxes) index.add(minX, minY, maxX, maxY);
  index.finish();
  return ({ x, y }) => {
    // boxes come nearest first; one farther away than what was found ends the search
    let best = Infinity;
    for (let count = 8; ; count *= 4) {
      const near = index.neighbors(x, y, count);
      for (const i of near) best = Math.min(best, pieceNearest(pieces[i]!, { x, y }).distance);
      const last = near.at(-1);
      if (near.length < count || last === undefined) return best;
      const { minX, minY, maxX, maxY } = boxes[last]!;
      const away = Math.hypot(Math.max(minX - x, 0, x - maxX), Math.max(minY - y, 0, y - maxY));
      if (away >= best) return best;
    }
  };
};

/** The worst difference from `by` of the distance to the source, over places along the result. */
export const distanceError = (
  result: readonly (readonly Piece[])[],
  away: (p: Point) => number,
  by: number,
  samples = 5,
): number => {
  let worst = 0;
  for (const piece of result.flat())
    for (let i = 0; i <= samples; i++) worst = Math.max(worst, Math.abs(away(piecePoint(piece, i / samples)) - by));
  return worst;
};

/**
 * Places where contours cross themselves or one another by more than two resolutions, or lie on one another; ends that
 * several share are none, nor crossings within ten resolutions of an end of both, where something is as thin as that.
 */
export const crossingsOf = (contours: readonly (readonly Piece[])[], resolution = 1e-7): number => {
  const pieces = contours.flat();
  const boxes = pieces.map(pieceBounds);
  if (pieces.length === 0) return 0;
  const index = new Flatbush(pieces.length);
  for (const { minX, minY, maxX, maxY } of boxes) index.add(minX, minY, maxX, maxY);
  index.finish();
  const nearEnd = ({ a, b }: Piece, p: Point): boolean => Math.min(distance(a, p), distance(b, p)) < 10 * resolution;
  let count = 0;
  pieces.forEach((piece, i) => {
    const { minX, minY, maxX, maxY } = growBounds(boxes[i]!, resolution);
    for (const j of index.search(minX, minY, maxX, maxY)) {
      if (j <= i) continue;
      const other = pieces[j]!;
      const [p, q] = [{ kind: "piece", ...piece } as const, { kind: "piece", ...other } as const];
      if (!meetings(p, q, 2 * resolution).some(({ kind }) => kind === "crossing" || kind === "overlap")) continue;
      for (const meeting of meetings(p, q, resolution))
        if (
          meeting.kind === "overlap" ||
          (meeting.kind === "crossing" && !(nearEnd(piece, meeting.at) && nearEnd(other, meeting.at)))
        )
          count += 1;
    }
  });
  return count;
};

/** Places at random round some pieces. */
export const placesRound = (around: readonly Piece[], count: number, random: () => number): readonly Point[] => {
  const { minX, minY, maxX, maxY } = growBounds(piecesBounds(around)!, 1);
  return Array.from({ length: count }, () => ({
    x: minX + (maxX - minX) * random(),
    y: minY + (maxY - minY) * random(),
  }));
};

/** Places at random about so far to the left of pieces, a little less or more: where something small may be left. */
export const placesBeside = (
  pieces: readonly Piece[],
  by: number,
  count: number,
  random: () => number,
): readonly Point[] =>
  Array.from({ length: count }, () => {
    const piece = pieces[Math.floor(random() * pieces.length)]!;
    const part = random();
    const away = by * (1 + 0.2 * random() ** 3 * (random() < 0.3 ? -1 : 1));
    return along(piecePoint(piece, part), leftOf(pieceDirection(piece, part)), away);
  });

/** Of some places how many a claim about "inside" gets wrong; those of which it says nothing are not asked. */
export const wrongPlaces = (
  contours: readonly (readonly Piece[])[],
  inside: (p: Point) => boolean | undefined,
  places: readonly Point[],
): number => {
  let wrong = 0;
  for (const p of places) {
    const claimed = inside(p);
    if (claimed === undefined) continue;
    const winding = contours.reduce((sum, pieces) => sum + windingNumber(pieces, p), 0);
    if ((winding !== 0) !== claimed) wrong += 1;
  }
  return wrong;
};

/** True where each piece starts, as numbers, where the one before ends. */
export const isWelded = (contour: readonly Piece[]): boolean =>
  contour.every(({ a }, i) => distance(contour.at(i - 1)!.b, a) === 0);
