import { curvesOf, entitiesOf, isLayout, type Drawing } from "@ash-edge/core/drawing";
import { carrierOf, distance, type Carrier, type Point } from "@ash-edge/core/geometry";
import type { Scenario, WorkedStep } from "./scenario.ts";

/** The numbers of the rocker plate, in inches: its bosses' centres and radii, its belly, its holes. */
export const ROCKER = {
  centres: 6.625,
  big: 1.125,
  small: 0.75,
  belly: 14,
  bigHole: 1.1875,
  smallHole: 0.625,
  tapped: 2.5,
} as const;
const { centres, big, small, belly, bigHole, smallHole, tapped } = ROCKER;
const LEFT: Point = { x: 0, y: 0 };
const RIGHT: Point = { x: centres, y: 0 };

/** Made by exact tools, so as good as equal. */
const isNear = (a: number, b: number): boolean => Math.abs(a - b) < 1e-6;
const isAt = (p: Point, q: Point): boolean => distance(p, q) < 1e-6;

type Found = { readonly carrier: Carrier; readonly kind: string; readonly isLayout: boolean };
const carriers = function* (drawing: Drawing): Generator<Found> {
  for (const entity of entitiesOf(drawing))
    for (const { curve } of curvesOf(entity)) {
      const carrier = carrierOf(curve);
      if (carrier) yield { carrier, kind: curve.kind, isLayout: isLayout(drawing, entity) };
    }
};
const has = (drawing: Drawing, is: (found: Found) => boolean): boolean => {
  for (const found of carriers(drawing)) if (is(found)) return true;
  return false;
};
/** A circle, or what is left of one, about a centre. */
const isRound = ({ carrier, kind, isLayout }: Found, at: Point, radius: number, left: string): boolean =>
  !isLayout && kind === left && carrier.kind === "circle" && isAt(carrier.centre, at) && isNear(carrier.radius, radius);
const circle =
  (at: Point, radius: number) =>
  (drawing: Drawing): boolean =>
    has(drawing, (found) => isRound(found, at, radius, "circle"));
/** Of the circle an arc is left, and no circle. */
const cutBack =
  (at: Point, radius: number) =>
  (drawing: Drawing): boolean =>
    !circle(at, radius)(drawing) && has(drawing, (found) => isRound(found, at, radius, "piece"));
const upright =
  (x: number) =>
  (drawing: Drawing): boolean =>
    has(drawing, ({ carrier, isLayout }) => {
      if (!isLayout || carrier.kind !== "line") return false;
      return isNear(carrier.direction.x, 0) && isNear(carrier.at.x, x);
    });
const tangentLine = (drawing: Drawing): boolean =>
  has(drawing, ({ carrier, kind, isLayout }) => {
    if (isLayout || kind !== "piece" || carrier.kind !== "line") return false;
    const { at, direction } = carrier;
    const off = (p: Point): number => direction.x * (p.y - at.y) - direction.y * (p.x - at.x);
    const above = at.y + (direction.y / direction.x) * -at.x > 0;
    return above && isNear(Math.abs(off(LEFT)), big) && isNear(Math.abs(off(RIGHT)), small);
  });
const bellyArc = (drawing: Drawing): boolean =>
  has(
    drawing,
    ({ carrier, kind }) =>
      kind === "piece" && carrier.kind === "circle" && isNear(carrier.radius, belly) && carrier.centre.y > 0,
  );
/** One closed outline of the tangent line, the belly and what is left of the bosses. */
const outline = (drawing: Drawing): boolean => {
  for (const entity of entitiesOf(drawing)) {
    if (entity.kind !== "chain" || !entity.closed) continue;
    const radii = curvesOf(entity).flatMap(({ curve }) => {
      const carrier = carrierOf(curve);
      return carrier?.kind === "circle" ? [carrier.radius] : [];
    });
    if (entity.vertices.length === 4 && [big, small, belly].every((one) => radii.some((r) => isNear(r, one))))
      return true;
  }
  return false;
};
const tappedHole = (drawing: Drawing): boolean =>
  has(drawing, ({ carrier, kind, isLayout }) => {
    if (isLayout || kind !== "circle" || carrier.kind !== "circle") return false;
    return isAt(carrier.centre, { x: tapped, y: 0 }) && carrier.radius < 3 / 16;
  });
const isCleared = (drawing: Drawing): boolean => {
  for (const entity of entitiesOf(drawing)) if (isLayout(drawing, entity)) return false;
  return true;
};

