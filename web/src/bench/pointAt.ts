import { annotationsAt } from "@ash-edge/core/annotate";
import { picturesOf, isOnPicture, ontoPicture, unitOf } from "@ash-edge/core/drawing";
import { angleOf, distance, subtract, type Point } from "@ash-edge/core/geometry";
import { picksAt, snapsAt, SNAP_KINDS, type Snap, type SnapKind } from "@ash-edge/core/look";
import { readTypedValue, RESOLUTION, ROUNDING, type Unit } from "@ash-edge/core/numeric";
import {
  givenOf,
  takesSnap,
  wantedPick,
  type Hover,
  type Picked,
  type Tool,
  type ToolContext,
  type ToolState,
} from "@ash-edge/tools";
import { stepAt } from "../store/index.ts";
import { pickableAnnotations } from "./annotated.ts";
import type { Asked, BenchState, Modifiers } from "./state/index.ts";
import { gridPitch } from "./board/grid.ts";
import { toDrawing } from "./board/view.ts";
import { heldAt, holdDirection } from "./hold.ts";

/** How near the pointer must be to pick a curve, in CSS pixels. */
export const PICK_REACH = 8;

/** What the pointer is over, which snaps are in reach (the one that holds first), and the direction that is held. */
export type Pointing = {
  readonly hover: Hover;
  readonly pointer: Point;
  /** All in reach, and which of them holds. */
  readonly snaps: readonly Snap[];
  readonly which: number;
  readonly heldWord?: string;
};

/** The kinds of snap that are on; one alone while it is asked for. */
export const snapKinds = ({ kept, pointer: { snapOnce } }: BenchState): ReadonlySet<SnapKind> =>
  snapOnce ? new Set([snapOnce]) : new Set(SNAP_KINDS.filter((kind) => !kept.snaps.off.includes(kind)));

/** What lies under a place of the board (CSS pixels), snapped and held as the active tool wants it. */
export const pointAt = (
  state: BenchState,
  tool: Tool | undefined,
  context: ToolContext,
  screen: Point,
  { modifiers, asked }: { readonly modifiers: Modifiers; readonly asked: Asked },
): Pointing => {
  const { kept } = state;
  const { now: view } = state.view;
  const { drawing, index } = state.history;
  const { tool: toolState } = state.hand;
  const { hold, snapOnce } = state.pointer;
  const raw = toDrawing(view, screen);
  const given = tool && toolState && givenOf(tool, toolState, undefined, context);
  const wanted = given && wantedPick(tool, toolState, given);
  if (wanted?.takes === "picture") {
    const picture = [...picturesOf(drawing)].reverse().find((one) => one.shown && isOnPicture(one, raw));
    const hover = picture ? { at: ontoPicture(picture, raw), under: [], picture } : { at: raw, under: [] };
    return { hover, pointer: raw, snaps: [], which: 0 };
  }
  const under: Picked[] = tool ? [...picksAt(index, raw, PICK_REACH / view.scale)] : allAt(state, raw);
  for (let i = 0; i < asked.under % Math.max(1, under.length); i++) under.push(under.shift()!);
  const from = tool?.from && toolState?.picks[tool.from];
  const wantsPoint = wanted && (takesSnap(wanted, given) || wanted.exact);
  const options = { from: from ? from.at : undefined, kinds: snapKinds(state), grid: gridPitch(view.scale) };
  const reach = kept.snaps.reach / view.scale;
  const found = wantsPoint && !modifiers.alt ? snapsAt(index, raw, reach, options) : [];
  const taken = modifiers.alt ? undefined : takenSnap(found, asked.snap, raw, reach);
  const snap = taken ?? found[0];
  let at = snap?.at ?? raw;
  let heldWord: string | undefined;
  // with its length typed, a line within reach of level, upright or along is meant so
  const aims = from && wantsPoint && !snap && !modifiers.alt && !hold && isLengthTyped(toolState, unitOf(drawing));
  if (aims && !modifiers.shift) {
    const held = holdDirection(from.at, raw, lastDirection(state));
    if (held.word !== "square" && distance(held.at, raw) <= reach && distance(held.at, from.at) > 0) {
      ({ at } = held);
      heldWord = held.word;
    }
  }
  if (from && wantsPoint && !snapOnce && (modifiers.shift || hold)) {
    const held = modifiers.shift ? holdDirection(from.at, at, lastDirection(state)) : heldAt(from.at, at, hold!);
    ({ at } = held);
    heldWord = held.word;
  }
  const kept_ = snap && at === snap.at ? { snap: { kind: snap.kind, ...(snap.ref ? { ref: snap.ref } : {}) } } : {};
  const which = Math.max(0, taken ? found.indexOf(taken) : 0);
  return { hover: { at, under, ...kept_ }, pointer: raw, snaps: found, which, ...(heldWord ? { heldWord } : {}) };
};

/** What lies at a place while nothing is in hand: geometry and what speaks of it, nearest first. */
const allAt = (state: BenchState, at: Point): Picked[] => {
  const reach = PICK_REACH / state.view.now.scale;
  type Found = { readonly picked: Picked; readonly away: number };
  let so = 0;
  // geometry keeps its own order, in which layout stands behind what is cut
  const things = picksAt(state.history.index, at, reach).map((picked): Found => {
    so = Math.max(so, distance(picked.at, at));
    return { picked, away: so };
  });
  const spoken = annotationsAt(pickableAnnotations(state), at, reach).map(({ id, away }): Found => ({
    picked: { ref: { id }, at },
    away,
  }));
  // sorting is stable: geometry first of what is as near
  return [...things, ...spoken].sort((p, q) => p.away - q.away).map(({ picked }) => picked);
};

/**
 * The snap that was taken by hand, as long as the pointer is within its reach: the same place, or where that goes along
 * with the pointer, the same kind on the same thing.
 */
const takenSnap = (found: readonly Snap[], asked: Asked["snap"], pointer: Point, reach: number): Snap | undefined => {
  if (!asked) return undefined;
  const slack = RESOLUTION + ROUNDING * (Math.abs(asked.at.x) + Math.abs(asked.at.y));
  return (
    found.find(({ kind, at }) => kind === asked.kind && distance(at, asked.at) < slack) ??
    found.find(
      ({ kind, ref }) => kind === asked.kind && ref?.id === asked.ref?.id && ref?.vertex === asked.ref?.vertex,
    ) ??
    (distance(pointer, asked.at) <= reach ? asked : undefined)
  );
};

/** True where a tool has a length and no angle: only its direction is open. */
const isLengthTyped = (state: ToolState | undefined, unit: Unit): boolean => {
  if (!state || "angle" in state.entries || state.open?.blank === "angle") return false;
  if (state.open?.blank === "length") return readTypedValue(state.open.text, { unit, expects: "length" }).ok;
  return "length" in state.entries;
};

/** The direction of the piece drawn last, for holding along and square to it. */
const lastDirection = ({ history: { steps: history } }: BenchState): number | undefined => {
  const last = stepAt(history, history.position - 1)
    ?.changes.map(({ after }) => after as { kind?: string; a?: Point; b?: Point } | undefined)
    .find((row) => row?.kind === "piece");
  return last?.a && last.b ? angleOf(subtract(last.b, last.a)) : undefined;
};
