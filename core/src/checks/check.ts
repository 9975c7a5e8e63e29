import type { Point } from "../geometry/point.ts";
import type { Id } from "../numeric/id.ts";
import type { Profile } from "../profile/profile.ts";

/** How grave something is: an error stands against cutting, a warning is said, an info is only told. */
export type Severity = "error" | "warning" | "info";

/**
 * What stands against cutting a profile, or is to be said of it. Numbers in the job's unit; the sentence is made in
 * `say/`.
 */
export type Fault = {
  readonly code: FaultCode;
  readonly severity: Exclude<Severity, "info">;
  readonly at?: Point;
  readonly ids: readonly Id[];
  readonly values: Readonly<Record<string, number | string>>;
};

export const FAULT_CODES = [
  "nothing-closed",
  "open",
  "not-joined",
  "crossing",
  "touching",
  "doubled",
  "not-arcs",
  "cutter-corner",
  "cutter-narrow",
  "cutter-gone",
  "cutter-merged",
] as const;
export type FaultCode = (typeof FAULT_CODES)[number];

/** One check: what it finds in a profile. A new one is a file with this and a line in `list.ts`. */
export type Check = (profile: Profile) => readonly Fault[];
