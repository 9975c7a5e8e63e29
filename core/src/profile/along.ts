import { enclosedArea } from "../contour/chainMeasure.ts";
import { boxTree } from "../geometry/boxTree.ts";
import { boxesOf } from "../geometry/boxesOf.ts";
import { boundsExtent, boundsOf, boundsSize, unionBounds } from "../geometry/bounds.ts";
import { pieceDirection, pieceLength, piecePoint, sweepOf, type Piece } from "../geometry/piece.ts";
import { along as onward, cross, distance, dot, leftOf, times, type Point } from "../geometry/point.ts";
import { meetings } from "../intersect/meetings.ts";
import { toDegrees } from "../numeric/angle.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import type { Contour } from "./profile.ts";

/** A place along a contour, how far along it lies, and a value there. */
export type AlongPlace = { readonly along: number; readonly at: Point; readonly value: number };

/**
 * The direction along a contour in degrees, running on over whole turns: straight between the places given, on lines
 * and arcs alike; at a joint that turns there are two places at one length. Exact.
 */
export const headingsOf = (pieces: readonly Piece[]): readonly AlongPlace[] => {
  const places: AlongPlace[] = [];
  let [along, heading] = [0, 0];
  pieces.forEach((piece, i) => {
    const start = pieceDirection(piece, 0);
    if (i === 0) heading = Math.atan2(start.y, start.x);
    else {
      const before = pieceDirection(pieces[i - 1]!, 1);
      heading += Math.atan2(cross(before, start), dot(before, start));
    }
    places.push({ along, at: piece.a, value: toDegrees(heading) });
    along += pieceLength(piece);
    heading += sweepOf(piece.bulge);
    places.push({ along, at: piece.b, value: toDegrees(heading) });
  });
  return places;
};

/**
 * How thick the material is across a contour, square to it, at places evenly along it; a place where nothing is met is
 * left out. Each measure is exact; between the places it may be thinner (walls are found by `narrowPlaces`).
 */
export const thicknessAlong = (contours: readonly Contour[], which: number, count = 200): readonly AlongPlace[] => {
  const own = contours[which]!;
  const cut = contours.filter(({ role }) => role !== "mark");
  const pieces = cut.flatMap((contour) => contour.pieces);
  const box = unionBounds(cut.map(({ bounds }) => bounds));
  if (!box || own.role === "mark") return [];
  const tree = boxTree(boxesOf(pieces));
  const reach = 2 * boundsSize(box) + boundsExtent(box) * RESOLUTION;
  const left = enclosedArea(own.pieces) > 0 === (own.role === "outside");
  const lengths = own.pieces.map(pieceLength);
  const whole = lengths.reduce((sum, length) => sum + length, 0);
  const places: AlongPlace[] = [];
  let [i, before] = [0, 0];
  for (let k = 0; k < count; k++) {
    const along = (whole * (k + 0.5)) / count;
    while (i < lengths.length - 1 && before + lengths[i]! < along) before += lengths[i++]!;
    const piece = own.pieces[i]!;
    const t = (along - before) / lengths[i]!;
    const at = piecePoint(piece, t);
    const way = times(leftOf(pieceDirection(piece, t)), left ? 1 : -1);
    const ray: Piece = { a: onward(at, way, 16 * RESOLUTION), b: onward(at, way, reach), bulge: 0 };
    let nearest = Infinity;
    const { minX, minY, maxX, maxY } = boundsOf([ray.a, ray.b]);
    tree.within(minX, minY, maxX, maxY, (j) => {
      for (const met of meetings({ kind: "piece", ...pieces[j]! }, { kind: "piece", ...ray }, RESOLUTION))
        nearest = Math.min(nearest, distance(at, met.kind === "overlap" ? met.from : met.at));
    });
    if (nearest < Infinity) places.push({ along, at, value: nearest });
  }
  return places;
};
