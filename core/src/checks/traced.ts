import { cutEntities } from "../drawing/drawing.ts";
import type { Check } from "./check.ts";

/** What was traced from a picture, and has not been told by numbers since. */
export const traced: Check = {
  id: "traced",
  name: "Numbers tell all of it",
  source: "Common practice: what no number tells is only as exact as the sketch.",
  find: ({ drawing }) => {
    const ids = [...cutEntities(drawing)].flatMap((one) => (one.traced ? [one.id] : []));
    return ids.length === 0 ? [] : [{ code: "traced", severity: "warning", ids, values: { things: ids.length } }];
  },
  says: {
    traced: ({ things }) =>
      `${things === 1 ? "One outline was" : `${things} outlines were`} traced from a picture, and the numbers do not ` +
      "tell all of it yet: what no number tells is only as exact as the sketch.",
  },
};
