import { bulgeOf, type Piece } from "../geometry/piece.ts";
import { distance } from "../geometry/point.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";

/**
 * The bulge of a round piece with its ends kept and its radius changed; the same side, the same way round. A radius
 * under half the chord is a refusal that names it. Source: half the chord is the radius times the sine of half the
 * sweep.
 */
export const bulgeForRadius = (piece: Piece, radius: number): Outcome<number> => {
  const half = distance(piece.a, piece.b) / 2;
  if (radius < half - RESOLUTION) return refuse("radius-too-small", { typed: radius, limit: half });
  const sine = Math.min(1, half / radius);
  const minor = 2 * Math.asin(sine);
  const sweep = Math.abs(piece.bulge) <= 1 ? minor : 2 * Math.PI - minor;
  return done(Math.sign(piece.bulge) * bulgeOf(sweep));
};
