import { createStore, type StoreApi } from "zustand/vanilla";
import {
  curveAt,
  layerOf,
  PROFILE_LAYER,
  unitOf,
  type Drawing,
  type Edit,
  type PictureSize,
} from "@ash-edge/core/drawing";
import { clearLayout, removeEntities } from "@ash-edge/core/edits";
import { curvePoint, type Point } from "@ash-edge/core/geometry";
import { indexDrawing, invertSelection, SNAP_WORDS, type SnapKind } from "@ash-edge/core/look";
import { refuse, type Id, type Refusal } from "@ash-edge/core/numeric";
import { sayRefusal } from "@ash-edge/core/say";
import {
  givenOf,
  proposalOf,
  startTool,
  stepTool,
  draggedOf,
  takesPoint,
  wantedPick,
  REGISTRY,
  toolById,
  type Hover,
  type ToolEvent,
  type ToolState,
  type BankKey,
  type Tool,
} from "@ash-edge/tools";
import { stepAt, stepCount, type StoredJob } from "../store/index.ts";
import {
  NO_MODIFIERS,
  type BenchState,
  type Kept,
  type Message,
  type Modifiers,
  type SessionCore,
  type SnapSettings,
  type Surroundings,
} from "./benchState.ts";
import { isLarge, noteDerived } from "./derived.ts";
import { makeHandling } from "./handles/sessionHandles.ts";
import { makeMass, type Mass } from "./mass.ts";
import { pointAt, type Asked } from "./pointer.ts";
import { makeCallouts } from "./sessionCallouts.ts";
import { makeHistory } from "./sessionHistory.ts";
import { makeHolds } from "./sessionHolds.ts";
import { makeLayers } from "./sessionLayers.ts";
import { makeSelecting } from "./sessionSelecting.ts";
import { makeView } from "./sessionView.ts";
import { makeWork } from "./sessionWork.ts";
import { makeTidying } from "./tidying/sessionTidy.ts";

export type Session = StoreApi<BenchState> & { readonly act: Actions };
export type Actions = ReturnType<typeof makeActions>;

/**
 * A bench session over one job: everything that decides is in the core and the tools; this holds the state between
 * events.
 */
export const makeSession = (job: string, stored: StoredJob, surroundings: Surroundings): Session => {
  const store = createStore<BenchState>(() => ({
    drawing: stored.drawing,
    index: indexDrawing(stored.drawing),
    history: stored.history,
    saved: stored.history.position,
    selection: new Set(),
    lit: new Set(),
    layer:
      surroundings.layer !== undefined && layerOf(stored.drawing, surroundings.layer)
        ? surroundings.layer
        : PROFILE_LAYER,
    view: { scale: 1, originX: 0, originY: 0 },
    size: { width: 0, height: 0 },
    fittedOnce: false,
    kept: surroundings.kept,
  }));
  return Object.assign(store, { act: makeActions(job, store, surroundings) });
};

