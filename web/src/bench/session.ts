import { createStore, type StoreApi } from "zustand/vanilla";
import { calloutText } from "@ash-edge/core/callouts";
import {
  applyEdit,
  calloutsOf,
  clearLayout,
  curveAt,
  drawingBounds,
  entitiesOf,
  entityOf,
  indexDrawing,
  invertEdit,
  reindex,
  removeEntities,
  shapeBounds,
  snapsAt,
  unitOf,
  type Drawing,
  type Edit,
  type Id,
} from "@ash-edge/core/drawing";
import {
  angleOf,
  boundsMeet,
  boundsSize,
  subtract,
  unionBounds,
  type Bounds,
  type Point,
} from "@ash-edge/core/geometry";
import type { Refusal } from "@ash-edge/core/numeric";
import { sayRefusal } from "@ash-edge/core/say";
import type { History, StoredJob } from "../store/index.ts";
import {
  NO_MODIFIERS,
  type BenchState,
  type Message,
  type Modifiers,
  type SessionCore,
  type Surroundings,
} from "./benchState.ts";
import { fitted, inSight, panned, toDrawing, zoomed, type Size } from "./board/view.ts";
import { holdDirection } from "./hold.ts";
import { makeCallouts } from "./sessionCallouts.ts";
import { makeSelecting } from "./sessionSelecting.ts";
import {
  givenOf,
  proposalOf,
  startTool,
  stepTool,
  underPoint,
  wantedPick,
  type Hover,
  type ToolEvent,
  type ToolState,
} from "./tools/driver.ts";
import { REGISTRY, toolById } from "./tools/registry.ts";
import type { BankKey, Tool } from "./tools/tool.ts";

/** How near the pointer must be, in CSS pixels: to snap to a point, and to pick a curve. */
export const SNAP_REACH = 12;
const PICK_REACH = 8;

export type Session = StoreApi<BenchState> & { readonly act: Actions };
export type Actions = ReturnType<typeof makeActions>;

/** A bench session over one job: everything that decides is in the core and the tools; this holds the state between events. */
export const makeSession = (job: string, stored: StoredJob, surroundings: Surroundings): Session => {
  const store = createStore<BenchState>(() => ({
    drawing: stored.drawing,
    index: indexDrawing(stored.drawing),
    history: stored.history,
    saved: stored.history.position,
    selection: new Set(),
    lit: new Set(),
    view: { scale: 1, originX: 0, originY: 0 },
    size: { width: 0, height: 0 },
    fittedOnce: false,
    kept: surroundings.kept,
  }));
  return Object.assign(store, { act: makeActions(job, store, surroundings) });
};

/** What an empty board shows: room for the largest called length. */
const emptyBounds = (drawing: Drawing): Bounds => {
  const sizes = calloutsOf(drawing).filter(({ kind }) => ["length", "centres", "diameter"].includes(kind));
  const size = Math.max(unitOf(drawing) === "in" ? 4 : 100, ...sizes.map(({ value }) => value));
  return { minX: -0.35 * size, minY: -0.4 * size, maxX: 1.35 * size, maxY: 0.4 * size };
};

