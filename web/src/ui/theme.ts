import { useSyncExternalStore } from "react";
import { remember, remembered } from "./remembered.ts";

export type Theme = "ash" | "evening";
const KEY = "ash-edge-theme";
const listeners = new Set<() => void>();

const wanted = (): Theme => {
  const kept = remembered(KEY);
  if (kept === "ash" || kept === "evening") return kept;
  return matchMedia("(prefers-color-scheme: dark)").matches ? "evening" : "ash";
};
const show = (theme: Theme): void => void (document.documentElement.dataset.theme = theme);
show(wanted());

const setTheme = (theme: Theme): void => {
  remember(KEY, theme);
  show(theme);
  listeners.forEach((listener) => listener());
};

/** The theme in force, and the way to change it; kept in this browser. */
export const useTheme = (): readonly [Theme, (theme: Theme) => void] => {
  const theme = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => document.documentElement.dataset.theme as Theme,
  );
  return [theme, setTheme];
};
