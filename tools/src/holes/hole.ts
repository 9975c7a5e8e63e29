import { exampleBox, exampleDot } from "../example/exampleShapes.ts";
import { done } from "@ash-edge/core/numeric";
import type { Tool } from "../tool.ts";
import { singleHoles, at } from "./holeMaking.ts";

const CROSS = "M12 9 L12 15 M9 12 L15 12";
export const hole: Tool = singleHoles(
  {
    id: "hole",
    name: "Hole",
    help:
      "A plain hole at each point clicked, with R or Ø typed or taken from the ledger; Enter makes one on every " +
      "layout point that is selected.",
    drawing: ["M19 12 A7 7 0 1 1 5 12 A7 7 0 1 1 19 12", CROSS],
    example: {
      cut: [exampleBox(0, 0, 60, 40)],
      layout: [exampleDot(20, 20)],
      typed: { size: "14" },
      clicks: [[20, 20]],
    },
    parts: [{ kind: "size", name: "size", first: "Ø" }, ...at],
  },
  ["size"],
  {},
  (given) => {
    const radius = given.radius("size");
    return radius === undefined ? undefined : done({ radius });
  },
);
