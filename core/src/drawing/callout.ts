import type { Id } from "../numeric/id.ts";
import type { Ref } from "./ref.ts";

/** What a number on the sketch speaks of. Lengths in the job's unit, angles in degrees. */
export const CALLOUT_KINDS = ["length", "diameter", "radius", "angle", "centres", "count", "thread"] as const;
export type CalloutKind = (typeof CALLOUT_KINDS)[number];

export type Callout = {
  readonly id: Id;
  readonly kind: CalloutKind;
  readonly value: number;
  /** For a thread: its designation, `3/8-16`. */
  readonly thread?: string;
  /** What it speaks of, in the customer's words. */
  readonly name: string;
  /** Allowed difference, either way. */
  readonly tolerance?: number;
  /** Allowed difference where it is not the same either way: `low` is 0 or less, `high` 0 or more. */
  readonly limits?: { readonly low: number; readonly high: number };
  /** Where it stands on the sketch, in parts of its width and height from the top left. */
  readonly pin?: { readonly sketch: string; readonly x: number; readonly y: number };
  /** The geometry that answers it; two references for a distance. */
  readonly links: readonly Ref[];
};
