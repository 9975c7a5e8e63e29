import type { Check } from "./check.ts";

/** Ellipses and free curves: no machine cuts them as they are. */
export const notArcs: Check = ({ smooth }) =>
  smooth.length === 0 ? [] : [{ code: "not-arcs", severity: "error", ids: smooth, values: { curves: smooth.length } }];
