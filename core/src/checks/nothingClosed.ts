import type { Check } from "./check.ts";

/** Nothing that closes, marks apart: there is nothing to cut out. */
export const nothingClosed: Check = {
  find: ({ contours }) =>
    contours.some(({ role }) => role !== "mark")
      ? []
      : [{ code: "nothing-closed", severity: "error", ids: [], values: {} }],
  says: { "nothing-closed": () => "Nothing is closed yet. A release needs at least one closed contour." },
};
