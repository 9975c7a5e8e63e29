import {
  bisectorsOf,
  cutPartOf,
  dividingPoints,
  lineSquareTo,
  lineThrough,
  tangentsAtAngle,
} from "@ash-edge/core/construct";
import { curveAt, entityOf, isLayout, LAYOUT_LAYER, type Drawing } from "@ash-edge/core/drawing";
import { draftEdit, splitInto } from "@ash-edge/core/edits";
import { angleOf, carrierOf, directionAt, distance, subtract, type Curve, type Endless } from "@ash-edge/core/geometry";
import { searchIndex } from "@ash-edge/core/look";
import { RESOLUTION, toDegrees, toRadians } from "@ash-edge/core/numeric";
import type { Shape } from "@ash-edge/core/shape";
import { lineEnd } from "./line.ts";
import { linkCallout } from "./linking.ts";
import {
  nothing,
  oneWay,
  refused,
  under,
  type Given,
  type Picked,
  type Proposal,
  type Tool,
  type Way,
} from "./tool.ts";

const endless = (line: Endless): Shape => ({ kind: "endless", ...line });

/** A way that puts shapes on the layout layer. */
const layoutWay = (drawing: Drawing, shapes: readonly Shape[], label: string, gesture: string): Way => ({
  preview: shapes.map((shape) => ({ shape })),
  edit: () => {
    const draft = draftEdit(drawing, label, gesture);
    for (const shape of shapes) draft.add(shape, LAYOUT_LAYER);
    return draft.finish();
  },
});

const curveOf = (drawing: Drawing, picked: Picked | undefined): Curve | undefined =>
  picked?.ref && !picked.ref.place ? curveAt(drawing, picked.ref) : undefined;

export const throughTwoPoints: Tool = {
  kind: "tool",
  id: "through-two-points",
  name: "Through two points",
  bank: "KeyQ",
  help: "Click two points. It makes the layout line through both.",
  drawing: ["M3 19 L21 5", "M8 15 m-2 0 a2 2 0 1 0 4 0 a2 2 0 1 0 -4 0 M16 9 m-2 0 a2 2 0 1 0 4 0 a2 2 0 1 0 -4 0"],
  parts: [
    { kind: "words", text: "layout line through" },
    { kind: "pick", name: "one", label: "point", takes: "point" },
    { kind: "words", text: "and" },
    { kind: "pick", name: "other", label: "other point", takes: "point" },
  ],
  from: "one",
  propose: (given, { drawing }) => {
    const { one, other } = given.picks;
    if (!one || !other || !given.isFirm("one")) return nothing;
    const line = lineThrough(one.at, other.at);
    if (!line.ok) return given.isFirm("other") ? refused(line) : nothing;
    return { ways: [layoutWay(drawing, [endless(line.value)], "Through two points", "through-two-points")] };
  },
};

/** The angle of the layout line: typed, from level or from the picked edge; else towards the pointer. */
const turnedAngle = (given: Given, drawing: Drawing, at: Picked): { angle: number; live?: number } | undefined => {
  const edge = given.choice("from") === "edge" ? curveOf(drawing, given.picks.edge) : undefined;
  const base = edge && given.picks.edge ? directionAt(edge, given.picks.edge.at) : 0;
  const typed = given.value("angle");
  if (typed !== undefined) return { angle: base + toRadians(typed) };
  const pointer = given.picks.towards?.at ?? given.pointer;
  if (!pointer || distance(pointer, at.at) <= RESOLUTION) return undefined;
  const angle = angleOf(subtract(pointer, at.at));
  return { angle, live: toDegrees(angle - base) };
};

