import type { Check } from "./check.ts";

/** Loose pieces that meet all round without being one contour. */
export const notJoined: Check = {
  id: "joined",
  name: "Contours are joined",
  source: "Definition: one contour is one chain.",
  repairs: { "not-joined": "join" },
  find: ({ profile: { contours } }) =>
    contours
      .filter(({ role, joined }) => role !== "mark" && !joined)
      .map(({ ids, pieces }) => ({
        code: "not-joined",
        severity: "error",
        at: pieces[0]!.a,
        ids,
        values: { pieces: ids.length },
      })),
  says: {
    "not-joined": ({ pieces }) =>
      `${pieces} loose pieces meet all round but are not joined. Join makes one contour of them.`,
  },
};
