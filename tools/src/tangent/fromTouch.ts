import type { Round } from "@ash-edge/core/construct";
import type { Drawing } from "@ash-edge/core/drawing";
import { carrierOf, along, distance, type Point } from "@ash-edge/core/geometry";
import { toDegrees, unitAt, RESOLUTION } from "@ash-edge/core/numeric";
import { lineEnd } from "../draw/line.ts";
import { linkCallout } from "../linking.ts";
import { pickedCurve, makingWay, pieceShape } from "../making.ts";
import { nothing, type Picked, type Given, type Tool, type Proposal } from "../tool.ts";
import { canTouch } from "../touching.ts";

/** What a line is to touch, or the bare point that it runs through; undefined for something straight. */
export const roundOf = (drawing: Drawing, picked: Picked): Round | undefined => {
  const curve = pickedCurve(drawing, picked);
  if (!curve) return { kind: "point", at: picked.at };
  if (curve.kind === "ellipse") return curve;
  const carrier = carrierOf(curve);
  return carrier?.kind === "circle" ? carrier : undefined;
};

/** Tests whether a tangent may touch a picked curve, or run through a picked point, there. */
export const touchesThere = (given: Given, drawing: Drawing): ((picked: Picked, at: Point) => boolean) => {
  const touches = canTouch(given);
  return (picked, at) => {
    const curve = pickedCurve(drawing, picked);
    return !curve || touches(curve, at);
  };
};

/** A line from a touching point in a direction: as long as typed, or as far as the pointer reaches along it. */
export const fromTouch = (
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
