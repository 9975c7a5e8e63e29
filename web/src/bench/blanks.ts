import type { Callout } from "@ash-edge/core/drawing";
import { fitsBlank, REGISTRY, typedParts, type Tool } from "@ash-edge/tools";

/** The tools that can use a callout's kind, for a callout clicked with no tool active. */
export const toolsFor = ({ kind }: Callout): readonly Tool[] =>
  REGISTRY.flatMap((one) =>
    one.kind === "tool" && typedParts(one).some((part) => fitsBlank(part, kind)) ? [one] : [],
  );
