import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { applyEdit, newDrawing, PROFILE_LAYER } from "../drawing/index.ts";
import { draftEdit } from "../edits/draftEdit.ts";
import { planRelease } from "../checks/index.ts";
import { writeShapes } from "../formats/dxf/index.ts";
import type { ReadShape } from "../formats/index.ts";
import { circleHalves } from "../geometry/circle.ts";
import type { Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { machineFile, machineText, PLAIN_PROFILE } from "../release/index.ts";
import { sayRefusal } from "../say/say.ts";
import { randomFrom } from "../testing/contours.ts";
import { cutOrder } from "./order.ts";
import { feedsAlong, PROCESSES, readCut, runAt, runOf, type CutterRun, type Process } from "./index.ts";

const LAYERS = { OUTSIDE: "outside", INSIDE: "inside", MARK: "mark", TAPPED: "tapped" } as const;
const rectangle = (x: number, y: number, w: number, h: number): readonly Piece[] => {
  const corners = [
    { x, y },
    { x: x + w, y },
    { x: x + w, y: y + h },
    { x, y: y + h },
  ];
  return corners.map((a, i) => ({ a, b: corners[(i + 1) % 4]!, bulge: 0 }));
};
const chain = (layer: string, pieces: readonly Piece[], closed = true): ReadShape => ({
  kind: "chain",
  layer,
  pieces,
  closed,
});
const circle = (layer: string, x: number, y: number, radius: number): ReadShape => ({
  kind: "circle",
  layer,
  centre: { x, y },
  radius,
});
const runFor = (shapes: readonly ReadShape[], process: Process, unit: "mm" | "in" = "mm"): CutterRun => {
  const read = readCut(writeShapes(shapes, unit), process, LAYERS);
  if (!read.ok) throw new Error(sayRefusal(read.refusal, "mm"));
  return runOf(read.value, process);
};

describe("the test cutter", () => {
  it("takes as long as lengths over speeds come to, by hand, for three parts", () => {
    // 1: a plate 100 by 60 with a hole Ø 20 in its middle, by waterjet: 300 mm/min, rapid 12 000, 4 s a pierce.
    // On the bed the plate begins at (3, 3). The hole begins at its west (43, 33), pierced 3 inside it; the plate
    // at the corner nearest to there, of two alike the first, (3, 3), pierced 3 off it, half way between its sides.
    const first = runFor(
      [chain("OUTSIDE", rectangle(0, 0, 100, 60)), circle("INSIDE", 50, 30, 10)],
      PROCESSES.waterjet,
    );
    const [p, q] = [
      { x: 46, y: 33 },
      { x: 3 - 3 / Math.SQRT2, y: 3 - 3 / Math.SQRT2 },
    ];
    const cut = 20 * Math.PI + 3 + 320 + 3;
    const travel = Math.hypot(p.x, p.y) + Math.hypot(43 - q.x, 33 - q.y);
    expect(first.cut).toBeCloseTo(cut, 9);
    expect(first.travel).toBeCloseTo(travel, 9);
    expect(first.time).toBeCloseTo((60 * cut) / 300 + (60 * travel) / 12_000 + 8, 9);
    expect([first.pierces, first.unled]).toEqual([2, 0]);

    // 2: a hole Ø 8 in a disc Ø 80, by plasma: arcs under 15 are slower in proportion, a hole of R 4 at 4/15 of 2 500
    const second = runFor([circle("OUTSIDE", 0, 0, 40), circle("INSIDE", 0, 0, 4)], PROCESSES.plasma);
    // a way in of 5 fits into the hole, past its middle
    const lead = 5;
    const hole = (60 * 8 * Math.PI) / (2500 * (4 / 15)) + (60 * lead) / 2500;
    const disc = (60 * (80 * Math.PI + 5)) / 2500;
    expect(second.cut).toBeCloseTo(88 * Math.PI + lead + 5, 9);
    expect(second.time - (60 * second.travel) / 20_000).toBeCloseTo(hole + disc + 1.6, 9);

    // its feed along the way: the hole's way in, its slow round, the disc's way in and its round in one
    const spans = feedsAlong(second, PROCESSES.plasma);
    expect(spans.map(({ feed }) => feed)).toEqual([2500, 2500 * (4 / 15), 2500]);
    expect(spans.at(-1)!.to).toBeCloseTo(second.cut, 9);
    const cutting = spans.reduce((sum, { from, to, feed }) => sum + (60 * (to - from)) / feed, 0);
    expect(cutting).toBeCloseTo(hole + disc, 9);
    expect(runAt(second, spans[2]!.time + 1e-6, PROCESSES.plasma)).toMatchObject({ step: 1, state: "cut" });

    // 3: two inches by one with a straight mark across, by knife: no way in, 9 000 mm/min, 0.1 s a start
    const mark = chain("MARK", [{ a: { x: 0.5, y: 0.5 }, b: { x: 1.5, y: 0.5 }, bulge: 0 }], false);
    const third = runFor([chain("OUTSIDE", rectangle(0, 0, 2, 1)), mark], PROCESSES["drag knife"], "in");
    expect(third.cut).toBeCloseTo(7 * 25.4, 9);
    const way = 25.4 * (Math.hypot(0.5, 0.5) + Math.hypot(0.5, 0.5));
    expect(third.travel).toBeCloseTo(way, 9);
    expect(third.time).toBeCloseTo((60 * 7 * 25.4) / 9000 + (60 * way) / 30_000 + 0.2, 9);
  });

  it("never cuts a contour before what lies in it, and no farther than the nearest next would go", () => {
    const node: fc.Arbitrary<Tree> = fc.letrec<{ node: Tree }>((tie) => ({
      node: fc.record({
        inner: fc.oneof({ maxDepth: 3 }, fc.constant([]), fc.array(tie("node"), { maxLength: 3 })),
        at: fc.nat(8),
      }),
    })).node;
    fc.assert(
      fc.property(fc.array(node, { minLength: 1, maxLength: 4 }), fc.constantFrom(0, 0.4), (trees, turn) => {
        const { contours, parent } = laidOut(trees, turn);
        const order = cutOrder(contours, { x: 0, y: 0 });
        expect([...order].sort((p, q) => p - q)).toEqual(contours.map((_, i) => i));
        const when = new Map(order.map((i, k) => [i, k]));
        parent.forEach((outer, i) => {
          if (outer >= 0) expect(when.get(i)!).toBeLessThan(when.get(outer)!);
        });
      }),
      { numRuns: 150 },
    );
    const random = randomFrom(4);
    const holes = Array.from({ length: 80 }, () =>
      circleHalves({ centre: { x: 3000 * random(), y: 3000 * random() }, radius: 0.4 }),
    );
    const starts = holes.map(([half]) => half.a);
    const length = (order: readonly number[]): number =>
      order.reduce(([sum, at], i) => [sum + distance(at, starts[i]!), starts[i]!] as [number, Point], [
        0,
        { x: 0, y: 0 },
      ] as [number, Point])[0];
    const nearest: number[] = [];
    let at: Point = { x: 0, y: 0 };
    while (nearest.length < holes.length) {
      const left = holes.map((_, i) => i).filter((i) => !nearest.includes(i));
      const next = left.reduce((best, i) => (distance(starts[i]!, at) < distance(starts[best]!, at) ? i : best));
      nearest.push(next);
      at = starts[next]!;
    }
    expect(length(cutOrder(holes, { x: 0, y: 0 }))).toBeLessThan(0.95 * length(nearest));
  });

  it("leads in from the waste side, and not where that would cut into something", () => {
    const { steps, unled } = runFor(
      [
        chain("OUTSIDE", rectangle(0, 0, 100, 60)),
        circle("INSIDE", 30, 30, 8),
        chain("OUTSIDE", rectangle(101, 0, 40, 60)), // 1 from the plate: 3 and 1.5 do not fit on that side
      ],
      PROCESSES.waterjet,
    );
    const inPlate = ({ x, y }: Point): boolean => x > 3 && x < 103 && y > 3 && y < 63;
    const hole = steps.find(({ use }) => use === "inside")!;
    expect(Math.hypot(hole.pierce.x - 33, hole.pierce.y - 33)).toBeCloseTo(5, 9);
    for (const { use, pierce } of steps) if (use === "outside") expect(inPlate(pierce)).toBe(false);
    expect(unled).toBe(0);
    const tight = runFor([circle("OUTSIDE", 0, 0, 40), circle("INSIDE", 0, 0, 0.1)], PROCESSES.waterjet);
    expect(tight.unled).toBe(1);
  });

  it("a profile is outside or inside by its nesting, and led into accordingly", () => {
    const shapes = [chain("Plate", rectangle(0, 0, 100, 60)), circle("Plate", 50, 30, 10)];
    const read = readCut(writeShapes(shapes, "mm"), PROCESSES.waterjet, { Plate: "profile" });
    expect(read.ok && runOf(read.value, PROCESSES.waterjet).steps.map(({ use }) => use)).toEqual(["inside", "outside"]);
  });

  it("is at its places in time: no faster than it can go, and done in the end", () => {
    const process = PROCESSES.plasma;
    const run = runFor(
      [chain("OUTSIDE", rectangle(0, 0, 100, 60)), circle("INSIDE", 50, 30, 6), circle("INSIDE", 80, 30, 3)],
      process,
    );
    let last = runAt(run, 0, process);
    const step = run.time / 2000;
    for (let t = step; t <= run.time; t += step) {
      const now = runAt(run, t, process);
      const most = ((now.state === "cut" && last.state === "cut" ? process.feed : process.rapid) * step) / 60;
      if (now.step === last.step && now.state === last.state)
        expect(distance(now.at, last.at)).toBeLessThanOrEqual(most + 1e-9);
      last = now;
    }
    expect(runAt(run, run.time + 1, process).state).toBe("done");
    // at its own time to the last bit, whatever its sums are rounded to
    const random = randomFrom(9);
    for (let i = 0; i < 200; i++) {
      const [x, r] = [50 * random(), 5 + 20 * random()];
      const one = runFor([circle("OUTSIDE", x, 50, 40), circle("INSIDE", x, 50, r)], process);
      expect(runAt(one, one.time, process).state).toBe("done");
    }
  });

  it.each([
    ["an SVG", "<svg></svg>", "The test cutter reads DXF files"],
    ["no drawing", "nothing", "The test cutter reads DXF files"],
    [
      "no unit",
      writeShapes([circle("OUTSIDE", 0, 0, 5)], "mm").replace(/\$INSUNITS\n 70\n4\n/, "$INSUNITS\n 70\n0\n"),
      "does not say whether",
    ],
    ["a layer without a process", writeShapes([circle("WELLS", 0, 0, 5)], "mm"), "no process for the layer WELLS"],
    [
      "an entity it does not know",
      writeShapes(
        [
          {
            kind: "ellipse",
            layer: "OUTSIDE",
            centre: { x: 0, y: 0 },
            major: { x: 9, y: 0 },
            ratio: 0.5,
            from: 0,
            sweep: 6.28,
          },
        ],
        "mm",
      ),
      "“ELLIPSE” is in the file",
    ],
    [
      "an open contour",
      writeShapes([chain("OUTSIDE", rectangle(0, 0, 9, 9).slice(0, 3), false)], "mm"),
      "A contour is open.",
    ],
    ["nothing to cut", writeShapes([chain("MARK", rectangle(0, 0, 9, 9))], "mm"), "Nothing in the file is to be cut."],
    ["an edge twice", writeShapes([circle("OUTSIDE", 0, 0, 5), circle("OUTSIDE", 0, 0, 5)], "mm"), "there twice"],
    [
      "contours that cross",
      writeShapes([circle("OUTSIDE", 0, 0, 5), circle("OUTSIDE", 6, 0, 5)], "mm"),
      "Two contours cross.",
    ],
    [
      "a bed that is too small",
      writeShapes([chain("OUTSIDE", rectangle(0, 0, 150, 20))], "in"),
      "the bed has 3000 mm × 1500 mm",
    ],
  ] as const)("refuses %s in words", (_, text, says) => {
    const read = readCut(text, PROCESSES.waterjet, LAYERS);
    expect(read.ok ? "" : sayRefusal(read.refusal, "mm")).toContain(says);
  });

  it("takes what a release writes for it, loose pieces too, and the same length comes out", () => {
    const start = newDrawing("in");
    const draft = draftEdit(start, "Draw", "draw");
    const vertices = rectangle(0, 0, 4, 2).map(({ a }, i) => ({ id: draft.newId(), at: a, bulge: i === 1 ? 0.5 : 0 }));
    draft.add({ kind: "chain", closed: true, vertices }, PROFILE_LAYER);
    draft.add({ kind: "circle", centre: { x: 1, y: 1 }, radius: 0.25 }, PROFILE_LAYER);
    const plan = planRelease(applyEdit(start, draft.finish()));
    const lengths = [
      PLAIN_PROFILE,
      { ...PLAIN_PROFILE, chains: "loose", arcs: "entities", unit: "mm" } as const,
      { ...PLAIN_PROFILE, format: "R12", decimals: 4 } as const,
    ].map((profile) => {
      const file = machineFile(plan, profile, { x: 0, y: 0 });
      const text = file.ok ? machineText(file.value) : file;
      const read = readCut(text.ok ? text.value : "", PROCESSES.router, LAYERS);
      return read.ok ? runOf(read.value, PROCESSES.router).cut : NaN;
    });
    expect(lengths[1]).toBeCloseTo(lengths[0]!, 6);
    expect(Math.abs(lengths[2]! - lengths[0]!)).toBeLessThan(0.05);
  });
});

type Tree = { readonly inner: readonly Tree[]; readonly at: number };

/** Rectangles in one another as a tree says, side by side at the top; all of them turned; which lies in which. */
const laidOut = (
  trees: readonly Tree[],
  turn: number,
): { readonly contours: readonly (readonly Piece[])[]; readonly parent: readonly number[] } => {
  const contours: (readonly Piece[])[] = [];
  const parent: number[] = [];
  const put = (tree: Tree, outer: number, x: number, y: number, size: number): void => {
    const own = contours.length;
    const turned = (p: Point): Point => ({
      x: p.x * Math.cos(turn) - p.y * Math.sin(turn),
      y: p.x * Math.sin(turn) + p.y * Math.cos(turn),
    });
    contours.push(rectangle(x, y, size, size).map(({ a, b }) => ({ a: turned(a), b: turned(b), bulge: 0 })));
    parent.push(outer);
    tree.inner.forEach((one, k) => {
      const part = size / 4;
      put(one, own, x + part * (0.2 + 1.3 * k), y + part * (one.at % 3) + 0.1 * part, part);
    });
  };
  trees.forEach((tree, k) => put(tree, -1, 1000 * k, 0, 900));
  return { contours, parent };
};
