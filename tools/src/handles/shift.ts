import { exampleRounded } from "../example/exampleShapes.ts";
import { leftOffset, shiftPiece } from "@ash-edge/core/edits";
import { RESOLUTION } from "@ash-edge/core/numeric";
import { nothing, type Tool } from "../tool.ts";
import { tangency, pieceAt, changes, staysTangent } from "./handleParts.ts";

export const shiftTool: Tool = {
  kind: "tool",
  id: "handle-shift",
  name: "Shift",
  help:
    "Moves a line or an arc squarely aside, by the typed distance to the side of the pointer; its neighbours " +
    "follow, in a chain and loose. Rounded corners beside it stay rounded with their radius, and the ends of a slot " +
    "half round, or are let go.",
  drawing: ["M4 8 L20 8", "M4 17 L20 17 M12 15 L12 10 M10 12 L12 10 L14 12"],
  example: { cut: [exampleRounded(70, 40, 10)], typed: { distance: "15" }, grab: [30, 40], clicks: [[30, 60]] },
  parts: [
    { kind: "words", text: "by" },
    { kind: "value", name: "distance", label: "distance", expects: "length", stays: false, signed: true },
    { kind: "pick", name: "to", label: "side", takes: "point", silent: true },
    { kind: "words", text: "· corners" },
    tangency,
  ],
  propose: (given, context) => {
    const { handle, to } = given.picks;
    const piece = pieceAt(context, handle);
    if (!handle?.ref || !piece) return nothing;
    const typed = given.value("distance");
    const pulled = leftOffset(piece, to?.at ?? given.pointer ?? handle.at);
    const by = typed === undefined ? pulled : (pulled < 0 ? -1 : 1) * typed;
    const live = typed === undefined ? { distance: Math.abs(by) } : undefined;
    if (Math.abs(by) <= RESOLUTION) return { ways: [], ...(live ? { live } : {}) };
    return changes(shiftPiece(context.index, handle.ref, by, staysTangent(given)), live);
  },
};
