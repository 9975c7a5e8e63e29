import { exampleDot } from "../example/exampleShapes.ts";
import { arcSlotOf } from "@ash-edge/core/construct";
import { angleOf, subtract } from "@ash-edge/core/geometry";
import { signedAngle, toRadians, toDegrees, SAME_DIRECTION } from "@ash-edge/core/numeric";
import { nothing, type Tool } from "../tool.ts";
import { closedShape } from "./closedShape.ts";

export const arcSlot: Tool = {
  kind: "tool",
  id: "arc-slot",
  name: "Arc slot",
  help:
    "A slot along an arc, with full round ends: click the centre of the arc, the centre of one end, and that of the " +
    "other, or type the sweep.",
  drawing: ["M4.5 12 A7.5 7.5 0 0 1 19.5 12 L16 12 A4 4 0 0 0 8 12 Z", "M12 18 m-1 0 a1 1 0 1 0 2 0 a1 1 0 1 0 -2 0"],
  example: {
    layout: [exampleDot(0, 0), exampleDot(40, 0)],
    typed: { width: "12", sweep: "100" },
    clicks: [
      [0, 0],
      [40, 0],
    ],
  },
  parts: [
    { kind: "value", name: "width", label: "width", expects: "length", stays: true },
    { kind: "words", text: "wide · about" },
    { kind: "pick", name: "centre", label: "centre", takes: "point" },
    { kind: "words", text: "from" },
    { kind: "pick", name: "one", label: "end centre", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "other", label: "other end", takes: "point" },
    { kind: "words", text: "sweep" },
    { kind: "value", name: "sweep", label: "sweep", expects: "angle", stays: true, signed: true },
  ],
  from: "centre",
  wants: ({ value }) => ["centre", "one", ...(value("sweep") === undefined ? ["other"] : [])],
  propose: (given, context) => {
    const { centre, one, other } = given.picks;
    const width = given.value("width");
    if (!centre || !one || !given.isFirm("centre")) return nothing;
    if (width === undefined) return { ways: [], note: "Type the width" };
    const typed = given.value("sweep");
    const turn = (to: { x: number; y: number }): number =>
      signedAngle(angleOf(subtract(to, centre.at)) - angleOf(subtract(one.at, centre.at)));
    const sweep = typed !== undefined ? toRadians(typed) : other && given.isFirm("one") ? turn(other.at) : undefined;
    if (sweep === undefined || Math.abs(sweep) < SAME_DIRECTION) return nothing;
    const firm = given.isFirm(typed === undefined ? "other" : "one");
    const live = typed === undefined ? { live: { sweep: toDegrees(sweep) } } : {};
    const way = closedShape(arcSlot, arcSlotOf(centre.at, one.at, sweep, width), firm, given, context, live);
    if (typed !== undefined || way.ways.length === 0) return way;
    // the long way round is the other solution
    const long = closedShape(
      arcSlot,
      arcSlotOf(centre.at, one.at, sweep > 0 ? sweep - 2 * Math.PI : sweep + 2 * Math.PI, width),
      false,
      given,
      context,
    );
    return { ...way, ways: [...way.ways, ...long.ways] };
  },
};
