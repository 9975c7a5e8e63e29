import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { placeOf } from "../attach/places.ts";
import { applyEdit } from "../drawing/edit.ts";
import { isRef } from "../drawing/rows.ts";
import { setDatum } from "../edits/layers/settings.ts";
import { distance } from "../geometry/point.ts";
import { randomFrom } from "../testing/contours.ts";
import { pickFrom, randomDrawing } from "../testing/randomEdits.ts";
import { indexDrawing } from "./drawingIndex.ts";
import { SNAP_KINDS, snapsAt, type SnapKind } from "./snaps.ts";

describe("snaps", () => {
  it("of every kind but the grid are places that can be stored and measured again", () => {
    const met = new Set<SnapKind>();
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 2 ** 30 }), (seed) => {
        const random = randomFrom(seed);
        const drawn = randomDrawing(random);
        const drawing = applyEdit(drawn, setDatum(drawn, { x: 3.3, y: -2.1 }));
        const index = indexDrawing(drawing);
        for (let i = 0; i < 8; i++) {
          const at = i === 0 ? { x: 3.4, y: -2 } : pickFrom(drawing, random)!.at;
          const from = { x: at.x + 30 * random() - 15, y: at.y + 20 };
          for (const snap of snapsAt(index, at, 12, { from, grid: 7 })) {
            met.add(snap.kind);
            if (snap.kind === "grid") continue;
            expect([snap.kind, isRef(snap.ref)]).toEqual([snap.kind, true]);
            expect(distance(placeOf(drawing, snap.ref!)!, snap.at)).toBeLessThan(1e-7);
          }
        }
      }),
      { numRuns: 60, seed: 3 },
    );
    expect(SNAP_KINDS.filter((kind) => !met.has(kind))).toEqual([]);
  });
});
