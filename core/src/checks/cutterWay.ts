import { lengthIn, type Check } from "./check.ts";

/**
 * Where a cutter can't get: found by the release that allows for one, from the way of its middle, so there is nothing
 * to find without.
 */
export const cutterWay: Check = {
  id: "cutter-way",
  name: "The cutter gets along",
  source: "Common practice: the way of its middle, half its diameter off.",
  find: () => [],
  says: {
    "cutter-corner": ({ cutter }, unit) =>
      `A cutter of Ø ${lengthIn(cutter, unit)} can't get into this inside corner: it stays round.`,
    "cutter-narrow": ({ cutter }, unit) =>
      `A cutter of Ø ${lengthIn(cutter, unit)} doesn't get in between here: material stays.`,
    "cutter-gone": ({ cutter }, unit) =>
      `A cutter of Ø ${lengthIn(cutter, unit)} doesn't get into this contour. Take a smaller one.`,
    "cutter-merged": ({ cutter }, unit) =>
      `A cutter of Ø ${lengthIn(cutter, unit)} doesn't get in between these contours: they would be cut as one. ` +
      "Move them apart, or take a smaller one.",
  },
};
