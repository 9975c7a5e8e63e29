import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { measureCallout } from "../callouts/measure.ts";
import { calloutsOf, drawingText, type Drawing } from "../drawing/drawing.ts";
import { applyEdit, invertEdit, type Edit } from "../drawing/edit.ts";
import type { Id } from "../numeric/id.ts";
import { randomFrom } from "../testing/contours.ts";
import { EDITS, linkedAgain, randomDrawing, randomEdit } from "../testing/randomEdits.ts";
import { checkCarried } from "./checkCarried.ts";

const NAMES = Object.keys(EDITS);
const DRAWINGS = Number(process.env.RANDOM_DRAWINGS ?? 40);
const made = new Map<string, number>();

/** What each callout measures; undefined for not placed. */
const measured = (drawing: Drawing): ReadonlyMap<Id, number | undefined> =>
  new Map(
    calloutsOf(drawing).map((callout) => {
      const state = measureCallout(drawing, callout);
      return [callout.id, state.state === "not placed" ? undefined : state.measured];
    }),
  );

/** Where nothing was changed on purpose, a number stays or is gone: nothing else. */
const numbersStand = (before: Drawing, edit: Edit, after: Drawing): void => {
  if (edit.lineage.some(({ kind }) => kind !== "corner") || edit.answered) return;
  const is = measured(after);
  for (const [id, was] of measured(before)) {
    const now = is.get(id);
    const callout = calloutsOf(after).find((one) => one.id === id)!;
    if (was === undefined || now === undefined || callout.kind === "count") continue;
    const sizes = callout.kind === "radius" || callout.kind === "diameter" || callout.kind === "thread";
    // of several sizes the farthest off counts
    if (sizes && edit.cutLoose.some((loose) => loose.callout === id)) continue;
    if (Math.abs(now - was) > 2e-5) throw new Error(`${edit.label}: ${callout.kind} ${was} became ${now}`);
  }
};

describe("random edits", () => {
  it(`keep the rule of references through ${NAMES.length} kinds of edit, undone and done again`, () => {
    expect(NAMES.length).toBeGreaterThanOrEqual(29);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 2 ** 30 }), (seed) => {
        const random = randomFrom(seed);
        let drawing = randomDrawing(random);
        for (let i = 0; i < 25; i++) {
          const name = NAMES[Math.floor(random() * NAMES.length)]!;
          const edit = randomEdit(drawing, name, random);
          if (!edit) continue;
          made.set(name, (made.get(name) ?? 0) + 1);
          const after = applyEdit(drawing, edit);
          checkCarried(drawing, edit, after);
          numbersStand(drawing, edit, after);
          const back = applyEdit(after, invertEdit(edit));
          expect(drawingText(back)).toBe(drawingText(drawing));
          expect(drawingText(applyEdit(back, edit))).toBe(drawingText(after));
          drawing = linkedAgain(after, random);
        }
      }),
      { numRuns: DRAWINGS, endOnFailure: true, seed: Number(process.env.RANDOM_SEED ?? 7) },
    );
    expect(NAMES.filter((name) => !made.has(name))).toEqual([]);
  }, 600_000);
});
