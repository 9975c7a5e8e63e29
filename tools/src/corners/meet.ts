import { exampleLine } from "../example/exampleShapes.ts";
import { meetCurves } from "@ash-edge/core/edits";
import { changingWay } from "../making.ts";
import { nothing, refused, type Tool } from "../tool.ts";

export const meet: Tool = {
  kind: "tool",
  id: "meet",
  name: "Meet",
  help: "Click two lines or arcs, each on the side that should stay: both run to their corner, made longer or cut.",
  drawing: ["M4 20 L4 4 L20 4", "M4 8 L4 4 L8 4"],
  example: {
    cut: [exampleLine([0, 0], [50, 0]), exampleLine([70, 20], [70, 50])],
    clicks: [
      [20, 0],
      [70, 40],
    ],
  },
  parts: [
    { kind: "pick", name: "one", label: "line or arc", takes: "curve" },
    { kind: "words", text: "and" },
    { kind: "pick", name: "other", label: "other line or arc", takes: "curve" },
  ],
  propose: (given, { drawing }) => {
    const { one, other } = given.picks;
    if (!one?.ref || !other?.ref || !given.isFirm("one")) return nothing;
    const made = meetCurves(drawing, { ref: one.ref, at: one.at }, { ref: other.ref, at: other.at });
    if (!made.ok) return given.isFirm("other") ? refused(made) : nothing;
    const { edit } = made.value;
    return { ways: [changingWay(edit)] };
  },
};
