import { exampleDot } from "../example/exampleShapes.ts";
import { ellipseThrough, ellipseByAxes, ellipsePart } from "@ash-edge/core/construct";
import { distance } from "@ash-edge/core/geometry";
import { RESOLUTION } from "@ash-edge/core/numeric";
import type { Shape } from "@ash-edge/core/shape";
import { pieceShape, makingWay } from "../making.ts";
import { under, nothing, refused, type Tool } from "../tool.ts";

export const ellipse: Tool = {
  kind: "tool",
  id: "ellipse",
  name: "Ellipse",
  help:
    "Click the centre and the end of one half axis; the other half axis is typed, or the ellipse runs through a " +
    "third click. A part of it runs from a fourth click round to a fifth. It must become arcs before it is cut.",
  drawing: ["M22 12 A10 6 0 1 1 2 12 A10 6 0 1 1 22 12", "M12 12 L22 12 M12 12 L12 6"],
  example: {
    layout: [exampleDot(0, 0), exampleDot(45, 10)],
    typed: { half: "20" },
    clicks: [
      [0, 0],
      [45, 10],
    ],
  },
  parts: [
    { kind: "words", text: "about" },
    { kind: "pick", name: "centre", label: "centre", takes: "point" },
    { kind: "words", text: "half axis to" },
    { kind: "pick", name: "end", label: "end of the half axis", takes: "point" },
    { kind: "words", text: "· long" },
    { kind: "value", name: "long", label: "half axis", expects: "length", stays: true },
    { kind: "words", text: "the other" },
    { kind: "value", name: "half", label: "other half axis", expects: "length", stays: true },
    { kind: "pick", name: "on", label: "point of it", takes: "point", silent: true },
    {
      kind: "choice",
      name: "much",
      label: "how much",
      options: [
        ["whole", "whole"],
        ["part", "a part"],
      ],
    },
    { kind: "pick", name: "first", label: "from", takes: "point", onlyIf: under("much", "part") },
    { kind: "pick", name: "last", label: "round to", takes: "point", onlyIf: under("much", "part") },
  ],
  from: "centre",
  wants: ({ value, choice }) => [
    "centre",
    "end",
    ...(value("half") === undefined ? ["on"] : []),
    ...(choice("much") === "part" ? ["first", "last"] : []),
  ],
  propose: (given, { drawing, layer }) => {
    const { centre, end, on, first, last } = given.picks;
    if (!centre || !end || !given.isFirm("centre")) return nothing;
    const away = distance(centre.at, end.at);
    if (away <= RESOLUTION) return nothing;
    const long = given.value("long");
    const tip =
      long === undefined
        ? end.at
        : {
            x: centre.at.x + ((end.at.x - centre.at.x) * long) / away,
            y: centre.at.y + ((end.at.y - centre.at.y) * long) / away,
          };
    const half = given.value("half");
    const live = { ...(long === undefined ? { long: away } : {}) };
    if (half === undefined && (!on || !given.isFirm("end")))
      return { ways: [{ preview: [{ shape: pieceShape({ a: centre.at, b: tip, bulge: 0 }) }] }], live };
    const made = half === undefined ? ellipseThrough(centre.at, tip, on!.at) : ellipseByAxes(centre.at, tip, half);
    if (!made.ok) return given.isFirm("on") ? refused(made) : nothing;
    const whole: Shape = { kind: "ellipse", ...made.value };
    if (given.choice("much") === "whole")
      return given.isFirm("end") || half !== undefined
        ? { ways: [makingWay(ellipse, drawing, layer, [whole])], live }
        : nothing;
    if (!first || !last || !given.isFirm("first")) return { ways: [{ preview: [{ shape: whole }] }], live };
    const part = ellipsePart(made.value, first.at, last.at);
    if (!part.ok) return given.isFirm("last") ? refused(part) : nothing;
    return { ways: [makingWay(ellipse, drawing, layer, [{ kind: "ellipse", ...part.value }])], live };
  },
};
