import { countAnnotations } from "@ash-edge/core/annotate";
import { looseId } from "@ash-edge/core/attach";
import { answerCallout, calloutText, measureCallout } from "@ash-edge/core/callouts";
import {
  annotationOf,
  applyEdit,
  calloutsOf,
  entityOf,
  invertEdit,
  layerOf,
  unitOf,
  type Drawing,
  type Callout,
  type Edit,
  type Entity,
  type Ref,
} from "@ash-edge/core/drawing";
import { reindex } from "@ash-edge/core/look";
import { derivedNumber } from "@ash-edge/core/numeric";
import type { ReadOnly } from "./state/index.ts";
import { stepAt, stepCount, withOlder, withStep, type History } from "../store/index.ts";
import type { Again, SessionCore } from "./sessionCore.ts";

type Needs = {
  readonly keep: (step: { history: History; drawing: Drawing; edit?: Edit }) => void;
  /** Brings what is derived up to an edit, with the drawing after it. */
  readonly keepUp: (edit: Edit, after: Drawing) => void;
  /** A note that offers to take something back. */
  readonly tell: (text: string, again: Again | undefined, undo: () => void) => void;
  /** Reads the steps before a number from the store. */
  readonly older: (first: number) => Promise<{ readonly edits: readonly Edit[]; readonly damage?: string }>;
  /** Called when an edit was made, with the drawing before it. */
  readonly made: (before: Drawing, edit: Edit) => void;
};

const READ_ONLY: Readonly<Record<ReadOnly, string>> = {
  elsewhere: "This job is open in another tab, so it is read only here. Take over to change it.",
  damaged: "A part of this job can’t be read, so it is read only. Decide above how to go on.",
};

type Offer = { readonly callout: Callout; readonly offer: readonly Ref[] };

/** The words of the button that puts callouts on the places offered: what the first would measure there. */
const offerWords = (drawing: Drawing, offers: readonly Offer[]): string => {
  if (offers.length > 1) return `Put ${offers.length} on what is like it`;
  const { callout, offer } = offers[0]!;
  const state = measureCallout(drawing, { ...callout, links: offer });
  const measured =
    state.state === "not placed"
      ? ""
      : calloutText({ ...callout, value: derivedNumber(state.measured) }, unitOf(drawing));
  return `Put it on ${measured}`;
};

