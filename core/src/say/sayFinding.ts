import { FAULT_SENTENCES } from "../checks/list.ts";
import { showLengthUnit } from "../numeric/showValue.ts";
import type { Unit } from "../numeric/units.ts";
import type { Finding, TidyCode } from "../tidy/things.ts";

type Words = (length: (name: string) => string, finding: Finding) => string;

const SENTENCES: Readonly<Record<TidyCode, Words>> = {
  duplicate: () => "The same geometry lies here twice.",
  overlap: () => "One lies on part of another.",
  fragment: () => "Pieces of one line or arc lie end to end.",
  gap: (length) => `Two ends nearly meet, ${length("width")} apart.`,
  tail: (length) => `An end runs past its corner, by ${length("moves")} at most.`,
  open: (length, { values }) =>
    values.other !== undefined
      ? FAULT_SENTENCES["layers-apart"]!(values, "mm")
      : typeof values.apart === "number" && values.apart > 0
        ? `It does not close: its ends lie ${length("apart")} apart.`
        : "It does not close.",
  crossing: () => "Outlines cross here.",
  "shared-edge": () => "Two closed outlines share an edge, which would be cut twice.",
  tiny: (length, { values }) =>
    values.length === 0
      ? "A piece has no length."
      : `A piece is only ${length("length")} long, less than the tolerance.`,
};

/** What tidying met, in a sentence. */
export const sayFinding = (finding: Finding, unit: Unit): string =>
  SENTENCES[finding.code]((name) => {
    const value = finding.values[name];
    return typeof value === "number" ? showLengthUnit(value, unit) : "?";
  }, finding);
