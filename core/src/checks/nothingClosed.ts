import type { Check } from "./check.ts";

/** Nothing that closes, marks apart: there is nothing to cut out. */
export const nothingClosed: Check = {
  id: "closed",
  name: "Something closes",
  source: "Definition: what is cut out has a closed outline.",
  find: ({ profile: { contours } }) =>
    contours.some(({ role }) => role !== "mark")
      ? []
      : [{ code: "nothing-closed", severity: "error", ids: [], values: {} }],
  says: { "nothing-closed": () => "Nothing is closed yet. A release needs at least one closed contour." },
};
