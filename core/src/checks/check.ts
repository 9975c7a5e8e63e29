import { settingsOf, type Drawing } from "../drawing/drawing.ts";
import type { Making } from "../drawing/making.ts";
import type { Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import type { Id } from "../numeric/id.ts";
import type { Unit } from "../numeric/units.ts";
import { showTelling } from "../numeric/showValue.ts";
import { ARC_PART } from "../numeric/tolerance.ts";
import type { Profile } from "../profile/profile.ts";

/** How grave something is: an error stands against cutting, a warning is said, an info is only told. */
export type Severity = "error" | "warning" | "info";

export type FaultValues = Readonly<Record<string, number | string>>;

/**
 * What stands against cutting a profile, or is to be said of it. Numbers in the job's unit; its check has the
 * sentence. What lies between two places has both.
 */
export type Fault = {
  readonly code: string;
  readonly severity: Severity;
  readonly at?: Point;
  readonly to?: Point;
  /** What a tool leaves standing there, as a closed outline. */
  readonly region?: readonly Piece[];
  readonly ids: readonly Id[];
  readonly values: FaultValues;
};

/** What a job is made of, as its head says it. */
export type Stock = { readonly material: string; readonly thickness?: number | undefined };

/** What is checked: the profile of a drawing, and what it is made with and of. */
export type Subject = {
  readonly drawing: Drawing;
  readonly profile: Profile;
  readonly making: Making;
  readonly stock: Stock;
};

/**
 * One check: what it finds, a sentence for each code of that, and where what it asks for comes from. A new one is a
 * file with this and a line in `list.ts`.
 */
export type Check = {
  readonly id: string;
  readonly name: string;
  /** A standard, a handbook, a definition, or common practice. */
  readonly source: string;
  /** It takes longer than an edit may: it is asked where a job is proved or released. */
  readonly slow?: true;
  readonly find: (subject: Subject) => readonly Fault[];
  readonly says: Readonly<Record<string, (values: FaultValues, unit: Unit) => string>>;
  /** The tool that mends what has a code. */
  readonly repairs?: Readonly<Record<string, string>>;
};

/** A length of a fault in words, in the job's unit. */
export const lengthIn = (value: number | string | undefined, unit: Unit): string =>
  typeof value === "number" ? showTelling(value, unit) : "?";

/** So much narrower than a tool something may be and still be as wide: what the rounding of files leaves. */
export const slackOf = (drawing: Drawing): number => ARC_PART * settingsOf(drawing).joinTolerance;
