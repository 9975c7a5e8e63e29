import { exampleBox, exampleCircle } from "../example/exampleShapes.ts";
import { combining } from "./combining.ts";

export const unite = combining("unite", {
  id: "unite",
  name: "Unite",
  between: "with",
  help:
    "Click a contour, then one that overlaps or touches it: they become one contour round both, arcs kept as they " +
    "are. Go on clicking to unite more with it. With several selected, Enter unites them all.",
  drawing: ["M4 4 L14 4 L14 10 L20 10 L20 20 L10 20 L10 14 L4 14 Z"],
  example: {
    cut: [exampleBox(0, 0, 60, 25), exampleCircle(60, 12, 22)],
    clicks: [
      [20, 0],
      [82, 12],
    ],
  },
});
