import { useEffect } from "react";
import { bankPlaces, toolById } from "@ash-edge/tools";
import { keyAction, type KeyAction } from "./keys.ts";
import type { Session } from "./session.ts";
import { useSession } from "./SessionContext.tsx";

/** A field that keeps its keys: any text field but the blanks of the sentence, and whatever stands in a dialog. */
const keepsKeys = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  target.dataset.blank === undefined &&
  (target.isContentEditable ||
    /^(TEXTAREA|SELECT)$/.test(target.tagName) ||
    (target instanceof HTMLInputElement && !/^(checkbox|radio|range|button)$/.test(target.type)) ||
    target.closest('[role="dialog"]:not([data-radix-popper-content-wrapper] *)') !== null);
/** A focused button keeps its own Enter, Space, Tab and arrows; so do sliders and boxes to tick. */
const ownsKey = (target: EventTarget | null, key: string): boolean =>
  target instanceof HTMLElement &&
  target.closest("button, a, input:not([data-blank]), [role=separator], [role=menu]") !== null &&
  /^(Enter| |Tab|Arrow.*|Home|End|Page.*)$/.test(key);

export const blankInput = (name: string): HTMLInputElement | null =>
  document.querySelector(`input[data-blank="${name}"]`);
/**
 * To the board when something closes, a moment late as such things are: never away from a blank that is being typed in
 * by then.
 */
export const backToBoard = (event: Event): void => {
  event.preventDefault();
  const at = document.activeElement;
  if (!(at instanceof HTMLElement) || at.dataset.blank === undefined) focusBoard();
};

/** True while the board has the keys: nothing else was given the focus on purpose. */
export const boardHasKeys = (): boolean => {
  const at = document.activeElement;
  return (
    !(at instanceof HTMLElement) ||
    at === document.body ||
    at.dataset.blank !== undefined ||
    at.closest('[data-region="Board"]') !== null
  );
};

let closing = false;
/** Closes the popover or menu in which a character was typed that is the entry's. */
const closeLayerOf = (target: EventTarget | null): void => {
  if (!(target instanceof HTMLElement) || !target.closest("[data-radix-popper-content-wrapper]")) return;
  closing = true;
  document.dispatchEvent(new KeyboardEvent("keydown", { key: "Escape", code: "Escape", bubbles: true }));
  closing = false;
};

export const focusBoard = (): void => document.querySelector<HTMLElement>('[data-region="Board"]')?.focus();

const moveRegion = (backwards: boolean): void => {
  const regions = [...document.querySelectorAll<HTMLElement>("[data-region]")].filter((one) => one.checkVisibility());
  const here = regions.findIndex((region) => region.contains(document.activeElement));
  regions[(here + (backwards ? -1 : 1) + regions.length) % regions.length]?.focus();
};

/** Alt with an arrow moves the view by so many pixels. */
const PAN_STEP = 60;

const carryOut = (session: Session, action: KeyAction, openFinder: () => void): boolean => {
  const { act } = session;
  const {
    panels: { bank },
    hand: { tool },
    selection: { ids: selection },
  } = session.getState();
  switch (action.do) {
    case "type":
      act.toolEvent({ type: "key", text: action.text });
      return true;
    case "cursor":
      if (action.how === "pan") act.pan(-PAN_STEP * action.dx, PAN_STEP * action.dy);
      else act.stepCursor(action.dx, action.dy, action.how);
      return true;
    case "near":
      act.stepNear(action.by);
      return true;
    case "click":
      act.clickCursor();
      return true;
    case "zoom": {
      const { pointer, view } = session.getState();
      act.zoom(pointer.screen ?? { x: view.size.width / 2, y: view.size.height / 2 }, action.factor);
      return true;
    }
    case "reading": {
      const { refusal } = session.getState().panels.message ?? {};
      if (refusal?.code !== "value-asked" || !tool?.open) return action.which === "other" && act.takeOffered();
      act.takeReading(tool.open.blank, String(refusal.values[action.which]));
      return true;
    }
    case "rub":
      act.toolEvent({ type: "rub" });
      return true;
    case "bank":
      act.setBank(action.key);
      return true;
    case "place": {
      const member = bank && bankPlaces(bank).get(action.key);
      if (member) act.take(member.id);
      else act.setBank(undefined);
      return true;
    }
    case "next":
      act.next();
      return true;
    case "next-under":
      act.nextUnder();
      return true;
    case "finish":
      act.finish();
      return true;
    case "again":
      act.again();
      return true;
    case "back":
      act.back();
      return true;
    case "clear-blank": {
      const lit = act.lit();
      if (tool?.open || (lit && tool && lit.name in tool.entries)) act.toolEvent({ type: "empty", blank: lit!.name });
      else if (selection.size > 0) act.remove();
      return true;
    }
    case "delete":
      act.remove();
      return true;
    case "escape":
      act.escape();
      return true;
    case "swap-choice":
      act.toolEvent({ type: "swap" });
      return true;
    case "next-choice":
      act.toolEvent({ type: "next choice" });
      return true;
    case "next-blank":
      act.toolEvent({ type: "tab", backwards: action.backwards });
      return true;
    case "undo":
      act.undo();
      return true;
    case "redo":
      act.redo();
      return true;
    case "finder":
      openFinder();
      return true;
    case "save":
      act.saveFile();
      return true;
    case "select-all":
      act.selectAll();
      return true;
    case "region":
      moveRegion(action.backwards);
      return true;
  }
};

const inPanel = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  target.dataset.blank === undefined &&
  target.closest('[data-region]:not([data-region="Board"], [data-region="Sentence"])') !== null;

/** In the blank's own field characters and the caret are the field's; these are the bench's. */
const leavesField = (event: KeyboardEvent, open: boolean): boolean =>
  /^(Enter|NumpadEnter|Escape|Tab|F6|ArrowUp|ArrowDown|PageUp|PageDown)$/.test(event.code) ||
  (event.code === "Space" && !open) ||
  ((event.ctrlKey || event.metaKey) && /^Key[ZYKS]$/.test(event.code));

/** The keyboard of the bench: one handler, wherever the focus stands but in fields that keep their keys. */
export const useBenchKeys = (openFinder: () => void): void => {
  const session = useSession();
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (closing || event.defaultPrevented || event.isComposing || keepsKeys(event.target)) return;
      const { hand, panels, kept } = session.getState();
      const open = hand.tool?.open !== undefined;
      // Tab goes on within a panel that was gone to; the board and the sentence have their own
      if (event.key === "Tab" && inPanel(event.target)) return;
      const inBlank = event.target instanceof HTMLElement && event.target.dataset.blank !== undefined;
      if (inBlank ? !leavesField(event, open) : !open && ownsKey(event.target, event.key)) return;
      const action = keyAction(
        {
          code: event.code,
          key: event.key,
          shift: event.shiftKey,
          alt: event.altKey,
          command: event.ctrlKey || event.metaKey,
        },
        {
          tool: toolById(hand.toolId) !== undefined,
          bank: panels.bank !== undefined,
          lit: session.act.lit() !== undefined,
          open,
          cursor: session.getState().pointer.byKeys,
        },
        kept.keys,
      );
      if (!action) return;
      if (action.do === "type") closeLayerOf(event.target);
      if (carryOut(session, action, openFinder)) event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [session, openFinder]);
};
