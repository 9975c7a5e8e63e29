import type { Drawing } from "@ash-edge/core/drawing";
import type { PreviewShape } from "@ash-edge/tools";
import type { MetFinding } from "../../worker/tidy.worker.ts";

/**
 * The findings while they are looked at: of which drawing, how far a search is, and the one that is lit with its
 * repair.
 */
export type Tidying = {
  readonly among: "all" | "selected";
  /**
   * What was found last. It speaks of the drawing `of`, under the settings of now; of nothing while that is undefined.
   */
  readonly findings?: readonly MetFinding[];
  readonly of?: Drawing | undefined;
  /** Why the drawing as it stands was not looked over, where it is not going to be by itself. */
  readonly notLooked?: string | undefined;
  readonly busy: number | undefined;
  readonly lit: string | undefined;
  readonly preview: readonly PreviewShape[] | undefined;
};

export type TidyingEvent =
  | { readonly type: "opened" }
  | { readonly type: "closed" }
  | { readonly type: "among"; readonly among: Tidying["among"] }
  | { readonly type: "busy"; readonly part: number | undefined }
  | { readonly type: "stale" }
  | { readonly type: "looking" }
  | { readonly type: "not looked"; readonly why: string }
  | { readonly type: "found"; readonly findings: readonly MetFinding[]; readonly of: Drawing }
  | { readonly type: "lit"; readonly key: string | undefined }
  | { readonly type: "preview"; readonly shapes: readonly PreviewShape[] };

/** The findings of a drawing; undefined while it was not, or not yet, looked over as it stands. */
export const foundIn = (tidying: Tidying | undefined, drawing: Drawing): readonly MetFinding[] | undefined =>
  tidying && tidying.of === drawing ? tidying.findings : undefined;

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
    case "stale":
      return { ...tidying, of: undefined, notLooked: undefined };
    case "looking":
      return { ...tidying, of: undefined, notLooked: undefined, busy: 0 };
    case "not looked":
      return { ...tidying, findings: [], of: undefined, notLooked: event.why, busy: undefined, preview: undefined };
    case "found":
      return {
        ...tidying,
        findings: event.findings,
        of: event.of,
        notLooked: undefined,
        busy: undefined,
        preview: undefined,
      };
    case "lit":
      return { ...tidying, lit: event.key, preview: undefined };
    case "preview":
      return { ...tidying, preview: event.shapes };
  }
};
