import type { ReleasePlan } from "./releasePlan.ts";

/** How the callouts that are to hold stand. */
export type Standing = { readonly called: number; readonly notPlaced: number; readonly off: number };

/** Whether a drawing may be cut, in one line: the words are said wherever that is decided. */
export type Verdict = { readonly state: "ready" | "but for" | "not ready"; readonly words: string };

const counted = (n: number, one: string): string => `${n} ${one}${n === 1 ? "" : "s"}`;

/**
 * The verdict on a release: not ready with a fault or nothing to cut; ready but for callouts that are off or answered
 * by nothing, and for warnings; ready where nothing is left to say.
 */
export const releaseVerdict = (
  { ready, faults }: Pick<ReleasePlan, "ready" | "faults">,
  { notPlaced, off }: Standing,
): Verdict => {
  if (!ready) return { state: "not ready", words: "Not ready to cut" };
  const warnings = faults.filter(({ severity }) => severity === "warning").length;
  const left = [
    ...(off > 0 ? [`${counted(off, "callout")} off`] : []),
    ...(notPlaced > 0 ? [`${counted(notPlaced, "callout")} not placed`] : []),
    ...(warnings > 0 ? [counted(warnings, "warning")] : []),
  ];
  return left.length === 0
    ? { state: "ready", words: "Ready to cut" }
    : { state: "but for", words: `Ready but for ${left.join(", ")}` };
};
