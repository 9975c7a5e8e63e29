import { directionAt, distance } from "@ash-edge/core/geometry";
import { toDegrees, RESOLUTION } from "@ash-edge/core/numeric";
import { linkCallout } from "../linking.ts";
import { pickedCurve, makingWay, pieceShape } from "../making.ts";
import { under, nothing, type Tool } from "../tool.ts";
import { lineEnd } from "./line.ts";

export const lineAtAnAngle: Tool = {
  kind: "tool",
  id: "line-at-an-angle",
  name: "Line at an angle",
  help:
    "Type the angle, click the start; a second click, or the typed length, gives the end. The angle counts from " +
    "level or from a picked edge.",
  drawing: ["M4 19 L19 8", "M4 19 L20 19 M13 19 A9 9 0 0 0 11.5 13.6"],
  example: {
    typed: { angle: "30", length: "60" },
    clicks: [
      [0, 0],
      [60, 30],
    ],
  },
  parts: [
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "point", takes: "point" },
    { kind: "words", text: "at" },
    { kind: "value", name: "angle", label: "angle", expects: "angle", stays: true, signed: true },
    {
      kind: "choice",
      name: "counted",
      label: "counted from",
      options: [
        ["level", "from level"],
        ["edge", "from an edge"],
      ],
    },
    { kind: "pick", name: "edge", label: "edge", takes: "curve", onlyIf: under("counted", "edge") },
    { kind: "words", text: "· length" },
    { kind: "value", name: "length", label: "length", expects: "length", stays: false },
    { kind: "pick", name: "to", label: "end", takes: "point", silent: true },
  ],
  from: "from",
  wants: ({ choice }) => [...(choice("counted") === "edge" ? ["edge"] : []), "from", "to"],
  propose: (given, { drawing, layer }) => {
    const { from, edge } = given.picks;
    const to = given.picks.to?.at ?? given.pointer;
    const typed = given.value("angle");
    if (!from || !given.isFirm("from") || !to) return nothing;
    if (typed === undefined) return { ways: [], note: "Type the angle" };
    const along = pickedCurve(drawing, edge);
    const base = along && edge ? toDegrees(directionAt(along, edge.at)) : 0;
    const length = given.value("length");
    const end = lineEnd(from.at, to, length, base + typed);
    if (distance(from.at, end) <= RESOLUTION) return nothing;
    const way = makingWay(
      lineAtAnAngle,
      drawing,
      layer,
      [pieceShape({ a: from.at, b: end, bulge: 0 })],
      (draft, [id]) => {
        linkCallout(draft, given.callout("length"), [{ id: id! }]);
        linkCallout(draft, given.callout("angle"), edge?.ref ? [{ id: id! }, edge.ref] : [{ id: id! }]);
      },
    );
    return { ways: [way], ...(length === undefined ? { live: { length: distance(from.at, end) } } : {}) };
  },
};
