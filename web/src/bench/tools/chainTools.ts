import { entityOf } from "@ash-edge/core/drawing";
import { nearestVertex, openOrClose, startAt, takeApart as apart } from "@ash-edge/core/edits";
import { nothing, refused, type Tool } from "./tool.ts";

export const takeApart: Tool = {
  kind: "tool",
  id: "take-apart",
  name: "Take apart",
  bank: "KeyG",
  help: "Click a chain or a contour, or have some selected: it becomes single lines and arcs again. Join puts them together.",
  drawing: ["M3 16 L8 10 M11 8 L21 8", "M8 10 m-1.6 0 a1.6 1.6 0 1 0 3.2 0 M9.5 8 m-1.6 0 a1.6 1.6 0 1 0 3.2 0"],
  parts: [{ kind: "pick", name: "what", label: "chain", takes: "things" }],
  propose: (given, { drawing }) => {
    if (given.things.length === 0) return nothing;
    const made = apart(drawing, given.things);
    if (!made.ok) return refused(made);
    const { edit, pieces } = made.value;
    return {
      ways: [{ preview: [], edit: () => edit, said: `${pieces} pieces.` }],
      note: `${pieces} pieces · click or Enter takes it apart`,
    };
  },
};

export const startPoint: Tool = {
  kind: "tool",
  id: "start-point",
  name: "Start point",
  bank: "KeyG",
  help: "Click a contour near the corner where the cutter should start; its direction is kept or turned round. An open chain can be turned round.",
  drawing: ["M6 6 L18 6 L18 18 L6 18 Z", "M6 6 m-2.2 0 a2.2 2.2 0 1 0 4.4 0 a2.2 2.2 0 1 0 -4.4 0 M11 3 L15 6 L11 9"],
  parts: [
    { kind: "pick", name: "at", label: "chain, near a corner", takes: "curve" },
    { kind: "words", text: "·" },
    {
      kind: "choice",
      name: "way",
      label: "direction",
      options: [
        ["keep", "keep the direction"],
        ["turn", "turn it round"],
      ],
    },
  ],
  propose: (given, { drawing }) => {
    const { at } = given.picks;
    const entity = at?.ref && entityOf(drawing, at.ref.id);
    if (!at?.ref || !entity) return nothing;
    const made = startAt(drawing, entity.id, at.at, given.choice("way") === "turn");
    if (!made.ok) return given.isFirm("at") ? refused(made) : nothing;
    const start = entity.kind === "chain" ? nearestVertex(entity, at.at).at : at.at;
    return { ways: [{ preview: [{ shape: { kind: "point", at: start } }], edit: () => made.value }] };
  },
};

export const openClose: Tool = {
  kind: "tool",
  id: "open-or-close",
  name: "Open or close",
  bank: "KeyG",
  help: "Click a contour near the corner where it should open, or an open chain to close it with a line between its ends.",
  drawing: ["M9 5 L5 5 L5 19 L19 19 L19 5 L15 5", "M9 5 L15 5"],
  parts: [{ kind: "pick", name: "at", label: "chain", takes: "curve" }],
  propose: (given, { drawing }) => {
    const { at } = given.picks;
    const entity = at?.ref && entityOf(drawing, at.ref.id);
    if (!at?.ref || !entity) return nothing;
    const made = openOrClose(drawing, entity.id, at.at);
    if (!made.ok) return given.isFirm("at") ? refused(made) : nothing;
    const { edit, opened } = made.value;
    return {
      ways: [{ preview: [], edit: () => edit, said: opened ? "The contour is open here." : "The chain is closed." }],
      note: opened ? "opens here" : "closes it",
    };
  },
};
