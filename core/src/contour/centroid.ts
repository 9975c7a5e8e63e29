import { ROUNDING } from "../numeric/tolerance.ts";
import { segmentArea, sweepOf, type Piece } from "../geometry/piece.ts";
import { add, cross, distance, leftOf, subtract, times, unit, type Point } from "../geometry/point.ts";

/**
 * The centre of area of what closed `pieces` enclose; undefined where they enclose nothing. The polygon of chords by
 * triangles about a point of the contour, and each circular segment by its own moment about its chord. Error: about
 * 1e-11 of the size.
 *
 * Source: centroid of a polygon and of a circular segment (Machinery's Handbook); for flat arcs the moment's own
 * series.
 */
export const centroidOf = (pieces: readonly Piece[]): Point | undefined => {
  const origin = pieces[0]?.a;
  if (!origin) return undefined;
  let [area, x, y] = [0, 0, 0];
  for (const piece of pieces) {
    const [p, q] = [subtract(piece.a, origin), subtract(piece.b, origin)];
    const triangle = cross(p, q) / 2;
    area += triangle;
    x += (triangle * (p.x + q.x)) / 3;
    y += (triangle * (p.y + q.y)) / 3;
    if (piece.bulge === 0) continue;
    const segment = segmentArea(piece);
    if (segment === 0) continue;
    // the segment's centre stands over the middle of the chord, on the right of a to b where the bulge is positive
    const out = times(leftOf(unit(subtract(q, p)) ?? { x: 0, y: 0 }), -Math.sign(piece.bulge));
    const height = Math.abs(segmentMoment(piece) / segment);
    const centre = add(times(add(p, q), 0.5), times(out, height));
    area += segment;
    x += segment * centre.x;
    y += segment * centre.y;
  }
  const size = pieces.reduce((most, piece) => Math.max(most, distance(piece.a, origin)), 0);
  if (!(Math.abs(area) > ROUNDING * size * size)) return undefined;
  return { x: origin.x + x / area, y: origin.y + y / area };
};

/** The moment of a circular segment about its chord, without sign; its series in the half sweep below 0.05. */
const segmentMoment = ({ a, b, bulge }: Piece): number => {
  const half = Math.abs(sweepOf(bulge)) / 2;
  const chord = distance(a, b);
  if (half < 0.05) return chord ** 3 * half * half * (1 / 60 + (half * half) / 252);
  const radius = chord / (2 * Math.sin(half));
  return radius ** 3 * ((2 / 3) * Math.sin(half) ** 3 - Math.cos(half) * (half - Math.sin(half) * Math.cos(half)));
};