export const atAnAngle: Tool = {
  kind: "tool",
  id: "at-an-angle",
  name: "At an angle",
  bank: "KeyQ",
  help: "Click a point, or a circle that the line should touch, with the angle typed; without one, a second click gives the direction. The angle counts from level or from a picked edge. Space shows the other tangent.",
  drawing: ["M4 19 L20 7", "M4 19 L20 19 M12 19 A8 8 0 0 0 10.4 14.2"],
  parts: [
    { kind: "words", text: "layout line through" },
    { kind: "pick", name: "at", label: "point or circle", takes: "either", round: true },
    { kind: "words", text: "at" },
    { kind: "value", name: "angle", label: "angle", expects: "angle", stays: true },
    {
      kind: "choice",
      name: "from",
      label: "counted from",
      options: [
        ["level", "from level"],
        ["edge", "from an edge"],
      ],
    },
    { kind: "pick", name: "edge", label: "edge", takes: "curve", onlyIf: under("from", "edge") },
    { kind: "pick", name: "towards", label: "direction", takes: "point", silent: true },
  ],
  from: "at",
  wants: (given) => [
    ...(given.choice("from") === "edge" ? ["edge"] : []),
    "at",
    ...(given.value("angle") === undefined ? ["towards"] : []),
  ],
  propose: (given, { drawing }): Proposal => {
    const { at } = given.picks;
    if (!at) return nothing;
    const turned = turnedAngle(given, drawing, at);
    if (!turned) return nothing;
    const curve = curveOf(drawing, at);
    const carrier = curve && carrierOf(curve);
    const lines =
      carrier?.kind === "circle"
        ? tangentsAtAngle(carrier, turned.angle, at.at)
        : [{ through: at.at, angle: turned.angle }];
    return {
      ways: lines.map((line) => layoutWay(drawing, [endless(line)], "At an angle", "at-an-angle")),
      ...(turned.live === undefined ? {} : { live: { angle: turned.live } }),
    };
  },
};

export const squareTo: Tool = {
  kind: "tool",
  id: "square-to",
  name: "Square to",
  bank: "KeyQ",
  help: "Pick an edge, a layout line or a circle, then click the point that the layout line should run through.",
  drawing: ["M12 4 L12 20", "M4 18 L20 18 M12 14 L16 14 L16 18"],
  parts: [
    { kind: "words", text: "layout line square to" },
    { kind: "pick", name: "edge", label: "edge", takes: "curve" },
    { kind: "words", text: "through" },
    { kind: "pick", name: "through", label: "point", takes: "point" },
  ],
  propose: (given, { drawing }) => {
    const { edge, through } = given.picks;
    const curve = curveOf(drawing, edge);
    if (!curve || !through || !given.isFirm("edge")) return nothing;
    const line = lineSquareTo(curve, through.at);
    if (!line.ok) return refused(line);
    return { ways: [layoutWay(drawing, [endless(line.value)], "Square to", "square-to")] };
  },
};

export const bisector: Tool = {
  kind: "tool",
  id: "bisector",
  name: "Bisector",
  bank: "KeyQ",
  help: "Pick two straight edges or layout lines, each on the side that counts. Space shows the other bisector. They need not reach each other.",
  drawing: ["M4 20 L20 12", "M4 20 L18 4 M4 20 L21 20"],
  parts: [
    { kind: "words", text: "of" },
    { kind: "pick", name: "one", label: "line", takes: "curve" },
    { kind: "words", text: "and" },
    { kind: "pick", name: "other", label: "other line", takes: "curve" },
  ],
  propose: (given, { drawing }) => {
    const { one, other } = given.picks;
    const [a, b] = [curveOf(drawing, one), curveOf(drawing, other)];
    if (!a || !b || !one || !other || !given.isFirm("one")) return nothing;
    const lines = bisectorsOf(a, one.at, b, other.at);
    if (!lines.ok) return given.isFirm("other") ? refused(lines) : nothing;
    return { ways: lines.value.map((line) => layoutWay(drawing, [endless(line)], "Bisector", "bisector")) };
  },
};

export const layoutLine: Tool = {
  kind: "tool",
  id: "layout-line",
  name: "Layout line",
  bank: "KeyQ",
  help: "Click two points; length and angle can be typed. It makes a layout line with ends, which is never cut.",
  drawing: ["M5 18 L19 6", "M2 18 L8 18 M16 6 L22 6"],
  parts: [
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "point", takes: "point" },
    { kind: "words", text: "· length" },
    { kind: "value", name: "length", label: "length", expects: "length", stays: false },
    { kind: "words", text: "angle" },
    { kind: "value", name: "angle", label: "angle", expects: "angle", stays: false },
    { kind: "pick", name: "to", label: "end", takes: "point", silent: true },
  ],
  from: "from",
  propose: (given, { drawing }) => {
    const { from } = given.picks;
    const to = given.picks.to?.at ?? given.pointer;
    if (!from || !given.isFirm("from") || !to) return nothing;
    const end = lineEnd(from.at, to, given.value("length"), given.value("angle"));
    if (distance(from.at, end) <= RESOLUTION) return nothing;
    const shape: Shape = { kind: "piece", a: from.at, b: end, bulge: 0 };
    return {
      ...oneWay([shape], () => {
        const draft = draftEdit(drawing, "Layout line", "layout-line");
        const id = draft.add(shape, LAYOUT_LAYER);
        linkCallout(draft, given.callout("length"), [{ id }]);
        return draft.finish();
      }),
      live: { length: distance(from.at, end), angle: toDegrees(angleOf(subtract(end, from.at))) },
    };
  },
};

