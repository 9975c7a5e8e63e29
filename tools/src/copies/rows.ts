import { exampleCircle } from "../example/exampleShapes.ts";
import { moving } from "@ash-edge/core/geometry";
import { nothing, type Tool } from "../tool.ts";
import { what, skipPart, repeated } from "./copying.ts";

export const rows: Tool = {
  kind: "tool",
  id: "rows",
  name: "Rows",
  help:
    "Repeats what is selected in columns and rows: how many of each, and how far apart, or how far the last is from " +
    "the first. Some can be left out by their numbers, counted along the rows.",
  drawing: [
    "M4 5 L8 5 L8 9 L4 9 Z",
    "M11 5 L15 5 L15 9 L11 9 Z M18 5 L22 5 L22 9 L18 9 Z M4 14 L8 14 L8 18 L4 18 Z M11 14 L15 14 L15 18 L11 18 Z " +
      "M18 14 L22 14 L22 18 L18 18 Z",
  ],
  example: {
    cut: [exampleCircle(0, 0, 8)],
    typed: { columns: "4", rows: "2", dx: "25", dy: "25", skip: "6" },
    clicks: [[8, 0]],
    finish: true,
  },
  parts: [
    what,
    { kind: "value", name: "columns", label: "columns", expects: "count", stays: true, given: 2 },
    { kind: "words", text: "×" },
    { kind: "value", name: "rows", label: "rows", expects: "count", stays: true, given: 1 },
    {
      kind: "choice",
      name: "by",
      label: "lengths are",
      options: [
        ["pitch", "apart"],
        ["total", "in all"],
      ],
    },
    { kind: "value", name: "dx", label: "across", expects: "length", stays: true, signed: true },
    { kind: "words", text: "and" },
    { kind: "value", name: "dy", label: "up", expects: "length", stays: true, signed: true },
    { kind: "words", text: "· leave out" },
    skipPart,
    { kind: "pick", name: "go", label: "go", takes: "point", silent: true },
  ],
  propose: (given, context) => {
    if (given.things.length === 0) return nothing;
    const [columns, many] = [given.value("columns") ?? 2, given.value("rows") ?? 1];
    const [dx, dy] = [given.value("dx"), given.value("dy")];
    if ((columns > 1 && dx === undefined) || (many > 1 && dy === undefined))
      return { ways: [], note: "Type how far apart" };
    if (columns * many < 2) return { ways: [], note: "One is there already" };
    const total = given.choice("by") === "total";
    const [sx, sy] = [
      total && columns > 1 ? (dx ?? 0) / (columns - 1) : (dx ?? 0),
      total && many > 1 ? (dy ?? 0) / (many - 1) : (dy ?? 0),
    ];
    const places = Array.from({ length: columns * many - 1 }, (_, i) =>
      moving({ x: ((i + 1) % columns) * sx, y: Math.floor((i + 1) / columns) * sy }),
    );
    return repeated(rows, given, context, places);
  },
};
