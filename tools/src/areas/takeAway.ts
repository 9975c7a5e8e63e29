import { exampleBox, exampleCircle } from "../example/exampleShapes.ts";
import { combining } from "./combining.ts";

export const takeAway = combining("take-away", {
  id: "take-away",
  name: "Take away",
  between: "less",
  help:
    "Click the contour that stays, then the one that is taken away from it: what they share goes. Go on clicking to " +
    "take away more. With several selected, Enter takes the others away from the first.",
  drawing: ["M4 4 L14 4 L14 10 L10 10 L10 14 L4 14 Z", "M14 10 L20 10 L20 20 L10 20 L10 14"],
  example: {
    cut: [exampleBox(0, 0, 60, 40), exampleCircle(60, 20, 14)],
    clicks: [
      [20, 0],
      [74, 20],
    ],
  },
});
