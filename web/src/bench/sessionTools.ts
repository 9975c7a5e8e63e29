import { curveAt, type Drawing } from "@ash-edge/core/drawing";
import { curvePoint } from "@ash-edge/core/geometry";
import type { Id } from "@ash-edge/core/numeric";
import { startTool, stepTool, type Ask, type Tool, type ToolEvent, type ToolState } from "@ash-edge/tools";
import type { SessionCore, TakeUp } from "./sessionCore.ts";

/** How many values typed before are offered for a blank. */
const RECENT_KEPT = 6;

type Needs = { readonly putDownHandle: () => void; readonly work: (ask: Ask) => Promise<void> };

/** Tools taken up and told what happened; what they make is committed, what they refuse is said. */
export const makeTools = (core: SessionCore, { putDownHandle, work }: Needs) => {
  const { get, send, say, sayNo, commit, refresh, keepSetting, activeTool, context } = core;

  const toolEvent = (event: ToolEvent): void => {
    const { tool: state } = get().hand;
    const tool = activeTool();
    if (!tool || !state) return;
    const typed = state.open;
    const step = stepTool(tool, state, event, context());
    send("hand", { type: "stepped", tool: step.state });
    if (step.edit) putDownHandle();
    if (step.refusal) sayNo(step.refusal);
    else if (step.state.said && step.state.said !== state.said) say({ text: step.state.said, tone: "said" });
    else if (event.type !== "next" && event.type !== "light") say(undefined);
    if (typed && !step.state.open && !step.refusal && typed.text.trim())
      keepRecent(`${tool.id} ${typed.blank}`, typed.text.trim());
    if (event.type === "choice" || event.type === "hold" || event.type === "fill" || event.type === "click")
      keepChoices(tool, step.state);
    if (step.ask) void work(step.ask);
    if (step.edit) commit(step.edit);
    else refresh();
  };

  const keepRecent = (blank: string, text: string): void => {
    const { recent } = get().kept;
    const texts = [text, ...(recent[blank] ?? []).filter((other) => other !== text)].slice(0, RECENT_KEPT);
    keepSetting({ recent: { ...recent, [blank]: texts } });
  };

  const keepChoices = (tool: Tool, state: ToolState): void => {
    const { kept } = get();
    if (kept.choices[tool.id] === state.choices && kept.kinds[tool.id] === state.kinds) return;
    keepSetting({
      choices: { ...kept.choices, [tool.id]: state.choices },
      kinds: { ...kept.kinds, [tool.id]: state.kinds },
    });
  };

  const started = (tool: Tool, choices: ToolState["choices"] = {}): ToolState => {
    const { kept } = get();
    send("pointer", { type: "nothing asked" });
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
  /** Takes a tool up; what is selected is its first pick where it takes one curve. */
  const takeTool = (tool: Tool): void => {
    closeOffers();
    const { selection, history } = get();
    const state = withSelection(tool, started(tool), history.drawing, selection.ids);
    send("hand", { type: "tool taken", id: tool.id, tool: state });
    refresh();
  };
  /** Takes up the tool that a handle offers, with some of its picks made. */
  const takeUp: TakeUp = (tool, picks, { grabbed, choices }) => {
    closeOffers();
    send("hand", { type: "handle taken", id: tool.id, tool: { ...started(tool, choices), picks }, grabbed });
  };
  /** The start point of the piece of a run that was taken back. */
  const backAlongRun = (): void => {
    const { tool } = get().hand;
    const before = tool?.trail?.at(-1);
    if (tool && before)
      send("hand", { type: "stepped", tool: { ...tool, picks: before, trail: tool.trail!.slice(0, -1) } });
  };
  return { toolEvent, takeTool, takeUp, backAlongRun };
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
