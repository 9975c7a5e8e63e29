import type { Outcome } from "../numeric/outcome.ts";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { measureCallout } from "../callouts/measure.ts";
import { clearLayout, draftEdit, joinPieces, planTrim, removeEntities } from "../edits/index.ts";
import { carrierOf, pieceCarrier } from "../geometry/curve.ts";
import { pieceLength, type Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import {
  countByKind,
  invertSelection,
  selectByBox,
  selectInside,
  selectLike,
  selectRun,
  describeRef,
  indexDrawing,
  picksAt,
  reindex,
  searchIndex,
  snapsAt,
} from "../look/index.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import { profileOf } from "../profile/profile.ts";
import type { Shape } from "../shape/index.ts";
import { between, points } from "../testing/placements.ts";
import {
  applyEdit,
  calloutsOf,
  curveAt,
  cutEntities,
  drawingText,
  emptyPages,
  entitiesOf,
  entityOf,
  invertEdit,
  LAYOUT_LAYER,
  newDrawing,
  pageGet,
  pageRows,
  pagesWith,
  PROFILE_LAYER,
  type Drawing,
  type Edit,
} from "./index.ts";

const add = (
  drawing: Drawing,
  shapes: readonly Shape[],
  layer = PROFILE_LAYER,
): { drawing: Drawing; ids: number[]; edit: Edit } => {
  const draft = draftEdit(drawing, "Draw", "draw");
  const ids = shapes.map((shape) => draft.add(shape, layer));
  const edit = draft.finish();
  return { drawing: applyEdit(drawing, edit), ids, edit };
};
const line = (x1: number, y1: number, x2: number, y2: number): Shape => ({
  kind: "piece",
  a: { x: x1, y: y1 },
  b: { x: x2, y: y2 },
  bulge: 0,
});
const circle = (x: number, y: number, radius: number): Shape => ({ kind: "circle", centre: { x, y }, radius });
const trim = (drawing: Drawing, id: number, at: Point, layoutCuts = true): ReturnType<typeof planTrim> =>
  planTrim(indexDrawing(drawing), { id }, at, layoutCuts ? "all" : "cut");

const shapes: fc.Arbitrary<Shape> = fc.oneof(
  fc.record({ a: points(), b: points(), bulge: between(-2, 2) }).map((piece): Shape => ({ kind: "piece", ...piece })),
  fc.record({ centre: points(), radius: between(0.1, 50) }).map((round): Shape => ({ kind: "circle", ...round })),
  points().map((at): Shape => ({ kind: "point", at })),
);

const edited = (outcome: Outcome<Edit>): Edit => {
  if (!outcome.ok) throw new Error(outcome.refusal.code);
  return outcome.value;
};

describe("pages", () => {
  it("hold what a Map would hold, in id order, and leave the table they came from alone", () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(2000), fc.option(fc.integer(), { nil: undefined }))), (rows) => {
        const map = new Map<number, number>();
        let table = emptyPages<number>();
        for (const [id, row] of rows) {
          const before = [...pageRows(table)];
          const next = pagesWith(table, [[id, row]]);
          expect([...pageRows(table)]).toEqual(before);
          table = next;
          if (row === undefined) map.delete(id);
          else map.set(id, row);
        }
        expect([...pageRows(table)]).toEqual([...map].sort(([p], [q]) => p - q).map(([, row]) => row));
        expect(table.size).toBe(map.size);
        for (const [id] of rows) expect(pageGet(table, id)).toBe(map.get(id));
      }),
    );
  });
});

