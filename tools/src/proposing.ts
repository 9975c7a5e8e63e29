import { UnsoundEdit } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import { done, refuse, TooMuch, withinMoment, type Outcome, type Refusal } from "@ash-edge/core/numeric";
import { givenOf } from "./given.ts";
import { isShown, refused, type Proposal, type Tool, type ToolContext, type Way } from "./tool.ts";
import type { Hover, ToolState } from "./toolState.ts";

/**
 * An edit that could not be stored is a fault of what made it, and what would take minutes a slip in the drawing: both
 * are refused in words, and nothing is changed.
 */
export const soundly = <T>(make: () => Outcome<T>): Outcome<T> => {
  try {
    return withinMoment(make);
  } catch (reason) {
    if (reason instanceof TooMuch) return { ok: false, refusal: tooMuch(reason) };
    if (reason instanceof UnsoundEdit) return refuse("edit-unsound", { reason: reason.reason });
    throw reason;
  }
};

export const proposed = (tool: Tool, state: ToolState, propose: () => Proposal): Proposal => {
  const made = soundly(() => done(propose()));
  const proposal = made.ok ? made.value : refused(made);
  return proposal.refusal ? { ...proposal, refusal: inOwnKind(tool, state, proposal.refusal) } : proposal;
};

/** A refusal that speaks of a typed size says it as R or Ø, as it was typed. */
export const inOwnKind = (tool: Tool, state: ToolState, refusal: Refusal): Refusal => {
  const { typed, limit } = refusal.values;
  if (typeof typed !== "number" && typeof limit !== "number") return refusal;
  const size = tool.parts.find((part) => part.kind === "size" && isShown(part, state.choices));
  if (size?.kind !== "size" || state.kinds[size.name] !== "Ø") return refusal;
  return { ...refusal, values: { ...refusal.values, kind: "Ø" } };
};

const tooMuch = ({ effort, most, at }: TooMuch): Refusal => ({
  code: effort === "meetings" ? "too-much" : "too-long",
  values: { most },
  at,
});

/** True of a refusal that is none where there is time: the same step is to be taken aside. */
export const wantsTime = (refusal: Refusal | undefined): boolean =>
  refusal?.code === "too-much" || refusal?.code === "too-long";

/** What a drag along a path would make now. */
export const draggedOf = (tool: Tool, state: ToolState, path: readonly Point[], context: ToolContext): Proposal =>
  proposed(tool, state, () => tool.dragged!(givenOf(tool, state, undefined, context), context, path));

/** What the tool would make now; the chosen way and how many there are. */
export const proposalOf = (
  tool: Tool,
  state: ToolState,
  hover: Hover | undefined,
  context: ToolContext,
): Proposal & { readonly way?: Way; readonly which: number } => {
  const proposal = proposed(tool, state, () => tool.propose(givenOf(tool, state, hover, context), context));
  const count = proposal.ways.length;
  const which = count === 0 ? 0 : state.way % count;
  const way = proposal.ways[which];
  return way ? { ...proposal, way, which } : { ...proposal, which };
};
