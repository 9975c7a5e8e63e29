import { BANKS, type BankKey } from "./tools/tool.ts";

/** A key press as the bench sees it. */
export type Press = {
  readonly code: string;
  readonly key: string;
  readonly shift: boolean;
  readonly alt: boolean;
  readonly command: boolean;
};

/** Where the bench stands when a key is pressed outside a text field. */
export type Standing = { readonly tool: boolean; readonly bank: boolean; readonly canType: boolean };

export type KeyAction =
  | { readonly do: "type"; readonly text: string }
  | { readonly do: "bank" | "place"; readonly key: BankKey }
  | {
      readonly do:
        "next" | "next-under" | "finish" | "again" | "back" | "clear-blank" | "delete" | "escape" | "swap-choice";
    }
  | { readonly do: "next-blank"; readonly backwards: boolean }
  | { readonly do: "undo" | "redo" | "finder" | "save" | "select-all" }
  | { readonly do: "region"; readonly backwards: boolean };

/**
 * What a key means on the bench while no entry is open; undefined when it means nothing here. Within a text field keys are text:
 * the field itself minds Enter, Tab and Esc. Letters go by their place on the keyboard, not by what is printed on them.
 */
export const keyAction = (
  { code, key, shift, command }: Press,
  { tool, bank, canType }: Standing,
): KeyAction | undefined => {
  if (command) {
    if (code === "KeyZ") return { do: shift ? "redo" : "undo" };
    if (code === "KeyY") return { do: "redo" };
    if (code === "KeyK") return { do: "finder" };
    if (code === "KeyS") return { do: "save" };
    if (code === "KeyA") return { do: "select-all" };
    return undefined;
  }
  if (code === "F6") return { do: "region", backwards: shift };
  if (/^[0-9.,−-]$/.test(key)) return tool && canType ? { do: "type", text: key } : undefined;
  if (code in BANKS) return { do: bank ? "place" : "bank", key: code as BankKey };
  switch (code) {
    case "Space":
      return { do: shift ? "next-under" : "next" };
    case "Enter":
    case "NumpadEnter":
      return { do: tool ? "finish" : "again" };
    case "Tab":
      return tool ? { do: "next-blank", backwards: shift } : undefined;
    case "Backspace":
      return { do: "back" };
    case "Delete":
      return { do: tool && canType ? "clear-blank" : "delete" };
    case "Escape":
      return { do: "escape" };
    case "Backquote":
      return { do: "swap-choice" };
    default:
      return undefined;
  }
};
