import type { Check } from "./check.ts";

/** Chains with two free ends, each with how far the nearest other end is. */
export const openChains: Check = ({ open }) =>
  open.map(({ ids, ends: [start] }) => ({
    code: "open",
    severity: "error",
    at: start!.at,
    ids,
    values: start!.gap ? { ends: 2, gap: start!.gap.distance } : { ends: 2 },
  }));
