import { createStore, type StoreApi } from "zustand/vanilla";
import { followingAfter, type Following, type FollowingEvent } from "./following.ts";
import { EMPTY_HAND, handAfter, type Hand, type HandEvent } from "./hand.ts";
import { historyAfter, type HistoryEvent, type HistoryPart } from "./history.ts";
import { keptAfter, type Kept, type KeptEvent } from "./kept.ts";
import { numbersAfter, type Numbers, type NumbersEvent } from "./numbers.ts";
import { NO_PANELS, panelsAfter, type Panels, type PanelsEvent } from "./panels.ts";
import { POINTER_AWAY, pointerAfter, type Pointer, type PointerEvent } from "./pointer.ts";
import { nothingSelected, selectionAfter, type Selection, type SelectionEvent } from "./selection.ts";
import { tidyingAfter, type Tidying, type TidyingEvent } from "./tidying.ts";
import { tracingAfter, type Tracing, type TracingEvent } from "./tracing.ts";
import { NOTHING_SHOWN, viewAfter, type ViewEvent, type ViewPart } from "./view.ts";
import { workAfter, type Work, type WorkEvent } from "./work.ts";

export * from "./following.ts";
export * from "./hand.ts";
export * from "./history.ts";
export * from "./kept.ts";
export * from "./numbers.ts";
export * from "./panels.ts";
export * from "./pointer.ts";
export * from "./selection.ts";
export * from "./tidying.ts";
export * from "./tracing.ts";
export * from "./view.ts";
export * from "./work.ts";

/**
 * The bench's state in its parts; each is changed by its own reducer alone, and one that did not change stays itself.
 */
export type BenchState = {
  readonly hand: Hand;
  readonly pointer: Pointer;
  readonly history: HistoryPart;
  readonly view: ViewPart;
  readonly selection: Selection;
  readonly panels: Panels;
  readonly tidying: Tidying | undefined;
  readonly numbers: Numbers | undefined;
  readonly tracing: Tracing | undefined;
  readonly work: Work | undefined;
  readonly following: Following | undefined;
  readonly kept: Kept;
};

type Events = {
  readonly hand: HandEvent;
  readonly pointer: PointerEvent;
  readonly history: HistoryEvent;
  readonly view: ViewEvent;
  readonly selection: SelectionEvent;
  readonly panels: PanelsEvent;
  readonly tidying: TidyingEvent;
  readonly numbers: NumbersEvent;
  readonly tracing: TracingEvent;
  readonly work: WorkEvent;
  readonly following: FollowingEvent;
  readonly kept: KeptEvent;
};
type Reducers = { readonly [P in keyof BenchState]: (part: BenchState[P], event: Events[P]) => BenchState[P] };
const REDUCERS: Reducers = {
  hand: handAfter,
  pointer: pointerAfter,
  history: historyAfter,
  view: viewAfter,
  selection: selectionAfter,
  panels: panelsAfter,
  tidying: tidyingAfter,
  numbers: numbersAfter,
  tracing: tracingAfter,
  work: workAfter,
  following: followingAfter,
  kept: keptAfter,
};

/** Tells one part of the state what happened. */
export type Send = <P extends keyof BenchState>(part: P, event: Events[P]) => void;

/** The store of a bench that has a drawing and nothing in hand, and the one way to change it. */
export const makeBenchStore = (start: {
  readonly history: Pick<HistoryPart, "drawing" | "index" | "steps">;
  readonly layer: Selection["layer"];
  readonly kept: Kept;
  readonly damage?: string | undefined;
  readonly following?: Following | undefined;
  readonly readOnly?: HistoryPart["readOnly"] | undefined;
}): { readonly store: StoreApi<BenchState>; readonly send: Send } => {
  const store = createStore<BenchState>(() => ({
    hand: EMPTY_HAND,
    pointer: POINTER_AWAY,
    history: {
      ...start.history,
      unsaved: 0,
      failure: undefined,
      readOnly: start.readOnly,
      damage: start.damage,
      derivedAt: 0,
    },
    view: NOTHING_SHOWN,
    selection: nothingSelected(start.layer),
    panels: NO_PANELS,
    tidying: undefined,
    numbers: undefined,
    tracing: undefined,
    work: undefined,
    following: start.following,
    kept: start.kept,
  }));
  const send: Send = (part, event) => {
    const now = store.getState()[part];
    const next = REDUCERS[part](now, event);
    if (next !== now) store.setState({ [part]: next });
  };
  return { store, send };
};
