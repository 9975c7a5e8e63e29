import { exampleWave } from "../example/exampleShapes.ts";
import type { Drawing } from "@ash-edge/core/drawing";
import { fitEntity, type FitMade, type FitGiven } from "@ash-edge/core/edits";
import { done, toRadians, showLengthUnit, type Outcome } from "@ash-edge/core/numeric";
import { under, nothing, refused, type Tool } from "../tool.ts";
import { within, toleranceOf } from "./fitTolerance.ts";

const known = new WeakMap<Drawing, { key: string; made: () => Outcome<FitMade> }>();
/** A fit doesn't depend on where on the curve the pointer is; nor does it that there is no time for it. */
const fittedOnce = (drawing: Drawing, id: number, given: FitGiven): Outcome<FitMade> => {
  const key = `${id} ${JSON.stringify(given)}`;
  const last = known.get(drawing);
  if (last?.key === key) return last.made();
  try {
    const made = fitEntity(drawing, id, given);
    known.set(drawing, { key, made: () => made });
    return made;
  } catch (reason) {
    known.set(drawing, {
      key,
      made: () => {
        throw reason;
      },
    });
    throw reason;
  }
};

/** Turns of a chain over this are corners, unless another angle is typed. */
const CORNER_DEGREES = 20;

export const arcFit: Tool = {
  kind: "tool",
  id: "arc-fit",
  name: "Arc fit",
  help:
    "Click an ellipse, a free curve, or a chain of many small pieces: tangent arcs and lines take its place, no " +
    "farther off than the tolerance, ends and corners as they were (of a chain, what turns more than the angle). It " +
    "says how many there are and how far off at the most, and a chart shows it all along. A curve that is nearly " +
    "one arc can be made one.",
  drawing: [
    "M3 17 C7 4 15 3 21 13",
    "M3 17 m-1.4 0 a1.4 1.4 0 1 0 2.8 0 a1.4 1.4 0 1 0 -2.8 0 M12 7 m-1.4 0 a1.4 1.4 0 1 0 2.8 0 a1.4 1.4 0 1 0 " +
      "-2.8 0 M21 13 m-1.4 0 a1.4 1.4 0 1 0 2.8 0 a1.4 1.4 0 1 0 -2.8 0",
  ],
  example: { cut: [exampleWave([0, 0], [20, 25], [45, 5], [70, 30])], typed: { within: "0.5" }, clicks: [[45, 5]] },
  parts: [
    { kind: "words", text: "to" },
    { kind: "pick", name: "curve", label: "curve or chain", takes: "curve" },
    ...within,
    {
      kind: "choice",
      name: "how",
      label: "how",
      options: [
        ["arcs", "tangent arcs"],
        ["one", "one arc"],
      ],
    },
    { kind: "words", text: "corners over", onlyIf: under("how", "arcs") },
    {
      kind: "value",
      name: "corners",
      label: "corners over",
      expects: "angle",
      stays: true,
      given: CORNER_DEGREES,
      onlyIf: under("how", "arcs"),
    },
  ],
  propose: (given, { drawing, unit }) => {
    const id = given.picks.curve?.ref?.id;
    if (id === undefined) return nothing;
    const tolerance = toleranceOf(given, drawing);
    const cornerAngle = toRadians(given.value("corners") ?? CORNER_DEGREES);
    const made = fittedOnce(drawing, id, { tolerance, cornerAngle, oneArc: given.choice("how") === "one" });
    if (!made.ok) return refused(made);
    const { edit, shape, before, after, fit } = made.value;
    const pieces = before > 1 ? `${before} pieces to ${after}` : after === 1 ? "1 piece" : `${after} pieces`;
    const words = `${pieces}, off by ${showLengthUnit(fit.deviation, unit)} at most`;
    return {
      ways: [
        { preview: [{ shape }, { shape: { kind: "point", at: fit.at } }], edit: () => done(edit), said: `${words}.` },
      ],
      note: words,
      chart: { profile: fit.profile, tolerance },
      ...(given.value("within") === undefined ? { live: { within: tolerance } } : {}),
    };
  },
};
