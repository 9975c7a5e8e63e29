import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { enclosedArea } from "../contour/chainMeasure.ts";
import { curveNearest, smoothOf, type Curve } from "../geometry/curve.ts";
import { ellipseAt, ellipseBounds, halfAxes, type Ellipse } from "../geometry/ellipse.ts";
import { freeBounds, freeSmooth, partOfFree } from "../geometry/free.ts";
import { pieceLength, pieceRadius, transformPiece, type Piece } from "../geometry/piece.ts";
import { angleOf, cross, distance, dot, norm, subtract, type Point } from "../geometry/point.ts";
import { chordsOf, equalParts, smoothLength, smoothNearest } from "../geometry/smooth.ts";
import { scaleOf, transformPoint } from "../geometry/transform.ts";
import { meetings } from "../intersect/meetings.ts";
import type { Outcome } from "../numeric/outcome.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import { between, placements, points, residualBound } from "../testing/placements.ts";
import {
  arcSlotOf,
  boltCircle,
  ellipseByAxes,
  ellipsePart,
  ellipseThrough,
  addFreePoint,
  freePoints,
  freeThrough,
  moveFreePoint,
  removeFreePoint,
  gridPoints,
  polygonOf,
  polygonOnSide,
  slotByLength,
  slotOf,
  tangentCirclesSmooth,
  tangentLinesOfRound,
} from "./index.ts";

const value = <T>(outcome: Outcome<T>): T => {
  if (!outcome.ok) throw new Error(outcome.refusal.code);
  return outcome.value;
};
const O = { x: 0, y: 0 };
const length = (pieces: readonly Piece[]): number => pieces.reduce((sum, piece) => sum + pieceLength(piece), 0);

describe("polygons and slots", () => {
  it("have the areas of the handbook: n s² / 4 tan(π/n), and a slot w l + π w² / 4 (Machinery's Handbook)", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 3, max: 40 }),
        between(0.5, 300),
        between(-3, 3),
        points(),
        (n, size, angle, at) => {
          const side = 2 * Math.tan(Math.PI / n) * (size / 2);
          const flats = value(polygonOf(at, n, size, "flats", angle));
          expect(enclosedArea(flats)).toBeCloseTo((n * side * side) / (4 * Math.tan(Math.PI / n)), 4);
          expect(length(value(polygonOf(at, n, size, "side", angle)))).toBeCloseTo(n * size, 6);
          for (const { a } of value(polygonOf(at, n, size, "corners", angle)))
            expect(distance(a, at)).toBeCloseTo(size / 2, 9);
          const onSide = value(polygonOnSide(at, { x: at.x + size, y: at.y }, n));
          expect(enclosedArea(onSide)).toBeCloseTo((n * size * size) / (4 * Math.tan(Math.PI / n)), 3);
          expect(distance(onSide.at(-1)!.b, onSide[0]!.a)).toBe(0);
        },
      ),
    );
    fc.assert(
      fc.property(points(), points(), between(0.1, 20), (p, q, width) => {
        fc.pre(distance(p, q) > 0.1);
        const slot = value(slotOf(p, q, width));
        expect(enclosedArea(slot)).toBeCloseTo(width * distance(p, q) + (Math.PI * width * width) / 4, 6);
        expect(slot.filter(({ bulge }) => bulge === 1)).toHaveLength(2);
        const whole = value(slotByLength(p, distance(p, q) + width, width, 0.4));
        expect(length(whole)).toBeCloseTo(length(slot), 6);
      }),
    );
  });
  it(
    "an arc slot is as long as its middle line and its two round ends (Pappus: area = width times middle line, " +
      "plus the ends)",
    () => {
      fc.assert(
        fc.property(between(10, 90), between(0.2, 4), between(0.5, 15), fc.boolean(), (radius, sweep, width, back) => {
          fc.pre(width < radius);
          const slot = arcSlotOf(O, { x: radius, y: 0 }, back ? -sweep : sweep, width);
          if (!slot.ok) return;
          expect(enclosedArea(slot.value)).toBeCloseTo(width * radius * sweep + (Math.PI * width * width) / 4, 6);
          expect(slot.value.map(pieceRadius).sort((p, q) => p - q)[0]).toBeCloseTo(width / 2, 9);
        }),
      );
    },
  );
  it.each([
    ["two sides", () => polygonOf(O, 2, 5, "flats", 0), "polygon-sides"],
    ["half a side", () => polygonOf(O, 3.5, 5, "flats", 0), "polygon-sides"],
    ["no size", () => polygonOf(O, 6, 0, "flats", 0), "value-not-positive"],
    ["a slot no longer than wide", () => slotByLength(O, 8, 8, 0), "slot-too-short"],
    ["centres at one place", () => slotOf(O, O, 8), "same-point"],
    ["a slot wider than its arc", () => arcSlotOf(O, { x: 4, y: 0 }, 1, 8), "slot-too-wide"],
    ["a slot all round", () => arcSlotOf(O, { x: 40, y: 0 }, 6.2, 8), "property-impossible"],
  ] as const)("refuses %s", (_, make, code) => expect(make()).toMatchObject({ refusal: { code } }));

  it("bolt circles have the chord 2 R sin(π/n) between neighbours (Machinery's Handbook); grids stand square", () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 60 }), between(1, 500), between(-3, 3), (n, radius, first) => {
        const holes = boltCircle({ x: 7, y: -3 }, radius, n, first);
        holes.forEach((hole, i) =>
          expect(distance(hole, holes[(i + 1) % n]!)).toBeCloseTo(2 * radius * Math.sin(Math.PI / n), 8),
        );
        expect(angleOf(subtract(holes[0]!, { x: 7, y: -3 }))).toBeCloseTo(first, 9);
      }),
    );
    const grid = gridPoints({ x: 1, y: 1 }, 4, 2, 40, 50, Math.PI / 2);
    expect(grid).toHaveLength(8);
    expect(grid[3]).toEqual({ x: 1, y: 121 });
    expect(grid[4]).toEqual({ x: -49, y: 1 });
  });
});

