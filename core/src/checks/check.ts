import type { Point } from "../geometry/point.ts";
import type { Id } from "../numeric/id.ts";
import { showTelling } from "../numeric/showValue.ts";
import type { Unit } from "../numeric/units.ts";
import type { Profile } from "../profile/profile.ts";

/** How grave something is: an error stands against cutting, a warning is said, an info is only told. */
export type Severity = "error" | "warning" | "info";

export type FaultValues = Readonly<Record<string, number | string>>;

/**
 * What stands against cutting a profile, or is to be said of it. Numbers in the job's unit; its check has the
 * sentence.
 */
export type Fault = {
  readonly code: string;
  readonly severity: Exclude<Severity, "info">;
  readonly at?: Point;
  readonly ids: readonly Id[];
  readonly values: FaultValues;
};

/**
 * One check: what it finds in a profile, and a sentence for each code of that. A new one is a file with this and a
 * line in `list.ts`.
 */
export type Check = {
  readonly find: (profile: Profile) => readonly Fault[];
  readonly says: Readonly<Record<string, (values: FaultValues, unit: Unit) => string>>;
};

/** A length of a fault in words, in the job's unit. */
export const lengthIn = (value: number | string | undefined, unit: Unit): string =>
  typeof value === "number" ? showTelling(value, unit) : "?";
