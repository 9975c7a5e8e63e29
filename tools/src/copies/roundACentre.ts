import { exampleCircle, exampleDot } from "../example/exampleShapes.ts";
import { turning } from "@ash-edge/core/geometry";
import { toRadians, WHOLE_WITHIN } from "@ash-edge/core/numeric";
import { nothing, type Tool } from "../tool.ts";
import { what, skipPart, repeated } from "./copying.ts";

export const roundACentre: Tool = {
  kind: "tool",
  id: "round-a-centre",
  name: "Round a centre",
  help:
    "Repeats what is selected about a point: how many in all, over the whole turn or part of one, or so many " +
    "degrees apart. Some can be left out by their numbers.",
  drawing: [
    "M12 3 L14 6 L10 6 Z",
    "M20 10 L18 13 L17 9.5 Z M17 19 L13.5 18 L16 15.5 Z M7 19 L8 15.5 L10.5 18 Z M4 10 L7 9.5 L6 13 Z",
  ],
  example: {
    cut: [exampleCircle(30, 0, 6)],
    layout: [exampleDot(0, 0)],
    typed: { count: "6" },
    clicks: [
      [36, 0],
      [0, 0],
    ],
  },
  parts: [
    what,
    { kind: "words", text: "about" },
    { kind: "pick", name: "about", label: "centre", takes: "point" },
    { kind: "value", name: "count", label: "how many", expects: "count", stays: true, given: 3 },
    { kind: "words", text: "times" },
    {
      kind: "choice",
      name: "by",
      label: "angle is",
      options: [
        ["total", "over"],
        ["pitch", "apart"],
      ],
    },
    { kind: "value", name: "angle", label: "angle", expects: "angle", stays: true, signed: true, given: 360 },
    { kind: "words", text: "· leave out" },
    skipPart,
  ],
  propose: (given, context) => {
    const { about } = given.picks;
    if (given.things.length === 0 || !about) return nothing;
    const count = given.value("count") ?? 3;
    const angle = given.value("angle") ?? 360;
    if (count < 2) return { ways: [], note: "One is there already" };
    // over a whole turn the last would lie on the first
    const wholeTurn = Math.abs(Math.abs(angle) - 360) < WHOLE_WITHIN;
    const step = given.choice("by") === "pitch" ? angle : wholeTurn ? angle / count : angle / (count - 1);
    const places = Array.from({ length: count - 1 }, (_, i) => turning(about.at, toRadians((i + 1) * step)));
    return repeated(roundACentre, given, context, places);
  },
};
