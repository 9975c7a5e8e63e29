import { extendAlong } from "@ash-edge/core/edits";
import { done } from "@ash-edge/core/numeric";
import { refused, type Proposal } from "../tool.ts";
import { cuttersOf } from "./trim.ts";

/** The ends that a drag went over, each moved to what cuts it, as one proposal. */
export const sweptEnds = (
  cutters: ReturnType<typeof cuttersOf>,
  index: Parameters<typeof extendAlong>[0],
  path: Parameters<typeof extendAlong>[1],
): Proposal => {
  const swept = extendAlong(index, path, cutters);
  if (!swept.ok) return refused(swept);
  const { edit, goes, comes, count } = swept.value;
  const preview = [...comes.map((shape) => ({ shape })), ...goes.map((shape) => ({ shape, goes: true }))];
  return { ways: [{ preview, edit: () => done(edit), said: `${count} ends moved.` }], note: `${count} ends` };
};
