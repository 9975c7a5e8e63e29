import type { Id } from "../numeric/id.ts";
import type { Ref } from "./ref.ts";

/** What a number on the sketch speaks of. Lengths in the job's unit, angles in degrees. */
export const CALLOUT_KINDS = [
  "length",
  "diameter",
  "radius",
  "angle",
  "centres",
  "count",
  "thread",
  "chamfer",
] as const;
export type CalloutKind = (typeof CALLOUT_KINDS)[number];

export type Callout = {
  readonly id: Id;
  readonly kind: CalloutKind;
  readonly value: number;
  /** For a thread: its designation, `3/8-16`. */
  readonly thread?: string;
  /** Of a chamfer: its angle to the side along which its value lies (degrees), or how far it lies along the other. */
  readonly angle?: number;
  readonly other?: number;
  /** A size that holds for so many things: one row, true when all of them are. */
  readonly times?: number;
  /** A size that holds wherever it is found: typical, all corners. */
  readonly throughout?: true;
  /** Shown for reference, not required. */
  readonly reference?: true;
  /** The fit or the class of a thread as the customer wrote it, `H7`, `6H`. */
  readonly fit?: string;
  /** Its two places are measured along an axis: `80 from left`. */
  readonly axis?: "x" | "y";
  /** The value is the most, or the least, that is allowed. */
  readonly bound?: "max" | "min";
  /** Written as two limits, `17.3..17.7`; the value is their middle. */
  readonly between?: true;
  /** What it speaks of, in the customer's words. */
  readonly name: string;
  /** Allowed difference, either way. */
  readonly tolerance?: number;
  /** Allowed difference where it is not the same either way, from `low` to `high`; a shaft's may both be below 0. */
  readonly limits?: { readonly low: number; readonly high: number };
  /** It may be off: why, on which day that was said, and what it measured then; nothing where it was not placed. */
  readonly waived?: { readonly reason: string; readonly on: string; readonly measured?: number };
  /** It was looked at while it measured just that. */
  readonly looked?: number;
  /** Where it stands on the sketch, in parts of its width and height from the top left. */
  readonly pin?: { readonly sketch: string; readonly x: number; readonly y: number };
  /** The geometry that answers it; two references for a distance. */
  readonly links: readonly Ref[];
};
