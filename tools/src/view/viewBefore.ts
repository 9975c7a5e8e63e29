import { view } from "./viewAction.ts";

export const viewBeforeAction = view("view-before", "View before", "Goes back to the view before this one.", [
  "M5 12 L19 12 M10 7 L5 12 L10 17",
  "M4 4 L20 4 M4 20 L20 20",
]);
