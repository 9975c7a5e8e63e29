import { lengthIn, type Check } from "./check.ts";

/** Chains with two free ends, each with how far the nearest other end is. */
export const openChains: Check = {
  find: ({ open }) =>
    open.map(({ ids, ends: [start] }) => ({
      code: "open",
      severity: "error",
      at: start!.at,
      ids,
      values: start!.gap ? { ends: 2, gap: start!.gap.distance } : { ends: 2 },
    })),
  says: {
    open: ({ gap }, unit) =>
      typeof gap === "number" && gap > 0
        ? `A chain is open: 2 free ends, ${lengthIn(gap, unit)} ${unit} to the nearest other end.`
        : "A chain is open at both ends.",
  },
};
