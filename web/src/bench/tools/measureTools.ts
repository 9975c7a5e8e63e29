import { angleOfLines } from "@ash-edge/core/construct";
import { centroidOf } from "@ash-edge/core/contour";
import { curveAt, type Drawing } from "@ash-edge/core/drawing";
import { arcOf, carrierOf, type Curve } from "@ash-edge/core/geometry";
import { describePoint } from "@ash-edge/core/look";
import { refuse, showAngle, showArea, showLengthUnit, toDegrees } from "@ash-edge/core/numeric";
import { profileOf } from "@ash-edge/core/profile";
import type { Shape } from "@ash-edge/core/shape";
import { nothing, refused, type Picked, type Proposal, type Tool } from "./tool.ts";

const curveOf = (drawing: Drawing, picked: Picked | undefined): Curve | undefined =>
  picked?.ref && !picked.ref.place ? curveAt(drawing, picked.ref) : undefined;

/** What is measured is said, and nothing is made. */
const measured = (said: string, preview: readonly Shape[] = []): Proposal => ({
  ways: [{ preview: preview.map((shape) => ({ shape })), said }],
  note: said,
});

export const angleTool: Tool = {
  kind: "tool",
  id: "angle",
  name: "Angle",
  bank: "KeyC",
  help: "Click two straight lines: the angle between them, and what is left of half a turn. Nothing is drawn. Then click a callout to say that this angle answers it.",
  drawing: ["M4 19 L20 19 M4 19 L17 6", "M13 19 A9 9 0 0 0 10.4 12.6"],
  parts: [
    { kind: "words", text: "between" },
    { kind: "pick", name: "one", label: "line", takes: "curve" },
    { kind: "words", text: "and" },
    { kind: "pick", name: "other", label: "other line", takes: "curve" },
  ],
  propose: (given, { drawing }) => {
    const { one, other } = given.picks;
    const [a, b] = [curveOf(drawing, one), curveOf(drawing, other)];
    if (!a || !b || !given.isFirm("one")) return nothing;
    const angle = angleOfLines(a, b);
    if (!angle.ok) return given.isFirm("other") ? refused(angle) : nothing;
    const degrees = toDegrees(angle.value);
    return measured(`Angle ${showAngle(degrees)} · ${showAngle(180 - degrees)} the other way`);
  },
};

export const radiusTool: Tool = {
  kind: "tool",
  id: "radius",
  name: "Radius",
  bank: "KeyC",
  help: "Click an arc or a circle: its radius, its diameter, and of an arc its length and its sweep. Nothing is drawn.",
  drawing: ["M20 14 A8.5 8.5 0 1 1 12 4", "M12 12.5 L17.5 6.5"],
  parts: [
    { kind: "words", text: "of" },
    { kind: "pick", name: "of", label: "arc or circle", takes: "curve", round: true },
  ],
  propose: (given, { drawing, unit }) => {
    const curve = curveOf(drawing, given.picks.of);
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

export const areaTool: Tool = {
  kind: "tool",
  id: "area",
  name: "Area",
  bank: "KeyC",
  help: "Click a closed contour: its area, its perimeter, its size and its centre of area. Nothing is drawn.",
  drawing: ["M5 6 L17 4 L20 15 L9 20 Z", "M12 12 m-1.5 0 a1.5 1.5 0 1 0 3 0 a1.5 1.5 0 1 0 -3 0"],
  parts: [
    { kind: "words", text: "of" },
    { kind: "pick", name: "of", label: "contour", takes: "curve" },
  ],
  propose: (given, { drawing, unit }) => {
    const id = given.picks.of?.ref?.id;
    if (id === undefined) return nothing;
    const contour = profileOf(drawing).contours.find(({ ids }) => ids.includes(id));
    if (!contour) return given.isFirm("of") ? refused(refuse("not-closed")) : nothing;
    const { area, length, bounds, pieces } = contour;
    const centre = centroidOf(pieces);
    const said = [
      `Area ${showArea(area, unit)} · perimeter ${showLengthUnit(length, unit)}`,
      `${showLengthUnit(bounds.maxX - bounds.minX, unit)} by ${showLengthUnit(bounds.maxY - bounds.minY, unit)}`,
      centre ? `centre of area ${describePoint(drawing, centre)}` : "",
    ];
    return measured(
      said.filter(Boolean).join(" · "),
      pieces.map((piece): Shape => ({ kind: "piece", a: piece.a, b: piece.b, bulge: piece.bulge })),
    );
  },
};
