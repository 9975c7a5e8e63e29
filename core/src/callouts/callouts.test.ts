import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { applyEdit, calloutsOf, drawingText, invertEdit, newDrawing, PROFILE_LAYER } from "../drawing/index.ts";
import { draftEdit, setGeneralTolerance } from "../edits/index.ts";
import {
  addCallout,
  changeCallout,
  measureCallout,
  readCallout,
  removeCallout,
  writtenCallout,
  type WrittenCallout,
} from "./index.ts";

const read = (text: string, unit: "mm" | "in" = "mm"): WrittenCallout | string => {
  const outcome = readCallout(text, unit);
  return outcome.ok ? outcome.value : outcome.refusal.code;
};

describe("callouts as they are written down", () => {
  it.each([
    ["26 d bore", { kind: "diameter", value: 26, name: "bore" }],
    ["d26 bore", { kind: "diameter", value: 26, name: "bore" }],
    ["r12.5 corner, 4 off", { kind: "radius", value: 12.5, name: "corner, 4 off" }],
    ["69 slot above centre", { kind: "centres", value: 69, name: "slot above centre" }],
    ["1380 width", { kind: "length", value: 1380, name: "width" }],
    ["45° chamfer", { kind: "angle", value: 45, name: "chamfer" }],
    ["3 x holes", { kind: "count", value: 3, name: "holes" }],
    ["4 off", { kind: "count", value: 4, name: "" }],
    ["M6 tapped", { kind: "thread", value: 6, thread: "M6", name: "tapped" }],
    ["m20x1.5", { kind: "thread", value: 20, thread: "M20x1.5", name: "" }],
    ["12.5 ±0.1 wall", { kind: "length", value: 12.5, name: "wall", tolerance: 0.1 }],
    ["14 d +-0.05 holes", { kind: "diameter", value: 14, name: "holes", tolerance: 0.05 }],
    ["20 +0.2 -0 key", { kind: "length", value: 20, name: "key", limits: { low: 0, high: 0.2 } }],
    ["r8 +0.1/-0.05 corner", { kind: "radius", value: 8, name: "corner", limits: { low: -0.05, high: 0.1 } }],
    ["17..18 core", { kind: "length", value: 17.5, name: "core", limits: { low: -0.5, high: 0.5 } }],
    ["ø17..18 core", { kind: "diameter", value: 17.5, name: "core", limits: { low: -0.5, high: 0.5 } }],
  ])("%s", (text, expected) => expect(read(text)).toEqual(expected));

  it.each([
    ["1-3/16d big hole", { kind: "diameter", value: 1.1875, name: "big hole" }],
    ["6 5/8 centres", { kind: "centres", value: 6.625, name: "centres" }],
    ["3/8-16 tapped", { kind: "thread", value: 0.375, thread: "3/8-16", name: "tapped" }],
    ["10mm slot", { kind: "length", value: 10 / 25.4, name: "slot" }],
  ])("in inches: %s", (text, expected) => expect(read(text, "in")).toEqual(expected));

  it.each([
    ["", "value-empty"],
    ["bore", "value-unreadable"],
    ["0 gap", "value-not-positive"],
    ["12 ±x", "value-unreadable"],
    ["12 ±0", "value-not-positive"],
    ["12 +0 -0", "value-not-positive"],
    ["18..17 core", "value-not-positive"],
  ])("refuses %j: %s", (text, code) => expect(read(text)).toBe(code));

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
          const again = readCallout(writtenCallout({ ...written, id: 1, links: [] }, unit), unit);
          expect(again.ok && again.value).toEqual(written);
        },
      ),
    );
  });

  it("are edits: undo covers writing, changing and removing", () => {
    const start = newDrawing("mm");
    const first = applyEdit(
      start,
      addCallout(start, { kind: "length", value: 5, name: "wall" }, { sketch: "a", x: 0.5, y: 0.25 }),
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
