import { useEffect } from "react";
import { flushSync } from "react-dom";
import { bankPlaces, toolById } from "@ash-edge/tools";
import { typingBlank } from "./blanks.ts";
import { keyAction, type KeyAction } from "./keys.ts";
import type { Session } from "./session.ts";
import { useSession } from "./SessionContext.tsx";

const isText = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) ||
    target.closest('[role="dialog"]') !== null);
/** A focused button keeps its own Enter, Space, Tab and arrows. */
const ownsKey = (target: EventTarget | null, key: string): boolean =>
  target instanceof HTMLElement &&
  target.closest("button, a, [role=separator]") !== null &&
  /^(Enter| |Tab|Arrow.*)$/.test(key);

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

export const focusBoard = (): void => document.querySelector<HTMLElement>('[data-region="Board"]')?.focus();

const moveRegion = (backwards: boolean): void => {
  const regions = [...document.querySelectorAll<HTMLElement>("[data-region]")];
  const here = regions.findIndex((region) => region.contains(document.activeElement));
  regions[(here + (backwards ? -1 : 1) + regions.length) % regions.length]?.focus();
};

/** The blanks and choices of the sentence in order, for Tab. */
const moveBlank = (backwards: boolean): void => {
  const stops = [
    ...document.querySelectorAll<HTMLElement>(
      "[data-steer] [data-point], [data-steer] input[data-blank], [data-steer] [role=radio][aria-checked=true]",
    ),
  ];
  const here = stops.indexOf(document.activeElement as HTMLElement);
  const to = here < 0 ? (backwards ? stops.length - 1 : 0) : here + (backwards ? -1 : 1);
  if (stops[to]) stops[to].focus();
  else focusBoard();
};

const carryOut = (session: Session, action: KeyAction, openFinder: () => void): boolean => {
  const { act } = session;
  const {
    panels: { bank },
    hand: { toolId, tool },
    selection: { ids: selection },
  } = session.getState();
  const active = toolById(toolId);
  switch (action.do) {
    case "type": {
      // a digit goes into a typed point where the point's own blank is lit, or where nothing else takes digits
      const onPoint =
        document.activeElement instanceof HTMLElement && document.activeElement.dataset.point !== undefined;
      if (active && tool && !tool.placing && act.wantsPoint() && (onPoint || typingBlank(active, tool) === undefined))
        flushSync(() => act.toolEvent({ type: "place", placing: { as: "xy", from: "datum" } }));
      const now = session.getState().hand.tool;
      const blank = active && now && typingBlank(active, now);
      const input = blank && blankInput(blank);
      if (!blank || !input) return false;
      // the focused field takes the key itself, in place of what it shows
      act.toolEvent({ type: "type", blank, text: "" });
      input.focus();
      input.select();
      return false;
    }
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
      const blank = active && tool && typingBlank(active, tool);
      if (blank && tool && blank in tool.entries) act.toolEvent({ type: "empty", blank });
      else if (selection.size > 0) act.remove();
      return true;
    }
    case "delete":
      act.remove();
      return true;
    case "escape":
      act.escape();
      return true;
    case "swap-choice": {
      const part = active?.parts.find(({ kind }) => kind === "choice" || kind === "size");
      if (!part || !tool) return true;
      if (part.kind === "size")
        act.toolEvent({ type: "choice", name: part.name, to: tool.kinds[part.name] === "R" ? "Ø" : "R" });
      if (part.kind === "choice") {
        const at = part.options.findIndex(([id]) => id === tool.choices[part.name]);
        act.toolEvent({ type: "choice", name: part.name, to: part.options[(at + 1) % part.options.length]![0] });
      }
      return true;
    }
    case "next-blank":
      moveBlank(action.backwards);
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

/** The keyboard of the bench: everything outside text fields; the sentence's blanks pass their commands on to it. */
export const useBenchKeys = (openFinder: () => void): void => {
  const session = useSession();
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const command = event.ctrlKey || event.metaKey;
      const inBlank = event.target instanceof HTMLElement && event.target.dataset.blank !== undefined;
      const passesOn = inBlank && ((command && /^Key[ZYKS]$/.test(event.code)) || event.key === "F6");
      if (event.defaultPrevented || (isText(event.target) && !passesOn) || ownsKey(event.target, event.key)) return;
      const {
        hand: { tool, toolId },
        panels: { bank },
        kept,
      } = session.getState();
      const active = toolById(toolId);
      const standing = {
        tool: active !== undefined,
        bank: bank !== undefined,
        canType:
          active !== undefined &&
          tool !== undefined &&
          (typingBlank(active, tool) !== undefined || session.act.wantsPoint()),
      };
      const action = keyAction(
        { code: event.code, key: event.key, shift: event.shiftKey, alt: event.altKey, command },
        standing,
        kept.keys,
      );
      if (action && carryOut(session, action, openFinder)) event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [session, openFinder]);
};
