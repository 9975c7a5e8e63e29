import { exampleCircle } from "../example/exampleShapes.ts";
import { combining } from "./combining.ts";

export const commonPart = combining("common", {
  id: "common-part",
  name: "Common part",
  between: "and",
  help: "Click two contours: what both of them cover stays. With several selected, Enter keeps what all of them cover.",
  drawing: ["M10 10 L14 10 L14 14 L10 14 Z", "M4 4 L14 4 L14 10 L20 10 L20 20 L10 20 L10 14 L4 14 Z"],
  example: {
    cut: [exampleCircle(0, 0, 24), exampleCircle(24, 0, 24)],
    clicks: [
      [-24, 0],
      [48, 0],
    ],
  },
});
