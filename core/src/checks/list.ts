import type { Profile } from "../profile/profile.ts";
import { writtenLayers } from "./writtenLayers.ts";
import type { Check, Fault } from "./check.ts";
import { cutterWay } from "./cutterWay.ts";
import { meetingWalls } from "./meetingWalls.ts";
import { notArcs } from "./notArcs.ts";
import { nothingClosed } from "./nothingClosed.ts";
import { notJoined } from "./notJoined.ts";
import { openChains } from "./openChains.ts";

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
  cutterWay,
  writtenLayers,
];

/** The sentence for each code of every check. */
export const FAULT_SENTENCES = Object.assign({}, ...CHECKS.map(({ says }) => says)) as Check["says"];

/** Errors first, else in the order in which they were found. */
export const gravestFirst = (faults: readonly Fault[]): readonly Fault[] =>
  [...faults].sort((p, q) => Number(p.severity === "warning") - Number(q.severity === "warning"));

/** Everything that stands against cutting, errors first. Near n log n where few things meet. */
export const faultsOf = (profile: Profile): readonly Fault[] =>
  gravestFirst(CHECKS.flatMap(({ find }) => find(profile)));
