import fc from "fast-check";
import { expect, it } from "vitest";
import { keptOf } from "./kept.ts";
import { NOTHING_KEPT } from "./state/index.ts";

it("whatever was kept, each part is what it should be or as at first, and what was lost is named", () => {
  const names = Object.keys(NOTHING_KEPT) as (keyof typeof NOTHING_KEPT)[];
  fc.assert(
    fc.property(fc.dictionary(fc.constantFrom<string>(...names, "other"), fc.jsonValue({ maxDepth: 3 })), (stored) => {
      const { kept, lost } = keptOf(stored);
      for (const name of names)
        expect(kept[name]).toEqual(
          Object.hasOwn(stored, name) && !lost.includes(name) ? stored[name] : NOTHING_KEPT[name],
        );
      expect(keptOf(kept)).toEqual({ kept, lost: [] });
    }),
  );
  for (const stored of [undefined, null, 5, "x", [], new Map()])
    expect(keptOf(stored)).toEqual({ kept: NOTHING_KEPT, lost: [] });
});
