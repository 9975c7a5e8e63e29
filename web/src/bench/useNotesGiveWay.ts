import { useEffect } from "react";
import { useSession } from "./SessionContext.tsx";

/** So near (CSS pixels) the pointer comes to a note before that gives way. */
const NEAR = 24;

/**
 * Notes that stand over the board give way to a pointer with a tool in hand: they can be seen through and clicked
 * through, all but their buttons.
 */
export const useNotesGiveWay = (): void => {
  const session = useSession();
  useEffect(() => {
    const onMove = ({ clientX: x, clientY: y, target }: PointerEvent): void => {
      const onButton = target instanceof Element && target.closest("[data-sonner-toast] button") !== null;
      const working = session.getState().hand.toolId !== undefined && !onButton;
      for (const note of document.querySelectorAll<HTMLElement>("[data-sonner-toast]")) {
        const { left, right, top, bottom } = note.getBoundingClientRect();
        const isNear = x > left - NEAR && x < right + NEAR && y > top - NEAR && y < bottom + NEAR;
        note.toggleAttribute("data-gives-way", working && isNear);
      }
    };
    window.addEventListener("pointermove", onMove);
    return () => window.removeEventListener("pointermove", onMove);
  }, [session]);
};
