import { exampleLine } from "../example/exampleShapes.ts";
import { distance, turning } from "@ash-edge/core/geometry";
import { RESOLUTION, refuse, toRadians, toDegrees } from "@ash-edge/core/numeric";
import { nothing, refused, type Tool } from "../tool.ts";
import { what, keeps, angleOfTwo, moved } from "./copying.ts";

const SQUARE = "M4 9 L12 9 L12 17 L4 17 Z";

export const rotate: Tool = {
  kind: "tool",
  id: "rotate",
  name: "Rotate",
  help:
    "Turns what is selected about a point by the angle typed, or from one direction to another: click a point that " +
    "should turn to where another lies.",
  drawing: [SQUARE, "M16 17 A9 9 0 0 0 14 6 M14 6 L18 6 M14 6 L14 10"],
  example: {
    cut: [exampleLine([0, 0], [50, 0])],
    typed: { angle: "35" },
    clicks: [
      [25, 0],
      [0, 0],
    ],
  },
  parts: [
    what,
    { kind: "words", text: "about" },
    { kind: "pick", name: "about", label: "point", takes: "point" },
    { kind: "words", text: "by" },
    { kind: "value", name: "angle", label: "angle", expects: "angle", stays: false, signed: true },
    { kind: "words", text: "· or from" },
    { kind: "pick", name: "from", label: "direction", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "direction to", takes: "point" },
    keeps,
  ],
  from: "about",
  wants: ({ value }) => ["what", "about", ...(value("angle") === undefined ? ["from", "to"] : [])],
  propose: (given, context) => {
    const { about, from, to } = given.picks;
    const typed = given.value("angle");
    if (given.things.length === 0 || !about) return nothing;
    if (typed === undefined && (!from || !to || !given.isFirm("from"))) return nothing;
    const degenerate =
      typed === undefined && (distance(about.at, from!.at) <= RESOLUTION || distance(about.at, to!.at) <= RESOLUTION);
    if (degenerate) return given.isFirm("to") ? refused(refuse("same-point")) : nothing;
    const angle =
      typed !== undefined ? toRadians(typed) : angleOfTwo(about.at, to!.at) - angleOfTwo(about.at, from!.at);
    const proposal = moved(rotate, given.things, turning(about.at, angle), given.choice("keep") === "keep", context);
    return typed === undefined ? { ...proposal, live: { angle: toDegrees(angle) } } : proposal;
  },
};
