import { exampleArc } from "../example/exampleShapes.ts";
import { carrierOf, arcOf } from "@ash-edge/core/geometry";
import { describePoint } from "@ash-edge/core/look";
import { refuse, showLengthUnit, showAngle, toDegrees } from "@ash-edge/core/numeric";
import { pickedCurve } from "../making.ts";
import { nothing, refused, type Tool } from "../tool.ts";
import { measured } from "./measured.ts";

export const radiusTool: Tool = {
  kind: "tool",
  id: "radius",
  name: "Radius",
  help:
    "Click an arc or a circle: its radius, its diameter, and of an arc its length and its sweep. Nothing is drawn. " +
    "Then click a callout to say that this answers it.",
  drawing: ["M20 14 A8.5 8.5 0 1 1 12 4", "M12 12.5 L17.5 6.5"],
  example: { cut: [exampleArc([0, 0], [60, 0], -0.5)], clicks: [[30, 15]] },
  parts: [
    { kind: "words", text: "of" },
    { kind: "pick", name: "of", label: "arc or circle", takes: "curve", round: true },
  ],
  answers: ["radius", "diameter"],
  propose: (given, { drawing, unit }) => {
    const curve = pickedCurve(drawing, given.picks.of);
    const carrier = curve && carrierOf(curve);
    if (!curve) return nothing;
    if (carrier?.kind !== "circle") return refused(refuse("not-round"));
    const arc = curve.kind === "piece" ? arcOf(curve) : undefined;
    const { radius, centre } = carrier;
    const length = arc ? radius * Math.abs(arc.sweep) : 2 * Math.PI * radius;
    const said = [
      `R ${showLengthUnit(radius, unit)} · Ø ${showLengthUnit(2 * radius, unit)}`,
      `${arc ? "arc" : "round it"} ${showLengthUnit(length, unit)}`,
      arc ? `sweep ${showAngle(toDegrees(Math.abs(arc.sweep)))}` : "",
      `centre ${describePoint(drawing, centre)}`,
    ];
    return measured(said.filter(Boolean).join(" · "));
  },
};
