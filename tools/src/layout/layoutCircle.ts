import { exampleDot } from "../example/exampleShapes.ts";
import { LAYOUT_LAYER } from "@ash-edge/core/drawing";
import { circleTool } from "../round/circleTool.ts";

export const layoutCircle = circleTool(LAYOUT_LAYER, {
  id: "layout-circle",
  layout: true,
  name: "Layout circle",
  help: "Click the centre. The circle is helper geometry: it is never cut and goes with Clear layout.",
  drawing: ["M12 10 L12 14 M10 12 L14 12", "M20 12 A8 8 0 1 1 4 12 A8 8 0 1 1 20 12"],
  example: { layout: [exampleDot(0, 0)], typed: { size: "50d" }, clicks: [[0, 0]] },
});