/** Edits made, taken back and done again: the one place where the drawing changes. */
export const makeHistory = ({ get, send, say, refresh }: SessionCore, { keep, keepUp, tell, made, older }: Needs) => {
  /** True, and said, where nothing may be changed in this tab. */
  const isReadOnly = (): boolean => {
    const { readOnly } = get().history;
    if (readOnly) say({ text: READ_ONLY[readOnly], tone: "fault" });
    return readOnly !== undefined;
  };

  /** Puts an edit into the drawing, the history and the journal; false where nothing may be changed here. */
  const commit = (edit: Edit): boolean => {
    if (isReadOnly()) return false;
    const {
      history: { drawing, steps: history, index },
    } = get();
    const next = applyEdit(drawing, edit);
    const now = withStep(history, edit);
    const { ids, lit } = get().selection;
    const standing = [...ids].filter((id) => entityOf(next, id) ?? annotationOf(next, id));
    // what goes is let go of first: nothing selected or lit is ever missing from the drawing
    if (standing.length < ids.size) send("selection", { type: "selected", ids: standing });
    if (lit.size > 0) send("selection", { type: "lit", ids: [] });
    send("history", { type: "went", drawing: next, index: reindex(index, next), steps: now });
    keep({ history: now, drawing: next, edit });
    keepUp(edit, next);
    if (edit.cutLoose.length > 0) sayCutLoose(drawing, edit);
    sayHidden(next, edit);
    made(drawing, edit);
    refresh();
    return true;
  };

  /** What is drawn or put where it can't be seen would be drawn again: it is said. */
  const sayHidden = (after: Drawing, { changes }: Edit): void => {
    const hidden = new Set<string>();
    for (const change of changes) {
      if (change.table !== "entity" || !change.after) continue;
      const layer = layerOf(after, (change.after as Entity).layer);
      const was = (change.before as Entity | undefined)?.layer;
      if (layer && !layer.shown && was !== layer.id) hidden.add(layer.name);
    }
    if (hidden.size > 0) notify(`Now on ${[...hidden].join(", ")}, which is hidden`);
  };

  /** Says which callouts lost their place, and offers the place that is like it, where there is one. */
  const sayCutLoose = (before: Drawing, edit: Edit): void => {
    const now = get().history.drawing;
    const lost = edit.cutLoose.flatMap((loose) => {
      const { offer } = loose;
      const callout = calloutsOf(before).find((one) => one.id === looseId(loose));
      if (!callout) return [];
      const offered =
        offer && measureCallout(now, { ...callout, links: offer }).state !== "not placed" ? offer : undefined;
      return [{ callout, offer: offered }];
    });
    sayLost(edit);
    if (lost.length === 0) return;
    const names = lost.map(({ callout }) => `${calloutText(callout, unitOf(before))} ${callout.name}`.trim());
    const offers = lost.flatMap(({ callout, offer }) => (offer ? [{ callout, offer }] : []));
    const again = offers.length === 0 ? undefined : { words: offerWords(now, offers), take: () => putAgain(offers) };
    notify(`Not placed any more: ${names.join(", ")}`, again);
  };

  /** Says which dimensions, notes and marks lost what they measured: they stay on the board and say so there. */
  const sayLost = (edit: Edit): void => {
    const now = get().history.drawing;
    const gone = edit.cutLoose.flatMap((loose) => {
      const annotation = annotationOf(now, looseId(loose));
      return annotation?.lost ? [annotation.id] : [];
    });
    if (gone.length > 0) notify(`Lost what they measured: ${countAnnotations(now, gone)}`);
  };

  const putAgain = (offers: readonly Offer[]): void => {
    for (const { callout, offer } of offers) {
      const edit = answerCallout(get().history.drawing, callout.id, offer);
      if (edit) commit(edit);
    }
  };

  let reading: Promise<boolean> | undefined;
  /** Reads older steps from the store; false where there are none that can be read, which is said. */
  const readOlder = (): Promise<boolean> => {
    reading ??= readSteps().finally(() => (reading = undefined));
    return reading;
  };
  const readSteps = async (): Promise<boolean> => {
    const { first } = get().history.steps;
    if (first === 0) return false;
    const found = await older(first).catch((reason: Error) => ({ edits: [], damage: reason.message }));
    if (get().history.steps.first !== first) return true;
    send("history", { type: "read on", steps: withOlder(get().history.steps, found.edits) });
    if (found.damage)
      say({ text: `Undo can’t go back beyond step ${first - found.edits.length}: ${found.damage}`, tone: "fault" });
    return found.edits.length > 0;
  };

  /**
   * To after step `to`, one step at a time, stored as one move of the position; steps that are not in memory are read
   * first.
   */
  const travel = (to: number): void => {
    const {
      history: { steps: start },
    } = get();
    const before = start.position;
    if (to === before || to < 0 || to > stepCount(start) || isReadOnly()) return;
    if (to < start.first)
      return void readOlder().then((more) => more && get().history.steps.position === before && travel(to));
    const back = to < before;
    let { drawing, index } = get().history;
    for (let at = before; at !== to; at += back ? -1 : 1) {
      const edit = back ? invertEdit(stepAt(start, at - 1)!) : stepAt(start, at)!;
      drawing = applyEdit(drawing, edit);
      index = reindex(index, drawing);
      keepUp(edit, drawing);
    }
    const history = { ...start, position: to };
    send("selection", { type: "selected", ids: [] });
    send("selection", { type: "lit", ids: [] });
    send("history", { type: "went", drawing, index, steps: history });
    keep({ history, drawing });
    const steps = Math.abs(to - before);
    const what = steps === 1 ? stepAt(start, back ? to : to - 1)!.label : `${steps} steps`;
    say({ text: `${back ? "Undone" : "Done again"}: ${what}.`, tone: "said" });
    refresh();
  };

  /** The undo that is offered means this one step: not the picks, and nothing that was done since. */
  const notify = (text: string, again?: Again): void => {
    const after = get().history.steps;
    tell(text, again, () =>
      get().history.steps === after
        ? travel(after.position - 1)
        : say({ text: "Something else was done since. Undo goes back step by step.", tone: "fault" }),
    );
  };

  return { commit, travel, notify, readOlder, isReadOnly };
};
