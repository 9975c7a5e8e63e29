import { view } from "./viewAction.ts";

export const fitSelectionAction = view(
  "fit-selection",
  "Fit selection",
  "Shows what is selected, as large as it goes.",
  [
    "M4 9 L4 4 L9 4 M15 4 L20 4 L20 9 M20 15 L20 20 L15 20 M9 20 L4 20 L4 15",
    "M12 12 m-3 0 a3 3 0 1 0 6 0 a3 3 0 1 0 -6 0",
  ],
);
