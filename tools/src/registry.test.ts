import { pageChanges, drawingText } from "@ash-edge/core/drawing";
import { describe, expect, it } from "vitest";
import { indexDrawing } from "@ash-edge/core/look";
import { typedParts } from "./blanks.ts";
import { stepTool, type ToolEvent } from "./driver.ts";
import { startTool, type ToolState } from "./toolState.ts";
import { carryOut, showExample } from "./example/carryOut.ts";
import { HANDLE_TOOLS, REGISTRY } from "./registry.ts";
import type { Tool, ToolContext } from "./tool.ts";

const TOOLS: readonly Tool[] = [...REGISTRY.flatMap((one) => (one.kind === "tool" ? [one] : [])), ...HANDLE_TOOLS];
const each = TOOLS.map((tool) => [tool.name, tool] as const);

const contextOf = (tool: Tool): ToolContext => {
  const { before } = showExample(tool);
  return { drawing: before, index: indexDrawing(before), unit: "mm", selection: new Set(), layer: 1 };
};

describe("every tool", () => {
  it.each(each)("%s, typed and picked as in its example, makes or says something", (_, tool) => {
    const shown = showExample(tool);
    expect(shown.said ?? "").not.toMatch(/^refused/);
    expect(shown.edits.length > 0 || Boolean(shown.ask) || Boolean(shown.said)).toBe(true);
    const edit = shown.edits.at(-1);
    if (edit && !edit.changes.some(({ table }) => table !== "entity"))
      expect([...pageChanges(shown.before.entity, shown.after.entity)].length).toBeGreaterThan(0);
    expect(tool.help.length).toBeGreaterThan(30);
  });

  it.each(each)("%s refuses in each of its blanks what is no value, and keeps the text", (_, tool) => {
    const context = contextOf(tool);
    const start = startTool(tool, { choices: tool.example.chosen ?? {} });
    for (const part of typedParts(tool)) {
      // a text takes what it has letters for
      if (part.kind === "text") continue;
      const typed = stepTool(tool, start, { type: "type", blank: part.name, text: "1/x" }, context).state;
      const { state, refusal, edit } = stepTool(tool, typed, { type: "hold" }, context);
      expect([part.name, refusal !== undefined, state.open?.text, edit]).toEqual([part.name, true, "1/x", undefined]);
      if (part.kind !== "size") continue;
      const nothing = stepTool(tool, start, { type: "type", blank: part.name, text: "0" }, context).state;
      expect(stepTool(tool, nothing, { type: "hold" }, context).refusal?.code).toBe("value-not-positive");
    }
  });

  it.each(each)("%s makes nothing where there is nothing, by a click or by Enter", (_, tool) => {
    const context = contextOf(tool);
    const before = drawingText(context.drawing);
    const start = startTool(tool, { choices: tool.example.chosen ?? {} });
    const hover = { at: { x: 9000, y: 9000 }, under: [] };
    const finished = stepTool(tool, start, { type: "finish", hover: undefined }, context);
    expect(finished.edit === undefined || ALONE.has(tool.id)).toBe(true);
    const first = tool.parts.find((part) => part.kind === "pick");
    if (first?.kind === "pick" && ["curve", "things", "picture"].includes(first.takes)) {
      const clicked = stepTool(tool, start, { type: "click", hover }, context);
      expect([clicked.edit, clicked.state.picks]).toEqual([undefined, {}]);
    }
    expect(drawingText(context.drawing)).toBe(before);
  });

  it.each(each)("%s drops nothing that was picked or typed, whatever is refused in the middle", (_, tool) => {
    carryOut(tool, tool.example, (state, context) => {
      const nowhere = { at: { x: 9000, y: 9000 }, under: [] };
      const blanks = typedParts(tool, state.choices);
      const events: ToolEvent[] = [
        { type: "finish", hover: undefined },
        { type: "finish", hover: nowhere },
        { type: "click", hover: nowhere },
        { type: "hold" },
        ...blanks.map(({ name }) => ({ type: "light", blank: name }) as const),
      ];
      for (const event of events)
        // with a size that can't be, too: what is refused then is the size
        for (const typed of [undefined, ...blanks.filter(({ kind }) => kind === "size").map(({ name }) => name)]) {
          const start: ToolState =
            typed === undefined
              ? state
              : { ...state, entries: { ...state.entries, [typed]: { text: "1e8", value: 1e8 } } };
          const step = stepTool(tool, start, event, context);
          if (step.edit || step.ask || (!step.refusal && step.state.said)) continue;
          expect([event.type, Object.keys(step.state.picks)]).toEqual([
            event.type,
            expect.arrayContaining(Object.keys(start.picks)),
          ]);
          expect([event.type, Object.keys(step.state.entries)]).toEqual([
            event.type,
            expect.arrayContaining(Object.keys(start.entries)),
          ]);
        }
    });
  });

  it("has a name, an id and a key of its own", () => {
    for (const name of ["id", "name"] as const)
      expect(new Set(REGISTRY.map((one) => one[name])).size).toBe(REGISTRY.length);
    expect(new Set(REGISTRY.map(({ bank, place }) => `${bank} ${place}`)).size).toBe(REGISTRY.length);
    for (const { bank } of REGISTRY) expect(REGISTRY.some((one) => one.bank === bank && one.place === bank)).toBe(true);
  });
});

/** Tools that need nothing picked or typed: Enter makes what they make of all there is. */
const ALONE: ReadonlySet<string> = new Set(["join"]);