describe("ellipses", () => {
  const ellipses = fc
    .record({ centre: points(), end: points(), half: between(2, 80) })
    .filter(({ centre, end }) => distance(centre, end) > 2)
    .map(({ centre, end, half }) => value(ellipseByAxes(centre, end, half)));
  it("have their perimeter by the Gauss-Kummer series", () => {
    fc.assert(
      fc.property(ellipses, (ellipse) => {
        const [a, b] = halfAxes(ellipse);
        const h = ((a - b) / (a + b)) ** 2;
        let [sum, term] = [1, 1];
        for (let n = 1; n < 400; n++) {
          term *= (1 / 2 - n + 1) / n; // binomial(1/2, n)
          sum += term * term * h ** n;
        }
        fc.pre(h < 0.8);
        expect(smoothLength(smoothOf({ kind: "ellipse", ...ellipse }))).toBeCloseTo(Math.PI * (a + b) * sum, 5);
      }),
    );
  });
  it("through a point have it on them; their bounds hold every point and touch some", () => {
    fc.assert(
      fc.property(
        points(),
        between(5, 80),
        between(-3, 3),
        between(0.1, 1.4),
        between(1, 60),
        (centre, a, turn, angle, b) => {
          const end = { x: centre.x + a * Math.cos(turn), y: centre.y + a * Math.sin(turn) };
          const made = value(ellipseByAxes(centre, end, b));
          const on = ellipseAt(made, angle);
          const again = value(ellipseThrough(centre, end, on));
          expect(smoothNearest(smoothOf({ kind: "ellipse", ...again }), on).distance).toBeLessThan(1e-6);
          expect(halfAxes(again).map((half) => half.toFixed(4))).toEqual(halfAxes(made).map((half) => half.toFixed(4)));
          const box = ellipseBounds(made);
          const all = Array.from({ length: 720 }, (_, i) => ellipseAt(made, (i * Math.PI) / 360));
          for (const p of all)
            expect(
              p.x > box.minX - 1e-9 && p.x < box.maxX + 1e-9 && p.y > box.minY - 1e-9 && p.y < box.maxY + 1e-9,
            ).toBe(true);
          expect(Math.max(...all.map(({ x }) => x))).toBeCloseTo(box.maxX, 1);
        },
      ),
    );
    expect(ellipseThrough(O, { x: 5, y: 0 }, { x: 6, y: 1 })).toMatchObject({ ok: false });
    const part = value(ellipsePart(value(ellipseByAxes(O, { x: 5, y: 0 }, 3)), { x: 9, y: 0 }, { x: 0, y: 7 }));
    expect([part.from, part.sweep]).toEqual([0, expect.closeTo(Math.PI / 2, 12)]);
  });
  it(
    "meet lines where x²/a² + y²/b² = 1 says, circles of both half axes where they touch, and each other in at " +
      "most four places",
    () => {
      fc.assert(
        fc.property(
          placements,
          between(3, 60),
          between(0.2, 0.9),
          between(-3, 3),
          between(-1.4, 1.4),
          (m, a, ratio, angle, part) => {
            const b = a * ratio;
            const ellipse: Curve = {
              kind: "ellipse",
              centre: transformPoint(m, O),
              major: subtract(transformPoint(m, { x: a, y: 0 }), transformPoint(m, O)),
              ratio,
              from: 0,
              sweep: 2 * Math.PI,
            };
            // a line at part of its reach from the centre crosses twice, or not at all beyond it
            const n = { x: Math.cos(angle), y: Math.sin(angle) };
            const reach = Math.hypot(a * n.x, b * n.y);
            const through = transformPoint(m, { x: part * reach * n.x, y: part * reach * n.y });
            const ahead = transformPoint(m, { x: part * reach * n.x - n.y, y: part * reach * n.y + n.x });
            const line: Curve = { kind: "endless", through, angle: angleOf(subtract(ahead, through)) };
            const found = meetings(ellipse, line, RESOLUTION);
            fc.pre(Math.abs(Math.abs(part) - 1) > 1e-3);
            expect(found).toHaveLength(Math.abs(part) < 1 ? 2 : 0);
            for (const meeting of found)
              if (meeting.kind !== "overlap") {
                expect(curveNearest(ellipse, meeting.at).distance).toBeLessThan(1e-9 * a * scaleOf(m) + 1e-9);
                expect(curveNearest(line, meeting.at).distance).toBeLessThan(1e-9 * a * scaleOf(m) + 1e-9);
              }
          },
        ),
        { numRuns: 60 },
      );
      const ellipse: Curve = {
        kind: "ellipse",
        centre: O,
        major: { x: 50, y: 0 },
        ratio: 0.5,
        from: 0,
        sweep: 2 * Math.PI,
      };
      const touching = meetings(ellipse, { kind: "circle", centre: O, radius: 50 }, RESOLUTION);
      expect(touching.map(({ kind }) => kind)).toEqual(["touch", "touch"]);
      const turned: Curve = { ...ellipse, major: { x: 0, y: 50 } };
      const four = meetings(ellipse, turned, RESOLUTION);
      expect(four).toHaveLength(4);
      const k = (50 * 25) / Math.hypot(50, 25);
      for (const meeting of four)
        if (meeting.kind !== "overlap")
          expect([Math.abs(meeting.at.x), Math.abs(meeting.at.y)]).toEqual([
            expect.closeTo(k, 9),
            expect.closeTo(k, 9),
          ]);
    },
  );
  it("have four tangent lines with a circle apart, each touching both, found the same wherever they lie", () => {
    fc.assert(
      fc.property(
        between(10, 40),
        between(0.3, 0.95),
        between(-3, 3),
        between(2, 20),
        between(-3, 3),
        (a, ratio, turn, radius, where) => {
          const ellipse: Ellipse = {
            centre: { x: 3, y: -2 },
            major: { x: a * Math.cos(turn), y: a * Math.sin(turn) },
            ratio,
            from: 0,
            sweep: 2 * Math.PI,
          };
          const centre = { x: 3 + 90 * Math.cos(where), y: -2 + 90 * Math.sin(where) };
          const lines = value(tangentLinesOfRound({ kind: "ellipse", ...ellipse }, { kind: "circle", centre, radius }));
          expect(lines).toHaveLength(4);
          const smooth = smoothOf({ kind: "ellipse", ...ellipse });
          for (const { from, to } of lines) {
            const foot = smoothNearest(smooth, from);
            expect(foot.distance).toBeLessThan(1e-8);
            const way = subtract(to, from);
            expect(Math.abs(cross(way, smooth.first(foot.t))) / (norm(way) * norm(smooth.first(foot.t)))).toBeLessThan(
              1e-7,
            );
            expect(Math.abs(dot(way, subtract(to, centre))) / (norm(way) * radius)).toBeLessThan(1e-7);
          }
          expect(
            value(tangentLinesOfRound({ kind: "point", at: centre }, { kind: "ellipse", ...ellipse })),
          ).toHaveLength(2);
        },
      ),
      { numRuns: 40 },
    );
    expect(
      tangentLinesOfRound(
        { kind: "point", at: { x: 1, y: 0 } },
        { kind: "ellipse", centre: O, major: { x: 5, y: 0 }, ratio: 0.5, from: 0, sweep: 2 * Math.PI },
      ),
    ).toMatchObject({ ok: false });
  });
  it("take arcs of a radius that touch them and a line: at r from both", () => {
    const ellipse = {
      kind: "ellipse" as const,
      centre: O,
      major: { x: 40, y: 0 },
      ratio: 0.5,
      from: 0,
      sweep: 2 * Math.PI,
    };
    const line: Curve = { kind: "endless", through: { x: 0, y: -30 }, angle: 0 };
    const found = value(tangentCirclesSmooth(ellipse, line, 12));
    expect(found.length).toBeGreaterThanOrEqual(2);
    for (const { centre, onA, onB } of found) {
      expect(distance(centre, onA)).toBeCloseTo(12, 8);
      expect(distance(centre, onB)).toBeCloseTo(12, 8);
      expect(curveNearest(ellipse, centre).distance).toBeCloseTo(12, 7);
      expect(Math.abs(centre.y + 30)).toBeCloseTo(12, 8);
    }
    expect(tangentCirclesSmooth(ellipse, line, 1)).toMatchObject({ refusal: { code: "no-tangent" } });
  });
});

