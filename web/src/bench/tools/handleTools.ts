import { curveAt, entityOf, refuseLocked, type Edit, type Ref } from "@ash-edge/core/drawing";
import {
  addCorner,
  anchorOf,
  draftEdit,
  endPiece,
  lengthenEnd,
  lengthTo,
  leftOffset,
  removeCorner,
  shiftPiece,
  stretch,
} from "@ash-edge/core/edits";
import {
  angleOf,
  curveNearest,
  distance,
  pieceLength,
  piecePoint,
  subtract,
  type Piece,
  type Point,
} from "@ash-edge/core/geometry";
import { handlesOf } from "@ash-edge/core/look";
import { done, refuse, RESOLUTION, signedAngle, toDegrees, type Outcome } from "@ash-edge/core/numeric";
import { lineEnd } from "./line.ts";
import { linkCallout } from "./linking.ts";
import { changingWay } from "./making.ts";
import {
  nothing,
  refused,
  type Given,
  type Part,
  type Picked,
  type Proposal,
  type Tool,
  type ToolContext,
} from "./tool.ts";

// What a handle offers. They are taken up at the handle, which is their pick `handle`, and put down once they made something.

const changes = (edit: Outcome<Edit>, live?: Proposal["live"]): Proposal =>
  edit.ok
    ? { ways: [changingWay(edit.value)], ...(live ? { live } : {}) }
    : { ...refused(edit), ...(live ? { live } : {}) };

const pieceAt = ({ drawing }: ToolContext, picked: Picked | undefined): Piece | undefined => {
  const curve = picked?.ref && curveAt(drawing, picked.ref);
  return curve?.kind === "piece" ? curve : undefined;
};

/** Everything selected that has its end at the handle. */
const endsAt = ({ drawing, selection }: ToolContext, { at, ref }: Picked): readonly Ref[] => {
  const entities = [...selection].map((id) => entityOf(drawing, id)).filter((entity) => entity !== undefined);
  const shared = handlesOf(entities).find((handle) => handle.kind === "end" && distance(handle.at, at) <= RESOLUTION);
  return ref?.place && shared ? shared.refs : ref ? [ref] : [];
};

const tangency: Part = {
  kind: "choice",
  name: "tangency",
  label: "rounded corners",
  options: [
    ["stay", "stay round"],
    ["go", "let go"],
  ],
};
const staysTangent = (given: Given): boolean => given.choice("tangency") === "stay";

