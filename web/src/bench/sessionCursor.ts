import { settingsOf } from "@ash-edge/core/drawing";
import { distance, type Point } from "@ash-edge/core/geometry";
import { placesNear, type NearPlace } from "@ash-edge/core/look";
import { gridPitch } from "./board/grid.ts";
import { inSight, toDrawing, toScreen } from "./board/view.ts";
import type { SessionCore } from "./sessionCore.ts";
import { NO_MODIFIERS, type Modifiers } from "./state/index.ts";

export type CursorStep = "grid" | "fine" | "coarse";
/** A fine step is a tenth of the grid's, a coarse one ten of them. */
const STEPS: Readonly<Record<CursorStep, number>> = { grid: 1, fine: 0.1, coarse: 10 };
/** The cursor stays this many pixels inside the board; the view goes along with it. */
const EDGE = 40;

type Parts = {
  readonly pan: (dx: number, dy: number) => void;
  readonly move: (to: Point, modifiers: Modifiers) => void;
  readonly click: (at: Point, modifiers: Modifiers) => void;
};

/** The board without a pointer: a cursor that keys move, by steps and from thing to thing; Enter is its click. */
export const makeCursor = ({ get, send, say, wanted, activeTool }: SessionCore, parts: Parts) => {
  let near: { readonly places: readonly NearPlace[]; readonly which: number; readonly at: Point } | undefined;

  const here = (): Point => {
    const { pointer, view } = get();
    const { width, height } = view.size;
    return pointer.hover?.at ?? pointer.at ?? toDrawing(view.now, { x: width / 2, y: height / 2 });
  };
  /** To a place of the drawing; the view goes along where it lies out of sight. */
  const goTo = (at: Point): void => {
    const { view } = get();
    const screen = toScreen(view.now, at);
    const over = (value: number, most: number): number =>
      value < EDGE ? EDGE - value : value > most - EDGE ? most - EDGE - value : 0;
    const [dx, dy] = [over(screen.x, view.size.width), over(screen.y, view.size.height)];
    if (dx !== 0 || dy !== 0) parts.pan(dx, dy);
    parts.move(toScreen(get().view.now, at), NO_MODIFIERS);
    send("pointer", { type: "by keys", on: true });
  };

  return {
    /** One step of the grid, finer or coarser; from where it is to the next line of that grid. */
    stepCursor: (dx: number, dy: number, how: CursorStep): void => {
      const { view, history } = get();
      const { datum } = settingsOf(history.drawing);
      const step = gridPitch(view.now.scale) * STEPS[how];
      const from = here();
      const next = (value: number, origin: number, by: number): number =>
        by === 0 ? value : origin + step * (Math.round((value - origin) / step) + by);
      send("pointer", { type: "nothing asked" });
      near = undefined;
      goTo({ x: next(from.x, datum.x, dx), y: next(from.y, datum.y, dy) });
    },
    /** To the next or the one before of what lies in sight, nearest first, and says what it is. */
    stepNear: (by: 1 | -1): void => {
      const { history, view, hand } = get();
      const part = wanted();
      const tool = activeTool();
      const from = tool?.from === undefined ? undefined : hand.tool?.picks[tool.from]?.at;
      if (!near || distance(near.at, here()) > gridPitch(view.now.scale)) {
        // where along a curve it is picked may matter, so its places are gone to for any pick
        const points = part !== undefined;
        const things = part === undefined || part.takes !== "point";
        const places = placesNear(history.index, here(), inSight(view.now, view.size), { points, things }, from);
        near = { places, which: by > 0 ? -1 : 0, at: here() };
      }
      const count = near.places.length;
      if (count === 0) return say({ text: "Nothing that could be picked is in sight.", tone: "said" });
      const which = (near.which + by + count) % count;
      const place = near.places[which]!;
      near = { ...near, which, at: place.at };
      send("pointer", { type: "asked", asked: { snap: place.snap } });
      goTo(place.at);
      say({ text: `${which + 1} of ${count}: ${place.words}.`, tone: "said" });
    },
    /** Enter on the board: the click at the cursor. */
    clickCursor: (): void => {
      const { screen } = get().pointer;
      if (!screen) return;
      parts.click(screen, NO_MODIFIERS);
      near = undefined;
      send("pointer", { type: "by keys", on: false });
    },
  };
};
