import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { measureCallout } from "../callouts/measure.ts";
import { measureAnnotation } from "../annotate/measure.ts";
import { annotationOf, annotationsOf, calloutsOf, drawingText, type Drawing } from "../drawing/drawing.ts";
import { applyEdit, invertEdit, type Edit } from "../drawing/edit.ts";
import type { Id } from "../numeric/id.ts";
import { randomFrom } from "../testing/contours.ts";
import { annotatedAgain, EDITS, linkedAgain, randomDrawing, randomEdit } from "../testing/randomEdits.ts";
import { checkCarried } from "./checkCarried.ts";
import { looseId } from "./holders.ts";

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

/** The number of each dimension stays, or it is lost. */
const dimensionsStand = (before: Drawing, edit: Edit, after: Drawing): void => {
  for (const was of annotationsOf(before)) {
    const is = annotationOf(after, was.id);
    // marks go with what they belong to
    if (!is) {
      if (was.kind !== "centre mark" && was.kind !== "thread mark")
        throw new Error(`${edit.label}: ${was.kind} is gone`);
      continue;
    }
    const [old, now] = [measureAnnotation(before, was), measureAnnotation(after, is)];
    if (is.lost) kept.set("lost", (kept.get("lost") ?? 0) + 1);
    if (is.lost || edit.cutLoose.some((loose) => looseId(loose) === was.id) || !old || !now) continue;
    kept.set(was.kind, (kept.get(was.kind) ?? 0) + (is === was ? 0 : 1));
    // an angle of edges that cross elsewhere for a rounding is the same to less than that
    const off = Math.max(Math.abs(old.least - now.least), Math.abs(old.most - now.most));
    if (off > 2e-5) throw new Error(`${edit.label}: ${was.kind} ${old.most} became ${now.most}`);
  }
};
const kept = new Map<string, number>();

/** A dimension that came with a copy says the number of one that was there: nothing is copied larger here. */
const copiesStand = (before: Drawing, edit: Edit, after: Drawing): void => {
  for (const made of annotationsOf(after)) {
    if (annotationOf(before, made.id) || made.kind === "ordinate") continue;
    const now = measureAnnotation(after, made)?.most;
    copied += 1;
    const same = annotationsOf(before).some((was) => {
      const old = was.kind === made.kind ? measureAnnotation(before, was)?.most : undefined;
      return old === now || Math.abs((old ?? Infinity) - (now ?? Infinity)) <= 2e-5;
    });
    if (!same) throw new Error(`${edit.label}: a copied ${made.kind} measures ${now}, which none did`);
  }
};
let copied = 0;

/** Where nothing was changed on purpose, a number stays or is gone: nothing else. */
const numbersStand = (before: Drawing, edit: Edit, after: Drawing): void => {
  if (edit.lineage.some(({ kind }) => kind !== "corner") || edit.answered) return;
  dimensionsStand(before, edit, after);
  const is = measured(after);
  for (const [id, was] of measured(before)) {
    const now = is.get(id);
    const callout = calloutsOf(after).find((one) => one.id === id)!;
    if (was === undefined || now === undefined || callout.kind === "count") continue;
    const sizes = callout.kind === "radius" || callout.kind === "diameter" || callout.kind === "thread";
    // of several sizes the farthest off counts
    if (sizes && edit.cutLoose.some((loose) => looseId(loose) === id)) continue;
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
          copiesStand(drawing, edit, after);
          const back = applyEdit(after, invertEdit(edit));
          expect(drawingText(back)).toBe(drawingText(drawing));
          expect(drawingText(applyEdit(back, edit))).toBe(drawingText(after));
          drawing = linkedAgain(annotatedAgain(after, random), random);
        }
      }),
      { numRuns: DRAWINGS, endOnFailure: true, seed: Number(process.env.RANDOM_SEED ?? 7) },
    );
    expect(NAMES.filter((name) => !made.has(name))).toEqual([]);
    expect(copied).toBeGreaterThan(0);
  }, 600_000);
});