describe("edits", () => {
  it("are undone to the byte and done again to the byte, whatever was done", () => {
    const steps = fc.array(
      fc.oneof(
        fc.record({ add: fc.array(shapes, { minLength: 1, maxLength: 5 }) }),
        fc.record({ remove: fc.nat(20) }),
        fc.record({ move: fc.nat(20) }),
      ),
      { maxLength: 12 },
    );
    fc.assert(
      fc.property(steps, (all) => {
        const states = [newDrawing("mm", [{ kind: "length", value: 5, name: "width" }])];
        const edits: Edit[] = [];
        for (const step of all) {
          const now = states.at(-1)!;
          const ids = [...entitiesOf(now)].map(({ id }) => id);
          const draft = draftEdit(now, "Step", "step");
          if ("add" in step) step.add.forEach((shape) => draft.add(shape, PROFILE_LAYER));
          else if ("remove" in step) draft.remove(ids[step.remove % ids.length] ?? 0);
          else {
            const entity = entityOf(now, ids[step.move % ids.length] ?? 0);
            if (entity)
              draft.replace({ kind: "point", at: { x: step.move, y: 0 }, id: entity.id, layer: entity.layer });
          }
          const edit = draft.finish();
          // an edit is data: stored and read back it does the same
          edits.push(JSON.parse(JSON.stringify(edit)) as Edit);
          states.push(applyEdit(now, edit));
        }
        let back = states.at(-1)!;
        for (let i = edits.length - 1; i >= 0; i--) {
          back = applyEdit(back, invertEdit(edits[i]!));
          expect(drawingText(back)).toBe(drawingText(states[i]!));
        }
        expect(drawingText(edits.reduce(applyEdit, back))).toBe(drawingText(states.at(-1)!));
        expect(back.nextId).toBe(states.at(-1)!.nextId); // ids are never used again
      }),
    );
  });

  it("carry links along what a thing became, and say what was cut loose", () => {
    const start = newDrawing("mm", [{ kind: "diameter", value: 20, name: "boss" }]);
    const callout = calloutsOf(start)[0]!.id;
    const first = add(start, [circle(0, 0, 10), line(-20, 0, 20, 0), line(0, -20, 0, 20)]);
    const draft = draftEdit(first.drawing, "Link", "link");
    draft.link(callout, [{ id: first.ids[0]! }]);
    const linked = applyEdit(first.drawing, draft.finish());
    const plan = trim(linked, first.ids[0]!, { x: 7, y: 7 });
    if (!plan.ok) throw new Error(plan.refusal.code);
    const trimmed = applyEdit(linked, plan.value.edit);
    expect(measureCallout(trimmed, calloutsOf(trimmed)[0]!)).toMatchObject({ state: "true" }); // the arc is still Ø 20
    const removed = edited(removeEntities(trimmed, [first.ids[0]!]));
    expect(removed.cutLoose).toEqual([{ callout, links: [{ id: first.ids[0]! }] }]);
    const gone = applyEdit(trimmed, removed);
    expect(calloutsOf(gone)[0]!.links).toEqual([]);
    expect(calloutsOf(applyEdit(gone, invertEdit(removed)))[0]!.links).toEqual([{ id: first.ids[0]! }]);
  });

  it("a callout is true within 1e-6 only: 1.749 never passes for 1.75, nor within its tolerance for true", () => {
    const states = [0.875, 0.8745, 0.87].map((radius) => {
      const start = newDrawing("in", [{ kind: "radius", value: 0.875, name: "end", tolerance: 0.001 }]);
      const made = add(start, [circle(0, 0, radius)]);
      const draft = draftEdit(made.drawing, "Link", "link");
      draft.link(calloutsOf(start)[0]!.id, [{ id: made.ids[0]! }]);
      const drawing = applyEdit(made.drawing, draft.finish());
      return measureCallout(drawing, calloutsOf(drawing)[0]!).state;
    });
    expect(states).toEqual(["true", "within", "off"]);
  });
});

