import type { Drawing } from "@ash-edge/core/drawing";
import type { PreviewShape } from "@ash-edge/tools";
import type { MetFinding } from "../../worker/tidy.worker.ts";

/**
 * The findings while they are looked at: of which drawing, how far a search is, and the one that is lit with its
 * repair.
 */
export type Tidying = {
  readonly among: "all" | "selected";
  readonly findings?: readonly MetFinding[];
  readonly of?: Drawing;
  readonly busy: number | undefined;
  readonly lit: string | undefined;
  readonly preview: readonly PreviewShape[] | undefined;
};

export type TidyingEvent =
  | { readonly type: "opened" }
  | { readonly type: "closed" }
  | { readonly type: "among"; readonly among: Tidying["among"] }
  | { readonly type: "busy"; readonly part: number | undefined }
  | { readonly type: "found"; readonly findings: readonly MetFinding[]; readonly of: Drawing }
  | { readonly type: "lit"; readonly key: string | undefined }
  | { readonly type: "preview"; readonly shapes: readonly PreviewShape[] };

/** Undefined while the findings are not looked at: only opening them ends that. */
export const tidyingAfter = (tidying: Tidying | undefined, event: TidyingEvent): Tidying | undefined => {
  if (event.type === "opened") return tidying ?? { among: "all", busy: undefined, lit: undefined, preview: undefined };
  if (!tidying) return undefined;
  switch (event.type) {
    case "closed":
      return undefined;
    case "among":
      return { ...tidying, among: event.among };
    case "busy":
      return { ...tidying, busy: event.part };
    case "found":
      return { ...tidying, findings: event.findings, of: event.of, busy: undefined, preview: undefined };
    case "lit":
      return { ...tidying, lit: event.key, preview: undefined };
    case "preview":
      return { ...tidying, preview: event.shapes };
  }
};
