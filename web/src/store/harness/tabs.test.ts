import "fake-indexeddb/auto";
import fc from "fast-check";
import { expect, it } from "vitest";
import { entitiesOf } from "@ash-edge/core/drawing";
import { ChangedElsewhere, loadJob, openDatabase, storeStep, type Database } from "../index.ts";
import { afterEdit, afterWalk, circleEdit, contentOf, FULL, newJob, type Tab } from "./drawnJob.ts";

type Move = { readonly tab: number; readonly does: "draw" | "undo" | "redo" | "reopen" };

/** A tab that may be outdated: what it shows, what its next step must follow, and a name of its own. */
type Open = { shown: Tab; token: number; readonly by: string };

/** Everything of a job that its store holds, as it opens. */
const openedAgain = async (database: Database, id: string): Promise<Tab> => (await loadJob(database, id))!;

/**
 * Two and three tabs without a lock between them, as in a browser that has none: each step is stored only where it
 * follows what its tab knows, so that the store is always what one line of accepted steps makes of it.
 */
it(
  "tabs in any order: no accepted step is lost, no number given twice, and an outdated tab is always told",
  { timeout: 300_000 },
  async () => {
    let [runs, refused, accepted] = [0, 0, 0];
    const moves = fc.integer({ min: 2, max: 3 }).chain((tabs) =>
      fc.array(
        fc.record({
          tab: fc.nat(tabs - 1),
          does: fc.constantFrom<Move["does"]>("draw", "draw", "draw", "undo", "redo", "reopen"),
        }),
        { minLength: 4, maxLength: 30 },
      ),
    );
    await fc.assert(
      fc.asyncProperty(moves, async (all) => {
        const database = openDatabase(`tabs-${++runs}`);
        const { id, stored } = await newJob(database);
        const tabs = [0, 1, 2].map((n): Open => ({ shown: stored, token: stored.token, by: `tab ${n}` }));
        let model: Tab = stored; // what the line of accepted steps makes
        const given = new Map<number, string>(); // every circle's number, and which it was
        for (const { tab: n, does } of all) {
          const tab = tabs[n]!;
          if (does === "reopen") {
            const opened = (await loadJob(database, id))!;
            Object.assign(tab, { shown: opened, token: opened.token });
            expect(contentOf(tab.shown)).toBe(contentOf(model));
            continue;
          }
          const edit = does === "draw" ? circleEdit(tab.shown.drawing, 1 + given.size) : undefined;
          const next = edit ? afterEdit(tab.shown, edit) : afterWalk(tab.shown, does === "undo" ? -1 : 1);
          if (!next) continue;
          const outdated =
            contentOf(tab.shown) !== contentOf(model) || tab.token !== (await database.heads.get(id))!.token;
          try {
            const follows = { token: tab.token, by: tab.by };
            tab.token = await storeStep(database, { job: id, ...next, ...(edit ? { edit } : {}) }, follows);
            expect(outdated).toBe(false);
            accepted += 1;
            tab.shown = model = next;
            for (const { id: number } of edit ? edit.changes : []) {
              expect(given.has(number)).toBe(false);
              given.set(number, `${n}`);
            }
          } catch (reason) {
            if (!(reason instanceof ChangedElsewhere)) throw reason;
            expect(outdated).toBe(true);
            refused += 1;
          }
          expect(contentOf(await openedAgain(database, id))).toBe(contentOf(model));
        }
        const ids = [...entitiesOf((await openedAgain(database, id)).drawing)].map((one) => one.id);
        expect(new Set(ids).size).toBe(ids.length);
        await database.delete();
      }),
      { numRuns: FULL ? 1000 : 60 },
    );
    expect(refused).toBeGreaterThan(runs / 2);
    console.info(`tabs: ${runs} interleavings, ${accepted} steps accepted, ${refused} refused`);
  },
);
