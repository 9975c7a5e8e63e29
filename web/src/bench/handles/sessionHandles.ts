import { anchorOf } from "@ash-edge/core/edits";
import type { Point } from "@ash-edge/core/geometry";
import { typedParts, pickParts, type Picked, type Tool } from "@ash-edge/tools";
import type { SessionCore, TakeUp } from "../sessionCore.ts";
import type { Handle } from "../state/handle.ts";
import type { Modifiers } from "../state/index.ts";
import { actionsOf } from "./actions.ts";
import { handleAt } from "./shown.ts";

/** A press on a handle that moves this many pixels pulls it; one that stays opens what it offers. */
const PULL_STARTS = 5;

/**
 * Handles of what is selected: hovered, pulled, opened by a click; each offers tools that are put down once they made
 * something.
 */
export const makeHandling = (
  { get, send, say, toolEvent, refresh, keepSetting }: SessionCore,
  takeUp: TakeUp,
  click: (at: Point, mods: Modifiers) => void,
) => {
  let pressed: Point | undefined;

  /**
   * Takes up one of the actions of a handle, the first where none is named. One that needs nothing more is done at
   * once.
   */
  const grab = (handle: Handle, words?: string): void => {
    const actions = actionsOf(get().history.drawing, handle);
    const action = actions.find((one) => one.words === words) ?? actions[0];
    if (!action) return;
    const anchor =
      handle.refs[0] && action.tool.from === "anchor" ? anchorOf(get().history.drawing, handle.refs[0]) : undefined;
    takeUp(
      action.tool,
      { ...action.picks(handle), ...(anchor ? { anchor: { at: anchor.at } } : {}) },
      { grabbed: { handle, words: action.words }, ...(action.choices ? { choices: action.choices } : {}) },
    );
    send("pointer", { type: "on a handle", grip: undefined });
    if (isDone(action.tool, get().hand.tool!.picks)) toolEvent({ type: "finish", hover: undefined });
    else refresh();
  };

  /** Nothing is left to be picked or typed. */
  const isDone = (tool: Tool, picks: Readonly<Record<string, Picked>>): boolean =>
    typedParts(tool).length === 0 && pickParts(tool).every(({ name }) => name in picks);

  return {
    grab,
    drop: (): void => {
      pressed = undefined;
      if (get().hand.grabbed) send("hand", { type: "put down" });
    },
    /** The handle under the pointer lights up. */
    hoverHandles: (screen: Point | undefined): void => {
      const {
        hand: { grabbed, toolId },
        selection: { box },
      } = get();
      const found = screen && !grabbed && !toolId && !box ? handleAt(get(), screen) : undefined;
      send("pointer", { type: "on a handle", grip: found });
    },
    /** The left button on a handle takes it in hand; true where there is one. */
    pressHandle: (at: Point, mods: Modifiers): boolean => {
      // Shift adds to what is selected
      const handle = get().hand.toolId || mods.shift ? undefined : handleAt(get(), at);
      if (!handle) return false;
      pressed = at;
      grab(handle);
      return true;
    },
    /** Let go where it was pressed, the handle stays in hand with what it offers; pulled, the thing is made there. */
    letGoHandle: (at: Point, mods: Modifiers): boolean => {
      const from = pressed;
      pressed = undefined;
      if (!from) return false;
      if (get().hand.grabbed && Math.hypot(at.x - from.x, at.y - from.y) >= PULL_STARTS) click(at, mods);
      return true;
    },
    toggleHandles: (): void => {
      const handles = !get().kept.handles;
      keepSetting({ handles });
      say({ text: handles ? "Handles are shown on what is selected." : "Handles are put away.", tone: "said" });
      refresh();
    },
  };
};
