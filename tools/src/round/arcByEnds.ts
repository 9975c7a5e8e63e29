import { exampleDot } from "../example/exampleShapes.ts";
import { arcsByRadius, arcsBySweep, arcsByHeight, arcFrom } from "@ash-edge/core/construct";
import { distance } from "@ash-edge/core/geometry";
import { refuse, toRadians, RESOLUTION } from "@ash-edge/core/numeric";
import { under, nothing, refused, type Tool } from "../tool.ts";
import { dot, one, arcProposal } from "./roundProposals.ts";

export const arcByEnds: Tool = {
  kind: "tool",
  id: "arc-by-ends",
  name: "Arc by its ends",
  help:
    "Click both ends, with R or Ø, the sweep, or the height over the chord typed. Space shows the other side, and " +
    "of a radius the long way round.",
  drawing: ["M4 17 A10 10 0 0 1 20 17", `M4 17 L20 17 ${dot(4, 17)} ${dot(20, 17)}`],
  example: {
    layout: [exampleDot(0, 0), exampleDot(60, 0)],
    typed: { size: "40r" },
    clicks: [
      [0, 0],
      [60, 0],
    ],
  },
  parts: [
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "point", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "end", takes: "point" },
    { kind: "words", text: "with" },
    {
      kind: "choice",
      name: "by",
      label: "by",
      options: [
        ["radius", "R"],
        ["sweep", "sweep"],
        ["height", "height"],
        ["start", "direction"],
      ],
    },
    { kind: "size", name: "size", first: "R", onlyIf: under("by", "radius") },
    { kind: "value", name: "sweep", label: "sweep", expects: "angle", stays: false, onlyIf: under("by", "sweep") },
    { kind: "value", name: "height", label: "height", expects: "length", stays: true, onlyIf: under("by", "height") },
    {
      kind: "value",
      name: "start",
      label: "start direction",
      expects: "angle",
      stays: false,
      signed: true,
      onlyIf: under("by", "start"),
    },
  ],
  from: "from",
  propose: (given, context) => {
    const { from, to } = given.picks;
    if (!from || !to || !given.isFirm("from")) return nothing;
    const by = given.choice("by");
    const typed = by === "radius" ? given.radius("size") : given.value(by);
    if (typed === undefined)
      return given.isFirm("to") ? refused(refuse("value-empty")) : { ways: [], note: "Type its size" };
    const arcs =
      by === "radius"
        ? arcsByRadius(from.at, to.at, typed)
        : by === "sweep"
          ? arcsBySweep(from.at, to.at, toRadians(typed))
          : by === "height"
            ? arcsByHeight(from.at, to.at, typed)
            : one(arcFrom(from.at, toRadians(typed), to.at));
    const short = distance(from.at, to.at) <= RESOLUTION;
    return short ? nothing : arcs.ok ? arcProposal(arcByEnds, arcs, true, given, context) : refused(arcs);
  },
};
