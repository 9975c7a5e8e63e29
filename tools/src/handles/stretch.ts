import { exampleRounded } from "../example/exampleShapes.ts";
import { entityOf, type Ref } from "@ash-edge/core/drawing";
import { anchorOf, stretch } from "@ash-edge/core/edits";
import { distance, angleOf, subtract } from "@ash-edge/core/geometry";
import { handlesOf } from "@ash-edge/core/look";
import { RESOLUTION, toDegrees, signedAngle } from "@ash-edge/core/numeric";
import { lineEnd } from "../draw/line.ts";
import { nothing, type ToolContext, type Picked, type Tool } from "../tool.ts";
import { tangency, changes, staysTangent } from "./handleParts.ts";

/** Everything selected that has its end at the handle. */
const endsAt = ({ drawing, selection }: ToolContext, { at, ref }: Picked): readonly Ref[] => {
  const entities = [...selection].map((id) => entityOf(drawing, id)).filter((entity) => entity !== undefined);
  const shared = handlesOf(entities).find((handle) => handle.kind === "end" && distance(handle.at, at) <= RESOLUTION);
  return ref?.place && shared ? shared.refs : ref ? [ref] : [];
};

export const stretchTool: Tool = {
  kind: "tool",
  id: "handle-stretch",
  name: "Stretch",
  help:
    "Moves an end or a corner to where you click, or by the typed length and angle from the corner before it. All " +
    "selected pieces that end there come along. Rounded corners stay rounded with their radius, and arcs tangent, " +
    "or are let go.",
  drawing: ["M4 19 L13 10", "M13 10 L19 4 M15 4 L19 4 L19 8"],
  example: { cut: [exampleRounded(70, 40, 10)], grab: [70, 30], clicks: [[85, 42]] },
  parts: [
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "new place", takes: "point" },
    { kind: "words", text: "· length" },
    { kind: "value", name: "length", label: "length", expects: "length", stays: false },
    { kind: "words", text: "angle" },
    { kind: "value", name: "angle", label: "angle", expects: "angle", stays: false, signed: true },
    { kind: "words", text: "· corners" },
    tangency,
  ],
  from: "anchor",
  wants: ({ value }) => (value("length") !== undefined && value("angle") !== undefined ? [] : ["to"]),
  propose: (given, context) => {
    const { handle } = given.picks;
    const anchor = handle?.ref && anchorOf(context.drawing, handle.ref);
    if (!handle?.ref) return nothing;
    const pointer = given.picks.to?.at ?? given.pointer ?? handle.at;
    const [length, angle] = [given.value("length"), given.value("angle")];
    const to = anchor ? lineEnd(anchor.at, pointer, length, angle) : pointer;
    const live = anchor && {
      length: distance(anchor.at, to),
      angle: toDegrees(signedAngle(angleOf(subtract(to, anchor.at)))),
    };
    if (distance(to, handle.at) <= RESOLUTION) return { ways: [], ...(live ? { live } : {}) };
    return changes(stretch(context.drawing, endsAt(context, handle), to, staysTangent(given)), live);
  },
};
