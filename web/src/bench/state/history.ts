import type { Drawing } from "@ash-edge/core/drawing";
import type { DrawingIndex } from "@ash-edge/core/look";
import type { History } from "../../store/index.ts";

/** The drawing as it stands, the steps that led to it, and what of them is stored. */
export type HistoryPart = {
  readonly drawing: Drawing;
  readonly index: DrawingIndex;
  readonly steps: History;
  /** How many steps are stored. */
  readonly saved: number;
  /** Why what is shown could not be stored. */
  readonly failure: string | undefined;
  /** Counts what was worked out of a great drawing, so that panels look again. */
  readonly derivedAt: number;
};

export type HistoryEvent =
  | { readonly type: "went"; readonly drawing: Drawing; readonly index: DrawingIndex; readonly steps: History }
  | { readonly type: "read on"; readonly steps: History }
  | { readonly type: "saved"; readonly position: number }
  | { readonly type: "failed"; readonly why: string }
  | { readonly type: "derived" };

export const historyAfter = (history: HistoryPart, event: HistoryEvent): HistoryPart => {
  switch (event.type) {
    case "went":
      return { ...history, drawing: event.drawing, index: event.index, steps: event.steps };
    case "read on":
      return { ...history, steps: event.steps };
    case "saved":
      return { ...history, saved: event.position };
    case "failed":
      return { ...history, failure: event.why };
    case "derived":
      return { ...history, derivedAt: history.derivedAt + 1 };
  }
};
