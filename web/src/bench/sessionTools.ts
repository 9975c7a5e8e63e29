import { curveAt, type Callout, type Drawing } from "@ash-edge/core/drawing";
import { curvePoint } from "@ash-edge/core/geometry";
import type { Id, Unit } from "@ash-edge/core/numeric";
import {
  isPlace,
  startTool,
  stepTool,
  wantsTime,
  type Ask,
  type Step,
  type Tool,
  type ToolEvent,
  type ToolState,
} from "@ash-edge/tools";
import { dimensionCalled } from "@ash-edge/tools/dimensions/dimensionCalled";
import type { SessionCore, TakeUp } from "./sessionCore.ts";

/** How many values that made something are kept for a blank. */
const USED_KEPT = 12;

type Needs = {
  readonly job: string;
  readonly putDownHandle: () => void;
  readonly work: (ask: Ask) => Promise<void>;
  readonly stepAside: (tool: Tool, state: ToolState, event: ToolEvent) => Promise<Step | undefined>;
  /** True, and said, where nothing may be changed in this tab. */
  readonly isReadOnly: () => boolean;
};

/** Under which a blank's used values are kept: a number means nothing in another unit. */
export const usedKey = (unit: Unit, tool: Pick<Tool, "id">, blank: string): string => `${unit} ${tool.id} ${blank}`;

/** Tools taken up and told what happened; what they make is committed, what they refuse is said. */
export const makeTools = (core: SessionCore, { job, putDownHandle, work, stepAside, isReadOnly }: Needs) => {
  const { get, send, say, sayNo, commit, refresh, keepSetting, activeTool, context } = core;

  const toolEvent = (event: ToolEvent): void => {
    const { tool: state } = get().hand;
    const tool = activeTool();
    if (!tool || !state) return;
    const step = stepTool(tool, state, event, context());
    if (wantsTime(step.refusal)) return void takenAside(tool, state, event);
    take(tool, state, event, step);
  };

  const takenAside = async (tool: Tool, state: ToolState, event: ToolEvent): Promise<void> => {
    say(undefined);
    if (isReadOnly()) return;
    const step = await stepAside(tool, state, event);
    if (!step) return;
    if (get().hand.tool === state) return take(tool, state, event, step);
    // another tool is in hand by now: what was asked for is made, and no more
    if (step.refusal) sayNo(step.refusal);
    if (step.edit) commit(step.edit);
  };

  const take = (tool: Tool, state: ToolState, event: ToolEvent, step: Step): void => {
    // what may not be made leaves everything in hand
    if ((step.edit ?? step.ask) && isReadOnly()) return;
    send("hand", { type: "stepped", tool: step.state });
    if (step.edit) putDownHandle();
    if (step.edit && tool.once) send("hand", { type: "put down" });
    if (step.refusal) sayNo(step.refusal);
    else if (step.state.said && step.state.said !== state.said) say({ text: step.state.said, tone: "said" });
    else if (event.type !== "next" && event.type !== "light") say(undefined);
    if (
      event.type === "choice" ||
      event.type === "swap" ||
      event.type === "hold" ||
      event.type === "fill" ||
      event.type === "click"
    )
      keepChoices(tool, step.state);
    if (step.used) keepUsed(tool, step.used);
    if (step.ask) void work(step.ask);
    if (step.edit) commit(step.edit);
    else refresh();
  };

  /** Offered again is only what made something. */
  const keepUsed = (tool: Tool, entries: ToolState["entries"]): void => {
    const { used } = get().kept;
    const { unit } = context();
    const now = Object.entries(entries).flatMap(([blank, { text, callout }]) =>
      callout === undefined && !isPlace(blank) ? [[usedKey(unit, tool, blank), text] as const] : [],
    );
    if (now.length === 0) return;
    const changed = now.map(([key, text]) => {
      const others = (used[key] ?? []).filter((one) => one.text !== text || one.job !== job);
      return [key, [{ text, job }, ...others].slice(0, USED_KEPT)] as const;
    });
    keepSetting({ used: { ...used, ...Object.fromEntries(changed) } });
  };

  const keepChoices = (tool: Tool, state: ToolState): void => {
    const { kept } = get();
    if (kept.choices[tool.id] === state.choices && kept.kinds[tool.id] === state.kinds) return;
    keepSetting({
      choices: { ...kept.choices, [tool.id]: state.choices },
      kinds: { ...kept.kinds, [tool.id]: state.kinds },
    });
  };

  const started = (tool: Tool, choices: ToolState["choices"] = {}, fresh = false): ToolState => {
    const { kept } = get();
    send("pointer", { type: "nothing asked" });
    if (fresh) return startTool(tool);
    return startTool(tool, {
      choices: { ...kept.choices[tool.id], ...choices },
      kinds: kept.kinds[tool.id] ?? {},
    });
  };
  const closeOffers = (): void => {
    say(undefined);
    send("panels", { type: "bank", key: undefined });
    send("panels", { type: "offered", callout: undefined });
  };
  /**
   * Takes a tool up; what is selected is its first pick where it takes one curve. `fresh`: as it is at first, whatever
   * is selected or was chosen in it before.
   */
  const takeTool = (tool: Tool, { fresh = false } = {}): void => {
    closeOffers();
    const { selection, history } = get();
    const start = started(tool, {}, fresh);
    const state = fresh ? start : withSelection(tool, start, history.drawing, selection.ids);
    send("hand", { type: "tool taken", id: tool.id, tool: state });
    if (core.wanted()?.takes === "picture") send("panels", { type: "tab", tab: "sketch" });
    refresh();
  };
  /** Takes up the tool that a handle offers, with some of its picks made. */
  const takeUp: TakeUp = (tool, picks, { grabbed, choices }) => {
    closeOffers();
    send("hand", { type: "handle taken", id: tool.id, tool: { ...started(tool, choices), picks }, grabbed });
  };
  /** Takes up the tool that gives a callout its dimension: only the place is asked. */
  const takeCalled = (callout: Callout): void => {
    closeOffers();
    const picks = { called: { at: { x: 0, y: 0 }, ref: { id: callout.id } } };
    send("hand", { type: "tool taken", id: dimensionCalled.id, tool: { ...started(dimensionCalled), picks } });
    refresh();
  };
  /** The start point of the piece of a run that was taken back. */
  const backAlongRun = (): void => {
    const { tool } = get().hand;
    const before = tool?.trail?.at(-1);
    if (tool && before)
      send("hand", { type: "stepped", tool: { ...tool, picks: before, trail: tool.trail!.slice(0, -1) } });
  };
  return { toolEvent, takeTool, takeUp, takeCalled, backAlongRun };
};

/** What is selected fills the first blank of a tool that takes a curve. */
const withSelection = (tool: Tool, state: ToolState, drawing: Drawing, selection: ReadonlySet<Id>): ToolState => {
  const first = tool.parts.find((part) => part.kind === "pick");
  const [id] = selection;
  if (
    selection.size !== 1 ||
    id === undefined ||
    tool.id === "trim" ||
    first?.kind !== "pick" ||
    first.takes === "point" ||
    first.takes === "things" ||
    first.takes === "place" ||
    first.takes === "picture"
  )
    return state;
  const curve = curveAt(drawing, { id });
  if (!curve) return state;
  const at = curve.kind === "endless" ? curve.through : curvePoint(curve, 0);
  return { ...state, picks: { [first.name]: { ref: { id }, at } } };
};
