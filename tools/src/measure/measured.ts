import type { Shape } from "@ash-edge/core/shape";
import type { Proposal } from "../tool.ts";

/** What is measured is said, and nothing is made. */
export const measured = (said: string, preview: readonly Shape[] = []): Proposal => ({
  ways: [{ preview: preview.map((shape) => ({ shape })), said }],
  note: said,
});
