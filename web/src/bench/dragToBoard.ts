import type { PointerEvent } from "react";

/** So far (CSS pixels) a press may stray and still be a click. */
const STRAY = 6;

type Drag = {
  /** The drag has begun: from here on the board shows what letting go would make. */
  readonly begin: () => void;
  /** Let go over the board, at a place of it (CSS pixels). */
  readonly drop: (at: { readonly x: number; readonly y: number }) => void;
};

/**
 * Follows a press on a row until it is let go; one that hardly moves stays a click. Where it ends beside the board what
 * was begun waits for its place as it does after a click. The finger scrolls the list instead.
 */
export const dragToBoard = (event: PointerEvent, { begin, drop }: Drag): void => {
  if (event.button !== 0 || event.pointerType === "touch") return;
  const [x, y] = [event.clientX, event.clientY];
  let begun = false;
  const move = (now: globalThis.PointerEvent): void => {
    if (begun || Math.hypot(now.clientX - x, now.clientY - y) <= STRAY) return;
    begun = true;
    begin();
  };
  const end = (now: globalThis.PointerEvent): void => {
    window.removeEventListener("pointermove", move);
    window.removeEventListener("pointerup", end);
    window.removeEventListener("pointercancel", end);
    const board = now.target instanceof Element ? now.target.closest('[data-region="Board"]') : undefined;
    if (!begun || !board || now.type === "pointercancel") return;
    const { left, top } = board.getBoundingClientRect();
    drop({ x: now.clientX - left, y: now.clientY - top });
  };
  window.addEventListener("pointermove", move);
  window.addEventListener("pointerup", end);
  window.addEventListener("pointercancel", end);
};
