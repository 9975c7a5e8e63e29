import {
  roundTangentsAtAngle,
  tangentLinesFromPoint,
  tangentLinesOfCircles,
  tangentLinesOfRound,
  type Round,
  type TangentLine,
} from "@ash-edge/core/construct";
import type { Drawing } from "@ash-edge/core/drawing";
import { along, carrierOf, curveNearest, directionAt, distance, type Point } from "@ash-edge/core/geometry";
import { refuse, RESOLUTION, toDegrees, toRadians, unitAt, type Outcome } from "@ash-edge/core/numeric";
import { lineEnd } from "./line.ts";
import { linkCallout } from "./linking.ts";
import { makingWay, pickedCurve, pieceShape } from "./making.ts";
import { nothing, refused, type Given, type Picked, type Proposal, type Tool } from "./tool.ts";
import { canTouch, WHERE_TOUCHED } from "./touching.ts";

/** What a line is to touch, or the bare point that it runs through; undefined for something straight. */
const roundOf = (drawing: Drawing, picked: Picked): Round | undefined => {
  const curve = pickedCurve(drawing, picked);
  if (!curve) return { kind: "point", at: picked.at };
  if (curve.kind === "ellipse") return curve;
  const carrier = carrierOf(curve);
  return carrier?.kind === "circle" ? carrier : undefined;
};

const solutions = (a: Round | undefined, b: Round | undefined): Outcome<readonly TangentLine[]> => {
  if (!a || !b || (a.kind === "point" && b.kind === "point")) return refuse("not-a-curve");
  if (a.kind === "ellipse" || b.kind === "ellipse") return tangentLinesOfRound(a, b);
  if (a.kind === "circle" && b.kind === "circle") return tangentLinesOfCircles(a, b);
  if (a.kind === "point" && b.kind === "circle") return tangentLinesFromPoint(a.at, b);
  if (a.kind !== "circle" || b.kind !== "point") return refuse("not-a-curve");
  const back = tangentLinesFromPoint(b.at, a);
  return back.ok ? { ok: true, value: back.value.map((line) => ({ from: line.to, to: line.from })) } : back;
};

/** Tests whether a tangent may touch a picked curve, or run through a picked point, there. */
const touchesThere = (given: Given, drawing: Drawing): ((picked: Picked, at: Point) => boolean) => {
  const touches = canTouch(given);
  return (picked, at) => {
    const curve = pickedCurve(drawing, picked);
    return !curve || touches(curve, at);
  };
};

export const tangentLine: Tool = {
  kind: "tool",
  id: "tangent-line",
  name: "Tangent line",
  bank: "KeyR",
  help: "Pick a point, a circle or an ellipse, then another, each near where the line should touch. Space shows the next of its solutions.",
  drawing: [
    "M4 6 L20 9",
    "M11 12 A4.5 4.5 0 1 1 2 12 A4.5 4.5 0 1 1 11 12 M22 14 A3.5 3.5 0 1 1 15 14 A3.5 3.5 0 1 1 22 14",
  ],
  parts: [
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "point or circle", takes: "either", round: true },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "circle or point", takes: "either", round: true },
    { kind: "words", text: "·" },
    WHERE_TOUCHED,
  ],
  from: "from",
  propose: (given, { drawing, layer }) => {
    const { from, to } = given.picks;
    if (!from || !to || !given.isFirm("from")) return nothing;
    const [a, b] = [roundOf(drawing, from), roundOf(drawing, to)];
    if (b?.kind === "point" && a?.kind === "point" && !given.isFirm("to")) return nothing;
    const found = solutions(a, b);
    if (!found.ok) return refused(found);
    const touches = touchesThere(given, drawing);
    const real = found.value.filter(
      (line) => touches(from, line.from) && touches(to, line.to) && distance(line.from, line.to) > RESOLUTION,
    );
    if (real.length === 0) return refused(refuse("touch-beyond-end"));
    const miss = (line: TangentLine): number => distance(line.from, from.at) + distance(line.to, to.at);
    return {
      ways: [...real]
        .sort((p, q) => miss(p) - miss(q))
        .map((line) => makingWay(tangentLine, drawing, layer, [pieceShape({ a: line.from, b: line.to, bulge: 0 })])),
    };
  },
};