describe("trim", () => {
  it("takes the piece between two crossings, and both sides share the cut as numbers", () => {
    const { drawing, ids } = add(newDrawing("mm"), [line(0, 0, 10, 0), line(3, -1, 3, 1), circle(7, 0, 1)]);
    const plan = trim(drawing, ids[0]!, { x: 4, y: 0 });
    if (!plan.ok) throw new Error(plan.refusal.code);
    const after = applyEdit(drawing, plan.value.edit);
    const parts = [...entitiesOf(after)].filter(
      (entity) => entity.kind === "piece" && entity.a.y === 0 && entity.b.y === 0,
    );
    expect(parts.map((entity) => entity.kind === "piece" && [entity.a.x, entity.b.x])).toEqual([
      [0, 3],
      [6, 10],
    ]);
    expect(parts[0]!.id).toBe(ids[0]); // the first part keeps the id
  });

  it("what goes and what stays add up, wherever an arc is crossed", () => {
    fc.assert(
      fc.property(
        between(-1.5, 1.5).filter((bulge) => Math.abs(bulge) > 1e-3),
        fc.array(between(-4.9, 4.9), { minLength: 1, maxLength: 5 }),
        between(-4.9, 4.9),
        (bulge, xs, x) => {
          const piece: Piece = { a: { x: -5, y: 0 }, b: { x: 5, y: 0 }, bulge };
          const { drawing, ids } = add(newDrawing("mm"), [
            { kind: "piece", ...piece },
            ...xs.map((at) => line(at, -30, at, 30)),
          ]);
          const plan = trim(drawing, ids[0]!, { x, y: bulge > 0 ? -9 : 9 }, false);
          if (!plan.ok) throw new Error(plan.refusal.code);
          const after = applyEdit(drawing, plan.value.edit);
          const kept = cutEntities(after).filter((entity) => entity.kind === "piece" && entity.bulge !== 0);
          const total = [...(plan.value.removed as unknown as Piece[]), ...(kept as unknown as Piece[])].reduce(
            (sum, part) => sum + pieceLength(part),
            0,
          );
          expect(total).toBeCloseTo(pieceLength(piece), 6);
          for (const entity of kept)
            expect((carrierOf(entity as never) as { radius: number }).radius).toBeCloseTo(
              (pieceCarrier(piece) as { radius: number }).radius,
              6,
            );
        },
      ),
    );
  });

  it("a circle met in one place stays whole and says so; one that nothing meets goes whole", () => {
    const { drawing, ids } = add(newDrawing("mm"), [circle(20, 20, 3), line(20, 23, 30, 23)]);
    expect(trim(drawing, ids[0]!, { x: 23, y: 20 })).toMatchObject({
      refusal: { code: "trim-single-cut", values: { what: "circle" } },
    });
    const plan = trim(drawing, ids[1]!, { x: 29, y: 23 });
    expect(plan.ok && plan.value.whole).toBe(true);
    expect(trim(drawing, [...entitiesOf(drawing)][0]!.id, { x: 0, y: 0 })).toMatchObject({
      refusal: { code: "trim-endless" },
    });
  });

  it("opens a contour where two things cross it, and its pieces keep their links", () => {
    const square: Shape = {
      kind: "chain",
      closed: true,
      vertices: [
        [0, 0],
        [10, 0],
        [10, 10],
        [0, 10],
      ].map(([x, y], i) => ({ id: 100 + i, at: { x: x!, y: y! }, bulge: 0 })),
    };
    const { drawing, ids } = add(newDrawing("mm"), [square, line(3, -1, 3, 1), line(7, -1, 7, 1)]);
    const plan = planTrim(indexDrawing(drawing), { id: ids[0]!, vertex: 100 }, { x: 5, y: 0 }, "cut");
    if (!plan.ok) throw new Error(plan.refusal.code);
    const opened = entityOf(applyEdit(drawing, plan.value.edit), ids[0]!)!;
    if (opened.kind !== "chain") throw new Error(opened.kind);
    expect(opened.closed).toBe(false);
    expect([opened.vertices[0]!.at, opened.vertices.at(-1)!.at]).toEqual([
      { x: 7, y: 0 },
      { x: 3, y: 0 },
    ]);
    expect(
      planTrim(
        indexDrawing(add(newDrawing("mm"), [square, line(3, -1, 3, 1)]).drawing),
        { id: ids[0]!, vertex: 100 },
        { x: 5, y: 0 },
        "cut",
      ),
    ).toMatchObject({
      refusal: { code: "trim-single-cut", values: { what: "contour" } },
    });
  });
});

