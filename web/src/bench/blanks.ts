import type { Callout, CalloutKind } from "@ash-edge/core/drawing";
import { fitsBlank, REGISTRY, typedParts, type Tool } from "@ash-edge/tools";

/** By what a callout calls for, the tools that a drafter would likeliest take for it, likeliest first. */
const LIKELIEST: Readonly<Record<CalloutKind, readonly string[]>> = {
  length: ["parallel", "rectangle", "outline", "offset", "slot"],
  centres: ["parallel", "slot", "hole-grid", "layout-circle", "rows"],
  diameter: ["circle", "hole", "bolt-circle", "layout-circle", "ring"],
  radius: ["fillet", "circle", "tangent-arc", "circle-touching-two", "change-fillet"],
  angle: ["at-an-angle", "line-at-an-angle", "tangent-at-an-angle", "rotate", "bolt-circle"],
  count: ["bolt-circle", "rows", "round-a-centre", "hole-grid", "divide"],
  thread: ["tapped-hole", "clearance-hole", "bolt-circle", "hole-grid"],
  chamfer: ["chamfer", "rectangle"],
};

/** The tools that can use a callout, for one clicked with no tool active; the likeliest of its kind first. */
export const toolsFor = ({ kind }: Callout): readonly Tool[] => {
  const rank = ({ id }: Tool): number => {
    const at = LIKELIEST[kind].indexOf(id);
    return at < 0 ? Infinity : at;
  };
  const fitting = REGISTRY.flatMap((one) =>
    one.kind === "tool" && typedParts(one).some((part) => fitsBlank(part, kind)) ? [one] : [],
  );
  const likely = fitting.filter((tool) => rank(tool) < Infinity).sort((p, q) => rank(p) - rank(q));
  return [...likely, ...fitting.filter((tool) => rank(tool) === Infinity)];
};
