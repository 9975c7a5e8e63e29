import { createStore, type StoreApi } from "zustand/vanilla";
import {
  addCallout,
  answerCallout,
  calloutText,
  changeCallout,
  readCallout,
  refsAnswering,
  removeCallout,
  type Callout,
} from "@ash-edge/core/callouts";
import {
  applyEdit,
  calloutsOf,
  clearLayout,
  curveAt,
  describeRef,
  draftEdit,
  drawingBounds,
  entitiesOf,
  entityOf,
  indexDrawing,
  invertEdit,
  invertSelection,
  reindex,
  removeEntities,
  selectByBox,
  selectInside,
  selectLike,
  selectRun,
  shapeBounds,
  snapsAt,
  unitOf,
  type Drawing,
  type DrawingIndex,
  type Edit,
  type Id,
  type Ref,
} from "@ash-edge/core/drawing";
import {
  angleOf,
  boundsMeet,
  boundsOf,
  boundsSize,
  carrierOf,
  pieceLength,
  subtract,
  unionBounds,
  type Bounds,
  type Point,
} from "@ash-edge/core/geometry";
import { showLength, toDegrees, type Refusal, type SizeKind } from "@ash-edge/core/numeric";
import { sayRefusal } from "@ash-edge/core/say";
import type { History, Keeper, StoredJob } from "../store/index.ts";
import { fitted, inSight, panned, toDrawing, zoomed, type Size, type View } from "./board/view.ts";
import { holdDirection } from "./hold.ts";
import {
  givenOf,
  proposalOf,
  startTool,
  stepTool,
  typedPart,
  typedParts,
  underPoint,
  wantedPick,
  type Hover,
  type ToolEvent,
  type ToolState,
} from "./tools/driver.ts";
import { isPlace, PLACE_PARTS } from "./tools/placing.ts";
import { REGISTRY, toolById } from "./tools/registry.ts";
import type { BankKey, Entry, Tool } from "./tools/tool.ts";

/** How near the pointer must be, in CSS pixels: to snap to a point, and to pick a curve. */
export const SNAP_REACH = 12;
const PICK_REACH = 8;
/** A press that moves this many pixels draws a box. */
const BOX_STARTS = 5;

export type Message = { readonly text: string; readonly tone: "fault" | "said" };
export type Modifiers = { readonly shift: boolean; readonly alt: boolean; readonly control: boolean };
export const NO_MODIFIERS: Modifiers = { shift: false, alt: false, control: false };

/** What is kept from one use of a tool to the next, in this browser. */
export type Kept = {
  readonly choices: Readonly<Record<string, Readonly<Record<string, string>>>>;
  readonly kinds: Readonly<Record<string, Readonly<Record<string, SizeKind>>>>;
  /** Recent values of each blank, newest first, as typed: offered, never held. */
  readonly recent: Readonly<Record<string, readonly string[]>>;
  readonly selecting: Selecting;
};
/** What a click takes with no tool active, and what a box takes. */
export type Selecting = {
  readonly how: "one" | "run" | "kind" | "size" | "layer" | "inside";
  readonly box: "encloses" | "touches";
};
export const NOTHING_KEPT: Kept = { choices: {}, kinds: {}, recent: {}, selecting: { how: "one", box: "encloses" } };

export type BenchState = {
  readonly drawing: Drawing;
  readonly index: DrawingIndex;
  readonly history: History;
  /** How many edits are stored. */
  readonly saved: number;
  readonly failure?: string;
  readonly toolId?: string;
  readonly lastToolId?: string;
  readonly tool?: ToolState;
  readonly proposal?: ReturnType<typeof proposalOf>;
  readonly bank?: BankKey;
  readonly selection: ReadonlySet<Id>;
  /** The selection box being drawn, by two corners in the drawing. */
  readonly box?: { readonly from: Point; readonly to: Point };
  /** Geometry lit from a list. */
  readonly lit: ReadonlySet<Id>;
  /** The callout hovered in the ledger. */
  readonly litCallout?: Id;
  /** A callout is being written: where its pin goes, and which one is being changed. */
  readonly writing?: { readonly id?: Id; readonly pin?: NonNullable<Callout["pin"]> };
  /** A callout clicked with no tool active: the tools that fit it are offered. */
  readonly offered?: Id;
  readonly hover?: Hover;
  readonly pointer?: Point;
  readonly heldWord?: string;
  readonly view: View;
  readonly size: Size;
  readonly fittedOnce: boolean;
  readonly message?: Message;
  readonly kept: Kept;
};

