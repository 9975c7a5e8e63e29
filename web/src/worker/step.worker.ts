import { expose } from "comlink";
import type { Drawing } from "@ash-edge/core/drawing";
import { indexDrawing } from "@ash-edge/core/look";
import { aside, type Spent } from "@ash-edge/core/numeric";
import { stepTool, toolById, type Step, type ToolContext, type ToolEvent, type ToolState } from "@ash-edge/tools";

export type StepInput = {
  readonly toolId: string;
  readonly state: ToolState;
  readonly event: ToolEvent;
  readonly drawing: Drawing;
} & Pick<ToolContext, "unit" | "selection" | "layer">;

/** A step of a tool that takes longer than anybody waits for, with what it has cost so far. */
const work = ({ toolId, state, event, ...rest }: StepInput, report: (spent: Spent) => void): Step => {
  const tool = toolById(toolId);
  if (tool?.kind !== "tool") throw new Error(`There is no tool ${toolId}.`);
  return aside(report, () => stepTool(tool, state, event, { ...rest, index: indexDrawing(rest.drawing) }));
};

export const worker = { work };
export type StepWorker = typeof worker;
expose(worker);