export const divide: Tool = {
  kind: "tool",
  id: "divide",
  name: "Divide",
  bank: "KeyQ",
  help: "Pick a line, an arc or a circle: layout points divide it into equal parts, round a circle from where it was picked. Or it is itself cut into that many pieces.",
  drawing: [
    "M4 12 m-1.5 0 a1.5 1.5 0 1 0 3 0 a1.5 1.5 0 1 0 -3 0 M12 12 m-1.5 0 a1.5 1.5 0 1 0 3 0 a1.5 1.5 0 1 0 -3 0 M20 12 m-1.5 0 a1.5 1.5 0 1 0 3 0 a1.5 1.5 0 1 0 -3 0",
    "M2 12 L22 12",
  ],
  parts: [
    { kind: "pick", name: "curve", label: "line, arc or circle", takes: "curve", exact: true },
    { kind: "words", text: "into" },
    { kind: "value", name: "parts", label: "parts", expects: "count", stays: true, given: 2 },
    { kind: "words", text: "equal parts by" },
    {
      kind: "choice",
      name: "by",
      label: "by",
      options: [
        ["points", "points"],
        ["pieces", "pieces"],
      ],
    },
  ],
  propose: (given, { drawing }) => {
    const { curve: picked } = given.picks;
    const curve = curveOf(drawing, picked);
    if (!curve || !picked) return nothing;
    const parts = given.value("parts") ?? 2;
    const found = dividingPoints(curve, parts, picked.at);
    if (!found.ok) return given.isFirm("curve") ? refused(found) : nothing;
    const points = found.value.map((at): Shape => ({ kind: "point", at }));
    if (given.choice("by") === "pieces") {
      const cut = splitInto(drawing, picked.ref!, parts, picked.at);
      if (!cut.ok) return given.isFirm("curve") ? refused(cut) : nothing;
      const preview = points.map((shape) => ({ shape }));
      return { ways: [{ preview, edit: () => cut.value.edit, said: `Split into ${parts}.` }] };
    }
    return {
      ways: [layoutWay(drawing, points, "Divide", "divide")],
      note: `${points.length} point${points.length === 1 ? "" : "s"}`,
    };
  },
};

export const layoutToCut: Tool = {
  kind: "tool",
  id: "layout-to-cut",
  name: "Layout to cut",
  bank: "KeyQ",
  help: "Click layout geometry to have it cut: of an endless line the piece between the crossings next to the click. Or turn it round: what is cut becomes layout.",
  drawing: ["M3 16 L14 16 M11 12 L15 16 L11 20", "M3 7 L21 7"],
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
    if (entity.kind === "chain" || entity.kind !== "endless") {
      const edit = () => {
        const draft = draftEdit(drawing, toCut ? "Layout to cut" : "Cut to layout", "layout-to-cut");
        draft.replace({ ...entity, layer: toCut ? layer : LAYOUT_LAYER });
        return draft.finish();
      };
      return { ways: [{ preview: [{ shape: entity }], edit }] };
    }
    const box = { minX: -Infinity, minY: -Infinity, maxX: Infinity, maxY: Infinity };
    const others = searchIndex(index, box).flatMap((item) =>
      item.kind === "curve" && item.ref.id !== entity.id ? [item.curve] : [],
    );
    const part = cutPartOf(entity, others, what.at);
    if (!part.ok) return refused(part);
    const shape = part.value as Shape;
    return oneWay([shape], () => {
      const draft = draftEdit(drawing, "Layout to cut", "layout-to-cut");
      draft.add(shape, layer);
      return draft.finish();
    });
  },
};
