import { view } from "./viewAction.ts";

export const magnifierAction = view(
  "magnifier",
  "Magnifier",
  "Shows what is under the pointer six times as large in a corner of the board. Again puts it away.",
  ["M10 10 m-6 0 a6 6 0 1 0 12 0 a6 6 0 1 0 -12 0 M14.5 14.5 L20 20", "M8 10 L12 10 M10 8 L10 12"],
);
