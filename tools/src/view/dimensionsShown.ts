import { view } from "./viewAction.ts";

export const dimensionsShownAction = view(
  "dimensions-shown",
  "Dimensions shown",
  "Takes all dimensions, notes and marks out of the way, or shows them again, in one step.",
  ["M4 9 L20 9 M7 6.5 L4 9 L7 11.5 M17 6.5 L20 9 L17 11.5", "M4 5 L4 14 M20 5 L20 14 M4 21 L20 17"],
);
