import type { Point } from "../geometry/point.ts";
import type { Degree } from "./degree.ts";
import type { OutlinesMeet } from "./outlinesMeet.ts";
import type { Group } from "./onTracks.ts";
import { originsOf, type Strand } from "./strands.ts";
import type { Stretches } from "./stretches.ts";
import type { Absorbed, Finding, Thing, TidyCode, TidyOptions } from "./things.ts";

/** What was found and done so far. */
export type Noted = {
  readonly findings: Finding[];
  readonly touched: number[];
  readonly openedAt: Point[];
  /** The strands in whose places some were made for what an overlap leaves uncovered. */
  readonly made: number[];
  readonly absorbed: Absorbed[];
  /** Things that are there twice, as a whole: said once for all their pieces. */
  readonly whole: Set<number>;
  readonly accepted: Map<number, boolean>;
};
/** What groups are resolved with. */
export type Work = {
  readonly all: readonly Strand[];
  readonly things: readonly Thing[];
  readonly classes: readonly number[];
  readonly options: TidyOptions;
  readonly degree: Degree;
  readonly outlinesMeet: OutlinesMeet;
  /** The places of things of which something was changed in rounds before. */
  readonly touched: ReadonlySet<number>;
  readonly noted: Noted;
  /** What becomes of each strand; nothing is said where it stays as it is. */
  readonly out: (readonly Strand[] | undefined)[];
};

/** A group with the stretches of its track, and its members in the order in which they may stay. */
export type Lain = {
  readonly group: Group;
  /** The class of its strands. */
  readonly own: number;
  readonly stretches: Stretches;
  readonly order: readonly number[];
  readonly place: readonly number[];
  readonly thingOf: (member: number) => Thing;
  /** Notes a finding; true where it is mended. */
  readonly note: (code: TidyCode, at: Point, ids: readonly number[], mendable?: boolean) => boolean;
};

/** A strand made where what stays leaves something uncovered, and in whose place. */
export type Made = { readonly home: number; readonly strand: Strand };

export const NO_VALUES = {};

/** Notes that a strand went, and what stays where it lay. */
export const absorb = (went: Strand, stays: Strand, { things, noted }: Work): void => {
  const there = originsOf(stays, things)[0]!;
  const origins = originsOf(went, things);
  for (let k = 0; k < origins.length; k++) noted.absorbed.push([origins[k]!, there]);
};

/** What becomes of a strand that goes. */
export const GONE: readonly Strand[] = [];
