import { cutPartOf } from "@ash-edge/core/construct";
import { entityOf, isLayout, LAYOUT_LAYER } from "@ash-edge/core/drawing";
import { layoutToCut as cutOrLayout } from "@ash-edge/core/edits";
import { EVERYWHERE } from "@ash-edge/core/geometry";
import { searchIndex } from "@ash-edge/core/look";
import type { Shape } from "@ash-edge/core/shape";
import { exampleLine } from "../example/exampleShapes.ts";
import { makingWay } from "../making.ts";
import { nothing, refused, type Tool } from "../tool.ts";

export const layoutToCut: Tool = {
  kind: "tool",
  id: "layout-to-cut",
  name: "Layout to cut",
  help:
    "Click layout geometry to have it cut: of an endless line the piece between the crossings next to the click. Or " +
    "turn it round: what is cut becomes layout.",
  drawing: ["M3 16 L14 16 M11 12 L15 16 L11 20", "M3 7 L21 7"],
  example: {
    cut: [exampleLine([0, -20], [0, 20]), exampleLine([50, -20], [50, 20])],
    layout: [exampleLine([0, 0], [50, 0])],
    clicks: [[25, 0]],
  },
  parts: [
    {
      kind: "choice",
      name: "way",
      label: "way",
      options: [
        ["cut", "layout to cut"],
        ["layout", "cut to layout"],
      ],
    },
    { kind: "words", text: "·" },
    { kind: "pick", name: "what", label: "line, arc or circle", takes: "curve" },
  ],
  propose: (given, { drawing, index, layer }) => {
    const { what } = given.picks;
    const entity = what?.ref && entityOf(drawing, what.ref.id);
    if (!what || !entity || entity.kind === "point") return nothing;
    const toCut = given.choice("way") === "cut";
    if (isLayout(drawing, entity) !== toCut)
      return { ways: [], note: toCut ? "This is cut already" : "This is layout already" };
    if (entity.kind !== "endless") {
      const label = toCut ? "Layout to cut" : "Cut to layout";
      return {
        ways: [
          {
            preview: [{ shape: entity }],
            edit: () => cutOrLayout(drawing, entity, toCut ? layer : LAYOUT_LAYER, label),
          },
        ],
      };
    }
    const others = searchIndex(index, EVERYWHERE).flatMap((item) =>
      item.kind === "curve" && item.ref.id !== entity.id ? [item.curve] : [],
    );
    const part = cutPartOf(entity, others, what.at);
    if (!part.ok) return refused(part);
    const shape = part.value as Shape;
    return { ways: [makingWay(layoutToCut, drawing, layer, [shape])] };
  },
};
