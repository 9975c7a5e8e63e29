import { carrierNearest, type Carrier } from "../geometry/curve.ts";
import { arcBetween, type Piece } from "../geometry/piece.ts";
import { along, cross, distance, dot, leftOf, subtract, unit, type Point } from "../geometry/point.ts";
import { meetCarriers, meetingPoints } from "../intersect/carriers.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { RESOLUTION, residualBound } from "../numeric/tolerance.ts";

/** A circle of the asked radius that touches both: its centre and its two touching points. */
export type TangentCircle = { readonly centre: Point; readonly onA: Point; readonly onB: Point };

const sizeOf = (carrier: Carrier): number => (carrier.kind === "circle" ? carrier.radius : 0);
const largestOf = (carrier: Carrier): number => {
  const p = carrier.kind === "circle" ? carrier.centre : carrier.at;
  return Math.max(Math.abs(p.x), Math.abs(p.y)) + sizeOf(carrier);
};

/** Where the centre of a touching circle may lie, and where the touching point then is. */
type Locus = { readonly on: Carrier; readonly touch: (centre: Point) => Point };

/** The loci of centres of circles of radius `r` that touch `carrier`: two parallels, or two concentric circles. */
const centreLoci = (carrier: Carrier, r: number, bound: number): readonly Locus[] => {
  if (carrier.kind === "line")
    return [1, -1].map((side) => ({
      on: { ...carrier, at: along(carrier.at, leftOf(carrier.direction), side * r) },
      touch: (centre) => carrierNearest(carrier, centre),
    }));
  return [carrier.radius + r, carrier.radius - r]
    .filter((reach) => Math.abs(reach) > bound)
    .map((reach) => ({
      on: { ...carrier, radius: Math.abs(reach) },
      // a larger circle that holds this one touches it on the far side
      touch: (centre) =>
        along(carrier.centre, unit(subtract(centre, carrier.centre))!, Math.sign(reach) * carrier.radius),
    }));
};

const isCentre = (carrier: Carrier, p: Point, bound: number): boolean =>
  carrier.kind === "circle" && distance(carrier.centre, p) <= bound;

/**
 * All circles of radius `r` that touch both carriers, from outside and from inside, in a fixed order: outside (left) of
 * the first before inside (right), the same for the second, then the meetings in order. Each centre is the meeting of
 * two loci: parallels at r to a line, circles of R + r and |R - r| about a circle's centre.
 *
 * Between parallel lines or concentric circles exactly 2 r apart the circle fits anywhere: then the one with its centre
 * nearest to `near` is given. None: the refusal names the nearest radius that works, found exactly (`limit`), or says
 * that none does. Touching loci give one circle: the limit itself works. Residual: the bound of the contracts. Source:
 * loci of centres, Euclid III.11, III.12.
 */
export const tangentCircles = (a: Carrier, b: Carrier, r: number, near?: Point): Outcome<readonly TangentCircle[]> => {
  if (!(r > 0) || !Number.isFinite(r)) return refuse("value-not-positive", { what: "The radius" });
  const bound = residualBound(Math.max(r, sizeOf(a), sizeOf(b)), Math.max(largestOf(a), largestOf(b), r));
  if (meetCarriers(a, b, bound).kind === "same") return refuse("curves-same");
  const found: TangentCircle[] = [];
  for (const locusA of centreLoci(a, r, bound)) {
    for (const locusB of centreLoci(b, r, bound)) {
      const meeting = meetCarriers(locusA.on, locusB.on, bound);
      const anywhere = meeting.kind === "same" && near ? [carrierNearest(locusA.on, near)] : [];
      for (const centre of [...meetingPoints(meeting), ...anywhere]) {
        if (isCentre(a, centre, bound) || isCentre(b, centre, bound)) continue;
        if (found.some((other) => distance(other.centre, centre) <= bound)) continue;
        found.push({ centre, onA: locusA.touch(centre), onB: locusB.touch(centre) });
      }
    }
  }
  if (found.length > 0) return done(found);
  const limit = nearestWorkingRadius(a, b, r);
  if (limit === undefined) return refuse("no-tangent");
  if (a.kind === "line" && b.kind === "line") return refuse("radius-no-fit", { typed: r, limit });
  return refuse(limit > r ? "radius-too-small" : "radius-too-large", { typed: r, limit });
};

/**
 * The radius nearest to `r` for which a circle touches both. At such a limit the two loci just touch, which is linear
 * in the radius: |ρ₁ ± ρ₂| = d with ρ = |R ± r| (circles), |distance ± r| = ρ (line and circle), 2 r = gap (parallel
 * lines).
 */
const nearestWorkingRadius = (a: Carrier, b: Carrier, r: number): number | undefined => {
  const candidates: number[] = [];
  if (a.kind === "line" && b.kind === "line") {
    // crossing lines take any radius, so these are parallel
    return Math.abs(dot(subtract(b.at, a.at), leftOf(a.direction))) / 2;
  } else {
    const [reachA, reachB, d] =
      a.kind === "circle" && b.kind === "circle"
        ? [a.radius, b.radius, distance(a.centre, b.centre)]
        : [0, a.kind === "circle" ? a.radius : b.kind === "circle" ? b.radius : 0, lineToCentre(a, b)];
    for (const s of [1, -1])
      for (const t of [1, -1]) for (const u of [1, -1]) candidates.push((u * d - s * reachA - t * reachB) / 2);
  }
  const works = candidates
    .map(Math.abs)
    .filter((candidate) => candidate > RESOLUTION && canTouch(a, b, candidate))
    .sort((p, q) => Math.abs(p - r) - Math.abs(q - r));
  return works[0];
};

const lineToCentre = (a: Carrier, b: Carrier): number => {
  const [straight, round] = a.kind === "line" ? [a, b] : [b, a];
  if (straight.kind !== "line" || round.kind !== "circle") return 0;
  return Math.abs(cross(straight.direction, subtract(round.centre, straight.at)));
};

const canTouch = (a: Carrier, b: Carrier, r: number): boolean => {
  const bound = residualBound(Math.max(r, sizeOf(a), sizeOf(b)), Math.max(largestOf(a), largestOf(b), r));
  return centreLoci(a, r, bound).some((locusA) =>
    centreLoci(b, r, bound).some((locusB) => {
      const points = meetingPoints(meetCarriers(locusA.on, locusB.on, bound));
      return points.some((centre) => !isCentre(a, centre, bound) && !isCentre(b, centre, bound));
    }),
  );
};

/**
 * The arcs of a tangent circle between its touching points, from the first carrier to the second: the short one, then
 * the long one. Touching points that coincide give none.
 */
export const arcsOfTangentCircle = ({ centre, onA, onB }: TangentCircle): readonly Piece[] => {
  if (distance(onA, onB) <= RESOLUTION) return [];
  return [true, false]
    .map((way) => arcBetween(onA, onB, centre, way))
    .sort((p, q) => Math.abs(p.bulge) - Math.abs(q.bulge));
};

/**
 * Tangent arcs in the order in which a drafter wants them: short arcs before long ones, and among each the nearest
 * touching points to where the two curves were picked first.
 */
export const arcsByPicks = (circles: readonly TangentCircle[], pickA: Point, pickB: Point): readonly Piece[] => {
  const near = [...circles].sort(
    (p, q) => distance(p.onA, pickA) + distance(p.onB, pickB) - distance(q.onA, pickA) - distance(q.onB, pickB),
  );
  const arcs = near.map(arcsOfTangentCircle);
  return [0, 1].flatMap((which) => arcs.flatMap((pair) => pair.slice(which, which + 1)));
};
