import { BANK_KEYS, BANKS, type BankKey } from "@ash-edge/tools";

/** A key press as the bench sees it. */
export type Press = {
  readonly code: string;
  readonly key: string;
  readonly shift: boolean;
  readonly alt: boolean;
  readonly command: boolean;
};

/**
 * Where the bench stands when a key is pressed: something is lit that takes what is typed, or is being typed already.
 */
export type BenchStanding = {
  readonly tool: boolean;
  readonly bank: boolean;
  readonly lit: boolean;
  readonly open: boolean;
  /** The board's cursor was moved by keys: Enter clicks there. */
  readonly cursor: boolean;
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
        | "swap-choice"
        | "next-choice";
    }
  /** Of what is being typed and could mean two things, the one or the other. */
  | {
      readonly do: "cursor";
      readonly dx: number;
      readonly dy: number;
      readonly how: "grid" | "fine" | "coarse" | "pan";
    }
  | { readonly do: "near"; readonly by: 1 | -1 }
  | { readonly do: "click" }
  | { readonly do: "zoom"; readonly factor: number }
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

const ARROWS: Readonly<Record<string, { readonly dx: number; readonly dy: number }>> = {
  ArrowLeft: { dx: -1, dy: 0 },
  ArrowRight: { dx: 1, dy: 0 },
  ArrowUp: { dx: 0, dy: 1 },
  ArrowDown: { dx: 0, dy: -1 },
};
const ZOOM_STEP = 1.25;

/** What begins an entry: digits, signs, and the marks of points and sizes. */
const BEGINS = /^[0-9.,−\-(@<Øø⌀½¼¾⅛⅜⅝⅞]$/;

/**
 * What a key means on the bench; undefined when it means nothing here. While an entry is open every character is its
 * own, wherever the focus is. Letters go by their place on the keyboard, not by what is printed on them.
 */
export const keyAction = (
  { code, key, shift, alt, command }: Press,
  { tool, bank, lit, open, cursor }: BenchStanding,
  keyOf: KeyMap = {},
): KeyAction | undefined => {
  const arrow = ARROWS[code];
  if (arrow && (!open || command || alt))
    return { do: "cursor", ...arrow, how: alt ? "pan" : command ? "coarse" : shift ? "fine" : "grid" };
  if (command) {
    if (/^(Numpad)?Enter$/.test(code)) return { do: "finish" };
    if (code === "KeyZ") return { do: shift ? "redo" : "undo" };
    if (code === "KeyY") return { do: "redo" };
    if (code === "KeyK") return { do: "finder" };
    if (code === "KeyS") return { do: "save" };
    if (code === "KeyA") return { do: "select-all" };
    return undefined;
  }
  if (code === "F6") return { do: "region", backwards: shift };
  if (open && [...key].length === 1) return { do: "type", text: key };
  // a minus begins a number where one is wanted, and else makes smaller what is shown
  if (BEGINS.test(key) && !(code in BANKS) && tool && lit) return { do: "type", text: key };
  if (key === "+" || key === "=") return { do: "zoom", factor: ZOOM_STEP };
  if (key === "-" || key === "_") return { do: "zoom", factor: 1 / ZOOM_STEP };
  if (code in BANKS) return { do: bank ? "place" : "bank", key: placeOf(code as BankKey, keyOf) };
  switch (code) {
    case "Space":
      return { do: shift ? "next-under" : "next" };
    case "Enter":
    case "NumpadEnter":
      return { do: cursor && !open ? "click" : tool ? "finish" : "again" };
    case "PageDown":
    case "PageUp":
      return { do: "near", by: code === "PageDown" ? 1 : -1 };
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
      return { do: shift ? "next-choice" : "swap-choice" };
    default:
      return undefined;
  }
};
