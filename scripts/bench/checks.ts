import { CHECKS, subjectOf } from "@ash-edge/core/checks";
import { compareDrawings } from "@ash-edge/core/compare";
import { applyEdit, newDrawing, PROFILE_LAYER, settingsOf, type Drawing } from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import { profileOf } from "@ash-edge/core/profile";
import type { Shape } from "@ash-edge/core/shape";
import { say } from "./report.ts";

const drawn = (shapes: readonly Shape[]): Drawing => {
  const start = newDrawing("mm");
  const draft = draftEdit(start, "Draw", "draw");
  for (const shape of shapes) draft.add(shape, PROFILE_LAYER);
  const tool = { name: "a bit of 3 mm", kind: "cutter", diameter: 3 } as const;
  draft.set("settings", 0, { ...settingsOf(start), making: { tool, wall: 2 } });
  return applyEdit(start, draft.finish());
};

const circle = (x: number, y: number, radius: number): Shape => ({ kind: "circle", centre: { x, y }, radius });
const line = (x: number, y: number, u: number, v: number): Shape => ({
  kind: "piece",
  a: { x, y },
  b: { x: u, y: v },
  bulge: 0,
});
const polygonOf = (n: number, radius: (i: number) => number): Shape => ({
  kind: "chain",
  closed: true,
  vertices: Array.from({ length: n }, (_, i) => {
    const angle = (2 * Math.PI * i) / n;
    return { id: i + 10, at: { x: radius(i) * Math.cos(angle), y: radius(i) * Math.sin(angle) }, bulge: 0 };
  }),
});

const holes = (n: number, by = 0): readonly Shape[] => {
  const row = Math.ceil(Math.sqrt(n));
  return Array.from({ length: n }, (_, i) => circle(10 * (i % row) + by, 10 * Math.floor(i / row), 3));
};

/** Families of drawings, each of about so many curves. */
const FAMILIES: Readonly<Record<string, (n: number) => readonly Shape[]>> = {
  "a grid of holes": holes,
  "nested circles": (n) => Array.from({ length: n }, (_, i) => circle(0, 0, 5 * (i + 1))),
  "a grid of crossing lines": (n) =>
    Array.from({ length: n }, (_, i) => (i % 2 ? line(0, 5 * i, 5 * n, 5 * i) : line(5 * i, 0, 5 * i, 5 * n))),
  "a star of one outline": (n) => [polygonOf(n, (i) => (i % 2 ? 5000 : 10_000))],
  "a fine outline": (n) => [polygonOf(n, () => 0.5 * n)],
};
const SIZES: Readonly<Record<string, readonly number[]>> = {
  "a grid of holes": [25_000, 50_000, 100_000],
  "nested circles": [2500, 5000, 10_000],
  "a grid of crossing lines": [500, 1000, 2000],
  "a star of one outline": [5000, 10_000, 20_000],
  "a fine outline": [25_000, 50_000, 100_000],
};
const WALLS = new Set(["walls", "slots"]);

/** Every check of the one list, and two drawings compared: times and how they grow. */
export const checks = (): void => {
  say("\n## What stands against cutting: every check, ms\n");
  say("| drawing | curves | contours made out | walls and slots | all other checks | found |");
  say("| --- | ---: | ---: | ---: | ---: | ---: |");
  for (const [name, make] of Object.entries(FAMILIES))
    for (const n of SIZES[name]!) {
      const drawing = drawn(make(n));
      const times = { profile: 0, walls: 0, others: 0 };
      const timed = <T>(what: keyof typeof times, work: () => T): T => {
        const start = performance.now();
        const made = work();
        times[what] += performance.now() - start;
        return made;
      };
      const profile = timed("profile", () => profileOf(drawing));
      const subject = subjectOf(drawing, profile);
      let found = 0;
      for (const { id, find } of CHECKS) found += timed(WALLS.has(id) ? "walls" : "others", () => find(subject).length);
      say(
        `| ${name} | ${n} | ${times.profile.toFixed(0)} | ${times.walls.toFixed(0)} | ${times.others.toFixed(0)} | ` +
          `${found} |`,
      );
    }
  say("\n## Two drawings of 100000 circles compared, ms\n");
  say("| | ms | the same | moved | came and went |");
  say("| --- | ---: | ---: | ---: | ---: |");
  const n = 100_000;
  const before = drawn(holes(n));
  const away = holes(n, 2.5);
  for (const [name, after] of [
    ["the same", holes(n)],
    ["all of them moved by 2.5", away],
    ["every other one moved by 2.5", holes(n).map((shape, i) => (i % 2 ? shape : away[i]!))],
    ["every other one made larger", holes(n).map((shape, i) => (i % 2 ? shape : { ...shape, radius: 3.5 }) as Shape)],
  ] as const) {
    const other = drawn(after);
    const start = performance.now();
    const { same, moved, came, went } = compareDrawings(before, other);
    const ms = performance.now() - start;
    say(`| ${name} | ${ms.toFixed(0)} | ${same} | ${moved.length} | ${came.length + went.length} |`);
  }
};
