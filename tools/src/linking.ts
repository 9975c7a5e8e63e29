import type { Callout, Ref } from "@ash-edge/core/drawing";
import type { Tie } from "@ash-edge/core/edits";

/**
 * Ties the callout that filled a blank to what was made with it: sizes beside what already answers it, distances anew.
 */
export const linkCallout = (draft: Tie, callout: Callout | undefined, refs: readonly Ref[]): void => {
  if (!callout) return;
  draft.link(callout.id, refs, callout.kind === "radius" || callout.kind === "diameter");
};