describe("join and clear", () => {
  it("joins layer by layer, keeps the longest part's id, and refuses when nothing meets", () => {
    const { drawing, ids } = add(newDrawing("mm"), [
      line(0, 0, 1, 0),
      line(1, 0, 1, 9),
      line(1, 9, 0, 0),
      line(50, 0, 60, 0),
    ]);
    const joined = joinPieces(drawing);
    if (!joined.ok) throw new Error(joined.refusal.code);
    expect(joined.value).toMatchObject({ contours: 1, chains: 0, pieces: 3 });
    const after = applyEdit(drawing, joined.value.edit);
    expect(cutEntities(after).map(({ id, kind }) => [id, kind])).toEqual([
      [ids[2], "chain"],
      [ids[3], "piece"],
    ]);
    expect(joinPieces(after)).toMatchObject({ refusal: { code: "already-joined", values: { open: 1 } } });
    expect(joinPieces(newDrawing("mm"))).toMatchObject({ refusal: { code: "nothing-to-join" } });
  });

  it(
    "an arc that goes nearly all the way round joins into a contour of the circle's area, and is one where its " +
      "ends are one place",
    () => {
      for (const [gap, within] of [
        [0.02, 0.05],
        [5e-8, undefined],
      ] as const) {
        const sweep = 2 * Math.PI - gap / 8;
        const arc = {
          kind: "piece",
          a: { x: 8, y: 0 },
          b: { x: 8 * Math.cos(sweep), y: 8 * Math.sin(sweep) },
          bulge: Math.tan(sweep / 4),
        } as const;
        const { drawing } = add(newDrawing("mm"), [arc]);
        const joined = joinPieces(drawing, undefined, within);
        if (!joined.ok) throw new Error(joined.refusal.code);
        expect(joined.value).toMatchObject({ contours: 1, openEnds: 0 });
        for (const { contours } of [
          profileOf(applyEdit(drawing, joined.value.edit)),
          ...(within ? [] : [profileOf(drawing)]),
        ])
          expect(contours.map(({ area }) => area)).toEqual([expect.closeTo(64 * Math.PI, 3)]);
      }
    },
  );

  it("clears all layout; an unanswered distance is cut loose and said", () => {
    const start = newDrawing("mm", [{ kind: "length", value: 7, name: "gap" }]);
    const { drawing, ids } = add(
      start,
      [{ kind: "endless", through: { x: 7, y: 0 }, angle: Math.PI / 2 }],
      LAYOUT_LAYER,
    );
    const draft = draftEdit(drawing, "Link", "link");
    draft.link(calloutsOf(start)[0]!.id, [{ id: 5 }, { id: ids[0]! }]);
    const linked = applyEdit(drawing, draft.finish());
    expect(measureCallout(linked, calloutsOf(linked)[0]!)).toMatchObject({ state: "true", measured: 7 });
    const cleared = clearLayout(linked);
    if (!cleared.ok) throw new Error();
    expect(cleared.value.cutLoose.map(({ links }) => links.length)).toEqual([2]);
    const after = applyEdit(linked, cleared.value);
    expect([...entitiesOf(after)]).toEqual([]);
    expect(measureCallout(after, calloutsOf(after)[0]!)).toEqual({ state: "not placed" });
    expect(clearLayout(after)).toMatchObject({ refusal: { code: "nothing-to-clear" } });
  });
});

describe("selecting", () => {
  const { drawing, ids } = add(newDrawing("mm"), [
    circle(0, 0, 10),
    circle(0, 0, 3),
    line(-5, -5, 30, -5),
    circle(40, 0, 3),
    line(2, 6, 2, 9),
  ]);
  const index = indexDrawing(drawing);
  const named = (found: readonly number[]): number[] => found.map((id) => ids.indexOf(id)).sort((p, q) => p - q);

  it("a box encloses or touches, and only touching takes endless lines", () => {
    const box = { minX: -4, minY: -4, maxX: 4, maxY: 10.5 };
    expect(named(selectByBox(index, box, "encloses"))).toEqual([1, 4]);
    expect(named(selectByBox(index, box, "touches"))).toEqual([-1, -1, 0, 1, 4]);
    // within the circle touches nothing of it
    expect(named(selectByBox(index, { minX: -1, minY: 4, maxX: 1, maxY: 5 }, "touches"))).toEqual([-1]);
  });

  it(
    "takes what is like a thing: its kind, its size, its layer; what is inside it; the run it belongs to; the " +
      "rest",
    () => {
      expect(named(selectLike(drawing, ids[1]!, "kind"))).toEqual([0, 1, 3]);
      expect(named(selectLike(drawing, ids[1]!, "size"))).toEqual([1, 3]);
      expect(named(selectLike(drawing, ids[1]!, "layer"))).toEqual([0, 1, 2, 3, 4]);
      expect(named(selectInside(drawing, ids[0]!))).toEqual([1, 4]); // the line that leaves the circle is not inside
      expect(selectInside(drawing, ids[2]!)).toEqual([]);
      const square = add(newDrawing("mm"), [line(0, 0, 1, 0), line(1, 0, 1, 1), line(9, 9, 8, 8)]);
      expect(selectRun(square.drawing, square.ids[1]!)).toEqual(square.ids.slice(0, 2));
      expect(named(invertSelection(drawing, new Set(ids.slice(0, 4))))).toEqual([-1, -1, 4]);
      expect(countByKind(drawing, [...ids, 4])).toBe("3 circles, 2 lines, 1 layout line");
    },
  );
});

