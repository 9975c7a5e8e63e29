import type { Callout } from "../drawing/callout.ts";
import { showAngle, showDifference, showLength } from "../numeric/showValue.ts";
import type { Unit } from "../numeric/units.ts";
import type { CalloutState } from "./measure.ts";

/** The number as it stands on the sketch: `Ø 1 3/16`, `R 14`, `6 5/8`, `3/8-16`. */
export const calloutText = (callout: Callout, unit: Unit): string => {
  const { kind, value } = callout;
  if (kind === "thread") return callout.thread ?? showLength(value, unit);
  if (kind === "angle") return showAngle(value);
  if (kind === "count") return `${value} ×`;
  return `${kind === "diameter" ? "Ø " : kind === "radius" ? "R " : ""}${showLength(value, unit)}`;
};

/** What it may be off, in words: `±0.1`, `+0.2 −0`; empty where it says nothing of its own. */
export const toleranceText = ({ tolerance, limits }: Callout): string =>
  limits ? `+${limits.high} −${Math.abs(limits.low)}` : tolerance === undefined ? "" : `±${tolerance}`;

/** Its state in words: `true`, `off by 0.4`, `within ±0.1`, `not placed`. */
export const stateText = (state: CalloutState, callout: Callout): string => {
  if (state.state === "off") return `off by ${state.by > 0 ? "+" : "−"}${showDifference(state.by)}`;
  return state.state === "within" ? `within ${toleranceText(callout) || "the job's tolerance"}` : state.state;
};