export const stretchTool: Tool = {
  kind: "tool",
  id: "handle-stretch",
  name: "Stretch",
  bank: "KeyG",
  help: "Moves an end or a corner to where you click, or by the typed length and angle from the corner before it. All selected pieces that end there come along. Rounded corners stay rounded with their radius, and arcs tangent, or are let go.",
  drawing: ["M4 19 L13 10", "M13 10 L19 4 M15 4 L19 4 L19 8"],
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

export const lengthenTool: Tool = {
  kind: "tool",
  id: "handle-lengthen",
  name: "Lengthen",
  bank: "KeyG",
  help: "Gives a line, an arc, or the end piece of an open chain a typed total length, or changes it by so much; its direction, or its circle, stays.",
  drawing: ["M3 12 L13 12", "M13 12 L20 12 M17 9 L20 12 L17 15"],
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

export const shiftTool: Tool = {
  kind: "tool",
  id: "handle-shift",
  name: "Shift",
  bank: "KeyG",
  help: "Moves a line or an arc squarely aside, by the typed distance to the side of the pointer; its neighbours follow, in a chain and loose. Rounded corners beside it stay rounded with their radius, and the ends of a slot half round, or are let go.",
  drawing: ["M4 8 L20 8", "M4 17 L20 17 M12 15 L12 10 M10 12 L12 10 L14 12"],
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

export const addCornerTool: Tool = {
  kind: "tool",
  id: "handle-add-corner",
  name: "Add a corner",
  bank: "KeyG",
  help: "Puts a corner on a line or an arc where you click, or at the typed distance from the end that is nearer to the pointer. The shape stays until the corner is moved.",
  drawing: ["M4 17 L20 9", "M12 13 m-2.5 0 a2.5 2.5 0 1 0 5 0 a2.5 2.5 0 1 0 -5 0"],
  parts: [
    { kind: "pick", name: "to", label: "place on it", takes: "point", silent: true },
    { kind: "value", name: "distance", label: "distance", expects: "length", stays: false },
    { kind: "words", text: "from the nearer end" },
  ],
  propose: (given, context) => {
    const { handle, to } = given.picks;
    const piece = pieceAt(context, handle);
    if (!handle?.ref || !piece) return nothing;
    const pointer = curveNearest({ kind: "piece", ...piece }, to?.at ?? given.pointer ?? handle.at);
    const typed = given.value("distance");
    const length = pieceLength(piece);
    if (typed !== undefined && typed >= length - RESOLUTION)
      return refused(refuse("corner-beyond", { limit: length }, piece.b));
    const part = typed === undefined ? pointer.t : typed / length;
    const t = typed !== undefined && pointer.t > 0.5 ? 1 - part : part;
    const at: Point = typed === undefined ? pointer.at : piecePoint(piece, t);
    const added = addCorner(context.drawing, handle.ref, at);
    if (!added.ok) return refused(added);
    return {
      ways: [{ preview: [{ shape: { kind: "point", at } }], edit: () => added.value }],
      ...(typed === undefined ? { live: { distance: Math.min(t, 1 - t) * length } } : {}),
    };
  },
};

export const removeCornerTool: Tool = {
  kind: "tool",
  id: "handle-remove-corner",
  name: "Take the corner out",
  bank: "KeyG",
  help: "The two pieces at the corner become one: straight, or the arc that both lie on. At an open end, the end piece goes.",
  drawing: ["M4 18 L20 18", "M4 18 L12 6 L20 18"],
  parts: [],
  propose: (given, { drawing }) => {
    const { handle } = given.picks;
    return handle?.ref ? changes(removeCorner(drawing, handle.ref)) : nothing;
  },
};

export const radiusOfCircle: Tool = {
  kind: "tool",
  id: "handle-radius",
  name: "Radius",
  bank: "KeyG",
  help: "Gives a circle the typed R or Ø, or the radius that reaches to where you click; its centre stays.",
  drawing: ["M20 12 A8 8 0 1 1 4 12 A8 8 0 1 1 20 12", "M12 12 L20 12"],
  parts: [
    { kind: "words", text: "of" },
    { kind: "size", name: "size", first: "Ø" },
    { kind: "pick", name: "to", label: "through", takes: "point", silent: true },
  ],
  wants: ({ radius }) => (radius("size") === undefined ? ["to"] : []),
  propose: (given, { drawing }) => {
    const { handle, to } = given.picks;
    const entity = handle?.ref && entityOf(drawing, handle.ref.id);
    if (!handle?.ref || entity?.kind !== "circle") return nothing;
    const typed = given.radius("size");
    const radius = typed ?? distance(entity.centre, to?.at ?? given.pointer ?? handle.at);
    const live = typed === undefined ? { size: radius } : undefined;
    if (Math.abs(radius - entity.radius) <= RESOLUTION) return { ways: [], ...(live ? { live } : {}) };
    const locked = refuseLocked(drawing, entity);
    if (locked) return refused(locked);
    if (radius <= RESOLUTION) return refused(refuse("value-not-positive", { what: "The radius" }));
    const draft = draftEdit(drawing, "Radius", "handle");
    draft.replace({ ...entity, radius });
    linkCallout(draft, given.callout("size"), [{ id: entity.id }]);
    return changes(done(draft.finish()), live);
  },
};

export const HANDLE_TOOLS: readonly Tool[] = [
  stretchTool,
  lengthenTool,
  shiftTool,
  addCornerTool,
  removeCornerTool,
  radiusOfCircle,
];
