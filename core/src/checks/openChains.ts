import { RESOLUTION } from "../numeric/tolerance.ts";
import { lengthIn, type Check } from "./check.ts";

/** Chains with two free ends, each with how far the nearest other end is. */
export const openChains: Check = {
  id: "open",
  name: "No open ends",
  source: "Definition: a contour has no ends.",
  find: ({ profile: { open } }) =>
    open.map(({ ids, layer, ends }) => {
      const met = ends.find(({ gap }) => gap?.apart && gap.distance <= RESOLUTION);
      if (met?.gap?.apart)
        return {
          code: "layers-apart",
          severity: "error",
          at: met.at,
          ids: [...ids, ...met.gap.apart.ids],
          values: { layer, other: met.gap.apart.layer },
        };
      const [start] = ends;
      return {
        code: "open",
        severity: "error",
        at: start!.at,
        ids,
        values: start!.gap ? { ends: 2, gap: start!.gap.distance } : { ends: 2 },
      };
    }),
  says: {
    "layers-apart": ({ layer, other }) =>
      `Ends meet, but lie on the layers ${layer} and ${other}. Put them on one layer.`,
    open: ({ gap }, unit) =>
      typeof gap === "number" && gap > 0
        ? `A chain is open: 2 free ends, ${lengthIn(gap, unit)} ${unit} to the nearest other end.`
        : "A chain is open at both ends.",
  },
};
