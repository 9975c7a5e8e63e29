import type { Drawing } from "@ash-edge/core/drawing";
import type { DrawingIndex } from "@ash-edge/core/look";
import type { History } from "../../store/index.ts";

/** The drawing as it stands, the steps that led to it, and what of them is stored. */
export type HistoryPart = {
  readonly drawing: Drawing;
  readonly index: DrawingIndex;
  readonly steps: History;
  /** Steps handed to the store and not in it yet: undone and done again are two, though they end where they began. */
  readonly unsaved: number;
  /** Why what is shown could not be stored. */
  readonly failure: string | undefined;
  /** Why nothing may be changed here, where it may not. */
  readonly readOnly: ReadOnly | undefined;
  /** What of it could not be read when it was opened. */
  readonly damage: string | undefined;
  /** Counts what was worked out of a great drawing, so that panels look again. */
  readonly derivedAt: number;
};

/** The job is open for changes in another tab, or what is stored of it is damaged and nothing is decided yet. */
export type ReadOnly = "elsewhere" | "damaged";

export type HistoryEvent =
  | { readonly type: "went"; readonly drawing: Drawing; readonly index: DrawingIndex; readonly steps: History }
  | { readonly type: "read on"; readonly steps: History }
  | { readonly type: "saved" }
  | { readonly type: "failed"; readonly why: string }
  | { readonly type: "read only"; readonly why: ReadOnly }
  | { readonly type: "derived" };

/** True where all that is shown is in the store. */
export const isSaved = ({ unsaved }: HistoryPart): boolean => unsaved === 0;

export const historyAfter = (history: HistoryPart, event: HistoryEvent): HistoryPart => {
  switch (event.type) {
    case "went":
      return {
        ...history,
        drawing: event.drawing,
        index: event.index,
        steps: event.steps,
        unsaved: history.unsaved + 1,
      };
    case "read on":
      return { ...history, steps: event.steps };
    case "saved":
      return { ...history, unsaved: history.unsaved - 1, failure: undefined };
    case "failed":
      return { ...history, failure: event.why };
    case "read only":
      return { ...history, readOnly: event.why };
    case "derived":
      return { ...history, derivedAt: history.derivedAt + 1 };
  }
};
