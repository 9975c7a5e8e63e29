import { settingsOf, type Drawing } from "@ash-edge/core/drawing";
import type { Part, Given } from "../tool.ts";

export const within: readonly Part[] = [
  { kind: "words", text: "within" },
  { kind: "value", name: "within", label: "tolerance", expects: "length", stays: true },
];
/** What is typed, else the join tolerance of the job. */
export const toleranceOf = (given: Given, drawing: Drawing): number =>
  given.value("within") ?? settingsOf(drawing).joinTolerance;
