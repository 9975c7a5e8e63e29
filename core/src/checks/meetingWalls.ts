import { meetingPlaces } from "../contour/meetingPlaces.ts";
import type { Check } from "./check.ts";

/** Crossings, touches and doubled stretches between and within contours and chains, each place once. */
export const meetingWalls: Check = {
  find: ({ contours, open }) => {
    const owners = [...contours.filter(({ role }) => role !== "mark"), ...open];
    return meetingPlaces(owners).map(({ kind, at, runs }) => ({
      code: kind,
      severity: kind === "touching" ? "warning" : "error",
      at,
      ids: [...new Set(runs.flatMap((run) => owners[run]!.ids))],
      values: {},
    }));
  },
  says: {
    crossing: () => "Two contours cross here, or one crosses itself. Trim what is too much.",
    touching: () => "Two contours touch here: the wall between them has no thickness.",
    doubled: () => "The same edge is there twice and would be cut twice. Remove one of them.",
  },
};