/** What the session asks of the page around it. */
export type Surroundings = {
  readonly keeper: Keeper;
  readonly kept: Kept;
  readonly remember: (kept: Kept) => void;
  /** The view in which this job was left, if it was open before. */
  readonly view: View | undefined;
  /** Something went away or was cut loose: a note that offers to undo. */
  readonly notify: (text: string) => void;
  readonly saveFile: () => void;
  readonly openRelease: () => void;
};

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
  { keeper, remember, view: leftView, notify, saveFile, openRelease }: Surroundings,
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
    if (get().box) {
      pressed = undefined;
      return set({}, ["box"]);
    }
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
    const { hover, tool, selection } = get();
    if (!hover) return;
    if (mods.control && tool) return takeValue(hover);
    if (tool) return toolEvent({ type: "click", hover });
    const id = hover.under[0]?.ref?.id;
    const taken = id === undefined ? [] : selectedBy(id, get().kept.selecting.how);
    const next = new Set(mods.shift ? selection : []);
    const drops = mods.shift && id !== undefined && selection.has(id);
    for (const one of taken) {
      if (drops) next.delete(one);
      else next.add(one);
    }
    set({ selection: next }, ["message", "offered"]);
    const stacked = hover.under.length;
    if (stacked > 1)
      say({
        text: `${stacked} things lie here: ${hover.under.map(({ ref }) => describeRef(get().drawing, ref!)).join(", ")}. Shift+Space takes the next.`,
        tone: "said",
      });
  };

  const selectedBy = (id: Id, how: Selecting["how"]): readonly Id[] => {
    const { drawing } = get();
    if (how === "one") return [id];
    if (how === "run") return selectRun(drawing, id);
    return how === "inside" ? selectInside(drawing, id) : selectLike(drawing, id, how);
  };

  /** The left button with no tool active: a press that stays is a click, one that moves draws a box. */
  let pressed: Point | undefined;
  const press = (at: Point, mods: Modifiers): void => {
    if (get().tool) return click(at, mods);
    pressed = at;
  };
  const letGo = (at: Point, mods: Modifiers): void => {
    const { box, index, selection, kept } = get();
    if (pressed && !box) click(at, mods);
    pressed = undefined;
    if (!box) return;
    const found = selectByBox(index, boundsOf([box.from, box.to]), kept.selecting.box);
    set({ selection: new Set([...(mods.shift ? selection : []), ...found]) }, ["box", "message", "offered"]);
  };
  const stretchBox = (at: Point): void => {
    const { view, box } = get();
    if (!pressed || (!box && Math.hypot(at.x - pressed.x, at.y - pressed.y) < BOX_STARTS)) return;
    set({ box: { from: toDrawing(view, pressed), to: toDrawing(view, at) } });
  };
  const setSelecting = (change: Partial<Selecting>): void => {
    const { kept } = get();
    const next = { ...kept, selecting: { ...kept.selecting, ...change } };
    set({ kept: next });
    remember(next);
  };

  /** The clicked thing's own radius, length or angle goes into the lit blank. */
  const takeValue = (hover: Hover): void => {
    const ref = hover.under[0]?.ref;
    const curve = ref && curveAt(get().drawing, ref);
    const tool = activeTool();
    const blank = tool && typingBlank(tool, get().tool!);
    if (!curve || !tool || !blank)
      return say({
        text: "There is nothing here to take a value from. Click on a line, an arc or a circle.",
        tone: "fault",
      });
    const part = typedPart(tool, blank)!;
    const carrier = carrierOf(curve);
    const unit = unitOf(get().drawing);
    const fill = (value: number, kind?: SizeKind): void =>
      toolEvent({
        type: "fill",
        blank,
        entry: { text: showLength(value, unit).replace("≈ ", ""), value },
        ...(kind ? { kind } : {}),
      });
    if (part.kind === "size" && carrier.kind === "circle")
      return curve.kind === "circle" ? fill(2 * carrier.radius, "Ø") : fill(carrier.radius, "R");
    if (part.kind === "value" && part.expects === "length" && curve.kind === "piece") return fill(pieceLength(curve));
    if (part.kind === "value" && part.expects === "angle" && carrier.kind === "line")
      return fill(toDegrees(angleOf(carrier.direction)));
    say({ text: `${describeRef(get().drawing, ref)} has no value for this blank.`, tone: "fault" });
  };

  const move = (at: Point | undefined, mods: Modifiers): void => {
    screen = at;
    modifiers = mods;
    if (at) stretchBox(at);
    refresh();
  };

  /** A callout fills the blank that fits it, answers what was just measured, or offers the tools that fit. */
  const useCallout = (callout: Callout): void => {
    const tool = activeTool();
    const state = get().tool;
    if (!tool || !state)
      return set(
        get().offered === callout.id ? {} : { offered: callout.id },
        get().offered === callout.id ? ["offered"] : [],
      );
    if (tool.id === "distance" && state.measured)
      return linkMeasured(
        callout,
        state.measured.map(({ ref }) => ref),
      );
    const blank = blankFor(tool, callout, state.lit);
    const text = calloutText(callout, unitOf(get().drawing));
    if (!blank) return say({ text: `${tool.name} has no blank for ${text}.`, tone: "fault" });
    const entry: Entry = {
      text: text
        .replace(/^[RØ] /, "")
        .replace(/[°×]/g, "")
        .trim(),
      value: callout.value,
      callout: callout.id,
    };
    const kind = callout.kind === "radius" ? "R" : callout.kind === "diameter" ? "Ø" : undefined;
    toolEvent({ type: "fill", blank, entry, ...(kind ? { kind } : {}) });
  };

  const linkMeasured = (callout: Callout, refs: readonly (Ref | undefined)[]): void => {
    const known = refs.filter((ref) => ref !== undefined);
    if (known.length < 2)
      return say({
        text: "Measure between ends, middles or centres: bare places can't answer a callout.",
        tone: "fault",
      });
    const draft = draftEdit(get().drawing, `Answer ${callout.name}`, "link");
    draft.link(callout.id, known);
    commit(draft.finish());
  };

  /** Writes down what was typed into the ledger; true when it could be read. */
  const writeCallout = (text: string): boolean => {
    const { drawing, writing } = get();
    const read = readCallout(text, unitOf(drawing));
    if (!read.ok) {
      sayNo(read.refusal);
      return false;
    }
    const edit =
      writing?.id === undefined
        ? addCallout(drawing, read.value, writing?.pin)
        : changeCallout(drawing, writing.id, read.value, writing.pin);
    if (edit) commit(edit);
    set({ writing: {} }, ["message"]);
    return true;
  };

  const dropCallout = (callout: Callout): void => {
    const edit = removeCallout(get().drawing, callout.id);
    if (!edit) return;
    commit(edit);
    notify(`Callout ${calloutText(callout, unitOf(get().drawing))} removed`);
  };

  /** What is selected answers the callout; with nothing selected it is let go. */
  const answerWith = (callout: Callout, ids: readonly Id[]): void => {
    const { drawing } = get();
    const edit = answerCallout(drawing, callout.id, refsAnswering(drawing, callout, ids));
    if (edit) commit(edit);
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

  return {
    move,
    press,
    letGo,
    setSelecting,
    /** Swaps what the box takes; true while one is drawn. */
    swapBox: (): boolean => {
      if (!get().box) return false;
      setSelecting({ box: get().kept.selecting.box === "encloses" ? "touches" : "encloses" });
      return true;
    },
    selectRunAt: () => {
      const id = get().hover?.under[0]?.ref?.id;
      if (!get().tool && id !== undefined) set({ selection: new Set(selectRun(get().drawing, id)) });
    },
    invert: () => set({ selection: new Set(invertSelection(get().drawing, get().selection)) }),
    click,
    commit,
    take,
    escape,
    toolEvent,
    useCallout,
    fit,
    saveFile,
    openRelease: releaseStored,
    back,
    writeCallout,
    dropCallout,
    answerWith,
    /** True while the next blank can take a point, so that one may be typed. */
    wantsPoint: (): boolean => {
      const { tool: state } = get();
      const tool = activeTool();
      const wanted = tool && state && wantedPick(tool, state, givenOf(tool, state, undefined, context()));
      return wanted !== undefined && wanted.takes !== "curve";
    },
    setWriting: (writing: BenchState["writing"]) => (writing ? set({ writing }) : set({}, ["writing"])),
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

/** The blank that a digit goes into: the lit one, else the first that a value can be typed in. */
export const typingBlank = (tool: Tool, state: ToolState): string | undefined => {
  const place = state.placing ? PLACE_PARTS[state.placing.as] : [];
  const next = place.find(({ name }) => !(name in state.entries)) ?? place[0];
  if (next && (!state.lit || isPlace(state.lit)))
    return place.find(({ name }) => name === state.lit)?.name ?? next.name;
  const typed = typedParts(tool);
  return (typed.find(({ name }) => name === state.lit) ?? typed[0])?.name;
};

const blankFor = (tool: Tool, { kind }: Callout, lit: string | undefined): string | undefined => {
  const fits = typedParts(tool).filter((part) =>
    part.kind === "size"
      ? kind === "radius" || kind === "diameter"
      : part.expects ===
        (kind === "angle" || kind === "count" ? kind : kind === "length" || kind === "centres" ? "length" : undefined),
  );
  return (fits.find(({ name }) => name === lit) ?? fits[0])?.name;
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

/** The tools that can use a callout's kind, for a callout clicked with no tool active. */
export const toolsFor = (callout: Callout): readonly Tool[] =>
  REGISTRY.filter((one): one is Tool => one.kind === "tool" && blankFor(one, callout, undefined) !== undefined);
