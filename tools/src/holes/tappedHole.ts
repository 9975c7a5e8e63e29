import { exampleBox, exampleDot } from "../example/exampleShapes.ts";
import type { Tool } from "../tool.ts";
import { singleHoles, at, tappedSize } from "./holeMaking.ts";

export const tappedHole: Tool = singleHoles(
  {
    id: "tapped-hole",
    name: "Tapped hole",
    help:
      "Type the thread (M6, M20x1.5, 3/8-16): the drill comes from the table with its limits, or is typed. It makes " +
      "the drilled hole, and the outer circle three quarters round on the Marks layer.",
    drawing: ["M16.5 12 A4.5 4.5 0 1 1 7.5 12 A4.5 4.5 0 1 1 16.5 12", "M12 4.5 A7.5 7.5 0 1 0 19.5 12"],
    example: {
      cut: [exampleBox(0, 0, 60, 40)],
      layout: [exampleDot(30, 20)],
      typed: { thread: "M20" },
      clicks: [[30, 20]],
    },
    parts: [
      { kind: "thread", name: "thread", label: "thread" },
      { kind: "words", text: "drill" },
      { kind: "value", name: "drill", label: "drill", expects: "length", stays: true },
      ...at,
    ],
  },
  ["thread"],
  {},
  (given, context) => tappedSize(given, "thread", context),
);
