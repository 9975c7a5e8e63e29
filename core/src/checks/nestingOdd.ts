import type { Fault } from "./check.ts";
import type { Check } from "./check.ts";

/** From this depth on nobody means it: an island in a hole of an island. */
const DEEP = 3;

/** What lies oddly in one another, and roles that were set against it. */
export const nestingOdd: Check = {
  id: "nesting",
  name: "Contours lie in one another as they are cut",
  source: "Definition: what lies in an outer contour is a hole, what lies in that an island.",
  find: ({ profile: { contours } }) => {
    const cut = contours.filter(({ role }) => role !== "mark");
    const outermost = cut.filter(({ depth }) => depth === 0);
    const islands = cut.filter(({ depth }) => depth >= DEEP);
    const against = cut.filter(({ role, depth }) => role !== (depth % 2 === 0 ? "outside" : "inside"));
    return [
      ...against.map(({ role, pieces, ids }): Fault => ({
        code: role === "inside" ? "role-inside" : "role-outside",
        severity: "warning",
        at: pieces[0]!.a,
        ids,
        values: {},
      })),
      ...islands.map(({ depth, pieces, ids }): Fault => ({
        code: "deep",
        severity: "info",
        at: pieces[0]!.a,
        ids,
        values: { depth },
      })),
      ...(outermost.length > 1
        ? [
            {
              code: "several-outside",
              severity: "info" as const,
              ids: outermost.flatMap(({ ids }) => ids),
              values: { parts: outermost.length },
            },
          ]
        : []),
    ];
  },
  says: {
    "role-inside": () => "This contour is cut as a hole because its layer says so, but lies in nothing.",
    "role-outside": () => "This contour is cut as an outside because its layer says so, but lies where a hole would.",
    deep: ({ depth }) => `This contour lies ${depth} deep in others. Look whether one of them is meant.`,
    "several-outside": ({ parts }) => `${parts} separate parts: none lies in another.`,
  },
};
