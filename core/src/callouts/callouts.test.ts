import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { applyEdit, calloutsOf, drawingText, invertEdit, newDrawing, PROFILE_LAYER } from "../drawing/index.ts";
import { draftEdit, setGeneralTolerance } from "../edits/index.ts";
import { addCallouts, changeCallout, measureCallout, readLedgerLine, removeCallout, writtenCallout } from "./index.ts";

describe("callouts as they are written down", () => {
  it("are written back as what reads the same", () => {
    const kinds = fc.constantFrom("length" as const, "centres" as const, "diameter" as const, "radius" as const);
    fc.assert(
      fc.property(
        kinds,
        fc.double({ min: 0.01, max: 2000, noNaN: true }),
        fc.constantFrom("mm" as const, "in" as const),
        fc.boolean(),
        (kind, value, unit, tolerant) => {
          const name = kind === "centres" ? "boss centres" : "wall";
          const written = { kind, value, name, ...(tolerant ? { tolerance: 0.125 } : {}) };
          const again = readLedgerLine(writtenCallout(written, unit), unit);
          expect(again.ok && again.value.callouts).toEqual([written]);
        },
      ),
    );
  });

  it("are edits: undo covers writing, changing and removing", () => {
    const start = newDrawing("mm");
    const first = applyEdit(
      start,
      addCallouts(start, [{ kind: "length", value: 5, name: "wall" }], { sketch: "a", x: 0.5, y: 0.25 }),
    );
    const [callout] = calloutsOf(first);
    const change = changeCallout(first, callout!.id, { kind: "radius", value: 6, name: "corner" })!;
    const second = applyEdit(first, change);
    expect(calloutsOf(second)).toMatchObject([{ kind: "radius", value: 6, pin: { x: 0.5 } }]);
    const third = applyEdit(second, removeCallout(second, callout!.id)!);
    expect(calloutsOf(third)).toEqual([]);
    expect(removeCallout(third, callout!.id)).toBeUndefined();
    expect(drawingText(applyEdit(second, invertEdit(change)))).toBe(drawingText(first));
  });

  it("are within their own limits, else within the job's general tolerance, and true only to 1e-6", () => {
    const state = (limits: { low: number; high: number } | undefined, general: number | undefined, radius: number) => {
      let drawing = newDrawing("mm", [{ kind: "diameter", value: 20, name: "key", ...(limits ? { limits } : {}) }]);
      if (general !== undefined) drawing = applyEdit(drawing, setGeneralTolerance(drawing, general));
      const draft = draftEdit(drawing, "Draw", "draw");
      const id = draft.add({ kind: "circle", centre: { x: 0, y: 0 }, radius }, PROFILE_LAYER);
      draft.link(calloutsOf(drawing)[0]!.id, [{ id }]);
      const after = applyEdit(drawing, draft.finish());
      return measureCallout(after, calloutsOf(after)[0]!).state;
    };
    expect([10, 10.05, 10.1, 9.99, 10.11].map((radius) => state({ low: 0, high: 0.2 }, 5, radius))).toEqual([
      "true",
      "within",
      "within",
      "off",
      "off",
    ]);
    expect([undefined, 0.05, 0.2].map((general) => state(undefined, general, 10.05))).toEqual(["off", "off", "within"]);
  });
});
