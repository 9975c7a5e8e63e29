import { FAULT_SENTENCES } from "../checks/list.ts";
import { showTelling } from "../numeric/showValue.ts";
import type { Unit } from "../numeric/units.ts";
import type { Finding, TidyCode } from "../tidy/things.ts";

/** A length of a finding in words; undefined where it has none. */
type Words = (length: (name: string) => string | undefined, finding: Finding) => string;

/** With its length where that is known, without where it is not. */
const withLength = (length: string | undefined, words: (length: string) => string, without: string): string =>
  length === undefined ? without : words(length);

const SENTENCES: Readonly<Record<TidyCode, Words>> = {
  duplicate: () => "The same geometry lies here twice.",
  overlap: () => "One lies on part of another.",
  fragment: () => "Pieces of one line or arc lie end to end.",
  gap: (length) =>
    withLength(length("width"), (width) => `Two ends nearly meet, ${width} apart.`, "Two ends nearly meet."),
  tail: (length) =>
    withLength(
      length("moves"),
      (moves) => `An end runs past its corner, by ${moves} at most.`,
      "An end runs past its corner.",
    ),
  open: (length, { values }) =>
    values.other !== undefined
      ? FAULT_SENTENCES["layers-apart"]!(values, "mm")
      : typeof values.apart === "number" && values.apart > 0
        ? `It does not close: its ends lie ${length("apart")!} apart.`
        : "It does not close.",
  crossing: () => "Outlines cross here.",
  "shared-edge": () => "Two closed outlines share an edge, which would be cut twice.",
  tiny: (length, { values }) =>
    values.length === 0
      ? "A piece has no length."
      : withLength(
          length("length"),
          (long) => `A piece is only ${long} long, less than the tolerance.`,
          "A piece is shorter than the tolerance.",
        ),
};

/** What tidying met, in a sentence. */
export const sayFinding = (finding: Finding, unit: Unit): string =>
  SENTENCES[finding.code]((name) => {
    const value = finding.values[name];
    return typeof value === "number" ? `${showTelling(value, unit)} ${unit}` : undefined;
  }, finding);
