import { exampleDot } from "../example/exampleShapes.ts";
import { tangentsAtAngle } from "@ash-edge/core/construct";
import type { Drawing } from "@ash-edge/core/drawing";
import { directionAt, distance, angleOf, subtract, carrierOf } from "@ash-edge/core/geometry";
import { toRadians, RESOLUTION, toDegrees } from "@ash-edge/core/numeric";
import { pickedCurve } from "../making.ts";
import { under, nothing, type Given, type Picked, type Tool, type Proposal } from "../tool.ts";
import { layoutWay, endless } from "./layoutWay.ts";

/** The angle of the layout line: typed, from level or from the picked edge; else towards the pointer. */
const turnedAngle = (given: Given, drawing: Drawing, at: Picked): { angle: number; live?: number } | undefined => {
  const edge = given.choice("from") === "edge" ? pickedCurve(drawing, given.picks.edge) : undefined;
  const base = edge && given.picks.edge ? directionAt(edge, given.picks.edge.at) : 0;
  const typed = given.value("angle");
  if (typed !== undefined) return { angle: base + toRadians(typed) };
  const pointer = given.picks.towards?.at ?? given.pointer;
  if (!pointer || distance(pointer, at.at) <= RESOLUTION) return undefined;
  const angle = angleOf(subtract(pointer, at.at));
  return { angle, live: toDegrees(angle - base) };
};

export const atAnAngle: Tool = {
  kind: "tool",
  id: "at-an-angle",
  name: "At an angle",
  help:
    "Click a point, or a circle that the line should touch, with the angle typed; without one, a second click gives " +
    "the direction. The angle counts from level or from a picked edge. Space shows the other tangent.",
  drawing: ["M4 19 L20 7", "M4 19 L20 19 M12 19 A8 8 0 0 0 10.4 14.2"],
  example: { layout: [exampleDot(20, 10)], typed: { angle: "30" }, clicks: [[20, 10]] },
  parts: [
    { kind: "words", text: "layout line through" },
    { kind: "pick", name: "at", label: "point or circle", takes: "either", round: true },
    { kind: "words", text: "at" },
    { kind: "value", name: "angle", label: "angle", expects: "angle", stays: true },
    {
      kind: "choice",
      name: "from",
      label: "counted from",
      options: [
        ["level", "from level"],
        ["edge", "from an edge"],
      ],
    },
    { kind: "pick", name: "edge", label: "edge", takes: "curve", onlyIf: under("from", "edge") },
    { kind: "pick", name: "towards", label: "direction", takes: "point", silent: true },
  ],
  from: "at",
  wants: (given) => [
    ...(given.choice("from") === "edge" ? ["edge"] : []),
    "at",
    ...(given.value("angle") === undefined ? ["towards"] : []),
  ],
  propose: (given, { drawing }): Proposal => {
    const { at } = given.picks;
    if (!at) return nothing;
    const turned = turnedAngle(given, drawing, at);
    if (!turned) return nothing;
    const curve = pickedCurve(drawing, at);
    const carrier = curve && carrierOf(curve);
    const lines =
      carrier?.kind === "circle"
        ? tangentsAtAngle(carrier, turned.angle, at.at)
        : [{ through: at.at, angle: turned.angle }];
    return {
      ways: lines.map((line) => layoutWay(drawing, [endless(line)], "At an angle", "at-an-angle")),
      ...(turned.live === undefined ? {} : { live: { angle: turned.live } }),
    };
  },
};
