import { boundsOf, type Point } from "@ash-edge/core/geometry";
import { describeRef, selectByBox, selectInside, selectLike, selectRun, invertSelection } from "@ash-edge/core/look";
import type { Id } from "@ash-edge/core/numeric";
import type { Hover } from "@ash-edge/tools";
import type { Modifiers, Selecting, SessionCore } from "./benchState.ts";
import { toDrawing } from "./board/view.ts";

/** A press that moves this many pixels draws a box. */
const BOX_STARTS = 5;

/** Selecting, with no tool active: by a click, by a box, by what is like a thing. */
export const makeSelecting = (
  { get, set, say, toolEvent, activeTool, keepSetting }: SessionCore,
  click: (at: Point, mods: Modifiers) => void,
  selects: () => boolean,
) => {
  let pressed: Point | undefined;

  const clickOn = (hover: Hover, mods: Modifiers): void => {
    const { selection } = get();
    const id = hover.under[0]?.ref?.id;
    const taken = id === undefined ? [] : selectedBy(id, get().kept.selecting.how);
    const next = new Set(mods.shift ? selection : []);
    const drops = mods.shift && id !== undefined && selection.has(id);
    for (const one of taken) {
      if (drops) next.delete(one);
      else next.add(one);
    }
    set({ selection: next }, ["message", "offered", "vertex"]);
    const stacked = hover.under.length;
    if (stacked > 1)
      say({
        text: `${stacked} things lie here: ${hover.under.map(({ ref }) => describeRef(get().drawing, ref!)).join(", ")}. Shift+Space takes the next.`,
        tone: "said",
      });
  };

  const selectedBy = (id: Id, how: Selecting["how"]): readonly Id[] => {
    const { drawing } = get();
    if (how === "one") return [id];
    if (how === "run") return selectRun(drawing, id);
    return how === "inside" ? selectInside(drawing, id) : selectLike(drawing, id, how);
  };

  /**
   * The left button: with a tool a click at once; without, a press that stays is a click and one that moves draws a
   * box.
   */
  const press = (at: Point, mods: Modifiers): void => {
    if (selects() || activeTool()?.drag) {
      pressed = at;
      return;
    }
    click(at, mods);
  };
  const letGo = (at: Point, mods: Modifiers): void => {
    const { box, index, selection, kept, sweep } = get();
    if (sweep) {
      pressed = undefined;
      const isBox = activeTool()?.drag === "box";
      set({}, ["sweep"]);
      return toolEvent({ type: "drag", path: isBox ? [sweep[0]!, sweep.at(-1)!] : sweep });
    }
    if (pressed && !box) click(at, mods);
    pressed = undefined;
    if (!box) return;
    const found = selectByBox(index, boundsOf([box.from, box.to]), kept.selecting.box);
    set({ selection: new Set([...(mods.shift ? selection : []), ...found]) }, ["box", "message", "offered", "vertex"]);
    if (get().tool) toolEvent({ type: "gather", on: mods.shift });
  };
  const stretchBox = (at: Point): void => {
    const { view, box, sweep } = get();
    if (pressed && !selects()) {
      if (sweep || Math.hypot(at.x - pressed.x, at.y - pressed.y) >= BOX_STARTS)
        set({ sweep: [...(sweep ?? [toDrawing(view, pressed)]), toDrawing(view, at)] });
      return;
    }
    if (!pressed || (!box && Math.hypot(at.x - pressed.x, at.y - pressed.y) < BOX_STARTS)) return;
    set({ box: { from: toDrawing(view, pressed), to: toDrawing(view, at) } });
  };
  const setSelecting = (change: Partial<Selecting>): void => {
    keepSetting({ selecting: { ...get().kept.selecting, ...change } });
  };

  return {
    clickOn,
    press,
    letGo,
    stretchBox,
    setSelecting,
    /** Lets go of the box being drawn; true when there was one. */
    dropBox: (): boolean => {
      pressed = undefined;
      if (!get().box && !get().sweep) return false;
      set({}, ["box", "sweep"]);
      return true;
    },
    /** Swaps what the box takes; true while one is drawn. */
    swapBox: (): boolean => {
      if (!get().box) return false;
      setSelecting({ box: get().kept.selecting.box === "encloses" ? "touches" : "encloses" });
      return true;
    },
    selectRunAt: (): void => {
      const id = get().hover?.under[0]?.ref?.id;
      if (!get().tool && id !== undefined) set({ selection: new Set(selectRun(get().drawing, id)) });
    },
    invert: (): void => set({ selection: new Set(invertSelection(get().drawing, get().selection)) }),
  };
};
