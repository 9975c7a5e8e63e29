import { annotationHandles } from "@ash-edge/core/annotate";
import { entityOf, layerOf, type Drawing } from "@ash-edge/core/drawing";
import { distance, type Point } from "@ash-edge/core/geometry";
import { handlesOf } from "@ash-edge/core/look";
import type { Id } from "@ash-edge/core/numeric";
import { pickableAnnotations } from "../annotated.ts";
import type { Handle } from "../state/handle.ts";
import type { BenchState } from "../state/index.ts";
import { toScreen } from "../board/view.ts";

/** How near the pointer must be to a handle, in CSS pixels. */
const GRIP_REACH = 8;
/** With more than this selected, handles would hide the drawing. */
const MOST_THINGS = 40;
/** Pieces shorter than this on the screen show no middle. */
const SHORTEST_PX = 34;

type Shown = {
  readonly drawing: Drawing;
  readonly selection: ReadonlySet<Id>;
  readonly scale: number;
  readonly handles: readonly Handle[];
};
let last: Shown | undefined;
const NONE: readonly Handle[] = [];

/**
 * The handles to show: of what is selected on layers that are shown and not locked, while no other tool is in hand and
 * they are not switched off.
 */
export const shownHandles = (state: BenchState): readonly Handle[] => {
  const { kept } = state;
  const { drawing } = state.history;
  const { ids: selection } = state.selection;
  const { now: view, signsHidden } = state.view;
  const { toolId, grabbed } = state.hand;
  if (!kept.handles || signsHidden || selection.size === 0 || selection.size > MOST_THINGS || (toolId && !grabbed))
    return NONE;
  if (last?.drawing === drawing && last.selection === selection && last.scale === view.scale) return last.handles;
  const entities = [...selection].flatMap((id) => {
    const entity = entityOf(drawing, id);
    const layer = entity && layerOf(drawing, entity.layer);
    return entity && layer?.shown && !layer.locked ? [entity] : [];
  });
  const handles: readonly Handle[] = [
    ...handlesOf(entities).filter(({ length }) => length === undefined || length * view.scale > SHORTEST_PX),
    ...pickableAnnotations(state).flatMap((one) => (selection.has(one.id) ? annotationHandles(drawing, one) : [])),
  ];
  last = { drawing, selection, scale: view.scale, handles };
  return handles;
};

/** The handle under a place of the board (CSS pixels), the nearest. */
export const handleAt = (state: BenchState, at: Point): Handle | undefined => {
  let best: { handle: Handle; away: number } | undefined;
  for (const handle of shownHandles(state)) {
    const away = distance(toScreen(state.view.now, handle.at), at);
    if (away <= GRIP_REACH && (!best || away < best.away)) best = { handle, away };
  }
  return best?.handle;
};