/** A line from a touching point in a direction: as long as typed, or as far as the pointer reaches along it. */
const fromTouch = (
  tool: Tool,
  given: Parameters<Tool["propose"]>[0],
  { drawing, layer }: Parameters<Tool["propose"]>[1],
  touches: readonly { at: Point; angle: number }[],
): Proposal => {
  const to = given.picks.to?.at ?? given.pointer;
  const length = given.value("length");
  if (!to) return nothing;
  const ways = touches.flatMap(({ at, angle }) => {
    const b = lineEnd(at, to, length, toDegrees(angle));
    // towards the pointer, whichever way the angle itself points
    const reach = (to.x - at.x) * Math.cos(angle) + (to.y - at.y) * Math.sin(angle);
    const end = length !== undefined && reach < 0 ? along(at, unitAt(angle), -length) : b;
    if (distance(at, end) <= RESOLUTION) return [];
    return [
      makingWay(tool, drawing, layer, [pieceShape({ a: at, b: end, bulge: 0 })], (draft, [id]) =>
        linkCallout(draft, given.callout("length"), [{ id: id! }]),
      ),
    ];
  });
  return { ways };
};

export const tangentAtAnAngle: Tool = {
  kind: "tool",
  id: "tangent-at-an-angle",
  name: "Tangent at an angle",
  bank: "KeyR",
  help: "Pick a circle, an arc or an ellipse near where the line should touch, with the angle typed; a second click, or the typed length, gives the end. Space shows the tangent on the other side.",
  drawing: ["M3 13 L19 4", "M18 15 A6 6 0 1 1 6 15 A6 6 0 1 1 18 15"],
  parts: [
    { kind: "words", text: "touching" },
    { kind: "pick", name: "on", label: "circle", takes: "curve", round: true },
    { kind: "words", text: "at" },
    { kind: "value", name: "angle", label: "angle", expects: "angle", stays: true, signed: true },
    { kind: "words", text: "· length" },
    { kind: "value", name: "length", label: "length", expects: "length", stays: false },
    { kind: "pick", name: "to", label: "end", takes: "point", silent: true },
    { kind: "words", text: "·" },
    WHERE_TOUCHED,
  ],
  propose: (given, context) => {
    const { on } = given.picks;
    const round = on && roundOf(context.drawing, on);
    if (!on || !round || round.kind === "point" || !given.isFirm("on")) return nothing;
    const typed = given.value("angle");
    if (typed === undefined) return { ways: [], note: "Type the angle" };
    const angle = toRadians(typed);
    const there = touchesThere(given, context.drawing);
    const touches = roundTangentsAtAngle(round, angle)
      .filter((at) => there(on, at))
      .sort((p, q) => distance(p, on.at) - distance(q, on.at));
    if (touches.length === 0) return refused(refuse("touch-beyond-end"));
    return fromTouch(
      tangentAtAnAngle,
      given,
      context,
      touches.map((at) => ({ at, angle })),
    );
  },
};

export const tangentFromATouchPoint: Tool = {
  kind: "tool",
  id: "tangent-from-a-touch-point",
  name: "Tangent from a touch point",
  bank: "KeyR",
  help: "Click the place on a circle, an arc, an ellipse or a free curve where the line should touch; it runs on from there, as long as typed or as far as a second click says.",
  drawing: ["M10 4.4 L21 12", "M17 15 A6.5 6.5 0 1 1 4 15 A6.5 6.5 0 1 1 17 15"],
  parts: [
    { kind: "words", text: "at" },
    { kind: "pick", name: "on", label: "place on the curve", takes: "curve", exact: true },
    { kind: "words", text: "· length" },
    { kind: "value", name: "length", label: "length", expects: "length", stays: false },
    { kind: "pick", name: "to", label: "end", takes: "point", silent: true },
  ],
  propose: (given, context) => {
    const { on } = given.picks;
    const curve = pickedCurve(context.drawing, on);
    if (!on || !curve || !given.isFirm("on")) return nothing;
    const { at } = curveNearest(curve, on.at);
    return fromTouch(tangentFromATouchPoint, given, context, [{ at, angle: directionAt(curve, at) }]);
  },
};
