import type { PointerEvent } from "react";
import type { Id } from "@ash-edge/core/numeric";
import { followDrag } from "./dragToBoard.ts";

const layerAt = (target: EventTarget | null): HTMLElement | undefined =>
  (target instanceof Element ? target.closest<HTMLElement>("[data-layer]") : undefined) ?? undefined;

/** Follows a press on what stands for some pieces; let go over a row of the layers, they go onto that layer. */
export const dragToLayer = (event: PointerEvent, drop: (layer: Id) => void): void => {
  let over: HTMLElement | undefined;
  const light = (row: HTMLElement | undefined): void => {
    over?.removeAttribute("data-over");
    over = row;
    over?.setAttribute("data-over", "");
  };
  followDrag(event, {
    begin: () => document.body.setAttribute("data-carrying", ""),
    move: (now) => light(layerAt(now.target)),
    end: (now) => {
      document.body.removeAttribute("data-carrying");
      light(undefined);
      const row = now && layerAt(now.target);
      if (row) drop(Number(row.dataset.layer));
    },
  });
};
