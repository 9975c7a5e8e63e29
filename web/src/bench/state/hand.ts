import type { Handle } from "./handle.ts";
import type { proposalOf, ToolState } from "@ash-edge/tools";

export type Proposed = ReturnType<typeof proposalOf>;

/** What the drafter has in hand: nothing, a tool with its state, or a handle with the tool it offers. */
export type Hand = {
  readonly toolId: string | undefined;
  /** Where the tool stands: what is picked, held and being typed. */
  readonly tool: ToolState | undefined;
  /** What the tool would make now. */
  readonly proposal: Proposed | undefined;
  /** The handle in hand, with the action that was chosen of what it offers. */
  readonly grabbed: { readonly handle: Handle; readonly words: string } | undefined;
  /** The tool taken last, for taking it again. */
  readonly lastToolId: string | undefined;
};
export const EMPTY_HAND: Hand = {
  toolId: undefined,
  tool: undefined,
  proposal: undefined,
  grabbed: undefined,
  lastToolId: undefined,
};

export type HandEvent =
  | { readonly type: "tool taken"; readonly id: string; readonly tool: ToolState }
  | {
      readonly type: "handle taken";
      readonly id: string;
      readonly tool: ToolState;
      readonly grabbed: NonNullable<Hand["grabbed"]>;
    }
  | { readonly type: "stepped"; readonly tool: ToolState }
  | { readonly type: "proposed"; readonly proposal: Proposed | undefined }
  | { readonly type: "put down" };

export const handAfter = (hand: Hand, event: HandEvent): Hand => {
  switch (event.type) {
    case "tool taken":
      return { toolId: event.id, tool: event.tool, proposal: undefined, grabbed: undefined, lastToolId: event.id };
    case "handle taken":
      return { ...hand, toolId: event.id, tool: event.tool, proposal: undefined, grabbed: event.grabbed };
    case "stepped":
      return hand.tool === event.tool ? hand : { ...hand, tool: event.tool };
    case "proposed":
      return hand.proposal === event.proposal ? hand : { ...hand, proposal: event.proposal };
    case "put down":
      return { ...EMPTY_HAND, lastToolId: hand.lastToolId };
  }
};
