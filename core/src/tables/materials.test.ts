import { expect, it } from "vitest";
import { findMaterial, weightOf } from "./index.ts";

it("weighs by the job's words for material and thickness; what it doesn't know weighs nothing", () => {
  // 1 m² of 1 mm steel weighs 7.85 kg (common practice)
  expect(weightOf(1e6, "mm", "Mild steel plate", "1 mm")).toBeCloseTo(7.85, 12);
  expect(weightOf(1, "in", "brass", "1 in")).toBeCloseTo(0.0254 ** 3 * 8470, 12);
  expect(weightOf(100, "in", "steel", "3/8 in")).toBeCloseTo(100 * 0.0254 ** 3 * 0.375 * 7850, 12);
  expect(findMaterial("black granite, polished")?.name).toBe("granite");
  expect(findMaterial("1.4301 stainless steel 2b")?.name).toBe("stainless steel");
  expect([
    weightOf(1, "mm", "", "2 mm"),
    weightOf(1, "mm", "steel", ""),
    weightOf(1, "mm", "unobtainium", "2"),
  ]).toEqual([undefined, undefined, undefined]);
});
