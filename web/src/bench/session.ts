import type { StoreApi } from "zustand/vanilla";
import { layerOf, mainLayer, settingsOf, unitOf } from "@ash-edge/core/drawing";
import { joinPieces, removeEntities } from "@ash-edge/core/edits";
import { indexDrawing } from "@ash-edge/core/look";
import { showLength, type Id } from "@ash-edge/core/numeric";
import { sayJoined, sayRefusal } from "@ash-edge/core/say";
import { litOf, toolById, type BankKey, type Lit } from "@ash-edge/tools";
import { stepAt, stepCount, type StoredJob } from "../store/index.ts";
import { toScreen } from "./board/view.ts";
import { makeHandling } from "./handles/sessionHandles.ts";
import type { SessionCore, Surroundings } from "./sessionCore.ts";
import { makeAnnotating } from "./sessionAnnotations.ts";
import { makeActions } from "./sessionActions.ts";
import { makeCursor } from "./sessionCursor.ts";
import { makeCallouts } from "./sessionCallouts.ts";
import { makeFollowing } from "./example/sessionFollowing.ts";
import { makeHistory } from "./sessionHistory.ts";
import { makeHolds } from "./sessionHolds.ts";
import { makeLayers } from "./sessionLayers.ts";
import { makeMassKeeping } from "./sessionMass.ts";
import { makePointing, wantedBy } from "./sessionPointer.ts";
import { makeSelecting } from "./sessionSelecting.ts";
import { makeTools } from "./sessionTools.ts";
import { makeView } from "./sessionView.ts";
import { makeWork } from "./sessionWork.ts";
import {
  makeBenchStore,
  NO_MODIFIERS,
  type BenchState,
  type Kept,
  type Modifiers,
  type PanelTab,
  type SnapSettings,
} from "./state/index.ts";
import { makeNumbers } from "./numbers/sessionNumbers.ts";
import { makeProposals } from "./tracing/sessionProposals.ts";
import { makeTracing } from "./tracing/sessionTracing.ts";
import { makeTidying } from "./tidying/sessionTidy.ts";
import type { Point } from "@ash-edge/core/geometry";

export type Session = Pick<StoreApi<BenchState>, "getState" | "getInitialState" | "subscribe"> & {
  readonly act: ReturnType<typeof makeSession>["act"];
};

/** The size that a repair is given by the diameter of the job's tool, in the kind that its blank begins with. */
const MENDED_WITH: Readonly<Record<string, (diameter: number) => number>> = {
  "corner-relief": (diameter) => diameter,
  "change-fillet": (diameter) => diameter / 2,
};

/**
 * A bench session over one job: everything that decides is in the core and the tools; this holds the state between
 * events, and each part of it says what it does to that state.
 */
