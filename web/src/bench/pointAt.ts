import { picturesOf, isOnPicture, ontoPicture } from "@ash-edge/core/drawing";
import { angleOf, distance, subtract, type Point } from "@ash-edge/core/geometry";
import { picksAt, snapsAt, SNAP_KINDS, type Snap, type SnapKind } from "@ash-edge/core/look";
import { givenOf, takesPoint, wantedPick, type Hover, type Tool, type ToolContext } from "@ash-edge/tools";
import { stepAt } from "../store/index.ts";
import type { Asked, BenchState, Modifiers } from "./state/index.ts";
import { gridPitch } from "./board/grid.ts";
import { toDrawing } from "./board/view.ts";
import { heldAt, holdDirection } from "./hold.ts";

/** How near the pointer must be to pick a curve, in CSS pixels. */
const PICK_REACH = 8;

/** What the pointer is over, which snaps are in reach (the one that holds first), and the direction that is held. */
export type Pointing = {
  readonly hover: Hover;
  readonly pointer: Point;
  readonly snaps: readonly Snap[];
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
  const wanted = tool && toolState && wantedPick(tool, toolState, givenOf(tool, toolState, undefined, context));
  if (wanted?.takes === "picture") {
    const picture = [...picturesOf(drawing)].reverse().find((one) => one.shown && isOnPicture(one, raw));
    const hover = picture ? { at: ontoPicture(picture, raw), under: [], picture } : { at: raw, under: [] };
    return { hover, pointer: raw, snaps: [] };
  }
  const under = [...picksAt(index, raw, PICK_REACH / view.scale)];
  for (let i = 0; i < asked.under % Math.max(1, under.length); i++) under.push(under.shift()!);
  const from = tool?.from && toolState?.picks[tool.from];
  const wantsPoint = wanted && (takesPoint(wanted) || wanted.exact);
  const options = { from: from ? from.at : undefined, kinds: snapKinds(state), grid: gridPitch(view.scale) };
  const reach = kept.snaps.reach / view.scale;
  const found = wantsPoint && !modifiers.alt ? snapsAt(index, raw, reach, options) : [];
  const chosen = asked.snap;
  const snaps = chosen ? [...found].sort((p, q) => Number(isSnap(q, chosen)) - Number(isSnap(p, chosen))) : found;
  const snap = snaps[0];
  let at = snap?.at ?? raw;
  let heldWord: string | undefined;
  if (from && wantsPoint && !snapOnce && (modifiers.shift || hold)) {
    const held = modifiers.shift ? holdDirection(from.at, at, lastDirection(state)) : heldAt(from.at, at, hold!);
    ({ at } = held);
    heldWord = held.word;
  }
  const kept_ = snap && at === snap.at ? { snap: { kind: snap.kind, ...(snap.ref ? { ref: snap.ref } : {}) } } : {};
  return { hover: { at, under, ...kept_ }, pointer: raw, snaps, ...(heldWord ? { heldWord } : {}) };
};

const isSnap = (snap: Snap, { kind, at }: { kind: SnapKind; at: Point }): boolean =>
  snap.kind === kind && distance(snap.at, at) < 1e-9 + 1e-12 * (Math.abs(at.x) + Math.abs(at.y));

/** The direction of the piece drawn last, for holding along and square to it. */
const lastDirection = ({ history: { steps: history } }: BenchState): number | undefined => {
  const last = stepAt(history, history.position - 1)
    ?.changes.map(({ after }) => after as { kind?: string; a?: Point; b?: Point } | undefined)
    .find((row) => row?.kind === "piece");
  return last?.a && last.b ? angleOf(subtract(last.b, last.a)) : undefined;
};
