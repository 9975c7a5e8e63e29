import { describe, expect, it } from "vitest";
import { pageChanges } from "@ash-edge/core/drawing";
import { HANDLE_TOOLS, REGISTRY } from "@ash-edge/tools";
import { showExample } from "./examples.ts";

const tools = [...REGISTRY.filter((one) => one.kind === "tool"), ...HANDLE_TOOLS];

describe("every tool's help page", () => {
  it.each(tools.map((tool) => [tool.name, tool] as const))("%s shows what it makes", (_, tool) => {
    const shown = showExample(tool);
    expect(shown).toBeDefined();
    expect(shown!.said ?? "").not.toMatch(/^refused/);
    expect(Boolean(shown!.edit) || Boolean(shown!.ask) || Boolean(shown!.said)).toBe(true);
    if (shown!.edit && !shown!.edit.changes.some(({ table }) => table !== "entity"))
      expect([...pageChanges(shown!.before.entity, shown!.after.entity)].length).toBeGreaterThan(0);
    expect(tool.help.length).toBeGreaterThan(30);
  });

  it("each has a name and a place of its own", () => {
    expect(new Set(REGISTRY.map(({ id }) => id)).size).toBe(REGISTRY.length);
    expect(new Set(REGISTRY.map(({ name }) => name)).size).toBe(REGISTRY.length);
    for (const bank of new Set(REGISTRY.map(({ bank: own }) => own)))
      expect(REGISTRY.filter((one) => one.bank === bank).length).toBeLessThanOrEqual(15);
  });
});
