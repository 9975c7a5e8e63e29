import { carrierNearest, type Carrier } from "../../geometry/curve.ts";
import { distance, dot, subtract, type Point } from "../../geometry/point.ts";
import { TURN } from "../../numeric/angle.ts";
import { arcsTouch, lineTouches } from "../../fit/measured/equations.ts";
import { jointOf } from "../../fit/measured/joints.ts";
import { momentsOf } from "../../fit/measured/moments.ts";
import { placesOf } from "../../fit/measured/problem.ts";
import { solved, type Touches } from "../../fit/measured/solve.ts";
import type { Drawn } from "./explained.ts";
import { standingFor } from "./inOrder.ts";
import type { Joint } from "./jointsOf.ts";
import type { Shape } from "./shapes.ts";
import { intoFrame, outOfFrame, type Frame } from "./strokes.ts";

/** What a hypothesis may cost: a drawing says less than measured points, but that what meets smoothly is to touch. */
const RISES = { touching: 4000, other: 6 };
/**
 * Where carriers meet, or touch, farther than so many strokes from where the ink does, the ends stay as they were
 * found: where two touch says little along them.
 */
const [FAR, TOUCHES_FAR] = [6, 25];

/**
 * Shapes of an outline moved the least so that what meets smoothly touches, what is nearly level or upright is, and
 * like centres and radii are one, each where the ink allows it; their ends where they meet.
 */
export const solvedPieces = (drawn: readonly Drawn[], joints: readonly Joint[], frame: Frame): readonly Shape[] => {
  if (drawn.length === 0) return [];
  const runs = drawn.map((one) => standingFor(frame, one).map((p) => intoFrame(frame, p)));
  const points = runs.flat();
  let from = 0;
  const segments = drawn.map(({ shape }, i) => {
    const kind = shape.kind === "piece" && shape.bulge === 0 ? ("line" as const) : ("arc" as const);
    const own = { from, to: from + runs[i]!.length, kind };
    from = own.to;
    return own;
  });
  const counts = new Uint8Array(points.length).fill(1);
  const weights = drawn.map(({ stroke }, i) => stroke.sums[0]! / runs[i]!.length / frame.varianceFor(stroke.length));
  const touches: Touches = (_, __, p) => {
    const at = placesOf(segments);
    return joints
      .filter(({ tangent }) => tangent)
      .flatMap(({ one, other, at: place }) => {
        const [i, j] = segments[one]!.kind === "line" ? [one, other] : [other, one];
        if (segments[j]!.kind === "line") return [];
        if (segments[i]!.kind === "line") return [[lineTouches(at[i]!, at[j]!, p)]];
        const middle = intoFrame(frame, place);
        const centre = (k: number): Point => ({ x: p[at[k]!]!, y: p[at[k]! + 1]! });
        const inside = dot(subtract(centre(i), middle), subtract(centre(j), middle)) > 0;
        return [[arcsTouch(at[i]!, at[j]!, inside, p)]];
      });
  };
  const moments = momentsOf(points, counts);
  const problem = { points, counts, moments, segments, closed: false, weightOf: (i: number) => weights[i]! };
  return withEnds(drawn, joints, solved(problem, touches, RISES).carriers, frame);
};

const outside = (frame: Frame, carrier: Carrier): Carrier =>
  carrier.kind === "circle"
    ? { kind: "circle", centre: outOfFrame(frame, carrier.centre), radius: carrier.radius * frame.size }
    : { ...carrier, at: outOfFrame(frame, carrier.at) };

const withEnds = (
  drawn: readonly Drawn[],
  joints: readonly Joint[],
  found: readonly Carrier[],
  frame: Frame,
): readonly Shape[] => {
  const carriers = found.map((one) => outside(frame, one));
  const ends = drawn.map(({ shape }, i) =>
    shape.kind === "circle"
      ? undefined
      : { a: carrierNearest(carriers[i]!, shape.a), b: carrierNearest(carriers[i]!, shape.b) },
  );
  for (const { one, end, other, into, at, tangent } of joints) {
    // what touches is told in the frame, where lengths are about 1
    const meets = outOfFrame(frame, jointOf(found[one]!, found[other]!, intoFrame(frame, at)));
    if (distance(meets, at) > (tangent ? TOUCHES_FAR : FAR) * frame.stroke) continue;
    ends[one]![end] = meets;
    if (into) ends[other]![into] = meets;
  }
  return drawn.map(({ shape }, i): Shape => {
    const carrier = carriers[i]!;
    if (shape.kind === "circle" && carrier.kind === "circle") return carrier;
    if (shape.kind === "circle") return shape;
    const { a, b } = ends[i]!;
    if (carrier.kind === "line") return { kind: "piece", a, b, bulge: 0 };
    const angle = (p: Point): number => Math.atan2(p.y - carrier.centre.y, p.x - carrier.centre.x);
    const sweep = (((angle(b) - angle(a)) % TURN) + TURN) % TURN;
    return { kind: "piece", a, b, bulge: Math.tan(sweep / 4) };
  });
};
