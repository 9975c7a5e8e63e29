import { view } from "./viewAction.ts";

export const layersAction = view(
  "layers",
  "Layers",
  "Goes to the Layers panel: shown, hidden, locked, the working one.",
  ["M4 9 L12 5 L20 9 L12 13 Z", "M4 13 L12 17 L20 13 M4 17 L12 21 L20 17"],
);