export const makeSession = (job: string, stored: StoredJob, surroundings: Surroundings) => {
  const { keeper, remember, older, saveFile } = surroundings;
  const { drawing } = stored;
  const { store, send } = makeBenchStore({
    history: { drawing, index: indexDrawing(drawing), steps: stored.history },
    layer:
      surroundings.layer !== undefined && layerOf(drawing, surroundings.layer)
        ? surroundings.layer
        : mainLayer(drawing),
    kept: surroundings.kept,
    readOnly: surroundings.readOnly,
    damage: stored.damage,
    following: surroundings.followed?.now,
  });
  const get = store.getState;
  const say: SessionCore["say"] = (message) => send("panels", { type: "said", message });
  const core: SessionCore = {
    get,
    send,
    say,
    sayNo: (refusal) => say({ text: sayRefusal(refusal, unitOf(get().history.drawing)), tone: "fault", refusal }),
    keepSetting: (change) => {
      send("kept", { type: "kept", change });
      remember(get().kept);
    },
    activeTool: () => toolById(get().hand.toolId),
    context: () => {
      const { history, selection } = get();
      const { drawing: now, index } = history;
      return { drawing: now, index, unit: unitOf(now), selection: selection.ids, layer: selection.layer };
    },
    wanted: () => wantedBy(core),
    commit: (edit) => history.commit(edit),
    notify: (text, again) => history.notify(text, again),
    refresh: () => pointing.refresh(),
    toolEvent: (event) => tools.toolEvent(event),
  };

  const mass = makeMassKeeping(core);
  const viewing = makeView(core, surroundings.view);
  const layering = makeLayers(core);
  const history = makeHistory(core, {
    older,
    keep: (step) => keeper.keep({ job, ...step }),
    keepUp: mass.keepUp,
    tell: surroundings.notify,
    made: (before, edit) => {
      viewing.bringIntoSight(before, edit);
      layering.sayRoles(before, edit);
    },
  });
  const holds = makeHolds(core);
  const callouts = makeCallouts(
    core,
    (callout) => tools.takeCalled(callout),
    (id) => numbers.offerTrue(id),
    () => tracing.nextWord(),
  );
  const working = makeWork(core, surroundings.carryOut);
  const tools = makeTools(core, {
    job,
    putDownHandle: () => handling.drop(),
    work: working.work,
    stepAside: working.stepAside,
    isReadOnly: history.isReadOnly,
  });
  const proposals = makeProposals(core);
  const selecting = makeSelecting(core, {
    click: (at, mods) => pointing.click(at, mods),
    pickTracedIn: proposals.pickTracedIn,
  });
  const handling = makeHandling(core, tools.takeUp, (at, mods) => pointing.click(at, mods));
  const pointing = makePointing(core, {
    holds,
    callouts,
    selecting,
    handling,
    stayAt: (hover) => numbers.stayAt(hover),
    pickTraced: (at, chain) => proposals.splitHere(at) || tracing.pickTraced(at, chain),
    pullTraced: proposals.pullBreak,
  });
  const tidying = makeTidying(core);
  const numbers = makeNumbers(core, {
    closeTidy: () => {
      tidying.closeTidy();
      tracing.closeTracing();
    },
    toBoard: surroundings.toBoard,
  });
  const tracing = makeTracing(core, {
    trace: surroundings.trace,
    toBoard: surroundings.toBoard,
    allInSight: viewing.allInSight,
    closeOthers: () => {
      tidying.closeTidy();
      numbers.closeNumbers();
    },
  });
  /** Findings, numbers and what is traced have one place. */
  const openTidy = (): void => {
    numbers.closeNumbers();
    tracing.closeTracing();
    tidying.openTidy();
  };
  const annotating = makeAnnotating(core);
  const actions = makeActions(core, {
    holds,
    annotating,
    viewing,
    tidying: { openTidy },
    numbers: { openNumbers: () => numbers.openNumbers() },
    tracing,
    handling,
    tools,
    settled: surroundings.keeper.idle,
    openPlace: surroundings.openPlace,
  });
  const { notice, ...following } = makeFollowing(core, {
    travel: history.travel,
    takeFresh: (id) => actions.take(id, { fresh: true }),
    fillFrom: callouts.useCallout,
    click: pointing.click,
    fit: viewing.fit,
    isReadOnly: history.isReadOnly,
    remember: (now) => surroundings.followed?.remember(now),
  });
  store.subscribe((now, before) => {
    if (now.hand !== before.hand || now.history !== before.history) notice();
    const amongOthers = now.tidying?.among === "selected" && now.selection.ids !== before.selection.ids;
    if (now.history.drawing !== before.history.drawing || amongOthers) tidying.tidySoon();
    if (now.history.drawing !== before.history.drawing) numbers.numbersSoon();
  });
  mass.start();

  /** Backspace: the last pick, or the last piece of a run with its start point again. */
  const back = (): void => {
    const { hand, history: part } = get();
    const { tool, toolId } = hand;
    const { steps } = part;
    if (hand.grabbed) return handling.drop();
    if (!tool?.chained || stepAt(steps, steps.position - 1)?.gesture !== toolId)
      return tools.toolEvent({ type: "back" });
    history.travel(steps.position - 1);
    tools.backAlongRun();
    core.refresh();
  };

  /** Esc: the open entry first, then picks, then the bank, then the tool, then the selection. */
  const escape = (): void => {
    const { hand, pointer, panels, work, numbers: asked, tracing: traced } = get();
    const { tool } = hand;
    say(undefined);
    if (selecting.dropBox()) return;
    if (pointer.snapOnce || pointer.askingEdge) {
      send("pointer", { type: "let go" });
      return core.refresh();
    }
    if (work) return working.stopWork();
    if (tool?.open) tools.toolEvent({ type: "revert" });
    else if (tool?.lit !== undefined) tools.toolEvent({ type: "light", blank: undefined });
    else if (tool?.placing) tools.toolEvent({ type: "place", placing: undefined });
    else if (hand.grabbed) {
      handling.drop();
      core.refresh();
    } else if (tool && Object.keys(tool.picks).length > 0) tools.toolEvent({ type: "release" });
    else if (panels.bank) send("panels", { type: "bank", key: undefined });
    else if (hand.toolId) {
      send("hand", { type: "put down" });
      core.refresh();
    } else if (asked?.picking) numbers.pickStays(false);
    else if (asked) numbers.closeNumbers();
    else if (traced?.pulled) send("tracing", { type: "pulled", pulled: undefined });
    else if (traced?.splitting) send("tracing", { type: "splitting", on: false });
    else if (traced && traced.picked.length > 0) send("tracing", { type: "picked", ids: [] });
    else if (traced) tracing.closeTracing();
    else if (panels.offered !== undefined) send("panels", { type: "offered", callout: undefined });
    else send("selection", { type: "selected", ids: [] });
  };

  const undo = (): void => {
    const { hand, history: part } = get();
    if (hand.tool?.open) return tools.toolEvent({ type: "revert" });
    if (hand.grabbed) return handling.drop();
    if (hand.tool && Object.keys(hand.tool.picks).length > 0) return tools.toolEvent({ type: "back" });
    if (proposals.undoTraced()) return;
    if (part.steps.position === 0) return say({ text: "There is nothing to undo.", tone: "said" });
    history.travel(part.steps.position - 1);
  };
  const redo = (): void => {
    const { steps } = get().history;
    if (steps.position >= stepCount(steps)) return say({ text: "There is nothing to do again.", tone: "said" });
    history.travel(steps.position + 1);
  };

  const act = {
    /** The job on the bench. */
    job,
    ...callouts,
    ...selecting,
    ...layering,
    ...viewing,
    ...makeCursor(core, { pan: viewing.pan, move: pointing.move, click: pointing.click }),
    ...tidying,
    ...numbers,
    ...tracing,
    ...proposals,
    openTidy,
    ...annotating,
    ...actions,
    /** Enter without a tool: what is ready to be made true, else the last tool again. */
    again: (): void => {
      if (!numbers.takeTrue() && !tracing.acceptReady()) actions.again();
    },
    ...following,
    grab: handling.grab,
    drop: (): void => {
      handling.drop();
      core.refresh();
    },
    press: (at: Point, mods: Modifiers): void => {
      if (!proposals.pressBreak(at) && !handling.pressHandle(at, mods)) selecting.press(at, mods);
    },
    /** A double click takes the whole chain, also where its first click brought up a handle. */
    selectRunAt: (): void => {
      handling.drop();
      core.refresh();
      selecting.selectRunAt();
    },
    letGo: (at: Point, mods: Modifiers): void => {
      if (!proposals.dropBreak() && !handling.letGoHandle(at, mods)) selecting.letGo(at, mods);
    },
    /** Takes up the tool that mends what is wrong at a place: picked there, with its size where it has one. */
    takeRepair: (id: string, at: Point | undefined): void => {
      const { making } = settingsOf(get().history.drawing);
      if (id === "tidy") return openTidy();
      actions.take(id);
      if (at) pointing.click(toScreen(get().view.now, at), NO_MODIFIERS);
      const size = making?.tool && MENDED_WITH[id]?.(making.tool.diameter);
      if (size === undefined) return;
      const text = showLength(size, unitOf(get().history.drawing));
      tools.toolEvent({ type: "fill", blank: "size", entry: { text, value: size } });
    },
    move: pointing.move,
    click: pointing.click,
    moveOnCard: pointing.moveOnCard,
    clickOnCard: pointing.clickOnCard,
    next: pointing.next,
    nextUnder: pointing.nextUnder,
    wantsPicture: (): boolean => core.wanted()?.takes === "picture",
    setHold: holds.setHold,
    setSnaps: (change: Partial<SnapSettings>): void => {
      core.keepSetting({ snaps: { ...get().kept.snaps, ...change } });
      core.refresh();
    },
    setCard: (change: Partial<Kept["card"]>): void => core.keepSetting({ card: { ...get().kept.card, ...change } }),
    toolEvent: tools.toolEvent,
    /** What takes the digits that are typed next. */
    lit: (): Lit | undefined => {
      const { tool: state } = get().hand;
      const tool = core.activeTool();
      return tool && state && litOf(tool, state, core.context());
    },
    /** Takes one of the readings of what is being typed that could mean two things. */
    takeReading: (blank: string, text: string): void => {
      tools.toolEvent({ type: "type", blank, text });
      tools.toolEvent({ type: "hold" });
    },
    finish: () => tools.toolEvent({ type: "finish", hover: get().pointer.hover }),
    mass: mass.mass,
    onPainted: mass.onPainted,
    /** The bench is left: nothing goes on working for it. */
    leave: (): void => {
      working.stopWork();
      tidying.closeTidy();
      numbers.closeNumbers();
      tracing.closeTracing();
      mass.end();
    },
    stopWork: working.stopWork,
    saveFile,
    escape,
    back,
    undo,
    redo,
    /** To after step `to` of the history, over as many as lie between. */
    walkTo: history.travel,
    readOlder: history.readOlder,
    commit: history.commit,
    isReadOnly: history.isReadOnly,
    /** Brings a panel to the front, where they are folded. */
    showPanel: (tab: PanelTab) => send("panels", { type: "tab", tab }),
    setBank: (key: BankKey | undefined) => send("panels", { type: "bank", key }),
    select: (ids: readonly Id[]) => send("selection", { type: "selected", ids }),
    /** Makes one contour or chain of pieces whose ends meet. */
    joinThese: (ids: readonly Id[]): void => {
      const { drawing } = get().history;
      const joined = joinPieces(drawing, new Set(ids));
      if (!joined.ok) return core.sayNo(joined.refusal);
      if (history.commit(joined.value.edit))
        say({ text: `Joined: ${sayJoined(joined.value, unitOf(drawing))}.`, tone: "said" });
    },
    selectAll: selecting.selectAll,
    /** Deletes what is selected, or what is named. */
    remove: (ids?: readonly Id[]): void => {
      const removed = removeEntities(get().history.drawing, ids ?? [...get().selection.ids]);
      if (removed.ok) history.commit(removed.value);
      else core.sayNo(removed.refusal);
    },
    light: (ids: readonly Id[], callout?: Id) =>
      send("selection", { type: "lit", ids, ...(callout === undefined ? {} : { callout }) }),
    /** One more of the steps handed over is stored. */
    saved: () => send("history", { type: "saved" }),
    failed: (why: string) => send("history", { type: "failed", why }),
    /** Tries at once to store what could not be stored. */
    storeAgain: surroundings.keeper.again,
    /** Another tab has the job now. */
    lost: () => send("history", { type: "read only", why: "elsewhere" }),
    say,
  };
  return { ...store, act };
};
