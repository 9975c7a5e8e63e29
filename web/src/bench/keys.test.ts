import { describe, expect, it } from "vitest";
import { bankPlaces, REGISTRY, toolById, BANK_KEYS } from "@ash-edge/tools";
import { keyAction, type Press, type BenchStanding } from "./keys.ts";

const press = (code: string, more: Partial<Press> = {}): Press => ({
  code,
  key: code.replace(/^(Key|Digit)/, "").toLowerCase(),
  shift: false,
  alt: false,
  command: false,
  ...more,
});
const idle: BenchStanding = { tool: false, bank: false, lit: false, open: false, cursor: false };
const active: BenchStanding = { tool: true, bank: false, lit: true, open: false, cursor: false };

describe("keys", () => {
  it.each([
    [press("Digit7"), active, { do: "type", text: "7" }],
    [press("Digit7"), idle, undefined],
    [press("Digit2", { key: "@" }), active, { do: "type", text: "@" }],
    [press("KeyD"), { ...active, open: true }, { do: "type", text: "d" }], // 26d: no bank while an entry is open
    [press("Space", { key: " " }), { ...active, open: true }, { do: "type", text: " " }],
    [press("Backspace"), { ...active, open: true }, { do: "rub" }],
    [press("Enter"), { ...active, open: true }, { do: "finish" }],
    [press("ArrowDown"), { ...active, open: true }, { do: "reading", which: "other" }],
    [press("ArrowDown"), active, { do: "cursor", dx: 0, dy: -1, how: "grid" }],
    [press("ArrowLeft", { shift: true }), idle, { do: "cursor", dx: -1, dy: 0, how: "fine" }],
    [press("ArrowUp", { command: true }), idle, { do: "cursor", dx: 0, dy: 1, how: "coarse" }],
    [press("ArrowRight", { alt: true }), active, { do: "cursor", dx: 1, dy: 0, how: "pan" }],
    [press("PageDown"), active, { do: "near", by: 1 }],
    [press("Enter"), { ...active, cursor: true }, { do: "click" }],
    [press("Enter", { command: true }), { ...active, cursor: true }, { do: "finish" }],
    [press("Equal", { key: "+" }), active, { do: "zoom", factor: 1.25 }],
    [press("Minus", { key: "-" }), idle, { do: "zoom", factor: 1 / 1.25 }],
    [press("KeyE"), idle, { do: "bank", key: "KeyE" }],
    [press("KeyE"), { ...active, bank: true }, { do: "place", key: "KeyE" }],
    [press("KeyD", { key: "δ" }), idle, { do: "bank", key: "KeyD" }], // by place, whatever is printed on the key
    [press("Space", { key: " " }), active, { do: "next" }],
    [press("Space", { key: " ", shift: true }), active, { do: "next-under" }],
    [press("Enter"), active, { do: "finish" }],
    [press("Enter"), idle, { do: "again" }],
    [press("Tab", { shift: true }), active, { do: "next-blank", backwards: true }],
    [press("Backspace"), active, { do: "back" }],
    [press("Delete"), active, { do: "clear-blank" }],
    [press("Delete"), idle, { do: "delete" }],
    [press("Escape"), active, { do: "escape" }],
    [press("Backquote", { key: "`" }), active, { do: "swap-choice" }],
    [press("Backquote", { key: "~", shift: true }), active, { do: "next-choice" }],
    [press("KeyA", { command: true }), active, { do: "select-all" }],
    [press("KeyZ", { command: true }), active, { do: "undo" }],
    [press("KeyZ", { command: true, shift: true }), active, { do: "redo" }],
    [press("KeyY", { command: true }), idle, { do: "redo" }],
    [press("KeyK", { command: true }), idle, { do: "finder" }],
    [press("KeyS", { command: true }), idle, { do: "save" }],
    [press("KeyP", { command: true }), idle, undefined],
    [press("F6", { key: "F6" }), active, { do: "region", backwards: false }],
  ])("%j", (key, standing, action) => expect(keyAction(key, standing)).toEqual(action));
});

describe("the registry", () => {
  it("gives every tool a place of its own, the first of a bank on the bank's own key", () => {
    expect(new Set(REGISTRY.map(({ id }) => id)).size).toBe(REGISTRY.length);
    for (const bank of BANK_KEYS) {
      const members = REGISTRY.filter((one) => one.bank === bank);
      const places = bankPlaces(bank);
      expect([...places.values()]).toEqual(members);
      expect(places.get(bank)).toBe(members[0]);
    }
  });

  it("says of every tool what it needs, and its blanks have names of their own", () => {
    for (const one of REGISTRY) {
      expect(one.help).toMatch(/\.$/);
      if (one.kind !== "tool") continue;
      const names = one.parts.flatMap((part) => (part.kind === "words" ? [] : part.name));
      expect(new Set(names).size).toBe(names.length);
      expect(toolById(one.id)).toBe(one);
    }
  });
});
