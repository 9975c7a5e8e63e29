import { exampleLine } from "../example/exampleShapes.ts";
import { mirrorEntities, type Axis } from "@ash-edge/core/edits";
import { carrierOf, angleOf, distance, mirroring } from "@ash-edge/core/geometry";
import { done, RESOLUTION, refuse } from "@ash-edge/core/numeric";
import { pickedCurve } from "../making.ts";
import { thingsPreview } from "../things.ts";
import { under, nothing, refused, type Given, type ToolContext, type Tool } from "../tool.ts";
import { angleOfTwo, what } from "./copying.ts";

/** The axis of a mirror: a picked straight line, or the line through two points. */
const axisOf = (given: Given, { drawing }: ToolContext): Axis | undefined => {
  const { line, one, other } = given.picks;
  if (given.choice("on") === "line") {
    const curve = pickedCurve(drawing, line);
    const carrier = curve && carrierOf(curve);
    return carrier?.kind === "line"
      ? { at: carrier.at, angle: curve!.kind === "endless" ? curve!.angle : angleOf(carrier.direction) }
      : undefined;
  }
  if (!one || !other || !given.isFirm("one") || distance(one.at, other.at) <= RESOLUTION) return undefined;
  return { at: one.at, angle: angleOfTwo(one.at, other.at) };
};

export const mirror: Tool = {
  kind: "tool",
  id: "mirror",
  name: "Mirror",
  help:
    "Mirrors what is selected on a line, an edge, a layout line, or on the line through two points. Kept, an open " +
    "chain with both ends on the line becomes one closed contour with its image, and what lies on the line is not " +
    "doubled.",
  drawing: ["M4 6 L9 6 L9 18 L4 18 Z", "M12 3 L12 21 M20 6 L15 6 L15 18 L20 18 Z"],
  example: {
    cut: [exampleLine([0, 0], [30, 0]), exampleLine([30, 0], [30, 30]), exampleLine([30, 30], [0, 50])],
    layout: [exampleLine([0, -10], [0, 60])],
    selected: true,
    clicks: [[0, 25]],
  },
  parts: [
    what,
    { kind: "words", text: "on" },
    {
      kind: "choice",
      name: "on",
      label: "on",
      options: [
        ["line", "a line"],
        ["points", "two points"],
      ],
    },
    { kind: "pick", name: "line", label: "line", takes: "curve", onlyIf: under("on", "line") },
    { kind: "pick", name: "one", label: "point", takes: "point", onlyIf: under("on", "points") },
    { kind: "pick", name: "other", label: "other point", takes: "point", onlyIf: under("on", "points") },
    { kind: "words", text: "·" },
    {
      kind: "choice",
      name: "keep",
      label: "the original",
      options: [
        ["keep", "keep both"],
        ["replace", "replace"],
      ],
    },
  ],
  from: "one",
  wants: ({ choice }) => ["what", ...(choice("on") === "line" ? ["line"] : ["one", "other"])],
  propose: (given, context) => {
    if (given.things.length === 0) return nothing;
    const axis = axisOf(given, context);
    if (!axis) return given.isFirm("line") ? refused(refuse("mirror-line-needed")) : nothing;
    const { drawing } = context;
    const made = mirrorEntities(drawing, given.things, axis, given.choice("keep") === "keep");
    if (!made.ok) return refused(made);
    const { edit, welded } = made.value;
    const preview = thingsPreview(drawing, given.things, mirroring(axis.at, axis.angle)).map((shape) => ({ shape }));
    return {
      ways: [
        {
          preview,
          edit: () => done(edit),
          ...(welded > 0
            ? { said: `${welded} joined with, or equal to, ${welded === 1 ? "its" : "their"} own image.` }
            : {}),
        },
      ],
    };
  },
};
