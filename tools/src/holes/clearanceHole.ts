import { exampleBox, exampleDot } from "../example/exampleShapes.ts";
import type { Fit } from "@ash-edge/core/tables";
import type { Tool } from "../tool.ts";
import { singleHoles, fitChoice, at, clearanceSize } from "./holeMaking.ts";

export const clearanceHole: Tool = singleHoles(
  {
    id: "clearance-hole",
    name: "Clearance hole",
    help: "A hole for a bolt to pass through: type its thread, choose how much room it has.",
    drawing: ["M20 12 A8 8 0 1 1 4 12 A8 8 0 1 1 20 12", "M16 12 A4 4 0 1 1 8 12 A4 4 0 1 1 16 12"],
    example: {
      cut: [exampleBox(0, 0, 60, 40)],
      layout: [exampleDot(30, 20)],
      typed: { thread: "M12" },
      clicks: [[30, 20]],
    },
    parts: [{ kind: "words", text: "for" }, { kind: "thread", name: "thread", label: "thread" }, fitChoice(), ...at],
  },
  ["thread"],
  { fit: "medium" },
  (given, context) => clearanceSize(given, "thread", given.choice("fit") as Fit, context),
);
