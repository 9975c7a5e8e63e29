import { answerMade, type UsedCallout } from "@ash-edge/core/callouts";
import { DATUM, type Edit } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import { PLACE_PARTS } from "./placing.ts";
import type { Tool, ToolContext } from "./tool.ts";
import type { ToolState } from "./toolState.ts";

/** The callouts whose numbers were typed as x and y of a place, or as its distance and direction. */
export const countedBy = (
  tool: Tool,
  { placing: how, entries, picks }: ToolState,
  at: Point,
): readonly UsedCallout[] => {
  if (!how) return [];
  const from = how.from === "datum" ? DATUM : tool.from === undefined ? undefined : picks[tool.from]?.ref;
  if (!from) return [];
  return PLACE_PARTS[how.as].flatMap(({ name }, i): UsedCallout[] => {
    const id = entries[name]?.callout;
    if (id === undefined) return [];
    return [{ id, along: { ...(how.as === "xy" ? { axis: i === 0 ? "x" : "y" } : {}), at, from } }];
  });
};

/** The edit with every callout that filled a blank, or gave a coordinate, tied to what it made. */
export const answering = (state: ToolState, { drawing, selection }: ToolContext, edit: Edit): Edit => {
  const used = Object.values(state.entries).flatMap(({ callout }) => (callout === undefined ? [] : [{ id: callout }]));
  const all = [...used, ...(state.counted ?? [])];
  if (all.length === 0) return edit;
  const picked = Object.values(state.picks).flatMap(({ ref }) => ref ?? []);
  return answerMade(drawing, edit, all, [...picked, ...[...selection].slice(0, 8).map((id) => ({ id }))]);
};
