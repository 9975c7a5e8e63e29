import { useEffect } from "react";
import { useSession } from "./SessionContext.tsx";

/** So near (CSS pixels) the pointer comes to a note before that gives way. */
const NEAR = 24;

const SLIDES = ["transitionrun", "transitionend"] as const;

/**
 * Notes that stand over the board give way to a pointer with a tool in hand: they can be seen through and clicked
 * through, all but their buttons.
 */
export const useNotesGiveWay = (): void => {
  const session = useSession();
  useEffect(() => {
    let last: PointerEvent | undefined;
    const look = (): void => {
      if (!last) return;
      const { clientX: x, clientY: y, target } = last;
      const onButton = target instanceof Element && target.closest("[data-sonner-toast] button") !== null;
      const working = session.getState().hand.toolId !== undefined && !onButton;
      for (const note of document.querySelectorAll<HTMLElement>("[data-sonner-toast]")) {
        const { left, right, top, bottom } = note.getBoundingClientRect();
        const isNear = x > left - NEAR && x < right + NEAR && y > top - NEAR && y < bottom + NEAR;
        note.toggleAttribute("data-gives-way", working && isNear);
      }
    };
    const onMove = (event: PointerEvent): void => {
      last = event;
      look();
    };
    // a note that slides in under a pointer at rest gives way as well
    const onSlide = ({ target }: Event): void => {
      if (target instanceof Element && target.matches("[data-sonner-toast]")) look();
    };
    window.addEventListener("pointermove", onMove);
    for (const slides of SLIDES) document.addEventListener(slides, onSlide);
    return () => {
      window.removeEventListener("pointermove", onMove);
      for (const slides of SLIDES) document.removeEventListener(slides, onSlide);
    };
  }, [session]);
};
