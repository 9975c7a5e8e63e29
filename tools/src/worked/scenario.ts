import type { Drawing } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import type { ToolState } from "../toolState.ts";

/** One thing that the hand does: a callout clicked in the ledger, a place on the board, a size typed, or Enter. */
export type Gesture =
  | { readonly callout: { readonly kind: string; readonly name: string } }
  | { readonly click: Point }
  | { readonly type: string; readonly value: number }
  | { readonly enter: true };

/**
 * A step of a worked example: its sentence, in which `{keys}` stands for the keys of its tool, what has to be in hand
 * for it, and what the hand does then. What a step makes is told by the drawing, however it was made; a step that makes
 * nothing is done by the hand alone.
 */
export type WorkedStep = {
  readonly say: string;
  /** The id of the tool or action in the registry. */
  readonly take: string;
  readonly gestures: readonly Gesture[];
  readonly isMade?: (drawing: Drawing) => boolean;
};

/** A worked example: its steps, and whether all that they make stands, in whatever order and way it was made. */
export type Scenario = { readonly steps: readonly WorkedStep[]; readonly isWhole: (drawing: Drawing) => boolean };

/** What is in hand while an example goes on, as far as it counts for its steps. */
export type InHand = { readonly toolId: string | undefined; readonly tool: ToolState | undefined };

const isIn = (gesture: Gesture, { tool }: InHand, value: number | undefined, clicked: number): boolean => {
  if (!tool) return false;
  if ("click" in gesture) return Object.keys(tool.picks).length > clicked;
  return value !== undefined && Object.values(tool.entries).some((entry) => entry.value === value && !entry.left);
};

/**
 * How many of a step's gestures are done, from its first on; undefined while what they are done with is not in hand.
 * `valueOf` is the number of a callout.
 */
export const gesturesDone = (
  step: WorkedStep,
  hand: InHand,
  valueOf: (callout: { readonly kind: string; readonly name: string }) => number | undefined,
): number | undefined => {
  if (hand.toolId !== step.take) return undefined;
  let clicked = 0;
  for (const [i, gesture] of step.gestures.entries()) {
    const value = "callout" in gesture ? valueOf(gesture.callout) : "type" in gesture ? gesture.value : undefined;
    if (!isIn(gesture, hand, value, clicked)) return i;
    if ("click" in gesture) clicked++;
  }
  return step.gestures.length;
};

/** The first step from `from` on that is still to be done; as many as there are steps where all are. */
export const stepNow = (
  { steps, isWhole }: Scenario,
  from: number,
  drawing: Drawing,
  hand: InHand,
  valueOf: Parameters<typeof gesturesDone>[2],
): number => {
  if (isWhole(drawing)) return steps.length;
  const made = (i: number): boolean => {
    const step = steps[i]!;
    if (step.isMade) return step.isMade(drawing);
    // what only readies the hand is done when what it was readied for is there
    const next = steps.findIndex((one, k) => k > i && one.isMade);
    return gesturesDone(step, hand, valueOf) === step.gestures.length || (next > 0 && steps[next]!.isMade!(drawing));
  };
  let now = from;
  while (now < steps.length && made(now)) now++;
  return now;
};
