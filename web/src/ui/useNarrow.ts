import { useSyncExternalStore } from "react";

/** Below this there is no room for panels on both sides of the board. */
const query = window.matchMedia("(max-width: 1099px)");

const subscribe = (changed: () => void): (() => void) => {
  query.addEventListener("change", changed);
  return () => query.removeEventListener("change", changed);
};

/** True while the window is too narrow for panels on both sides. */
export const useNarrow = (): boolean => useSyncExternalStore(subscribe, () => query.matches);
