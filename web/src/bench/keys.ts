import { BANK_KEYS, BANKS, type BankKey } from "@ash-edge/tools";

/** A key press as the bench sees it. */
export type Press = {
  readonly code: string;
  readonly key: string;
  readonly shift: boolean;
  readonly alt: boolean;
  readonly command: boolean;
};

/** Where the bench stands when a key is pressed: something is lit that takes what is typed, or is being typed already. */
export type BenchStanding = {
  readonly tool: boolean;
  readonly bank: boolean;
  readonly lit: boolean;
  readonly open: boolean;
};

export type KeyAction =
  | { readonly do: "type"; readonly text: string }
  | { readonly do: "bank" | "place"; readonly key: BankKey }
  | {
      readonly do:
        | "next"
        | "next-under"
        | "finish"
        | "again"
        | "rub"
        | "back"
        | "clear-blank"
        | "delete"
        | "escape"
        | "swap-choice";
    }
  /** Of what is being typed and could mean two things, the one or the other. */
  | { readonly do: "reading"; readonly which: "one" | "other" }
  | { readonly do: "next-blank"; readonly backwards: boolean }
  | { readonly do: "undo" | "redo" | "finder" | "save" | "select-all" }
  | { readonly do: "region"; readonly backwards: boolean };

/** Places of the key grid that were put on other keys: the key that now takes each. */
export type KeyMap = Readonly<Partial<Record<BankKey, BankKey>>>;

/** The key that takes a place of the grid. */
export const keyFor = (place: BankKey, keys: KeyMap): BankKey => keys[place] ?? place;
/** The place that a key takes. */
export const placeOf = (key: BankKey, keys: KeyMap): BankKey =>
  BANK_KEYS.find((place) => keyFor(place, keys) === key) ?? key;
/** The keys with `place` on `key`; the place that had that key gets the one that is free now. */
export const withKey = (keys: KeyMap, place: BankKey, key: BankKey): KeyMap => {
  const other = placeOf(key, keys);
  return { ...keys, [other]: keyFor(place, keys), [place]: key };
};

/** What begins an entry: digits, signs, and the marks of points and sizes. */
const BEGINS = /^[0-9.,−\-(@<Øø⌀½¼¾⅛⅜⅝⅞]$/;

/**
 * What a key means on the bench; undefined when it means nothing here. While an entry is open every character is its
 * own, wherever the focus is. Letters go by their place on the keyboard, not by what is printed on them.
 */
export const keyAction = (
  { code, key, shift, command }: Press,
  { tool, bank, lit, open }: BenchStanding,
  keyOf: KeyMap = {},
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
  if (open && [...key].length === 1) return { do: "type", text: key };
  if (BEGINS.test(key) && !(code in BANKS)) return tool && lit ? { do: "type", text: key } : undefined;
  if (code in BANKS) return { do: bank ? "place" : "bank", key: placeOf(code as BankKey, keyOf) };
  switch (code) {
    case "Space":
      return { do: shift ? "next-under" : "next" };
    case "Enter":
    case "NumpadEnter":
      return { do: tool ? "finish" : "again" };
    case "Tab":
      return tool ? { do: "next-blank", backwards: shift } : undefined;
    case "ArrowUp":
    case "ArrowDown":
      return open ? { do: "reading", which: code === "ArrowUp" ? "one" : "other" } : undefined;
    case "Backspace":
      return { do: open ? "rub" : "back" };
    case "Delete":
      return { do: tool && lit ? "clear-blank" : "delete" };
    case "Escape":
      return { do: "escape" };
    case "Backquote":
      return { do: "swap-choice" };
    default:
      return undefined;
  }
};
