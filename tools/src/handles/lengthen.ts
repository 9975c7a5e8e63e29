import { exampleLine } from "../example/exampleShapes.ts";
import { endPiece, lengthTo, lengthenEnd } from "@ash-edge/core/edits";
import { pieceLength } from "@ash-edge/core/geometry";
import { RESOLUTION } from "@ash-edge/core/numeric";
import { linkCallout } from "../linking.ts";
import { nothing, type Tool } from "../tool.ts";
import { changes } from "./handleParts.ts";

export const lengthenTool: Tool = {
  kind: "tool",
  id: "handle-lengthen",
  name: "Lengthen",
  help:
    "Gives a line, an arc, or the end piece of an open chain a typed total length, or changes it by so much; its " +
    "direction, or its circle, stays.",
  drawing: ["M3 12 L13 12", "M13 12 L20 12 M17 9 L20 12 L17 15"],
  example: { cut: [exampleLine([0, 0], [40, 15])], typed: { length: "70" }, grab: [40, 15], finish: true },
  parts: [
    {
      kind: "choice",
      name: "how",
      label: "how",
      options: [
        ["total", "to a total of"],
        ["by", "by"],
      ],
    },
    { kind: "value", name: "length", label: "length", expects: "length", stays: false, signed: true },
    { kind: "pick", name: "to", label: "new end", takes: "point", silent: true },
  ],
  wants: ({ value }) => (value("length") === undefined ? ["to"] : []),
  propose: (given, context) => {
    const { handle, to } = given.picks;
    const end = handle?.ref && endPiece(context.drawing, handle.ref);
    if (!handle?.ref || !end) return nothing;
    const [own, typed] = [pieceLength(end.piece), given.value("length")];
    const by = given.choice("how") === "by";
    const pointer = to?.at ?? given.pointer ?? handle.at;
    const length = typed === undefined ? lengthTo(end.piece, pointer) : by ? own + typed : typed;
    const live = typed === undefined ? { length: by ? length - own : length } : undefined;
    if (Math.abs(length - own) <= RESOLUTION) return { ways: [], ...(live ? { live } : {}) };
    const link = by ? undefined : given.callout("length");
    const refs = [{ id: end.entity.id, ...(end.vertex === undefined ? {} : { vertex: end.vertex }) }];
    return changes(
      lengthenEnd(context.drawing, handle.ref, length, (draft) => linkCallout(draft, link, refs)),
      live,
    );
  },
};
