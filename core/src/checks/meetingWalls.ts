import { meetingPlaces } from "../contour/meetingPlaces.ts";
import type { Check } from "./check.ts";

/** Crossings, touches and doubled stretches between and within contours and chains, each place once. */
export const meetingWalls: Check = ({ contours, open }) => {
  const owners = [...contours.filter(({ role }) => role !== "mark"), ...open];
  return meetingPlaces(owners).map(({ kind, at, runs }) => ({
    code: kind,
    severity: kind === "touching" ? "warning" : "error",
    at,
    ids: [...new Set(runs.flatMap((run) => owners[run]!.ids))],
    values: {},
  }));
};