const makeActions = (
  job: string,
  store: StoreApi<BenchState>,
  { keeper, remember, view: leftView, notify: tell, older, saveFile, openRelease, carryOut }: Surroundings,
) => {
  const get = store.getState;
  let modifiers = NO_MODIFIERS;
  let screen: Point | undefined;
  let asked: Asked = { under: 0, snap: undefined };
  let mass: Mass | undefined;
  const paintedListeners = new Set<() => void>();

  /** A great drawing gets its worker when it has grown great; the worker is kept up edit by edit. */
  const keepUp = (edit?: Edit): void => {
    const { drawing } = get();
    if (mass && edit) return mass.step(edit, drawing);
    if (mass || !isLarge(drawing)) return;
    mass = makeMass(
      drawing,
      (_, derived) => {
        noteDerived(derived);
        set({ derivedAt: (get().derivedAt ?? 0) + 1 });
      },
      () => paintedListeners.forEach((listener) => listener()),
    );
  };

  const context = () => {
    const { drawing, index, selection, layer } = get();
    return { drawing, index, unit: unitOf(drawing), selection, layer };
  };
  const activeTool = (): Tool | undefined => toolById(get().toolId);

  const set = (next: Partial<BenchState>, drop: readonly (keyof BenchState)[] = []): void => {
    const state = { ...get(), ...next };
    for (const key of drop) Reflect.deleteProperty(state, key);
    store.setState(state, true);
  };
  const say = (message: Message | undefined): void => (message ? set({ message }) : set({}, ["message"]));
  const sayNo = (refusal: Refusal): void =>
    say({ text: sayRefusal(refusal, unitOf(get().drawing)), tone: "fault", refusal });

  const keepSetting = (change: Partial<Kept>): void => {
    const kept = { ...get().kept, ...change };
    set({ kept });
    remember(kept);
  };

  /** Works out what the pointer is over and what the tool would make there. */
  const refresh = (): void => {
    const tool = activeTool();
    const { tool: toolState, onCard } = get();
    let hover: Hover | undefined;
    if (onCard) {
      hover = { at: onCard.at, under: [], picture: onCard.picture };
      set({}, ["hover", "pointer", "heldWord", "snapCount"]);
    } else if (screen) {
      const { snaps, heldWord, ...rest } = pointAt(get(), tool, context(), screen, modifiers, asked);
      ({ hover } = rest);
      set({ ...rest, snapCount: snaps.length, ...(heldWord ? { heldWord } : {}) }, heldWord ? [] : ["heldWord"]);
    } else set({}, ["hover", "pointer", "heldWord", "snapCount"]);
    const { sweep } = get();
    if (tool?.dragged && toolState && sweep) {
      const path = tool.drag === "box" ? [sweep[0]!, sweep.at(-1)!] : sweep;
      set({ proposal: { ...draggedOf(tool, toolState, path, context()), which: 0 } });
    } else if (tool && toolState) set({ proposal: proposalOf(tool, toolState, hover, context()) });
    else set({}, ["proposal"]);
  };
  const wanted = () => {
    const tool = activeTool();
    const state = get().tool;
    return tool && state && wantedPick(tool, state, givenOf(tool, state, undefined, context()));
  };

  const { commit, travel, notify, readOlder } = makeHistory({
    older,
    get,
    set,
    say,
    refresh: () => refresh(),
    keep: (step) => keeper.keep({ job, ...step }),
    keepUp,
    tell,
    made: (drawing, edit) => viewing.bringIntoSight(drawing, edit),
  });

  const toolEvent = (event: ToolEvent): void => {
    const { tool: state } = get();
    const tool = activeTool();
    if (!tool || !state) return;
    const typed = state.open;
    const step = stepTool(tool, state, event, context());
    set({ tool: step.state });
    if (step.edit) handling.drop();
    if (step.refusal) sayNo(step.refusal);
    else if (step.state.said && step.state.said !== state.said) say({ text: step.state.said, tone: "said" });
    else if (event.type !== "next" && event.type !== "light") say(undefined);
    if (typed && !step.state.open && !step.refusal && typed.text.trim())
      keepRecent(`${tool.id} ${typed.blank}`, typed.text.trim());
    if (event.type === "choice" || event.type === "hold" || event.type === "fill" || event.type === "click")
      keepChoices(tool, step.state);
    if (step.ask) void working.work(step.ask);
    if (step.edit) commit(step.edit);
    else refresh();
  };

  const keepRecent = (blank: string, text: string): void => {
    const { recent } = get().kept;
    const texts = [text, ...(recent[blank] ?? []).filter((other) => other !== text)].slice(0, 6);
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

  const take = (id: string): void => {
    const found = REGISTRY.find((one) => one.id === id);
    set({}, ["bank", "offered"]);
    if (found?.kind === "action") return runAction(found.id);
    if (!found) return;
    const { kept, selection, drawing } = get();
    const start = startTool(found, { choices: kept.choices[id] ?? {}, kinds: kept.kinds[id] ?? {} });
    asked = { under: 0, snap: undefined };
    set({ toolId: id, lastToolId: id, tool: withSelection(found, start, drawing, selection) }, ["message", "grabbed"]);
    refresh();
  };
  /** Takes a tool up with some of its picks made. */
  const takeUp = (tool: Tool, picks: ToolState["picks"], choices: ToolState["choices"] = {}): void => {
    const { kept } = get();
    const start = startTool(tool, {
      choices: { ...kept.choices[tool.id], ...choices },
      kinds: kept.kinds[tool.id] ?? {},
    });
    asked = { under: 0, snap: undefined };
    set({ toolId: tool.id, tool: { ...start, picks } }, ["message", "bank", "offered"]);
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
    const [what, which] = [id.slice(0, id.indexOf("-")), id.slice(id.indexOf("-") + 1)];
    if (what === "snap") return holds.askSnap(which as SnapKind);
    if (what === "hold") return holds.takeHold(which);
    if (id === "fit") viewing.fit();
    else if (id === "fit-selection") viewing.fitSelection();
    else if (id === "view-before") viewing.viewBefore();
    else if (id === "magnifier") set({ magnified: !get().magnified });
    else if (id === "tidy") tidying.openTidy();
    else if (id === "handles-shown") handling.toggleHandles();
    else if (id === "signs-shown") set({ signsHidden: !get().signsHidden });
    else if (id === "layers") document.querySelector<HTMLElement>('[data-region="Layers"]')?.focus();
    else if (id === "release") releaseStored();
    else if (id === "write-callouts") set({ writing: {} });
    else if (id === "clear-layout") {
      const cleared = clearLayout(get().drawing);
      if (!cleared.ok) return sayNo(cleared.refusal);
      commit(cleared.value);
      notify("Layout cleared");
    }
  };

  /** Esc: the open entry first, then picks, then the bank, then the tool, then the selection. */
  const escape = (): void => {
    const { tool, bank, toolId, offered } = get();
    say(undefined);
    if (selecting.dropBox()) return;
    if (get().snapOnce || get().askingEdge) {
      set({}, ["snapOnce", "askingEdge"]);
      return refresh();
    }
    if (get().work) return working.stopWork();
    if (tool?.open) toolEvent({ type: "revert" });
    else if (tool?.placing) toolEvent({ type: "place", placing: undefined });
    else if (get().grabbed) {
      handling.drop();
      refresh();
    } else if (tool && Object.keys(tool.picks).length > 0) toolEvent({ type: "release" });
    else if (bank) set({}, ["bank"]);
    else if (toolId) {
      set({}, ["toolId", "tool", "proposal"]);
      refresh();
    } else if (offered !== undefined) set({}, ["offered"]);
    else set({ selection: new Set() });
  };

  const click = (at: Point, mods: Modifiers): void => {
    move(at, mods);
    const { hover, tool, askingEdge, snapOnce } = get();
    if (!hover) return;
    if (askingEdge) return holds.holdByEdge(hover);
    if (snapOnce && wantsPoint() && !hover.snap)
      return sayNo(refuse("snap-not-here", { kind: SNAP_WORDS[snapOnce] }).refusal);
    if (mods.control && tool) return callouts.takeValue(hover);
    if (tool && wanted()?.takes === "things") return gather(hover, mods);
    if (!tool) return selecting.clickOn(hover, mods);
    toolEvent({ type: "click", hover });
    asked = { under: 0, snap: undefined };
    if (snapOnce) set({}, ["snapOnce"]);
    refresh();
  };

  /** A tool that works on what is selected has nothing yet: clicks select. Shift adds more until Enter. */
  const gather = (hover: Hover, mods: Modifiers): void => {
    selecting.clickOn(hover, mods);
    toolEvent({ type: "gather", on: mods.shift });
  };

  const move = (at: Point | undefined, mods: Modifiers): void => {
    screen = at;
    modifiers = mods;
    if (at) selecting.stretchBox(at);
    set({}, ["onCard"]);
    handling.hoverHandles(at);
    refresh();
  };

  /** The pointer on the sketch card: a place on the picture, in its pixels. */
  const moveOnCard = (picture: PictureSize, at: Point | undefined): void => {
    if (at) set({ onCard: { picture, at } });
    else set({}, ["onCard"]);
    refresh();
  };
  const clickOnCard = (picture: PictureSize, at: Point): void => {
    moveOnCard(picture, at);
    toolEvent({ type: "click", hover: { at, under: [], picture } });
  };

  const wantsPoint = (): boolean => {
    const part = wanted();
    return part !== undefined && takesPoint(part);
  };

  /** Space: the next solution where there are several, else the next of the snaps in reach. */
  const next = (): void => {
    const { proposal, hover, snapCount = 0 } = get();
    if (selecting.swapBox()) return;
    const tool = activeTool();
    if ((proposal?.ways.length ?? 0) > 1 || !tool || !screen || snapCount < 2) return toolEvent({ type: "next" });
    const { snaps } = pointAt(get(), tool, context(), screen, modifiers, { ...asked, snap: undefined });
    const at = snaps.findIndex(
      ({ kind, at: place }) => kind === hover?.snap?.kind && place.x === hover.at.x && place.y === hover.at.y,
    );
    asked = { ...asked, snap: snaps[(at + 1) % snaps.length] };
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
    const edit = stepAt(history, history.position - 1);
    if (get().grabbed) return handling.drop();
    if (!tool?.chained || edit?.gesture !== toolId) return toolEvent({ type: "back" });
    const before = tool.trail?.at(-1);
    travel(history.position - 1);
    if (before) set({ tool: { ...tool, picks: before, trail: tool.trail!.slice(0, -1) } });
    refresh();
  };

  const backOrUndo = (): void => {
    const { tool, history } = get();
    if (get().grabbed) return handling.drop();
    if (tool && Object.keys(tool.picks).length > 0) return toolEvent({ type: "back" });
    if (history.position === 0) return say({ text: "There is nothing to undo.", tone: "said" });
    travel(history.position - 1);
  };

  const core: SessionCore = { get, set, say, sayNo, commit, refresh, toolEvent, activeTool, notify, keepSetting };
  const viewing = makeView(core, leftView);
  const callouts = makeCallouts(core);
  const selecting = makeSelecting(core, click, () => !activeTool() || wanted()?.takes === "things");
  const layers = makeLayers(core);
  const tidying = makeTidying(core);
  const working = makeWork(core, carryOut);
  const holds = makeHolds(core);
  store.subscribe((now, before) => now.drawing !== before.drawing && tidying.tidySoon());
  const handling = makeHandling(core, takeUp, click);
  noteDerived(undefined);
  if (typeof Worker !== "undefined") keepUp();

  return {
    ...callouts,
    ...selecting,
    ...layers,
    ...viewing,
    ...tidying,
    grab: handling.grab,
    drop: (): void => {
      handling.drop();
      refresh();
    },
    press: (at: Point, mods: Modifiers): void => {
      if (!handling.pressHandle(at, mods)) selecting.press(at, mods);
    },
    /** A double click takes the whole chain, also where its first click brought up a handle. */
    selectRunAt: (): void => {
      handling.drop();
      refresh();
      selecting.selectRunAt();
    },
    letGo: (at: Point, mods: Modifiers): void => {
      if (!handling.letGoHandle(at, mods)) selecting.letGo(at, mods);
    },
    move,
    click,
    moveOnCard,
    clickOnCard,
    commit,
    take,
    escape,
    toolEvent,
    next,
    setHold: holds.setHold,
    setSnaps: (change: Partial<SnapSettings>): void => {
      keepSetting({ snaps: { ...get().kept.snaps, ...change } });
      refresh();
    },
    setCard: (change: Partial<Kept["card"]>): void => keepSetting({ card: { ...get().kept.card, ...change } }),
    mass: () => mass,
    onPainted: (listener: () => void): (() => void) => {
      paintedListeners.add(listener);
      return () => paintedListeners.delete(listener);
    },
    /** The bench is left: nothing goes on working for it. */
    leave: (): void => {
      working.stopWork();
      tidying.closeTidy();
      mass?.end();
      mass = undefined;
    },
    stopWork: working.stopWork,
    saveFile,
    openRelease: releaseStored,
    back,
    /** True while the next blank can take a point, so that one may be typed. */
    wantsPoint,
    wantsPicture: (): boolean => wanted()?.takes === "picture",
    undo: backOrUndo,
    redo: () =>
      get().history.position < stepCount(get().history)
        ? travel(get().history.position + 1)
        : say({ text: "There is nothing to do again.", tone: "said" }),
    again: () => get().lastToolId && take(get().lastToolId!),
    /** To after step `to` of the history, over as many as lie between. */
    walkTo: travel,
    readOlder,
    setBank: (bank: BankKey | undefined) => (bank ? set({ bank }) : set({}, ["bank"])),
    select: (ids: readonly Id[]) => set({ selection: new Set(ids) }),
    selectAll: () => set({ selection: new Set(invertSelection(get().drawing, new Set())) }),
    remove,
    finish: () => toolEvent({ type: "finish", hover: get().hover }),
    nextUnder: () => {
      asked = { ...asked, under: asked.under + 1 };
      refresh();
      const id = get().hover?.under[0]?.ref?.id;
      if (!get().tool && id !== undefined) set({ selection: new Set([id]) });
    },
    light: (ids: readonly Id[], callout?: Id) =>
      set(
        { lit: new Set(ids), ...(callout === undefined ? {} : { litCallout: callout }) },
        callout === undefined ? ["litCallout"] : [],
      ),
    saved: (position: number) => set({ saved: position }),
    failed: (failure: string) => set({ failure }),
    say,
  };
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
