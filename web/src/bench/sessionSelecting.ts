import { annotationsInBox, annotationsLike } from "@ash-edge/core/annotate";
import { annotationOf } from "@ash-edge/core/drawing";
import { boundsOf, type Bounds, type Point } from "@ash-edge/core/geometry";
import { selectByBox, selectInside, selectLike, selectRun, invertSelection } from "@ash-edge/core/look";
import type { Id } from "@ash-edge/core/numeric";
import type { Hover } from "@ash-edge/tools";
import { describeThing, pickableAnnotations } from "./annotated.ts";
import type { SessionCore } from "./sessionCore.ts";
import type { Modifiers, Selecting } from "./state/index.ts";
import { toDrawing } from "./board/view.ts";

/** A press that moves this many pixels draws a box. */
const BOX_STARTS = 5;

/** Selecting, with no tool active: by a click, by a box, by what is like a thing. */
export const makeSelecting = (
  { get, send, say, toolEvent, activeTool, wanted, keepSetting }: SessionCore,
  {
    click,
    pickTracedIn,
  }: {
    readonly click: (at: Point, mods: Modifiers) => void;
    /** Picks what is proposed of a picture in a box; false where nothing is. */
    readonly pickTracedIn: (around: Bounds, how: Selecting["box"], more: boolean) => boolean;
  },
) => {
  let pressed: Point | undefined;

  /** Clicks and boxes select: no tool is in hand, or one that works on what is selected. */
  const selects = (): boolean => !activeTool() || wanted()?.takes === "things";
  const select = (ids: Iterable<Id>): void => {
    send("selection", { type: "selected", ids });
    send("panels", { type: "offered", callout: undefined });
    say(undefined);
  };

  /** Everything that could be selected but some. */
  const others = (but: ReadonlySet<Id>): readonly Id[] => [
    ...invertSelection(get().history.drawing, but),
    ...pickableAnnotations(get()).flatMap(({ id }) => (but.has(id) ? [] : [id])),
  ];

  const clickOn = (hover: Hover, mods: Modifiers): void => {
    const {
      selection: { ids: selection },
    } = get();
    const id = hover.under[0]?.ref?.id;
    const taken = id === undefined ? [] : selectedBy(id, get().kept.selecting.how);
    const next = new Set(mods.shift ? selection : []);
    const drops = mods.shift && id !== undefined && selection.has(id);
    for (const one of taken) {
      if (drops) next.delete(one);
      else next.add(one);
    }
    select(next);
    const stacked = hover.under.length;
    const names = hover.under.map(({ ref }) => describeThing(get().history.drawing, ref!));
    if (stacked > 1)
      say({
        text: `${stacked} lie here over one another: ${names.join(", ")}. Shift+Space takes the next.`,
        tone: "said",
      });
  };

  const selectedBy = (id: Id, how: Selecting["how"]): readonly Id[] => {
    const {
      history: { drawing },
    } = get();
    if (how === "one") return [id];
    if (annotationOf(drawing, id))
      return how === "run" ? [id] : how === "inside" ? [] : annotationsLike(drawing, id, how);
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
    const {
      selection: { box, ids: selection, sweep },
      history: { index },
      kept,
    } = get();
    if (sweep) {
      pressed = undefined;
      const isBox = activeTool()?.drag === "box";
      send("selection", { type: "box dropped" });
      return toolEvent({ type: "drag", path: isBox ? [sweep[0]!, sweep.at(-1)!] : sweep });
    }
    if (pressed && !box) click(at, mods);
    pressed = undefined;
    if (!box) return;
    const around = boundsOf([box.from, box.to]);
    if (!activeTool() && pickTracedIn(around, kept.selecting.box, mods.shift))
      return send("selection", { type: "box dropped" });
    const found = [
      ...selectByBox(index, around, kept.selecting.box),
      ...(activeTool() ? [] : annotationsInBox(pickableAnnotations(get()), around, kept.selecting.box)),
    ];
    send("selection", { type: "box dropped" });
    select([...(mods.shift ? selection : []), ...found]);
    if (get().hand.tool) toolEvent({ type: "gather", on: mods.shift });
  };
  const stretchBox = (at: Point): void => {
    const {
      view: { now: view },
      selection: { box, sweep },
    } = get();
    if (pressed && !selects()) {
      if (sweep || Math.hypot(at.x - pressed.x, at.y - pressed.y) >= BOX_STARTS)
        send("selection", {
          type: "swept",
          path: [...(sweep ?? [toDrawing(view, pressed)]), toDrawing(view, at)],
        });
      return;
    }
    if (!pressed || (!box && Math.hypot(at.x - pressed.x, at.y - pressed.y) < BOX_STARTS)) return;
    send("selection", { type: "box", box: { from: toDrawing(view, pressed), to: toDrawing(view, at) } });
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
      if (!get().selection.box && !get().selection.sweep) return false;
      send("selection", { type: "box dropped" });
      return true;
    },
    /** Swaps what the box takes; true while one is drawn. */
    swapBox: (): boolean => {
      if (!get().selection.box) return false;
      setSelecting({ box: get().kept.selecting.box === "encloses" ? "touches" : "encloses" });
      return true;
    },
    selectRunAt: (): void => {
      const id = get().pointer.hover?.under[0]?.ref?.id;
      if (!get().hand.tool && id !== undefined)
        send("selection", { type: "selected", ids: selectRun(get().history.drawing, id) });
    },
    invert: (): void => send("selection", { type: "selected", ids: others(get().selection.ids) }),
    selectAll: (): void => send("selection", { type: "selected", ids: others(new Set()) }),
  };
};
