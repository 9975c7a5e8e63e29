import { meetingPlaces } from "../contour/meetingPlaces.ts";
import { TooMuch, withinMoment } from "../numeric/effort.ts";
import type { Check } from "./check.ts";

/** Crossings, touches and doubled stretches between and within contours and chains, each place once. */
export const meetingWalls: Check = {
  id: "crossing",
  name: "Nothing crosses, touches or is doubled",
  source: "Definition: boundaries of one body have no point in common.",
  find: ({ profile: { contours, open } }) => {
    const owners = [...contours.filter(({ role }) => role !== "mark"), ...open];
    try {
      return withinMoment(() => meetingPlaces(owners)).map(({ kind, at, runs }) => ({
        code: kind,
        severity: kind === "touching" ? "warning" : "error",
        at,
        ids: [...new Set(runs.flatMap((run) => owners[run]!.ids))],
        values: {},
      }));
    } catch (reason) {
      if (!(reason instanceof TooMuch)) throw reason;
      const { most: crossings, at } = reason;
      return [{ code: "too-many", severity: "error", at, ids: [], values: { crossings } }];
    }
  },
  says: {
    "too-many": ({ crossings }) =>
      `More than ${crossings} places where contours cross or touch: too many to list, and not all were looked for. ` +
      "Undo the step that made them, or mend its size.",
    crossing: () => "Two contours cross here, or one crosses itself. Trim what is too much.",
    touching: () => "Two contours touch here: the wall between them has no thickness.",
    doubled: () => "The same edge is there twice and would be cut twice. Remove one of them.",
  },
};