describe("free curves", () => {
  it(
    "move with a point: the others stay, moved back it is what it was; one more point changes nothing, one less " +
      "makes one less",
    () => {
      fc.assert(
        fc.property(
          fc.uniqueArray(fc.record({ x: fc.integer({ min: -50, max: 50 }), y: fc.integer({ min: -50, max: 50 }) }), {
            minLength: 4,
            maxLength: 8,
            selector: ({ x, y }) => `${x} ${y}`,
          }),
          fc.boolean(),
          fc.nat(7),
          fc.boolean(),
          (all, closed, place, bent) => {
            const which = place % all.length;
            const free = value(freeThrough(all, bent && !closed ? { start: { x: 1, y: 2 } } : {}, closed));
            const to = { x: 71, y: 83 };
            const moved = value(moveFreePoint(free, which, to));
            const through = freePoints(moved)!;
            through.forEach((p, i) => expect(distance(p, i === which ? to : all[i]!)).toBeLessThan(1e-9));
            const { first, second } = freeSmooth(moved);
            for (const knot of freeSmooth(moved).breaks.slice(1, -1)) {
              // direction and bend run on through every point
              const step = 1e-7;
              for (const at of [first, second]) {
                const jump = distance(at(knot - step), at(knot + step));
                expect(jump).toBeLessThan(1e-3 * (1 + Math.hypot(at(knot).x, at(knot).y)) * all.length ** 2);
              }
            }
            const back = value(moveFreePoint(moved, which, all[which]!));
            back.points.forEach((p, i) => expect(distance(p, free.points[i]!)).toBeLessThan(1e-9));
            const middle = freeSmooth(free).at(0.4321);
            const more = addFreePoint(free, middle);
            if (more.ok) {
              expect(freePoints(more.value)).toHaveLength(all.length + 1);
              const [p, q] = [freeSmooth(free), freeSmooth(more.value)];
              for (const t of [0.1, 0.5, 0.9]) expect(distance(p.at(t), q.at(t))).toBeLessThan(1e-9);
            }
            expect(freePoints(value(removeFreePoint(free, which)))).toHaveLength(all.length - 1);
          },
        ),
      );
    },
  );

  const runs = fc
    .array(points(60), { minLength: 3, maxLength: 9 })
    .filter((all) => all.every((p, i) => all.every((q, j) => i === j || distance(p, q) > 3)));
  it("run through their points in order, as smooth in direction and bend at each as between", () => {
    fc.assert(
      fc.property(runs, fc.boolean(), (all, closed) => {
        const free = value(freeThrough(all, {}, closed));
        const smooth = freeSmooth(free);
        // the bound of every construction, for what is within 60 of the origin
        for (const p of all) expect(smoothNearest(smooth, p).distance).toBeLessThan(residualBound(60, 60));
        const e = 1e-7;
        const joints = smooth.breaks.slice(1, -1).filter((_, i) => i % 2 === 1);
        for (const t of joints) {
          fc.pre(norm(smooth.first(t)) > 1); // a curve that turns right back has a point there
          expect(distance(smooth.first(t - e), smooth.first(t + e)) / norm(smooth.first(t))).toBeLessThan(1e-3);
          expect(
            distance(smooth.second(t - e), smooth.second(t + e)) / (norm(smooth.second(t)) + norm(smooth.first(t))),
          ).toBeLessThan(1e-3);
        }
        if (closed)
          expect(
            Math.abs(cross(smooth.first(0), smooth.first(1))) / (norm(smooth.first(0)) * norm(smooth.first(1))),
          ).toBeLessThan(1e-9);
      }),
      { numRuns: 40 },
    );
  });
  it("start and end in given directions; a straight run of points is a straight curve", () => {
    const free = value(
      freeThrough([O, { x: 10, y: 4 }, { x: 20, y: 0 }], { start: { x: 0, y: 1 }, end: { x: 1, y: 0 } }),
    );
    const { first } = freeSmooth(free);
    expect(Math.abs(first(0).x)).toBeLessThan(1e-12);
    expect(first(0).y).toBeGreaterThan(0);
    expect(Math.abs(first(1).y)).toBeLessThan(1e-12);
    const straight = freeSmooth(value(freeThrough([0, 3, 7, 20].map((x) => ({ x, y: 2 * x })))));
    for (const t of [0.1, 0.4, 0.9]) expect(straight.at(t).y - 2 * straight.at(t).x).toBeCloseTo(0, 9);
    expect(freeThrough([O])).toMatchObject({ ok: false });
    expect(freeThrough([O, { x: 1, y: 0 }, { x: 1, y: 0 }])).toMatchObject({ ok: false });
  });
  it("cut in two are the same curve, and their parts are as long as the whole", () => {
    fc.assert(
      fc.property(runs, between(0.05, 0.95), between(0, 1), (all, cut, t) => {
        const free = value(freeThrough(all));
        const [one, two] = [partOfFree(free, 0, cut), partOfFree(free, cut, 1)];
        const whole = freeSmooth(free);
        const speeds = Array.from({ length: 101 }, (_, i) => norm(whole.first(i / 100)));
        fc.pre(Math.min(...speeds) > 0.05 * Math.max(...speeds)); // one that turns right back has no smooth length
        expect(distance(freeSmooth(one).at(t), whole.at(t * cut))).toBeLessThan(1e-8);
        expect(distance(freeSmooth(two).at(t), whole.at(cut + t * (1 - cut)))).toBeLessThan(1e-8);
        expect(smoothLength(freeSmooth(one)) + smoothLength(freeSmooth(two))).toBeCloseTo(smoothLength(whole), 4);
        const box = freeBounds(free);
        for (let i = 0; i <= 50; i++) {
          const { x, y } = whole.at(i / 50);
          expect(x > box.minX - 1e-6 && x < box.maxX + 1e-6 && y > box.minY - 1e-6 && y < box.maxY + 1e-6).toBe(true);
        }
        const parts = equalParts(whole, 4);
        expect(parts).toHaveLength(5);
        const chords = chordsOf(whole, 0.01);
        for (const t2 of [0.2, 0.7]) {
          const i = chords.findIndex((c) => c > t2);
          const [p, q, on] = [whole.at(chords[i - 1]!), whole.at(chords[i]!), whole.at(t2)];
          expect(Math.abs(cross(subtract(q, p), subtract(on, p))) / distance(p, q)).toBeLessThan(0.02);
        }
      }),
      { numRuns: 40 },
    );
  });
});

it("shapes stay what they are under a similarity", () => {
  fc.assert(
    fc.property(placements, (m) => {
      const slot = value(slotOf(O, { x: 30, y: 0 }, 8)).map((piece) => transformPiece(m, piece));
      const ends: Point[] = [transformPoint(m, O), transformPoint(m, { x: 30, y: 0 })];
      const again = value(slotOf(ends[0]!, ends[1]!, 8 * scaleOf(m)));
      expect(Math.abs(enclosedArea(slot)) / enclosedArea(again)).toBeCloseTo(1, 6);
    }),
  );
});
