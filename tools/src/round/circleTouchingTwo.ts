import { exampleLine } from "../example/exampleShapes.ts";
import { tangentCircles, tangentCirclesSmooth } from "@ash-edge/core/construct";
import { carrierOf, midpoint, isSmooth, distance, type Curve, type Point } from "@ash-edge/core/geometry";
import { done, refuse } from "@ash-edge/core/numeric";
import { linkCallout } from "../linking.ts";
import { pickedCurve, makingWay } from "../making.ts";
import { nothing, refused, type Tool } from "../tool.ts";
import { WHERE_TOUCHED, canTouch } from "../touching.ts";
import { RING } from "./roundProposals.ts";

/** Circles of a radius that touch two curves, the nearest to the picks first; arcs only where they really are. */
export const touchingTwo = (
  a: Curve,
  b: Curve,
  radius: number,
  pickA: Point,
  pickB: Point,
): ReturnType<typeof tangentCircles> => {
  const [onA, onB] = [carrierOf(a), carrierOf(b)];
  if (onA && onB) return tangentCircles(onA, onB, radius, midpoint(pickA, pickB));
  if (isSmooth(a)) return tangentCirclesSmooth(a, b, radius);
  const turned = tangentCirclesSmooth(b as Extract<Curve, { kind: "ellipse" | "free" }>, a, radius);
  return turned.ok ? done(turned.value.map(({ centre, onA: p, onB: q }) => ({ centre, onA: q, onB: p }))) : turned;
};

export const circleTouchingTwo: Tool = {
  kind: "tool",
  id: "circle-touching-two",
  name: "Circle touching two",
  help:
    "Pick two of line, circle, arc and ellipse, each near where the circle should touch, with R or Ø typed. Space " +
    "shows the next: outside or inside.",
  drawing: [RING, "M2 20 L22 20 M20 2 L20 22"],
  example: {
    cut: [exampleLine([0, 0], [80, 0]), exampleLine([0, 0], [50, 50])],
    typed: { size: "15r" },
    clicks: [
      [40, 0],
      [30, 30],
    ],
  },
  parts: [
    { kind: "words", text: "touching" },
    { kind: "pick", name: "one", label: "curve", takes: "curve" },
    { kind: "words", text: "and" },
    { kind: "pick", name: "other", label: "other curve", takes: "curve" },
    { kind: "words", text: "with" },
    { kind: "size", name: "size", first: "R" },
    { kind: "words", text: "·" },
    WHERE_TOUCHED,
  ],
  propose: (given, { drawing, layer }) => {
    const { one, other } = given.picks;
    const [a, b] = [pickedCurve(drawing, one), pickedCurve(drawing, other)];
    if (!a || !b || !one || !other || !given.isFirm("one")) return nothing;
    const radius = given.radius("size");
    if (radius === undefined)
      return given.isFirm("other") ? refused(refuse("value-empty")) : { ways: [], note: "Type R or Ø" };
    const found = touchingTwo(a, b, radius, one.at, other.at);
    if (!found.ok) return refused(found);
    const miss = ({ onA, onB }: { onA: Point; onB: Point }): number => distance(onA, one.at) + distance(onB, other.at);
    const touches = canTouch(given);
    const real = found.value.filter(({ onA, onB }) => touches(a, onA) && touches(b, onB));
    if (real.length === 0) return refused(refuse("touch-beyond-end"));
    return {
      ways: [...real]
        .sort((p, q) => miss(p) - miss(q))
        .map(({ centre }) =>
          makingWay(circleTouchingTwo, drawing, layer, [{ kind: "circle", centre, radius }], (draft, [id]) =>
            linkCallout(draft, given.callout("size"), [{ id: id! }]),
          ),
        ),
    };
  },
};
