import { exampleCircle } from "../example/exampleShapes.ts";
import { straightenEntity } from "@ash-edge/core/edits";
import { done } from "@ash-edge/core/numeric";
import { nothing, refused, type Tool } from "../tool.ts";
import { within, toleranceOf } from "./fitTolerance.ts";

export const toStraight: Tool = {
  kind: "tool",
  id: "to-straight",
  name: "To straight pieces",
  help:
    "Click a chain, an arc, a circle or a smooth curve: its arcs become straight pieces, as few as lie within the " +
    "tolerance. For machines that read no arcs.",
  drawing: ["M3 17 L7 9 L13 6 L21 9", "M3 17 C6 6 14 3 21 9"],
  example: { cut: [exampleCircle(0, 0, 30)], typed: { within: "1" }, clicks: [[30, 0]] },
  parts: [{ kind: "pick", name: "curve", label: "curve or chain", takes: "curve" }, ...within],
  propose: (given, { drawing }) => {
    const id = given.picks.curve?.ref?.id;
    if (id === undefined) return nothing;
    const tolerance = toleranceOf(given, drawing);
    const made = straightenEntity(drawing, id, tolerance);
    if (!made.ok) return refused(made);
    const { edit, shape, count } = made.value;
    return {
      ways: [{ preview: [{ shape }], edit: () => done(edit), said: `${count} straight pieces.` }],
      note: `${count} straight pieces`,
      ...(given.value("within") === undefined ? { live: { within: tolerance } } : {}),
    };
  },
};