const makeActions = (
  job: string,
  store: StoreApi<BenchState>,
  { keeper, remember, view: leftView, notify: tell, saveFile, openRelease }: Surroundings,
) => {
  const get = store.getState;
  let modifiers = NO_MODIFIERS;
  let screen: Point | undefined;
  let underTurn = 0;

  const context = () => {
    const { drawing, index, selection } = get();
    return { drawing, index, unit: unitOf(drawing), selection };
  };
  const activeTool = (): Tool | undefined => toolById(get().toolId);

  const set = (next: Partial<BenchState>, drop: readonly (keyof BenchState)[] = []): void => {
    const state = { ...get(), ...next };
    for (const key of drop) Reflect.deleteProperty(state, key);
    store.setState(state, true);
  };
  const say = (message: Message | undefined): void => (message ? set({ message }) : set({}, ["message"]));
  const sayNo = (refusal: Refusal): void => say({ text: sayRefusal(refusal, unitOf(get().drawing)), tone: "fault" });

  /** Works out what the pointer is over and what the tool would make there. */
  const refresh = (): void => {
    const tool = activeTool();
    const state = get();
    const toolState = state.tool;
    let hover: Hover | undefined;
    let heldWord: string | undefined;
    if (screen) {
      const raw = toDrawing(state.view, screen);
      const reach = SNAP_REACH / state.view.scale;
      const under = [...underPoint(context(), raw, PICK_REACH / state.view.scale)];
      for (let i = 0; i < underTurn % Math.max(1, under.length); i++) under.push(under.shift()!);
      const wanted = tool && toolState && wantedPick(tool, toolState, givenOf(tool, toolState, undefined, context()));
      const from = tool?.from && toolState?.picks[tool.from];
      const wantsPoint = tool && wanted && (wanted.takes !== "curve" || wanted.exact);
      const snap =
        wantsPoint && !modifiers.alt
          ? snapsAt(state.index, raw, reach, { from: from ? from.at : undefined })[0]
          : undefined;
      let at = snap?.at ?? raw;
      if (modifiers.shift && from && wantsPoint) {
        const held = holdDirection(from.at, at, lastDirection(state));
        ({ at } = held);
        heldWord = held.word;
      }
      const kept = snap && at === snap.at ? { snap: { kind: snap.kind, ...(snap.ref ? { ref: snap.ref } : {}) } } : {};
      hover = { at, under, ...kept };
      set({ hover, pointer: raw, ...(heldWord ? { heldWord } : {}) }, heldWord ? [] : ["heldWord"]);
    } else set({}, ["hover", "pointer", "heldWord"]);
    if (tool && toolState) set({ proposal: proposalOf(tool, toolState, hover, context()) });
    else set({}, ["proposal"]);
  };

  /** Puts an edit into the drawing, the history and the journal. */
  const commit = (edit: Edit): void => {
    const { drawing, history, index } = get();
    const before = history.position;
    const next = applyEdit(drawing, edit);
    const edits = [...history.edits.slice(0, before), edit];
    const now: History = { edits, position: before + 1 };
    const selection = new Set([...get().selection].filter((id) => entityOf(next, id)));
    set({ drawing: next, history: now, index: reindex(index, next), selection, lit: new Set() });
    keeper.keep({ job, before, history: now, drawing: next, edit });
    if (edit.cutLoose.length > 0) sayCutLoose(drawing, edit);
    bringIntoSight(drawing, edit);
    refresh();
  };

  const sayCutLoose = (before: Drawing, edit: Edit): void => {
    const names = calloutsOf(before).filter(({ links }) =>
      links.some((ref) => edit.cutLoose.some((loose) => loose.id === ref.id)),
    );
    const still = calloutsOf(get().drawing)
      .filter(({ links }) => links.length === 0)
      .map(({ id }) => id);
    const lost = names
      .filter(({ id }) => still.includes(id))
      .map((callout) => `${calloutText(callout, unitOf(before))} ${callout.name}`);
    if (lost.length > 0) notify(`Not placed any more: ${lost.join(", ")}`);
  };

  /** The first piece drawn comes into view. */
  const bringIntoSight = (before: Drawing, edit: Edit): void => {
    const { drawing, view, size } = get();
    if ([...entitiesOf(before)].some((entity) => entity.kind !== "endless")) return;
    const added = edit.changes
      .filter(({ table }) => table === "entity")
      .map(({ after }) => after as Parameters<typeof shapeBounds>[0] | undefined);
    const box = unionBounds(added.flatMap((shape) => (shape ? (shapeBounds(shape) ?? []) : [])));
    if (box && !boundsMeet(box, inSight(view, size))) set({ view: fitted(drawingBounds(drawing) ?? box, size) });
  };

  const travel = (to: number): void => {
    const { drawing, history, index } = get();
    const before = history.position;
    if (to === before || to < 0 || to > history.edits.length) return;
    const edit = to < before ? invertEdit(history.edits[to]!) : history.edits[before]!;
    const next = applyEdit(drawing, edit);
    const now = { ...history, position: to };
    set({ drawing: next, history: now, index: reindex(index, next), selection: new Set(), lit: new Set() });
    keeper.keep({ job, before, history: now, drawing: next });
    say({ text: `${to < before ? "Undone" : "Done again"}: ${edit.label}.`, tone: "said" });
    refresh();
  };

  /** The undo that is offered means this one step: not the picks, and nothing that was done since. */
  const notify = (text: string): void => {
    const after = get().history;
    tell(text, () =>
      get().history === after
        ? travel(after.position - 1)
        : say({ text: "Something else was done since. Undo goes back step by step.", tone: "fault" }),
    );
  };

  const toolEvent = (event: ToolEvent): void => {
    const { tool: state } = get();
    const tool = activeTool();
    if (!tool || !state) return;
    const typed = state.open;
    const step = stepTool(tool, state, event, context());
    set({ tool: step.state });
    if (step.refusal) sayNo(step.refusal);
    else if (step.state.said && step.state.said !== state.said) say({ text: step.state.said, tone: "said" });
    else if (event.type !== "next" && event.type !== "light") say(undefined);
    if (typed && !step.state.open && !step.refusal && typed.text.trim())
      keepRecent(`${tool.id} ${typed.blank}`, typed.text.trim());
    if (event.type === "choice" || event.type === "hold" || event.type === "fill" || event.type === "click")
      keepChoices(tool, step.state);
    if (step.edit) commit(step.edit);
    else refresh();
  };

  const keepRecent = (blank: string, text: string): void => {
    const { kept } = get();
    const recent = [text, ...(kept.recent[blank] ?? []).filter((other) => other !== text)].slice(0, 6);
    const next = { ...kept, recent: { ...kept.recent, [blank]: recent } };
    set({ kept: next });
    remember(next);
  };

  const keepChoices = (tool: Tool, state: ToolState): void => {
    const { kept } = get();
    if (kept.choices[tool.id] === state.choices && kept.kinds[tool.id] === state.kinds) return;
    const next = {
      ...kept,
      choices: { ...kept.choices, [tool.id]: state.choices },
      kinds: { ...kept.kinds, [tool.id]: state.kinds },
    };
    set({ kept: next });
    remember(next);
  };

  const take = (id: string): void => {
    const found = REGISTRY.find((one) => one.id === id);
    set({}, ["bank", "offered"]);
    if (found?.kind === "action") return runAction(found.id);
    if (!found) return;
    const { kept, selection, drawing } = get();
    const start = startTool(found, { choices: kept.choices[id] ?? {}, kinds: kept.kinds[id] ?? {} });
    underTurn = 0;
    set({ toolId: id, lastToolId: id, tool: withSelection(found, start, drawing, selection) }, ["message"]);
    refresh();
  };

  /** A release is made from what is stored, so it must be what is shown. */
  const releaseStored = (): void => {
    if (get().failure)
      return say({
        text: "What is shown is not stored, so it can't be released. Save to a file, then reload.",
        tone: "fault",
      });
    openRelease();
  };

  const runAction = (id: string): void => {
    if (id === "fit") fit();
    else if (id === "release") releaseStored();
    else if (id === "write-callouts") set({ writing: {} });
    else if (id === "clear-layout") {
      const cleared = clearLayout(get().drawing);
      if (!cleared.ok) return sayNo(cleared.refusal);
      commit(cleared.value);
      notify("Layout cleared");
    }
  };

  const fit = (bounds?: Bounds): void => {
    const { drawing, size } = get();
    if (size.width > 0) set({ view: fitted(bounds ?? drawingBounds(drawing) ?? emptyBounds(drawing), size) });
    refresh();
  };

  /** Esc: the open entry first, then picks, then the bank, then the tool, then the selection. */
  const escape = (): void => {
    const { tool, bank, toolId, offered } = get();
    say(undefined);
    if (selecting.dropBox()) return;
    if (tool?.open) toolEvent({ type: "revert" });
    else if (tool?.placing) toolEvent({ type: "place", placing: undefined });
    else if (tool && Object.keys(tool.picks).length > 0) toolEvent({ type: "release" });
    else if (bank) set({}, ["bank"]);
    else if (toolId) {
      set({}, ["toolId", "tool", "proposal"]);
      refresh();
    } else if (offered !== undefined) set({}, ["offered"]);
    else set({ selection: new Set() });
  };

  const click = (at: Point, mods: Modifiers): void => {
    move(at, mods);
    const { hover, tool } = get();
    if (!hover) return;
    if (mods.control && tool) return callouts.takeValue(hover);
    if (tool) return toolEvent({ type: "click", hover });
    selecting.clickOn(hover, mods);
  };

  const move = (at: Point | undefined, mods: Modifiers): void => {
    screen = at;
    modifiers = mods;
    if (at) selecting.stretchBox(at);
    refresh();
  };

  /** Deletes what is selected, or what is named. */
  const remove = (ids?: readonly Id[]): void => {
    const { selection, drawing } = get();
    const edit = removeEntities(drawing, ids ?? [...selection]);
    if (!edit) return;
    commit(edit);
  };

  /** Backspace: the last pick, or the last piece of a run with its start point again. */
  const back = (): void => {
    const { tool, toolId, history } = get();
    const edit = history.edits[history.position - 1];
    if (!tool?.chained || edit?.gesture !== toolId) return toolEvent({ type: "back" });
    const piece = edit?.changes.map(({ after }) => after as { a?: Point } | undefined).find((row) => row?.a);
    travel(history.position - 1);
    if (piece?.a) set({ tool: { ...tool, picks: { from: { at: piece.a, snap: "end" } } } });
    refresh();
  };

  const backOrUndo = (): void => {
    const { tool, history } = get();
    if (tool && Object.keys(tool.picks).length > 0) return toolEvent({ type: "back" });
    if (history.position === 0) return say({ text: "There is nothing to undo.", tone: "said" });
    travel(history.position - 1);
  };

  const core: SessionCore = { get, set, say, sayNo, commit, refresh, toolEvent, activeTool, notify, remember };
  const callouts = makeCallouts(core);
  const selecting = makeSelecting(core, click);

  return {
    ...callouts,
    ...selecting,
    move,
    click,
    commit,
    take,
    escape,
    toolEvent,
    fit,
    saveFile,
    openRelease: releaseStored,
    back,
    /** True while the next blank can take a point, so that one may be typed. */
    wantsPoint: (): boolean => {
      const { tool: state } = get();
      const tool = activeTool();
      const wanted = tool && state && wantedPick(tool, state, givenOf(tool, state, undefined, context()));
      return wanted !== undefined && wanted.takes !== "curve";
    },
    undo: backOrUndo,
    redo: () =>
      get().history.position < get().history.edits.length
        ? travel(get().history.position + 1)
        : say({ text: "There is nothing to do again.", tone: "said" }),
    again: () => get().lastToolId && take(get().lastToolId!),
    setBank: (bank: BankKey | undefined) => (bank ? set({ bank }) : set({}, ["bank"])),
    select: (ids: readonly Id[]) => set({ selection: new Set(ids) }),
    /** Selects something and brings it into sight; `at` is the place that matters. */
    show: (ids: readonly Id[], at?: Point) => {
      const shapes = ids.map((id) => entityOf(get().drawing, id)).filter((entity) => entity !== undefined);
      const box = unionBounds(shapes.flatMap((entity) => shapeBounds(entity) ?? []));
      set({ selection: new Set(shapes.map(({ id }) => id)) });
      if (!box) return;
      const room = Math.max(boundsSize(box), 1e-6) / 4;
      fit(at ? { minX: at.x - room, minY: at.y - room, maxX: at.x + room, maxY: at.y + room } : box);
    },
    selectAll: () => set({ selection: new Set([...entitiesOf(get().drawing)].map(({ id }) => id)) }),
    remove,
    finish: () => toolEvent({ type: "finish", hover: get().hover }),
    nextUnder: () => {
      underTurn += 1;
      refresh();
      const id = get().hover?.under[0]?.ref?.id;
      if (!get().tool && id !== undefined) set({ selection: new Set([id]) });
    },
    light: (ids: readonly Id[], callout?: Id) =>
      set(
        { lit: new Set(ids), ...(callout === undefined ? {} : { litCallout: callout }) },
        callout === undefined ? ["litCallout"] : [],
      ),
    pan: (dx: number, dy: number) => {
      set({ view: panned(get().view, dx, dy) });
      refresh();
    },
    zoom: (at: Point, factor: number) => {
      set({ view: zoomed(get().view, at, factor) });
      refresh();
    },
    resize: (size: Size) => {
      const first = !get().fittedOnce && size.width > 0;
      set({ size, fittedOnce: get().fittedOnce || first });
      if (first && leftView) set({ view: leftView });
      else if (first) fit();
    },
    saved: (position: number) => set({ saved: position }),
    failed: (failure: string) => set({ failure }),
    say,
  };
};

/** The direction of the piece drawn last, for holding along and square to it. */
const lastDirection = ({ history }: BenchState): number | undefined => {
  const last = history.edits[history.position - 1]?.changes
    .map(({ after }) => after as { kind?: string; a?: Point; b?: Point } | undefined)
    .find((row) => row?.kind === "piece");
  return last?.a && last.b ? angleOf(subtract(last.b, last.a)) : undefined;
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
    first.takes === "point"
  )
    return state;
  const curve = curveAt(drawing, { id });
  if (!curve) return state;
  const at =
    curve.kind === "piece"
      ? curve.a
      : curve.kind === "circle"
        ? { x: curve.centre.x + curve.radius, y: curve.centre.y }
        : curve.through;
  return { ...state, picks: { [first.name]: { ref: { id }, at } } };
};
