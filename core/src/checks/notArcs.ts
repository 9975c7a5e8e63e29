import type { Check } from "./check.ts";

/** Ellipses and free curves: no machine cuts them as they are. */
export const notArcs: Check = {
  id: "arcs",
  name: "Lines and arcs alone",
  source: "Common practice: controls run lines and arcs.",
  repairs: { "not-arcs": "arc-fit" },
  find: ({ profile: { smooth } }) =>
    smooth.length === 0
      ? []
      : [{ code: "not-arcs", severity: "error", ids: smooth, values: { curves: smooth.length } }],
  says: {
    "not-arcs": ({ curves }) =>
      curves === 1
        ? "1 ellipse or free curve is not made of arcs yet, so no machine can cut it."
        : `${curves} ellipses or free curves are not made of arcs yet, so no machine can cut them.`,
  },
};
