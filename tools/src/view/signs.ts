import { view } from "./viewAction.ts";

export const signsAction = view(
  "signs-shown",
  "Signs shown",
  "Hides the signs on the board (open ends, the datum, findings, layout, and with them dimensions and notes), or " +
    "shows them again, in one step.",
  ["M2 12 Q12 4 22 12 Q12 20 2 12 Z", "M12 12 m-3 0 a3 3 0 1 0 6 0 a3 3 0 1 0 -6 0"],
);
