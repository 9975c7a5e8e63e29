import "fake-indexeddb/auto";
import { expect, it } from "vitest";
import {
  applyEdit,
  drawingText,
  entitiesOf,
  LAYOUT_LAYER,
  PROFILE_LAYER,
  UnsoundEdit,
  type Drawing,
  type Edit,
} from "@ash-edge/core/drawing";
import { draftEdit, removeEntities } from "@ash-edge/core/edits";
import { renewedShape } from "@ash-edge/core/shape";
import { REGISTRY, type Tool } from "@ash-edge/tools";
import { carryOut } from "@ash-edge/tools/example/carryOut";
import type { Example } from "@ash-edge/tools/example/example";
import { loadJob, makeKeeper, openDatabase } from "../index.ts";
import { afterEdit, afterWalk, contentOf, FULL, newJob, randomBy, type Tab } from "./drawnJob.ts";

const TOOLS = REGISTRY.flatMap((one) => (one.kind === "tool" ? one : []));

/** A drawing is thinned out when it has grown beyond this, so that tools keep meeting other things than their own. */
const CROWDED = 40;

/** A tool's example with other choices, clicks somewhat off, and other numbers: what it is not made for. */
const varied = (tool: Tool, random: () => number): Example => {
  const { example } = tool;
  const chosen: Record<string, string> = { ...example.chosen };
  for (const part of tool.parts)
    if (part.kind === "choice" && random() < 0.3)
      chosen[part.name] = part.options[Math.floor(random() * part.options.length)]![0];
  const off = (): number => (random() < 0.5 ? 0 : (random() - 0.5) * 40);
  const typed = Object.fromEntries(
    Object.entries(example.typed ?? {}).map(([blank, text]) => [
      blank,
      random() < 0.7 ? text : ["0", "-3", "1e3", "0.001", "90", "7d", "1/3"][Math.floor(random() * 7)]!,
    ]),
  );
  return {
    ...example,
    chosen,
    typed,
    ...(example.clicks ? { clicks: example.clicks.map(([x, y]) => [x + off(), y + off()] as const) } : {}),
  };
};

/** What a tool's example stands on, put beside what is there already. */
const standingOn = (drawing: Drawing, { cut = [], layout = [] }: Example): Edit => {
  const draft = draftEdit(drawing, "Shapes", "shapes");
  for (const shape of cut) draft.add(renewedShape(shape, draft.newId), PROFILE_LAYER);
  for (const shape of layout) draft.add(renewedShape(shape, draft.newId), LAYOUT_LAYER);
  return draft.finish();
};

it(
  "random uses of every tool, with undo and redo: what was stored opens as what was shown",
  { timeout: 600_000 },
  async () => {
    const uses = FULL ? 2000 : 150;
    const random = randomBy(11);
    const database = openDatabase("tool-uses");
    const { id, stored } = await newJob(database);
    let tab: Tab = stored;
    const refused: string[] = [];
    const open = (token: number) =>
      makeKeeper(database, id, token, {
        onSaved: () => undefined,
        onFailed: ({ message }) => void refused.push(message),
      });
    let keeper = open(stored.token);
    let [edits, walks, reopened] = [0, 0, 0];
    const used = new Set<string>();
    const commit = (edit: Edit): void => {
      if (edit.changes.length === 0) return;
      tab = afterEdit(tab, edit);
      keeper.keep({ job: id, ...tab, edit });
      edits += 1;
    };
    for (let use = 1; use <= uses; use++) {
      const tool = TOOLS[Math.floor(random() * TOOLS.length)]!;
      const example = varied(tool, random);
      const all = [...entitiesOf(tab.drawing)];
      if (all.length > CROWDED) {
        const removed = removeEntities(
          tab.drawing,
          all.filter(() => random() < 0.6).map((one) => one.id),
        );
        if (removed.ok) commit(removed.value);
      }
      if (random() < 0.6) commit(standingOn(tab.drawing, example));
      try {
        const made = carryOut(tool, example, undefined, tab.drawing);
        for (const edit of made.edits) commit(edit);
        if (made.edits.length > 0) used.add(tool.id);
      } catch (reason) {
        // an example may name a handle that is not there on another drawing; anything else is a fault
        if (!/^no handle at/.test((reason as Error).message) || reason instanceof UnsoundEdit)
          throw new Error(`${tool.id} ${JSON.stringify(example)}`, { cause: reason });
      }
      for (let back = Math.floor(random() * 4); back > 0 && random() < 0.5; back--) {
        const walked = afterWalk(tab, random() < 0.7 ? -1 : 1);
        if (!walked) continue;
        tab = walked;
        keeper.keep({ job: id, ...tab });
        walks += 1;
      }
      if (use % 50 > 0) continue;
      await keeper.idle();
      keeper.end();
      const again = (await loadJob(database, id))!;
      expect([again.damage, refused, contentOf(again) === contentOf(tab)]).toEqual([undefined, [], true]);
      tab = again;
      keeper = open(again.token);
      reopened += 1;
    }
    keeper.end();
    expect(used.size).toBeGreaterThan(TOOLS.length / (FULL ? 1.3 : 3));
    // the whole way from the first snapshot gives the same
    let drawing = stored.drawing;
    const whole = (await database.journal
      .where("[job+n]")
      .between([id, 0], [id, tab.history.position], true, false)
      .toArray()) as {
      edit?: Edit;
      packed?: Uint8Array;
    }[];
    for (const { edit, packed } of whole)
      drawing = applyEdit(drawing, edit ?? (JSON.parse(new TextDecoder().decode(packed)) as Edit));
    expect(drawingText(drawing) === drawingText(tab.drawing)).toBe(true);
    console.info(
      `tool uses: ${uses} of ${used.size} tools, ${edits} edits, ${walks} undone or redone, reopened ${reopened} times`,
    );
  },
);
