import type { PointerEvent } from "react";

/** So far (CSS pixels) a press may stray and still be a click. */
const STRAY = 6;

type Followed = {
  readonly begin: () => void;
  readonly move?: (now: globalThis.PointerEvent) => void;
  /** Let go, where; undefined where the drag was broken off. */
  readonly end: (now: globalThis.PointerEvent | undefined) => void;
};

/** Follows a press until it is let go; one that hardly moves stays a click. The finger scrolls the list instead. */
export const followDrag = (event: PointerEvent, { begin, move, end }: Followed): void => {
  if (event.button !== 0 || event.pointerType === "touch") return;
  const [x, y] = [event.clientX, event.clientY];
  let begun = false;
  const moved = (now: globalThis.PointerEvent): void => {
    if (!begun && Math.hypot(now.clientX - x, now.clientY - y) > STRAY) {
      begun = true;
      begin();
    }
    if (begun) move?.(now);
  };
  const ended = (now: globalThis.PointerEvent): void => {
    window.removeEventListener("pointermove", moved);
    window.removeEventListener("pointerup", ended);
    window.removeEventListener("pointercancel", ended);
    if (begun) end(now.type === "pointercancel" ? undefined : now);
  };
  window.addEventListener("pointermove", moved);
  window.addEventListener("pointerup", ended);
  window.addEventListener("pointercancel", ended);
};

type Drag = {
  /** The drag has begun: from here on the board shows what letting go would make. */
  readonly begin: () => void;
  /** Let go over the board, at a place of it (CSS pixels). */
  readonly drop: (at: { readonly x: number; readonly y: number }) => void;
};

/** Follows a press on a row onto the board. Where it ends beside it what was begun waits as it does after a click. */
export const dragToBoard = (event: PointerEvent, { begin, drop }: Drag): void =>
  followDrag(event, {
    begin,
    end: (now) => {
      const board = now?.target instanceof Element ? now.target.closest('[data-region="Board"]') : undefined;
      if (!now || !board) return;
      const { left, top } = board.getBoundingClientRect();
      drop({ x: now.clientX - left, y: now.clientY - top });
    },
  });