describe("finding things", () => {
  it("the index after edits answers as one made anew", () => {
    fc.assert(
      fc.property(
        fc.array(shapes, { minLength: 1, maxLength: 30 }),
        fc.array(fc.nat(29), { maxLength: 8 }),
        fc.array(shapes, { maxLength: 6 }),
        points(),
        (first, gone, later, at) => {
          const one = add(newDrawing("mm"), first);
          const index = indexDrawing(one.drawing);
          const removed = removeEntities(
            one.drawing,
            gone.map((i) => one.ids[i % one.ids.length]!),
          );
          const middle = removed.ok ? applyEdit(one.drawing, removed.value) : one.drawing;
          const end = add(middle, later).drawing;
          const box = { minX: at.x - 30, minY: at.y - 30, maxX: at.x + 30, maxY: at.y + 30 };
          const found = (from: ReturnType<typeof indexDrawing>): string[] =>
            searchIndex(from, box)
              .map((item) => `${item.kind} ${JSON.stringify(item.ref)}`)
              .sort();
          expect(found(reindex(reindex(index, middle), end))).toEqual(found(indexDrawing(end)));
        },
      ),
    );
  });

  it("picks the nearest first, cut geometry before layout about as near, and names it", () => {
    const { drawing, ids } = add(newDrawing("mm"), [line(-5, 0.1, 5, 0.1), circle(0, 3, 2.5)]);
    const picks = picksAt(indexDrawing(drawing), { x: 2, y: 0 }, 1);
    expect(picks.map(({ ref }) => ref.id)).toEqual([ids[0], 4]);
    expect(picks[0]!.at).toEqual({ x: 2, y: 0.1 });
    expect([ids[0]!, ids[1]!, 4].map((id) => describeRef(drawing, { id }))).toEqual([
      "line 10",
      "circle Ø 5",
      "layout line",
    ]);
  });

  it("snaps to what is meant: word by word", () => {
    const { drawing } = add(newDrawing("mm"), [line(10, 0, 20, 10), circle(40, 0, 5), line(18, 12, 24, 4)]);
    const index = indexDrawing(drawing);
    const kind = (x: number, y: number, from?: Point): string | undefined =>
      snapsAt(index, { x, y }, 1, from ? { from } : {})[0]?.kind;
    expect(kind(10.3, 0.2)).toBe("end"); // the layout line runs through it, too: an end is said before a crossing
    expect(kind(20.2, 10.3)).toBe("end");
    expect(kind(15.2, 5.3)).toBe("middle");
    expect(kind(40.3, 0.4)).toBe("centre");
    expect(kind(40.1, 5.2)).toBe("quarter");
    expect(kind(0.2, 0.3)).toBe("crossing");
    expect(kind(13, 2.6)).toBe("nearest");
    expect(kind(60, 60)).toBeUndefined();
    expect(kind(12.3, 2.2, { x: 10, y: 4.5 })).toBe("perpendicular"); // the foot on the 45° line is at (12.25, 2.25)
    // there the foot is a quarter as well: the earlier word is said
    expect(kind(40.1, -5.2, { x: 40, y: 30 })).toBe("quarter");
    // tangent from (40, 13): touches at 5² / 13 from the centre (Euclid III.36)
    const y = 25 / 13;
    expect(kind(40 + Math.sqrt(25 - y * y), y, { x: 40, y: 13 })).toBe("tangent");
  });

  it("every snap lies within reach, nearest last, and none stands twice", () => {
    fc.assert(
      fc.property(fc.array(shapes, { minLength: 2, maxLength: 25 }), points(40), between(0.5, 20), (all, at, reach) => {
        const snaps = snapsAt(indexDrawing(add(newDrawing("mm"), all).drawing), at, reach);
        for (const snap of snaps) expect(distance(snap.at, at)).toBeLessThanOrEqual(reach);
        const words = snaps.map(({ kind }) => kind);
        expect(words.lastIndexOf("crossing")).toBeLessThan(
          words.includes("nearest") ? words.indexOf("nearest") : Infinity,
        );
        snaps.forEach((snap, i) =>
          snaps.slice(i + 1).forEach((other) => expect(distance(snap.at, other.at)).toBeGreaterThan(RESOLUTION)),
        );
      }),
    );
  });

  it("a reference to nothing is no curve", () => expect(curveAt(newDrawing("mm"), { id: 999 })).toBeUndefined());
});
