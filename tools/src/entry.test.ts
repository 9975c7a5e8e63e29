import { describe, expect, it } from "vitest";
import { applyEdit, calloutsOf, newDrawing, type Callout, type Drawing } from "@ash-edge/core/drawing";
import { indexDrawing } from "@ash-edge/core/look";
import { typedParts } from "./blanks.ts";
import { stepTool, type ToolEvent } from "./driver.ts";
import { givenOf, takesPoint, wantedPick } from "./given.ts";
import { blankForCallout, litOf, nextStop } from "./lit.ts";
import { note } from "./dimensions/note.ts";
import { HANDLE_TOOLS, REGISTRY } from "./registry.ts";
import type { Tool, ToolContext } from "./tool.ts";
import { startTool, type ToolState } from "./toolState.ts";

const TOOLS: readonly Tool[] = [...REGISTRY.flatMap((one) => (one.kind === "tool" ? [one] : [])), ...HANDLE_TOOLS];

/** Callouts of every kind, three of each, so that any blank finds one that fits and another that must not take it. */
const CALLED: readonly Pick<Callout, "kind" | "value" | "name">[] = (
  ["length", "centres", "radius", "diameter", "angle", "count"] as const
).flatMap((kind) => [5, 6, 7].map((value) => ({ kind, value, name: `${kind} ${value}` })));
const drawing: Drawing = newDrawing("mm", CALLED);
const context: ToolContext = {
  drawing,
  index: indexDrawing(drawing),
  unit: "mm",
  selection: new Set(),
  layer: 1,
};

/** A tool at work by the events that keys send. */
const atWork = (tool: Tool, choices: Readonly<Record<string, string>> = {}) => {
  let state: ToolState = startTool(tool, { choices });
  let now = context;
  const send = (event: ToolEvent): void => {
    const step = stepTool(tool, state, event, now);
    state = step.state;
    if (step.edit) {
      const next = applyEdit(now.drawing, step.edit);
      now = { ...now, drawing: next, index: indexDrawing(next) };
    }
  };
  const type = (text: string): void => [...text].forEach((character) => send({ type: "key", text: character }));
  return {
    type,
    send,
    enter: () => send({ type: "finish", hover: undefined }),
    tab: (backwards = false) => send({ type: "tab", backwards }),
    state: () => state,
    lit: () => litOf(tool, state, now)?.name,
    values: () => Object.fromEntries(Object.entries(state.entries).map(([name, { value }]) => [name, value])),
  };
};

/** Every tool under every way its choices can show and hide its blanks: one choice moved off its first at a time. */
const cases = TOOLS.flatMap((tool) => {
  const first = startTool(tool).choices;
  const settings = [
    {},
    ...tool.parts.flatMap((part) =>
      part.kind === "choice" ? part.options.slice(1).map(([to]) => ({ ...first, [part.name]: to })) : [],
    ),
  ];
  return settings.map((choices) => ({
    tool,
    choices,
    name: `${tool.name} ${Object.values(choices).join(" ")}`.trim(),
    blanks: typedParts(tool, { ...first, ...choices }),
  }));
});
const typed = cases.filter(({ blanks }) => blanks.length > 0);
/** What a blank takes that no other blank is given: its place in the sentence plus 2, for a thread one that exists. */
const valueOf = (part: (typeof typed)[number]["blanks"][number], i: number): string =>
  part.kind === "thread" ? "M8" : String(i + 2);
const wantsPoint = (tool: Tool, state: ToolState): boolean => {
  const wanted = wantedPick(tool, state, givenOf(tool, state, undefined, context));
  return wanted !== undefined && takesPoint(wanted);
};

