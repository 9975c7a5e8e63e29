import { expect, it } from "vitest";
import { textWidth } from "../annotate/letters.ts";
import { questionPages, wrapped } from "./questionPages.ts";

it("lines keep every word and are no wider than their room; a word that is wider alone is broken", () => {
  const text = `What is the x of the hole Ø 14? ${"long".repeat(30)} It is drawn as ≈ 2.5.`;
  for (const width of [20, 60, 200]) {
    const lines = wrapped(text, 3.5, width);
    for (const line of lines) expect(textWidth(line, 3.5)).toBeLessThanOrEqual(width);
    expect(lines.join("").replaceAll(" ", "")).toBe(text.replaceAll(" ", "").replace("≈", "~"));
  }
});

it("all questions stand within the frame, as many pages as they need, none twice", () => {
  const frame = { minX: 20, minY: 60, maxX: 410, maxY: 287 };
  const questions = Array.from({ length: 40 }, (_, i) => `What is number ${i} of them?`);
  const pages = questionPages(questions, frame);
  const texts = pages.flatMap((marks) => marks.flatMap((one) => (one.kind === "text" ? [one] : [])));
  expect(pages.length).toBeGreaterThan(1);
  for (const { at } of texts) expect(at.y > frame.minY && at.y < frame.maxY).toBe(true);
  expect(texts.filter(({ text }) => text.startsWith("What")).map(({ text }) => text)).toEqual(questions);
  expect(questionPages([], frame)).toEqual([]);
});
