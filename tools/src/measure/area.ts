import { exampleBox } from "../example/exampleShapes.ts";
import { centroidOf, windingNumber } from "@ash-edge/core/contour";
import { describePoint } from "@ash-edge/core/look";
import { refuse, showArea, showLengthUnit } from "@ash-edge/core/numeric";
import { profileOf } from "@ash-edge/core/profile";
import type { Shape } from "@ash-edge/core/shape";
import { nothing, refused, type Tool } from "../tool.ts";
import { measured } from "./measured.ts";

export const areaTool: Tool = {
  kind: "tool",
  id: "area",
  name: "Area",
  help:
    "Click a closed contour, or inside it: its area, its perimeter, its size and its centre of area. Nothing is " +
    "drawn.",
  drawing: ["M5 6 L17 4 L20 15 L9 20 Z", "M12 12 m-1.5 0 a1.5 1.5 0 1 0 3 0 a1.5 1.5 0 1 0 -3 0"],
  example: { cut: [exampleBox(0, 0, 70, 40)], clicks: [[35, 0]] },
  parts: [
    { kind: "words", text: "of" },
    { kind: "pick", name: "of", label: "contour, or inside it", takes: "either" },
  ],
  propose: (given, { drawing, unit }) => {
    const { of } = given.picks;
    if (!of) return nothing;
    const { contours } = profileOf(drawing);
    // the innermost that a place lies in: the smallest of those round it
    const contour =
      contours.find(({ ids }) => of.ref !== undefined && ids.includes(of.ref.id)) ??
      contours
        .filter(({ pieces }) => windingNumber(pieces, of.at) !== 0)
        .sort((p, q) => Math.abs(p.area) - Math.abs(q.area))[0];
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
