import "fake-indexeddb/auto";
import { expect, it } from "vitest";
import { loadJob, makeKeeper, openDatabase, sayStoreFault } from "../index.ts";
import { afterEdit, afterWalk, circleEdit, contentOf, FULL, newJob, randomBy, type Tab } from "./drawnJob.ts";

/**
 * Where the browser can refuse: any call that writes, and the end of the transaction. The fault counts down the calls
 * and strikes at the one it is set to.
 */
const faults = (() => {
  let left = Infinity;
  let how: "quota" | "abort" | "unknown" = "quota";
  let struck = false;
  const strike = (store: IDBObjectStore | undefined): void => {
    if (--left !== 0) return;
    struck = true;
    if (how === "abort") store?.transaction.abort();
    throw new DOMException("", how === "quota" ? "QuotaExceededError" : "UnknownError");
  };
  for (const name of ["put", "add", "delete"] as const) {
    const own = IDBObjectStore.prototype[name] as (...args: unknown[]) => IDBRequest;
    (IDBObjectStore.prototype as unknown as Record<string, unknown>)[name] = function (
      this: IDBObjectStore,
      ...args: unknown[]
    ) {
      strike(this);
      return own.apply(this, args);
    };
  }
  const open = IDBDatabase.prototype.transaction;
  IDBDatabase.prototype.transaction = function (this: IDBDatabase, ...args) {
    const [, mode] = args;
    if (mode === "readwrite") strike(undefined);
    const transaction = open.apply(this, args);
    // what is full is often told only at the end, when all its calls have succeeded
    if (mode === "readwrite") {
      const commit = transaction.commit.bind(transaction);
      transaction.commit = () => {
        if (--left === 0) {
          struck = true;
          return transaction.abort();
        }
        return commit();
      };
    }
    return transaction;
  };
  return {
    at: (calls: number, kind: typeof how) => void ([left, how, struck] = [calls, kind, false]),
    off: () => void (left = Infinity),
    struck: () => struck,
  };
})();

it(
  "whatever write fails, a reopened job is what was last said saved, and storing goes on",
  { timeout: 300_000 },
  async () => {
    const steps = FULL ? 200 : 40;
    const random = randomBy(7);
    const database = openDatabase("write-faults");
    const { id, stored } = await newJob(database);
    let tab: Tab = stored;
    let said = contentOf(tab);
    let struck = 0;
    const words = new Set<string>();
    let failed = false;
    const keeper = makeKeeper(database, id, stored.token, {
      onSaved: () => ((failed = false), (said = contentOf(tab))),
      onFailed: (reason) => ((failed = true), words.add(sayStoreFault(reason))),
    });
    for (let step = 0; step < steps; step++) {
      const roll = random();
      const walked = roll < 0.25 ? afterWalk(tab, -1) : roll < 0.4 ? afterWalk(tab, 1) : undefined;
      const edit = walked ? undefined : circleEdit(tab.drawing, 1 + random());
      tab = walked ?? afterEdit(tab, edit!);
      let first = true;
      // every call of the step in turn, until one goes through without being struck
      for (let call = 1; ; call++) {
        faults.at(call, (["quota", "abort", "unknown"] as const)[(step + call) % 3]!);
        if (first) keeper.keep({ job: id, ...tab, ...(edit ? { edit } : {}) });
        else keeper.again();
        first = false;
        await keeper.idle();
        const hit = faults.struck();
        faults.off();
        if (!hit) break;
        struck += 1;
        // a page that is opened now, from the same disk
        const opened = openDatabase("write-faults");
        const again = (await loadJob(opened, id))!;
        opened.close();
        expect([again.damage, contentOf(again)]).toEqual([undefined, said]);
      }
      expect(failed).toBe(false);
      expect(said).toBe(contentOf(tab));
    }
    const again = (await loadJob(database, id))!;
    expect(contentOf(again)).toBe(contentOf(tab));
    expect([...words].every((sentence) => /^[A-Z].*\.$/.test(sentence) && !/Error|undefined/.test(sentence))).toBe(
      true,
    );
    expect(struck).toBeGreaterThan(3 * steps);
    console.info(`write faults: ${struck} struck in ${steps} steps`);
    keeper.end();
  },
);