const at = (centre: Point, radius: number, degrees: number): Point => ({
  x: centre.x + radius * Math.cos((degrees * Math.PI) / 180),
  y: centre.y + radius * Math.sin((degrees * Math.PI) / 180),
});
const called = (kind: string, name: string) => ({ callout: { kind, name } }) as const;

/** Takes what the steps after it are done with. */
const taking = (say: string, take: string): WorkedStep => ({ say, take, gestures: [] });

const STEPS: readonly WorkedStep[] = [
  taking("First the layout, everything hangs on it. Press {keys} one after the other: Parallel.", "parallel"),
  {
    say: "Click 6 5/8 in the ledger: it goes into the lit blank. Then the upright line, and to the right of it.",
    take: "parallel",
    gestures: [called("centres", "boss centres"), { click: { x: 0, y: 2 } }, { click: { x: 2, y: 1 } }],
    isMade: upright(centres),
  },
  {
    say: "The same for the tapped hole: 2 1/2 in the ledger, the upright line through the datum, to the right of it.",
    take: "parallel",
    gestures: [called("length", "tapped hole"), { click: { x: 0, y: 2 } }, { click: { x: 2, y: 1 } }],
    isMade: upright(tapped),
  },
  taking("Now circles on the crossings. Press {keys}: Circle.", "circle"),
  {
    say: "Click Ø 2 1/4 in the ledger, then the crossing on the left: the big boss.",
    take: "circle",
    gestures: [called("diameter", "big boss"), { click: LEFT }],
    isMade: circle(LEFT, big),
  },
  {
    say: "A number can be typed as well: 1-3/16d, the d says diameter. Then the same crossing: its hole.",
    take: "circle",
    gestures: [{ type: "1-3/16d", value: bigHole }, { click: LEFT }],
    isMade: circle(LEFT, bigHole / 2),
  },
  {
    say: "Click Ø 1 1/2, then the crossing on the right: the small boss.",
    take: "circle",
    gestures: [called("diameter", "small boss"), { click: RIGHT }],
    isMade: circle(RIGHT, small),
  },
  {
    say: "Type 5/8d, then the same crossing: its hole.",
    take: "circle",
    gestures: [{ type: "5/8d", value: smallHole }, { click: RIGHT }],
    isMade: circle(RIGHT, smallHole / 2),
  },
  taking("The tapped hole knows its drill from its thread. Press {keys}: Tapped hole.", "tapped-hole"),
  {
    say: "Click 3/8-16 in the ledger, then the crossing between the bosses.",
    take: "tapped-hole",
    gestures: [called("thread", "tapped hole"), { click: { x: tapped, y: 0 } }],
    isMade: tappedHole,
  },
  taking("The upper edge touches both bosses. Press {keys}: Tangent line.", "tangent-line"),
  {
    say: "Click the big boss near its top, then the small one near its top: the line touches where you clicked.",
    take: "tangent-line",
    gestures: [{ click: at(LEFT, big, 70) }, { click: at(RIGHT, small, 70) }],
    isMade: tangentLine,
  },
  taking("The belly touches both from below. Press {keys}: Tangent arc.", "tangent-arc"),
  {
    say: "Click R 14 in the ledger, then both bosses near the bottom. It is drawn before you click: look first.",
    take: "tangent-arc",
    gestures: [called("radius", "belly"), { click: at(LEFT, big, 255) }, { click: at(RIGHT, small, 290) }],
    isMade: bellyArc,
  },
  {
    say: "The layout has done its work. Press {keys}: it is cleared.",
    take: "clear-layout",
    gestures: [],
    isMade: isCleared,
  },
  taking("What is too much of the bosses goes. Press {keys}: Trim.", "trim"),
  {
    say: "Click the big boss on its right, inside the plate: what would go is shown first.",
    take: "trim",
    gestures: [{ click: at(LEFT, big, 23) }],
    isMade: cutBack(LEFT, big),
  },
  {
    say: "Click the small boss on its left, inside the plate.",
    take: "trim",
    gestures: [{ click: at(RIGHT, small, 157) }],
    isMade: cutBack(RIGHT, small),
  },
  taking("Four pieces meet now. Press {keys}: Join.", "join"),
  {
    say: "Press Enter: they become one closed contour.",
    take: "join",
    gestures: [{ enter: true }],
    isMade: outline,
  },
];

/** The rocker plate from its layout lines to one contour with three holes: about twenty steps. */
export const ROCKER_PLATE: Scenario = {
  steps: STEPS,
  isWhole: (drawing) =>
    outline(drawing) &&
    circle(LEFT, bigHole / 2)(drawing) &&
    circle(RIGHT, smallHole / 2)(drawing) &&
    tappedHole(drawing),
};
