import type { Callout } from "../drawing/callout.ts";
import { derivedNumber, showAngle, showDifference, showLength } from "../numeric/showValue.ts";
import type { Unit } from "../numeric/units.ts";
import type { CalloutState } from "./measure.ts";

/** The number as it stands on the sketch: `Ø 1 3/16`, `R 14`, `3 × R 18`, `3/8-16`, `2 × 45°`, `17.3..17.7`. */
export const calloutText = (callout: Callout, unit: Unit): string => {
  const { kind, value, limits, times } = callout;
  if (kind === "count") return `${value} ×`;
  const mark = kind === "diameter" ? "Ø " : kind === "radius" ? "R " : "";
  const { angle, other = value } = callout; // of a chamfer
  const size =
    kind === "thread"
      ? [callout.thread ?? showLength(value, unit), callout.fit].filter(Boolean).join(" ")
      : kind === "angle"
        ? showAngle(value)
        : kind === "chamfer"
          ? `${showLength(value, unit)} × ${angle === undefined ? showLength(other, unit) : showAngle(angle)}`
          : callout.between && limits
            ? `${mark}${derivedNumber(value + limits.low)}..${derivedNumber(value + limits.high)}`
            : [callout.bound, `${mark}${showLength(value, unit)}`, callout.fit].filter(Boolean).join(" ");
  const whole = times === undefined ? size : `${times} × ${size}`;
  return callout.reference ? `(${whole})` : whole;
};

/** A length as text that reads back to it: as `showLength`, or all its digits. */
export const exactText = (value: number, unit: Unit): string => {
  const text = showLength(value, unit);
  return text.includes("≈") ? String(value) : text;
};

/**
 * The number alone, or the thread, as a blank of its kind reads it back: `26` of `3 × Ø 26 H7`, `M6` of `8 × M6`,
 * `17.5` of `17.3..17.7`.
 */
export const numberText = ({ kind, value, thread }: Callout, unit: Unit): string =>
  kind === "thread" && thread !== undefined
    ? thread
    : kind === "angle" || kind === "count"
      ? String(value)
      : exactText(value, unit);

/** What it may be off, in words: `±0.1`, `+0.2 −0`; empty where it says nothing of its own, or its number says it. */
export const toleranceText = ({ tolerance, limits, between }: Callout): string => {
  const signed = (value: number): string => `${value < 0 ? "−" : "+"}${derivedNumber(Math.abs(value))}`;
  if (limits && !between) return `${signed(limits.high)} ${limits.low === 0 ? "−0" : signed(limits.low)}`;
  return tolerance === undefined ? "" : `±${derivedNumber(tolerance)}`;
};

/** Its state in words: `true`, `off by 0.4`, `within ±0.1`, `not placed`. */
export const stateText = (state: CalloutState, callout: Callout): string => {
  if (state.state === "off") return `off by ${state.by > 0 ? "+" : "−"}${showDifference(state.by)}`;
  if (state.state === "not placed" && state.placed) return `${state.placed} of ${callout.times} placed`;
  return state.state === "within" ? `within ${toleranceText(callout) || "the job's tolerance"}` : state.state;
};
