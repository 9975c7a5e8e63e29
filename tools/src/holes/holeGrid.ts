import { exampleBox, exampleDot } from "../example/exampleShapes.ts";
import { gridPoints } from "@ash-edge/core/construct";
import { refuse, toRadians } from "@ash-edge/core/numeric";
import { nothing, refused, type Tool } from "../tool.ts";
import { kindParts, patternSize, MOST, holesAt, PATTERN_BLANKS } from "./holeMaking.ts";

export const holeGrid: Tool = {
  kind: "tool",
  id: "hole-grid",
  name: "Hole grid",
  help: "Holes in columns and rows from the point clicked: how many of each, how far apart, turned if wanted.",
  drawing: [
    "M8 7 A2 2 0 1 1 4 7 A2 2 0 1 1 8 7 M20 7 A2 2 0 1 1 16 7 A2 2 0 1 1 20 7 M8 17 A2 2 0 1 1 4 17 A2 2 0 1 1 8 " +
      "17 M20 17 A2 2 0 1 1 16 17 A2 2 0 1 1 20 17",
  ],
  example: {
    cut: [exampleBox(0, 0, 90, 60)],
    layout: [exampleDot(15, 15)],
    typed: { columns: "4", rows: "2", size: "8", dx: "20", dy: "30" },
    clicks: [[15, 15]],
  },
  parts: [
    { kind: "value", name: "columns", label: "columns", expects: "count", stays: true, given: 2 },
    { kind: "words", text: "×" },
    { kind: "value", name: "rows", label: "rows", expects: "count", stays: true, given: 2 },
    ...kindParts,
    { kind: "value", name: "dx", label: "apart across", expects: "length", stays: true },
    { kind: "words", text: "and" },
    { kind: "value", name: "dy", label: "apart up", expects: "length", stays: true },
    { kind: "words", text: "apart, from" },
    { kind: "pick", name: "at", label: "first hole", takes: "point" },
    { kind: "words", text: "turned" },
    { kind: "value", name: "turned", label: "turned", expects: "angle", stays: true, signed: true, given: 0 },
  ],
  first: { fit: "medium" },
  propose: (given, context) => {
    const { at: from } = given.picks;
    if (!from) return nothing;
    const size = patternSize(given, context);
    const [dx, dy] = [given.value("dx"), given.value("dy")];
    if (!size || dx === undefined || dy === undefined)
      return given.isFirm("at")
        ? refused(refuse("value-empty"))
        : { ways: [], note: "Type the size of the holes and how far apart" };
    if (!size.ok) return refused(size);
    const [columns, rows] = [given.value("columns") ?? 2, given.value("rows") ?? 2];
    if (columns * rows > MOST) return refused(refuse("count-too-large", { limit: MOST }));
    const places = gridPoints(from.at, columns, rows, dx, dy, toRadians(given.value("turned") ?? 0));
    return holesAt(holeGrid, context, places, size.value, given, PATTERN_BLANKS);
  },
};
