import { useEffect } from "react";

/** While something would be lost, the browser asks before it closes the tab or loads another page. */
export const useAskBeforeLeaving = (wouldLose: boolean): void => {
  useEffect(() => {
    if (!wouldLose) return undefined;
    const ask = (event: BeforeUnloadEvent): void => event.preventDefault();
    window.addEventListener("beforeunload", ask);
    return () => window.removeEventListener("beforeunload", ask);
  }, [wouldLose]);
};
