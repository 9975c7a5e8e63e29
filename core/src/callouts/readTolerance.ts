import { derivedNumber } from "../numeric/showValue.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { readTypedValue, type Expectation } from "../numeric/typedValue.ts";
import type { Unit } from "../numeric/units.ts";

/** What a number may be off, and the text without it. */
export type Tolerant = {
  readonly tolerance?: number;
  readonly limits?: { readonly low: number; readonly high: number };
  readonly rest: string;
};

/** A number within a tolerance: digits, a fraction or a mixed number, perhaps with its unit. */
const NUMBER = String.raw`(\d*[.,]?\d+(?:[ -]\d+\/\d+|\/\d+)?\s?(?:mm|in|"|°)?)`;
const EITHER = new RegExp(String.raw`(?:±|\+\s?\/?\s?[-−])\s?(\S+)`);
const BOTH = new RegExp(String.raw`(?:^|\s)\+\s?${NUMBER}\s*\/?\s*[-−]\s?${NUMBER}(?=\s|$)`);
const BOTH_TURNED = new RegExp(String.raw`(?:^|\s)[-−]\s?${NUMBER}\s*\/?\s*\+\s?${NUMBER}(?=\s|$)`);
const ONE = new RegExp(String.raw`\s([+−-])${NUMBER}(?=\s|$)`);

/**
 * Takes a tolerance out of a line: `±0.1`, `+0.2 -0.05`, `+0.1`, `-0.2`, `+0/-0.2`. A sign stands tight before its
 * number where it is a tolerance on one side; the ledger does no arithmetic.
 */
export const readTolerance = (line: string, unit: Unit, expects: Expectation): Outcome<Tolerant> => {
  const value = (text: string): Outcome<number> => {
    const read = readTypedValue(text, { unit, expects });
    return read.ok ? done(read.value.value) : read;
  };
  const rest = (found: string): string => line.replace(found, " ").replace(/\s+/g, " ").trim();
  const oneSided = (up: number, down: number, found: string): Outcome<Tolerant> =>
    up + down > 0
      ? done({ limits: { low: down === 0 ? 0 : -down, high: up }, rest: rest(found) })
      : refuse("value-not-positive", { what: "A tolerance" });

  const both = BOTH.exec(line) ?? BOTH_TURNED.exec(line);
  if (both) {
    const turned = BOTH.exec(line) === null;
    const [first, second] = [value(both[1]!), value(both[2]!)];
    if (!first.ok) return first;
    if (!second.ok) return second;
    return oneSided(turned ? second.value : first.value, turned ? first.value : second.value, both[0]);
  }
  const either = EITHER.exec(line);
  if (either) {
    const read = value(either[1]!);
    if (!read.ok) return read;
    if (!(read.value > 0)) return refuse("value-not-positive", { what: "A tolerance" });
    return done({ tolerance: read.value, rest: rest(either[0]) });
  }
  const one = ONE.exec(line);
  // `1 -3/16` is a mixed number or a difference: its reader asks
  if (!one || (one[1] !== "+" && /^\d+ [-−]\d+\/\d+/.test(line))) return done({ rest: line });
  const read = value(one[2]!);
  if (!read.ok) return read;
  return one[1] === "+" ? oneSided(read.value, 0, one[0]) : oneSided(0, read.value, one[0]);
};

/** Two limits as the value between them and how far they lie off it, in round numbers where they are. */
export const betweenLimits = (
  from: number,
  to: number,
): { readonly value: number; readonly limits: { readonly low: number; readonly high: number } } => {
  const value = derivedNumber((from + to) / 2);
  return { value, limits: { low: derivedNumber(from - value), high: derivedNumber(to - value) } };
};
