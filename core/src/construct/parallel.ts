import { carrierOf, curveNearest, type Curve } from "../geometry/curve.ts";
import { endlessDirection, endlessSide } from "../geometry/endless.ts";
import { along, angleOf, distance, leftOf, type Point } from "../geometry/point.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";

/**
 * The layout curves parallel to `of` at 1, 2, … `count` times `by`, on the side of `side`: endless lines for something
 * straight, circles for something round. `by` is a length above zero; a circle that would shrink to nothing is a
 * refusal that names the largest distance.
 *
 * Source: parallels by the unit normal; derived here. Exact for level and upright lines.
 */
export const parallelsOf = (of: Curve, side: Point, by: number, count: number): Outcome<readonly Curve[]> => {
  const carrier = carrierOf(of);
  if (!carrier) return refuse("cannot-parallel");
  const steps = Array.from({ length: count }, (_, i) => (i + 1) * by);
  if (carrier.kind === "line") {
    const angle = of.kind === "endless" ? of.angle : angleOf(carrier.direction);
    const base = { through: carrier.at, angle };
    const normal = leftOf(endlessDirection(base));
    const sign = endlessSide(base, side) < 0 ? -1 : 1;
    return done(steps.map((step) => ({ kind: "endless", through: along(carrier.at, normal, sign * step), angle })));
  }
  const outwards = distance(side, carrier.centre) >= carrier.radius;
  const radii = steps.map((step) => (outwards ? carrier.radius + step : carrier.radius - step));
  if (radii.some((radius) => radius <= RESOLUTION))
    return refuse("parallel-shrinks-away", { limit: carrier.radius / count });
  return done(radii.map((radius) => ({ kind: "circle", centre: carrier.centre, radius })));
};

/** How far `p` is from the carrier of `of`: the distance that a parallel through `p` has. */
export const distanceFrom = (of: Curve, p: Point): number => {
  const carrier = carrierOf(of);
  if (!carrier) return curveNearest(of, p).distance;
  if (carrier.kind === "circle") return Math.abs(distance(p, carrier.centre) - carrier.radius);
  return Math.abs(endlessSide({ through: carrier.at, angle: angleOf(carrier.direction) }, p));
};