describe("what is typed lands in what is lit", () => {
  it.each(typed)("$name: each blank in the order of the sentence, by Enter and by Tab", ({ tool, choices, blanks }) => {
    for (const held of ["enter", "tab"] as const) {
      const work = atWork(tool, choices);
      for (const [i, part] of blanks.entries()) {
        // blanks that show a value of their own are not asked for: they are lit by Tab
        if (held === "enter" && part.kind === "value" && part.given !== undefined) continue;
        for (let n = 0; work.lit() !== part.name && n < 12; n++) work.tab();
        expect([i, work.lit()]).toEqual([i, part.name]);
        work.type(valueOf(part, i));
        expect(work.state().open).toMatchObject({ blank: part.name });
        if (held === "enter") work.enter();
        else work.tab();
        expect(work.state().entries[part.name]?.text).toBe(valueOf(part, i));
      }
      // nothing was overwritten on the way
      for (const [i, part] of blanks.entries())
        if (part.name in work.state().entries) expect(work.state().entries[part.name]!.text).toBe(valueOf(part, i));
    }
  });

  it.each(typed)("$name: size then point, point then size", ({ tool, choices, blanks }) => {
    const [part] = blanks;
    const then = atWork(tool, choices);
    if (!wantsPoint(tool, then.state()))
      return expect(then.lit()).toBe(blanks.find(({ name }) => name === then.lit())?.name);
    then.type(valueOf(part!, 0));
    const first = then.lit()!;
    then.enter();
    if (!wantsPoint(tool, then.state())) return; // the number stands for the point
    const before = then.values();
    const picks = Object.keys(then.state().picks).length;
    // Tab until the point's own x is lit, then its digits: they never touch a size
    for (let n = 0; then.lit() !== "place x" && n < 24; n++) then.tab();
    expect(then.lit()).toBe("place x");
    then.type("80");
    then.tab();
    then.type("75");
    then.enter();
    expect(then.values()).toEqual({ ...before, "place x": 80, "place y": 75 });
    then.enter();
    expect(Object.keys(then.state().picks).length >= picks).toBe(true);

    const other = atWork(tool, choices);
    other.type("80;75");
    other.enter();
    const [picked] = Object.values(other.state().picks);
    if (picked) expect(picked.at).toEqual({ x: 80, y: 75 });
    const kept = other.state().picks;
    if (!other.state().fresh) {
      for (let n = 0; other.lit() !== first && n < 12; n++) other.tab();
      if (other.lit() === first) {
        other.type(valueOf(part!, 0));
        other.enter();
        expect(other.state().entries[first]?.text).toBe(valueOf(part!, 0));
        expect(other.state().picks).toEqual(kept);
      }
    }
  });

  it.each(typed)("$name: callouts in order fill empty blanks, never a filled one", ({ tool, choices, blanks }) => {
    const work = atWork(tool, choices);
    const filled = new Map<string, number>();
    for (const callout of calloutsOf(drawing)) {
      const { blank } = blankForCallout(tool, work.state(), callout, context);
      if (blank === undefined) continue;
      expect([callout.name, filled.has(blank)]).toEqual([callout.name, false]);
      filled.set(blank, callout.value);
      work.send({
        type: "fill",
        blank,
        entry: { text: String(callout.value), value: callout.value, callout: callout.id },
      });
    }
    expect(work.values()).toEqual(Object.fromEntries(filled));
    // every blank that takes a number some callout calls was reached
    const reached = blanks.filter(({ kind }) => kind === "size" || kind === "value");
    const counts = (kind: string): number =>
      reached.filter((part) => (part.kind === "size" ? "size" : part.kind === "value" ? part.expects : "") === kind)
        .length;
    const expected = Math.min(6, counts("size")) + Math.min(6, counts("length")) + Math.min(3, counts("angle"));
    expect(filled.size).toBe(expected + Math.min(3, counts("count")));
    // a filled one is replaced only when it was lit by hand
    const [name] = filled.keys();
    if (name === undefined) return;
    const part = blanks.find((one) => one.name === name)!;
    const kind =
      part.kind === "size" ? "diameter" : part.kind === "value" ? (part.expects as Callout["kind"]) : "count";
    if (counts(part.kind === "size" ? "size" : kind) > 3) return;
    work.send({ type: "light", blank: name });
    expect(blankForCallout(tool, work.state(), { kind }, context).blank).toBe(name);
  });

  it.each(typed)("$name: rubbed out, let go and typed again in the middle", ({ tool, choices, blanks }) => {
    const work = atWork(tool, choices);
    const first = work.lit()!;
    work.type("25");
    work.send({ type: "rub" });
    expect(work.state().open).toMatchObject({ text: "2" });
    work.send({ type: "revert" });
    expect([work.state().open, work.values()]).toEqual([undefined, {}]);
    const part = blanks.find(({ name }) => name === first);
    if (!part) return;
    work.send({ type: "light", blank: first });
    // no number, or, of a text, a letter that the lettering lacks
    const unreadable = part.kind === "text" ? "≥" : "1/x";
    work.type(unreadable);
    work.tab();
    // refused: it stays open and lit, whatever is lit next
    work.send({ type: "light", blank: blanks.at(-1)!.name });
    expect(work.state().open).toEqual({ blank: first, text: unreadable });
    expect(work.lit()).toBe(first);
  });

  it("the words of a note may hold what would be a point elsewhere", () => {
    const work = atWork(note, {});
    work.type("1; <deburr> @ 2<45");
    work.send({ type: "hold" });
    expect([work.state().entries.text?.text, work.state().placing]).toEqual(["1; <deburr> @ 2<45", undefined]);
  });

  it("Tab goes round and round the sentence, each stop once, and back the same way", () => {
    for (const { tool, choices, name } of typed) {
      let state = startTool(tool, { choices });
      const round: string[] = [];
      for (let n = 0; n < 40; n++) {
        const to = nextStop(tool, state, context, false);
        expect([name, to]).not.toEqual([name, undefined]);
        state = stepTool(tool, state, { type: "tab", backwards: false }, context).state;
        if (round.includes(to!)) break;
        round.push(to!);
      }
      const back: string[] = [];
      for (let n = 0; n < round.length; n++) {
        state = stepTool(tool, state, { type: "tab", backwards: true }, context).state;
        back.push(litOf(tool, state, context)!.name);
      }
      for (const part of typedParts(tool, state.choices)) {
        expect([name, round.includes(part.name)]).toEqual([name, true]);
        expect([name, back.includes(part.name)]).toEqual([name, true]);
      }
    }
  });
});

describe("choices by keys", () => {
  it("every choice of every tool is gone to and swapped through all its options", () => {
    for (const { tool, choices, name } of cases) {
      const work = atWork(tool, choices);
      const shown = tool.parts.filter(
        (part) => part.kind === "choice" && (!part.onlyIf || part.onlyIf(work.state().choices)),
      );
      for (const part of shown) {
        if (part.kind !== "choice") continue;
        for (let n = 0; n < 30 && work.state().swaps !== part.name; n++) work.send({ type: "next choice" });
        const seen = new Set<string>();
        for (let n = 0; n < part.options.length; n++) {
          work.send({ type: "swap" });
          seen.add(work.state().choices[part.name]!);
        }
        expect([name, part.name, seen.size]).toEqual([name, part.name, part.options.length]);
      }
    }
  });
});
