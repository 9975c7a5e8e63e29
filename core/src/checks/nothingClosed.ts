import type { Check } from "./check.ts";

/** Nothing that closes, marks apart: there is nothing to cut out. */
export const nothingClosed: Check = ({ contours }) =>
  contours.some(({ role }) => role !== "mark")
    ? []
    : [{ code: "nothing-closed", severity: "error", ids: [], values: {} }];
