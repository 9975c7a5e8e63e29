import { isWhole, curveNearest, type Curve, type Point } from "@ash-edge/core/geometry";
import { RESOLUTION } from "@ash-edge/core/numeric";
import type { Part, Given } from "./tool.ts";

/** The choice of what counts as a touch on an arc, or on a part of an ellipse. */
export const WHERE_TOUCHED: Part = {
  kind: "choice",
  name: "where",
  label: "arcs touched",
  options: [
    ["real", "on the arc"],
    ["whole", "on its circle"],
  ],
};

/**
 * Tests whether a place on a curve's carrier may be touched: a line may be prolonged to be touched; on an arc, a part
 * of an ellipse or a free curve only what is really there counts, unless the whole circle is meant by the choice.
 */
export const canTouch = (given: Given): ((curve: Curve, at: Point) => boolean) => {
  const whole = given.choice("where") === "whole";
  return (curve, at) => {
    if (whole) return true;
    const partly =
      curve.kind === "free" || (curve.kind === "ellipse" ? !isWhole(curve) : "bulge" in curve && curve.bulge !== 0);
    return !partly || curveNearest(curve, at).distance <= RESOLUTION;
  };
};
