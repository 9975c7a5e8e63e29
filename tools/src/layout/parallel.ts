import { exampleLine } from "../example/exampleShapes.ts";
import { distanceFrom, parallelsOf } from "@ash-edge/core/construct";
import { curveAt, LAYOUT_LAYER } from "@ash-edge/core/drawing";
import { linkCallout } from "../linking.ts";
import { makingWay } from "../making.ts";
import { bySide, nothing, refused, type Tool } from "../tool.ts";

/** Layout lines and circles parallel to what is picked; the side is where the pointer is. */
export const parallel: Tool = {
  kind: "tool",
  id: "parallel",
  name: "Parallel",
  help:
    "Pick a line, an edge, a layout line or a circle, then click on the side where the parallel belongs. It makes " +
    "layout lines at the typed distance, or through the point clicked.",
  drawing: ["M4 17 L20 17", "M4 8 L20 8 M12 11 L12 14"],
  example: {
    cut: [exampleLine([0, 0], [80, 0])],
    typed: { distance: "15", times: "2" },
    clicks: [
      [40, 0],
      [40, 20],
    ],
  },
  parts: [
    { kind: "words", text: "to" },
    { kind: "pick", name: "of", label: "line, edge or circle", takes: "curve" },
    { kind: "words", text: "at" },
    { kind: "value", name: "distance", label: "distance", expects: "length", stays: true },
    { kind: "pick", name: "side", label: "side", takes: "point", silent: true, bare: bySide },
    { kind: "words", text: "·" },
    { kind: "value", name: "times", label: "times", expects: "count", stays: true, given: 1 },
    { kind: "words", text: "times" },
  ],
  propose: (given, { drawing }) => {
    const { of } = given.picks;
    const side = given.picks.side ?? (given.isFirm("of") && given.pointer ? { at: given.pointer } : undefined);
    const curve = of?.ref && curveAt(drawing, of.ref);
    if (!curve || !of.ref || !given.isFirm("of") || !side) return nothing;
    const typed = given.value("distance");
    const by = typed ?? distanceFrom(curve, side.at);
    if (by === 0) return nothing;
    const made = parallelsOf(curve, side.at, by, given.value("times") ?? 1);
    if (!made.ok) return refused(made);
    const source = of.ref;
    const named = { ...parallel, name: made.value.length > 1 ? `Parallel × ${made.value.length}` : "Parallel" };
    const way = makingWay(named, drawing, LAYOUT_LAYER, made.value, (draft, ids) =>
      linkCallout(draft, given.callout("distance"), [source, { id: ids[0]! }]),
    );
    return { ways: [way], ...(typed === undefined ? { live: { distance: by } } : {}) };
  },
};
