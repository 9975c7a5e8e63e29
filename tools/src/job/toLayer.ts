import { exampleCircle } from "../example/exampleShapes.ts";
import { layersOf } from "@ash-edge/core/drawing";
import { putOnLayer } from "@ash-edge/core/edits";
import { done } from "@ash-edge/core/numeric";
import { nothing, refused, type Tool } from "../tool.ts";

export const toLayer: Tool = {
  kind: "tool",
  id: "to-layer",
  name: "To layer",
  help:
    "Puts what is selected, or what is clicked, on a layer: the working layer unless another is chosen. The Layers " +
    "panel makes layers.",
  drawing: ["M4 15 L12 19 L20 15 M12 4 L12 12 M9 9 L12 12 L15 9", "M4 11 L8 13 M16 13 L20 11"],
  example: { layout: [exampleCircle(0, 0, 20)], clicks: [[20, 0]], finish: true },
  parts: [
    { kind: "words", text: "put" },
    { kind: "pick", name: "what", label: "what", takes: "things" },
    { kind: "words", text: "on" },
    { kind: "layer", name: "layer", label: "layer" },
  ],
  propose: (given, { drawing, layer }) => {
    if (given.things.length === 0) return nothing;
    const chosen = layersOf(drawing).find(({ id }) => String(id) === given.choice("layer"));
    const to = chosen?.id ?? layer;
    const put = putOnLayer(drawing, given.things, to);
    if (!put.ok) return refused(put);
    const name = layersOf(drawing).find(({ id }) => id === to)?.name ?? "";
    const moved = put.value.changes.length;
    const note = moved === 0 ? `All of it is on ${name} already` : `click or Enter puts ${moved} on ${name}`;
    return {
      ways: moved === 0 ? [] : [{ preview: [], edit: () => done(put.value), said: `${moved} put on ${name}.` }],
      note,
    };
  },
};
