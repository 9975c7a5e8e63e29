import { exampleDot } from "../example/exampleShapes.ts";
import { circleTool } from "./circleTool.ts";

export const circle = circleTool(undefined, {
  id: "circle",
  name: "Circle",
  help: "Click the centre. With R or Ø typed the circle is made at once, else a second click gives its rim.",
  drawing: ["M20 12 A8 8 0 1 1 4 12 A8 8 0 1 1 20 12", "M12 10 L12 14 M10 12 L14 12"],
  example: { layout: [exampleDot(0, 0)], typed: { size: "40d" }, clicks: [[0, 0]] },
});
