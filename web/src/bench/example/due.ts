import { calloutsOf, type Callout } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import type { Id } from "@ash-edge/core/numeric";
import { ROCKER_PLATE } from "@ash-edge/tools/worked/rockerPlate";
import { gesturesDone, type Scenario, type WorkedStep } from "@ash-edge/tools/worked/scenario";
import type { BenchState } from "../state/index.ts";

/** The worked example on the bench. */
export const EXAMPLE: Scenario = ROCKER_PLATE;

type Named = { readonly kind: string; readonly name: string };
export const calledIn =
  ({ history: { drawing } }: BenchState) =>
  (named: Named): Callout | undefined =>
    calloutsOf(drawing).find(({ kind, name }) => kind === named.kind && name === named.name);

/** The step of the worked example that is due; undefined where none is followed or all are done. */
export const stepDue = ({ following }: BenchState): WorkedStep | undefined =>
  following && EXAMPLE.steps[following.starts.length - 1];

/** What of a step is due now: its tool to be taken, a callout to be clicked, or a place on the board. */
export type Due = { readonly take?: string; readonly callout?: Id; readonly click?: Point };

const NOTHING_DUE: Due = {};
export const due = (state: BenchState): Due => {
  const step = stepDue(state);
  if (!step) return NOTHING_DUE;
  const called = calledIn(state);
  const done = gesturesDone(step, state.hand, (callout) => called(callout)?.value);
  if (done === undefined) return { take: step.take };
  const [next, after] = step.gestures.slice(done);
  if (!next) return NOTHING_DUE;
  if ("callout" in next) {
    const id = called(next.callout)?.id;
    return id === undefined ? NOTHING_DUE : { callout: id };
  }
  // what is typed goes in with the click after it
  const gesture = "type" in next ? after : next;
  return gesture && "click" in gesture ? { click: gesture.click } : NOTHING_DUE;
};
