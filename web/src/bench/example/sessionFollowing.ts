import type { Callout } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import { toolById } from "@ash-edge/tools";
import { stepNow, type Gesture, type WorkedStep } from "@ash-edge/tools/worked/scenario";
import { inSight, toScreen } from "../board/view.ts";
import type { SessionCore } from "../sessionCore.ts";
import { NO_MODIFIERS, type Following, type Modifiers } from "../state/index.ts";
import { calledIn, due, EXAMPLE, stepDue } from "./due.ts";

type Parts = {
  readonly travel: (to: number) => void;
  /** Takes a tool as it is at first, whatever was chosen in it before; or carries an action out. */
  readonly takeFresh: (id: string) => void;
  readonly fillFrom: (callout: Callout) => void;
  readonly click: (at: Point, modifiers: Modifiers) => void;
  readonly fit: () => void;
  readonly isReadOnly: () => boolean;
  readonly remember: (now: Following | undefined) => void;
};

/** A worked example followed: noticed how far it is, gone back in, done for the drafter, begun again and left. */
export const makeFollowing = (core: SessionCore, parts: Parts) => {
  const { get, send, toolEvent } = core;
  const { travel, takeFresh, fillFrom, click, fit, isReadOnly, remember } = parts;
  let turning = false;

  const put = (starts: readonly number[]): void => {
    send("following", { type: "at", starts });
    remember({ starts });
  };
  const now = (from: number): number => {
    const state = get();
    const called = calledIn(state);
    return stepNow(EXAMPLE, from, state.history.drawing, state.hand, (callout) => called(callout)?.value);
  };

  /** Looks how far it is: what was undone is to be done again, what was done another way counts as well. */
  const notice = (): void => {
    const { following, history } = get();
    if (!following || turning) return;
    const { position } = history.steps;
    let starts = following.starts;
    while (starts.length > 1 && starts.at(-1)! > position) starts = starts.slice(0, -1);
    const step = now(starts.length - 1);
    while (starts.length - 1 < step) starts = [...starts, position];
    if (starts !== following.starts) put(starts);
    if (due(get()).callout !== undefined) send("panels", { type: "tab", tab: "callouts" });
  };

  const putDown = (): void => {
    send("hand", { type: "put down" });
    core.say(undefined);
    core.refresh();
  };
  /** To before a step, and further where that is there all the same. */
  const backTo = (to: number): void => {
    const { following } = get();
    if (!following) return;
    turning = true;
    let starts = following.starts.slice(0, to + 1);
    for (;;) {
      putDown();
      if (get().history.steps.position !== starts.at(-1)) travel(starts.at(-1)!);
      if (starts.length === 1 || now(starts.length - 1) === starts.length - 1) break;
      starts = starts.slice(0, -1);
    }
    turning = false;
    put(starts);
    notice();
  };

  const doGesture = (gesture: Gesture): void => {
    if ("callout" in gesture) {
      const callout = calledIn(get())(gesture.callout);
      if (callout) fillFrom(callout);
    } else if ("type" in gesture) {
      toolEvent({ type: "key", text: gesture.type });
      toolEvent({ type: "hold" });
    } else if ("click" in gesture) click(toScreen(get().view.now, gesture.click), NO_MODIFIERS);
    else toolEvent({ type: "finish", hover: undefined });
  };
  /** Everything that a step clicks is in sight. */
  const isInSight = ({ gestures }: WorkedStep): boolean => {
    const { now: view, size } = get().view;
    const { minX, minY, maxX, maxY } = inSight(view, size);
    return gestures.every((one) => {
      if (!("click" in one)) return true;
      const { x, y } = one.click;
      return x > minX && x < maxX && y > minY && y < maxY;
    });
  };

  return {
    notice,
    exampleBack: (): void => backTo((get().following?.starts.length ?? 1) - 2),
    exampleAgain: (): void => backTo(0),
    exampleLeave: (): void => {
      send("following", { type: "left" });
      remember(undefined);
    },
    /** Does the step that is due as the drafter would, from the tool on. */
    exampleDo: (): void => {
      const { following } = get();
      const step = stepDue(get());
      if (!following || !step || isReadOnly()) return;
      turning = true;
      if (!isInSight(step)) fit();
      // a tool of its own for each step: nothing half picked goes into it
      takeFresh(step.take);
      if (toolById(step.take)) step.gestures.forEach(doGesture);
      turning = false;
      notice();
      if (get().following?.starts.length === following.starts.length)
        core.say({
          text: "From what is drawn now this step can’t be done. Go back a step, or begin again.",
          tone: "fault",
        });
    },
  };
};
