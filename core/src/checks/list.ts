import { settingsOf, type Drawing } from "../drawing/drawing.ts";
import type { Profile } from "../profile/profile.ts";
import type { Check, Fault, Stock, Subject } from "./check.ts";
import { cutterWay } from "./cutterWay.ts";
import { edgeDistance, smallHoles } from "./holes.ts";
import { insideRadius } from "./insideRadius.ts";
import { kinks } from "./kinks.ts";
import { leftOut } from "./leftOut.ts";
import { meetingWalls } from "./meetingWalls.ts";
import { narrowSlots, thinWalls } from "./narrowWays.ts";
import { nestingOdd } from "./nestingOdd.ts";
import { notArcs } from "./notArcs.ts";
import { nothingClosed } from "./nothingClosed.ts";
import { notJoined } from "./notJoined.ts";
import { openChains } from "./openChains.ts";
import { sheetFits } from "./sheetFits.ts";
import { sketchPins } from "./sketchPins.ts";
import { tinyPieces } from "./tinyPieces.ts";
import { traced } from "./traced.ts";
import { writtenLayers } from "./writtenLayers.ts";

/**
 * Everything that is asked of a profile before it is cut: the page, Release, the command line and Tidy's verdict go by
 * this list.
 */
export const CHECKS: readonly Check[] = [
  nothingClosed,
  notJoined,
  openChains,
  notArcs,
  meetingWalls,
  tinyPieces,
  traced,
  kinks,
  insideRadius,
  narrowSlots,
  cutterWay,
  thinWalls,
  smallHoles,
  edgeDistance,
  nestingOdd,
  sheetFits,
  sketchPins,
  leftOut,
  writtenLayers,
];

/** The sentence for each code of every check. */
export const FAULT_SENTENCES = Object.assign({}, ...CHECKS.map(({ says }) => says)) as Check["says"];

/** Where what a code asks for comes from. */
export const FAULT_SOURCES = Object.assign(
  {},
  ...CHECKS.map(({ name, source, says }) =>
    Object.fromEntries(Object.keys(says).map((code) => [code, `${name}. ${source}`])),
  ),
) as Readonly<Record<string, string>>;

/** The tool that mends what has a code, by its name in the registry. */
export const FAULT_REPAIRS = Object.assign({}, ...CHECKS.map(({ repairs = {} }) => repairs)) as Readonly<
  Record<string, string | undefined>
>;

const GRAVEST = ["error", "warning", "info"] as const;

/** Errors first, then warnings, else in the order in which they were found. */
export const gravestFirst = (faults: readonly Fault[]): readonly Fault[] =>
  [...faults].sort((p, q) => GRAVEST.indexOf(p.severity) - GRAVEST.indexOf(q.severity));

/** A drawing as it is checked, with what its settings say that it is made with. */
export const subjectOf = (drawing: Drawing, profile: Profile, stock: Stock = { material: "" }): Subject => ({
  drawing,
  profile,
  stock,
  making: settingsOf(drawing).making ?? {},
});

/**
 * Everything that is to be said before cutting, gravest first; with `quick` without what takes longer than an edit may.
 * Near n log n where few things lie near one another.
 */
export const faultsOf = (subject: Subject, { quick = false } = {}): readonly Fault[] =>
  gravestFirst(CHECKS.filter(({ slow }) => !quick || !slow).flatMap(({ find }) => find(subject)));
