import { extendAlong, planExtend, splitAt, splitAtCrossings } from "@ash-edge/core/edits";
import { pickedCurve } from "./making.ts";
import { nothing, refused, type Proposal, type Tool } from "./tool.ts";
import { cutterChoice, cuttersOf } from "./trim.ts";

const sweptEnds = (
  cutters: ReturnType<typeof cuttersOf>,
  index: Parameters<typeof extendAlong>[0],
  path: Parameters<typeof extendAlong>[1],
): Proposal => {
  const swept = extendAlong(index, path, cutters);
  if (!swept.ok) return refused(swept);
  const { edit, goes, comes, count } = swept.value;
  const preview = [...comes.map((shape) => ({ shape })), ...goes.map((shape) => ({ shape, goes: true }))];
  return { ways: [{ preview, edit: () => edit, said: `${count} ends moved.` }], note: `${count} ends` };
};

export const extend: Tool = {
  kind: "tool",
  id: "extend",
  name: "Extend",
  bank: "KeyA",
  help: "Click a line, an arc, an open chain, part of an ellipse or a free curve near the end that should run on: it goes on along itself to the next thing ahead, or to what is selected. A drag takes every end near which it crosses. An end that has run past what is selected is cut back to it.",
  drawing: ["M4 12 L12 12 M20 4 L20 20", "M12 12 L20 12 M16 9 L20 12 L16 15"],
  parts: [
    { kind: "pick", name: "end", label: "end", takes: "curve" },
    { kind: "words", text: "to" },
    cutterChoice("to", "boundaries", "the next thing ahead"),
  ],
  propose: (given, context) => {
    const { end } = given.picks;
    if (!end?.ref || !pickedCurve(context.drawing, end)) return nothing;
    const plan = planExtend(context.index, end.ref, end.at, cuttersOf(given.choice("to"), context));
    if (!plan.ok) return refused(plan);
    const { edit, comes, goes } = plan.value;
    const preview = [...comes.map((shape) => ({ shape })), ...goes.map((shape) => ({ shape, goes: true }))];
    return { ways: [{ preview, edit: () => edit }] };
  },
  drag: "path",
  dragged: (given, context, path) => sweptEnds(cuttersOf(given.choice("to"), context), context.index, path),
};

export const toOneLine: Tool = {
  kind: "tool",
  id: "to-one-line",
  name: "To one line",
  bank: "KeyA",
  help: "Click a line or curve, then the ends that should come to it, one after another or with a drag across them: each is run on to it, or cut back to it where it has run past.",
  drawing: ["M18 4 L18 20", "M4 7 L14 7 M4 12 L21 12 M4 17 L11 17"],
  parts: [
    { kind: "words", text: "bring" },
    { kind: "pick", name: "end", label: "ends", takes: "curve" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "line or curve", takes: "curve" },
  ],
  wants: () => ["to", "end"],
  propose: (given, { index }) => {
    const { to, end } = given.picks;
    if (!to?.ref || !given.isFirm("to") || !end?.ref) return nothing;
    const plan = planExtend(index, end.ref, end.at, new Set([to.ref.id]));
    if (!plan.ok) return given.isFirm("end") ? refused(plan) : nothing;
    const { edit, comes, goes } = plan.value;
    const preview = [...comes.map((shape) => ({ shape })), ...goes.map((shape) => ({ shape, goes: true }))];
    return { ways: [{ preview, edit: () => edit, next: { to } }] };
  },
  drag: "path",
  dragged: (given, { index }, path) => {
    const { to } = given.picks;
    return to?.ref ? sweptEnds(new Set([to.ref.id]), index, path) : nothing;
  },
};

export const split: Tool = {
  kind: "tool",
  id: "split",
  name: "Split",
  bank: "KeyA",
  help: "Click a place on a line, an arc, a chain, an ellipse part or a free curve: it becomes two there. A contour opens there.",
  drawing: ["M3 12 L10 12 M14 12 L21 12", "M12 6 L12 18"],
  parts: [{ kind: "pick", name: "what", label: "place on a curve", takes: "curve", exact: true }],
  propose: (given, { drawing }) => {
    const { what } = given.picks;
    if (!what?.ref || !pickedCurve(drawing, what)) return nothing;
    const made = splitAt(drawing, what.ref, what.at);
    if (!made.ok) return refused(made);
    const { edit, parts } = made.value;
    const said = parts === 1 ? "Opened here." : `Split into ${parts}.`;
    return { ways: [{ preview: [{ shape: { kind: "point", at: what.at } }], edit: () => edit, said }] };
  },
};

export const splitCrossings: Tool = {
  kind: "tool",
  id: "split-at-crossings",
  name: "Split at crossings",
  bank: "KeyA",
  help: "Click a curve: it is split at every place where something meets it, layout lines too.",
  drawing: ["M3 12 L7 12 M9 12 L15 12 M17 12 L21 12", "M8 5 L8 19 M16 5 L16 19"],
  parts: [{ kind: "pick", name: "what", label: "curve", takes: "curve" }],
  propose: (given, { drawing, index }) => {
    const { what } = given.picks;
    if (!what?.ref || !pickedCurve(drawing, what)) return nothing;
    const made = splitAtCrossings(index, what.ref);
    if (!made.ok) return given.isFirm("what") ? refused(made) : nothing;
    const { edit, parts } = made.value;
    return { ways: [{ preview: [], edit: () => edit, said: `Split into ${parts}.` }], note: `${parts} parts` };
  },
};
