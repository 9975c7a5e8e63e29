import { addMeasured } from "@ash-edge/core/callouts";
import { calloutsOff } from "@ash-edge/core/checks";
import { sameTarget } from "@ash-edge/core/drawing";
import type { Id } from "@ash-edge/core/numeric";
import { calloutName, customerQuestions } from "@ash-edge/core/say";
import type { Answer, Held, OpenMeasure } from "@ash-edge/core/solve";
import type { Hover } from "@ash-edge/tools";
import type { SessionCore } from "../sessionCore.ts";
import { endNumbers, findNumbers } from "../../worker/findNumbers.ts";

/** A change of the drawing is looked at when it has stood for a moment. */
const LOOK_AFTER_MS = 250;

/** Numbers made true: asked, looked at before it is taken, what holds let go of, what stays, what is left open. */
export const makeNumbers = (
  core: SessionCore,
  parts: { readonly closeTidy: () => void; readonly toBoard: () => void },
) => {
  const { get, send, say, commit } = core;
  let looking: AbortController | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;

  const look = async (): Promise<void> => {
    looking?.abort();
    clearTimeout(timer);
    const { numbers, history } = get();
    if (!numbers) return;
    const own = (looking = new AbortController());
    const { drawing } = history;
    const { asked, letGo, stays, asDrawn } = numbers;
    const keys = new Set(letGo.map(({ key }) => key));
    send("numbers", { type: "looking" });
    try {
      const ask = asked.length > 0 ? { callouts: asked, letGo: keys, stays, asDrawn } : undefined;
      const found = await findNumbers(drawing, ask, own.signal);
      if (!own.signal.aborted) send("numbers", { type: "found", of: drawing, found });
    } catch (reason) {
      if (!own.signal.aborted) send("numbers", { type: "failed", why: (reason as Error).message });
    }
  };

  /** Looks again when the drawing changed: what is true by now is asked no more. */
  const numbersSoon = (): void => {
    const { numbers, history } = get();
    if (!numbers) return;
    const off = new Set(calloutsOff(history.drawing));
    send("numbers", { type: "asked", asked: numbers.asked.filter((id) => off.has(id)) });
    send("numbers", { type: "looking" });
    clearTimeout(timer);
    timer = setTimeout(() => void look(), LOOK_AFTER_MS);
  };

  const closeNumbers = (): void => {
    looking?.abort();
    clearTimeout(timer);
    endNumbers();
    send("numbers", { type: "closed" });
  };

  /** What would be made, where it is of the drawing as it stands. */
  const ready = () => {
    const { numbers, history } = get();
    const shown = numbers?.of === history.drawing && numbers.asked.length > 0 ? numbers.found?.look : undefined;
    return shown?.ok ? shown : undefined;
  };

  const ask = (asked: readonly Id[]): void => {
    send("numbers", { type: "asked", asked });
    void look();
  };

  const openNumbers = (asked: readonly Id[] = calloutsOff(get().history.drawing)): void => {
    parts.closeTidy();
    send("panels", { type: "tab", tab: "pieces" });
    send("numbers", { type: "opened", asked });
    void look();
  };

  return {
    /** A number that was typed over and is off now: what making it true would move is shown, for Enter to take. */
    offerTrue: (id: Id): void => {
      const { numbers, history } = get();
      const off = calloutsOff(history.drawing);
      if (!off.includes(id)) return;
      openNumbers(numbers ? [...new Set([...numbers.asked.filter((one) => off.includes(one)), id])] : [id]);
      parts.toBoard();
    },
    /** Opens the numbers: with those asked, else with all that are off. */
    openNumbers,
    closeNumbers,
    numbersSoon,
    askTrue: ask,
    lookAtNumbers: (): void => void look(),
    stopNumbers: (): void => {
      looking?.abort();
      send("numbers", { type: "failed", why: "It was stopped." });
    },
    letGoOf: (held: Held): void => {
      send("numbers", { type: "let go", held });
      void look();
    },
    holdAgain: (key: string): void => {
      send("numbers", { type: "holds again", key });
      void look();
    },
    /** Takes the drawing for exact as it is, or for what it looks like. */
    takeAsDrawn: (on: boolean): void => {
      send("numbers", { type: "as drawn", on });
      void look();
    },
    pickStays: (on: boolean): void => send("numbers", { type: "picking", on }),
    /** What was clicked stays where it is, or does no more. */
    stayAt: (hover: Hover): void => {
      const ref = hover.under[0]?.ref;
      const { numbers } = get();
      if (!ref || !numbers)
        return say({ text: "There is nothing here that could stay. Click a piece.", tone: "fault" });
      const others = numbers.stays.filter((one) => !sameTarget(one, ref));
      const bare = ref.vertex === undefined ? { id: ref.id } : { id: ref.id, vertex: ref.vertex };
      send("numbers", { type: "stays", refs: others.length < numbers.stays.length ? others : [...others, bare] });
      void look();
    },
    stayNoMore: (): void => {
      send("numbers", { type: "stays", refs: [] });
      void look();
    },
    /** Puts what is shown into the drawing; false where nothing is ready. */
    takeTrue: (): boolean => {
      const made = ready();
      if (!made) return false;
      const names = get().numbers!.asked.map((id) => calloutName(get().history.drawing, id));
      if (!commit(made.edit)) return true;
      say({ text: `Made true: ${names.slice(0, 3).join(", ")}${names.length > 3 ? " …" : ""}.`, tone: "said" });
      return true;
    },
    /** Puts callouts on what they speak of, in one step; what is off by then is asked. */
    linkThese: async (those: readonly ({ readonly callout: Id } & Answer)[]): Promise<void> => {
      const { linkAll } = await import("@ash-edge/core/solve");
      if (!commit(linkAll(get().history.drawing, those))) return;
      say({ text: `${those.length} callout${those.length === 1 ? "" : "s"} placed.`, tone: "said" });
      ask(calloutsOff(get().history.drawing));
    },
    /** Writes a number down for what is left open, as it is drawn. */
    callAsDrawn: (measure: OpenMeasure): Id | undefined => {
      const { drawing } = get().history;
      const { edit, id } = addMeasured(drawing, measure);
      return commit(edit) ? id : undefined;
    },
    /** What is to be asked of the customer, line by line. */
    questions: (): readonly string[] => {
      const { numbers, history } = get();
      if (!numbers?.found) return [];
      const { look: shown, standing } = numbers.found;
      return customerQuestions(history.drawing, standing, shown);
    },
  };
};
