import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { measureCallout } from "../callouts/measure.ts";
import { chamferCorner } from "../construct/cornerCuts.ts";
import { freeThrough } from "../construct/freeThrough.ts";
import { rectangleOf } from "../construct/rectangle.ts";
import { enclosedArea } from "../contour/chainMeasure.ts";
import { chainOfPieces, chainPieces } from "../contour/index.ts";
import {
  applyEdit,
  calloutsOf,
  curvesOf,
  cutEntities,
  drawingText,
  entityOf,
  invertEdit,
  newDrawing,
  PROFILE_LAYER,
  type Drawing,
  type Edit,
  type Entity,
} from "../drawing/index.ts";
import { curveEnds, curveLength, curveNearest } from "../geometry/curve.ts";
import { pieceCentre, pieceLength, type Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { moving, turning } from "../geometry/transform.ts";
import { changedShapes, indexDrawing } from "../look/index.ts";
import type { Outcome } from "../numeric/outcome.ts";
import { profileOf } from "../profile/profile.ts";
import { sayJoined } from "../say/say.ts";
import type { Shape } from "../shape/index.ts";
import { between, points } from "../testing/placements.ts";
import {
  copyEntities,
  cornerAt,
  crossedBy,
  cutCorners,
  cutCornersInBox,
  cutLooseCorner,
  draftEdit,
  extendAlong,
  filletCut,
  freeSide,
  joinPieces,
  meetCurves,
  mirrorEntities,
  openOrClose,
  planExtend,
  planTrim,
  reliefCut,
  reroundCorner,
  splitAt,
  splitAtCrossings,
  splitInto,
  startAt,
  takeApart,
  trimAlong,
} from "./index.ts";

const value = <T>(outcome: Outcome<T>): T => {
  if (!outcome.ok) throw new Error(outcome.refusal.code);
  return outcome.value;
};
const line = (x1: number, y1: number, x2: number, y2: number): Shape => ({
  kind: "piece",
  a: { x: x1, y: y1 },
  b: { x: x2, y: y2 },
  bulge: 0,
});
const circle = (x: number, y: number, radius: number): Shape => ({ kind: "circle", centre: { x, y }, radius });
const rectangle = (w: number, h: number, x = 0): Shape => {
  let id = 9000 + x;
  return chainOfPieces(value(rectangleOf(w, h, { across: 0, up: 0 }, { x, y: 0 })), true, () => id++);
};
const drawn = (...shapes: readonly Shape[]): { drawing: Drawing; ids: number[] } => {
  const start = newDrawing("mm");
  const draft = draftEdit(start, "Draw", "draw");
  const ids = shapes.map((shape) => draft.add(shape, PROFILE_LAYER));
  return { drawing: applyEdit(start, draft.finish()), ids };
};
/** Applies an edit, and makes sure that undo gives the drawing back byte for byte. */
const after = (drawing: Drawing, edit: Edit): Drawing => {
  const next = applyEdit(drawing, edit);
  expect(drawingText(applyEdit(next, invertEdit(edit)))).toBe(drawingText(drawing));
  return next;
};
const chain = (drawing: Drawing, id: number): Entity & { kind: "chain" } =>
  entityOf(drawing, id) as Entity & { kind: "chain" };
const areaOf = (drawing: Drawing, id: number): number => Math.abs(enclosedArea(chainPieces(chain(drawing, id))));
const vertexIds = (drawing: Drawing, id: number): number[] => chain(drawing, id).vertices.map((vertex) => vertex.id);
const totalLength = (drawing: Drawing): number =>
  cutEntities(drawing).reduce(
    (sum, entity) => sum + curvesOf(entity).reduce((own, { curve }) => own + curveLength(curve), 0),
    0,
  );

describe("extend", () => {
  it("gives back what a trim took, of lines and arcs", () => {
    fc.assert(
      fc.property(between(-8, 8), fc.constantFrom(0, 0.4, -0.4), (x, bulge) => {
        const { drawing, ids } = drawn(
          { kind: "piece", a: { x: -10, y: 0 }, b: { x: 10, y: 0 }, bulge },
          line(x, -30, x, 30),
          line(10, -30, 10, 30),
        );
        const cut = value(
          planTrim(indexDrawing(drawing), { id: ids[0]! }, { x: 9.9, y: bulge === 0 ? 0 : -bulge }, "cut"),
        );
        const trimmed = after(drawing, cut.edit);
        const plan = value(planExtend(indexDrawing(trimmed), { id: ids[0]! }, { x, y: 0 }, "cut"));
        const back = entityOf(after(trimmed, plan.edit), ids[0]!) as Entity & Piece;
        expect(distance(back.b, { x: 10, y: 0 })).toBeLessThan(1e-9);
        expect(back.bulge).toBeCloseTo(bulge, 9);
      }),
    );
  });
  it(
    "runs lines straight on, arcs along their circle, chains at their ends, ellipses and free curves along " +
      "themselves",
    () => {
      const free = value(
        freeThrough([
          { x: 0, y: 40 },
          { x: 10, y: 44 },
          { x: 20, y: 41 },
        ]),
      );
      const { drawing, ids } = drawn(
        line(0, 0, 10, 0),
        { kind: "piece", a: { x: 0, y: -20 }, b: { x: 10, y: -10 }, bulge: Math.tan(Math.PI / 8) },
        {
          kind: "ellipse",
          centre: { x: 0, y: 20 },
          major: { x: 40, y: 0 },
          ratio: 0.2,
          from: Math.PI / 2,
          sweep: -0.5,
        },
        { kind: "free", ...free },
        line(28, -60, 28, 80),
        line(-60, -4, 9, -4),
      );
      const index = indexDrawing(drawing);
      const end = (i: number, at: Point): Point => {
        const changed = entityOf(after(drawing, value(planExtend(index, { id: ids[i]! }, at, "cut")).edit), ids[i]!)!;
        const { curve } = curvesOf(changed)[0]!;
        return [...curveEnds(curve)].sort((p, q) => q.x - p.x)[0]!;
      };
      expect(end(0, { x: 10, y: 0 })).toEqual({ x: 28, y: 0 });
      expect(end(2, { x: 28, y: 25 }).x).toBeCloseTo(28, 9);
      // the free curve ends on the line, and is still the same one where it was
      const longer = entityOf(
        applyEdit(drawing, value(planExtend(index, { id: ids[3]! }, { x: 20, y: 41 }, "cut")).edit),
        ids[3]!,
      )!;
      expect(curveNearest(curvesOf(longer)[0]!.curve, { x: 10, y: 44 }).distance).toBeLessThan(1e-9);
      expect(curveEnds(curvesOf(longer)[0]!.curve)[1]!.x).toBeCloseTo(28, 9);
      // an arc goes up along its circle to the level line at y = -4
      const arc = entityOf(
        after(drawing, value(planExtend(index, { id: ids[1]! }, { x: 10, y: -10 }, new Set([ids[5]!]))).edit),
        ids[1]!,
      );
      expect((arc as Entity & Piece).b).toEqual({
        x: expect.closeTo(8, 9) as number,
        y: expect.closeTo(-4, 9) as number,
      });
    },
  );
  it("says so where nothing lies ahead, and for what has no end; cuts back to a boundary that was chosen", () => {
    const { drawing, ids } = drawn(line(0, 0, 10, 0), circle(0, 30, 5), line(4, -5, 4, 5));
    const index = indexDrawing(drawing);
    expect(planExtend(index, { id: ids[0]! }, { x: 10, y: 0 }, "cut")).toMatchObject({
      refusal: { code: "extend-nothing-ahead" },
    });
    expect(planExtend(index, { id: ids[1]! }, { x: 5, y: 30 }, "cut")).toMatchObject({
      refusal: { code: "extend-closed" },
    });
    const plan = value(planExtend(index, { id: ids[0]! }, { x: 10, y: 0 }, new Set([ids[2]!])));
    expect(plan.goes).toHaveLength(1);
    expect(entityOf(after(drawing, plan.edit), ids[0]!)).toMatchObject({ b: { x: 4, y: 0 } });
  });
});

describe("a drag across the board", () => {
  it("trims every piece it crosses as one edit, extends every end", () => {
    const rungs = Array.from({ length: 6 }, (_, i) => line(i, -1, i, 4));
    const { drawing, ids } = drawn(line(-1, 0, 6, 0), line(-1, 3, 6, 3), ...rungs);
    const path = [
      { x: -0.5, y: 1.5 },
      { x: 5.5, y: 1.6 },
    ];
    expect(crossedBy(indexDrawing(drawing), path)).toHaveLength(6);
    const swept = value(trimAlong(indexDrawing(drawing), path, "cut"));
    expect(swept).toMatchObject({ count: 6, edit: { label: "Trim × 6" } });
    const cut = after(drawing, swept.edit);
    expect(totalLength(cut)).toBeCloseTo(totalLength(drawing) - 18, 9);
    const short = Array.from({ length: 5 }, (_, i) => line(0, 10 + i, 3 + i / 10, 10 + i));
    const ends = drawn(line(8, 0, 8, 30), ...short);
    const run = value(
      extendAlong(
        indexDrawing(ends.drawing),
        [
          { x: 2.5, y: 9 },
          { x: 2.5, y: 15 },
        ],
        "cut",
      ),
    );
    const extended = after(ends.drawing, run.edit);
    for (const id of ends.ids.slice(1)) expect((entityOf(extended, id) as Entity & Piece).b.x).toBe(8);
    expect(
      trimAlong(
        indexDrawing(drawing),
        [
          { x: 50, y: 50 },
          { x: 60, y: 60 },
        ],
        "cut",
      ),
    ).toMatchObject({ ok: false });
    expect(ids).toHaveLength(8);
  });
});

describe("corners of chains", () => {
  it(
    "a bar with a full round end: exactly half of 3.5 takes both corners, a millionth more is refused naming " +
      "1.75 (common practice)",
    () => {
      const { drawing, ids } = drawn(rectangle(18, 3.5));
      const [, right, top] = vertexIds(drawing, ids[0]!);
      const made = value(cutCorners(drawing, ids[0]!, [right!, top!], filletCut(1.75), "Fillet"));
      const round = after(drawing, made.edit);
      expect(made.count).toBe(2);
      expect(areaOf(round, ids[0]!)).toBeCloseTo(16.25 * 3.5 + (Math.PI * 1.75 ** 2) / 2, 12);
      expect(chainPieces(chain(round, ids[0]!)).map(({ bulge }) => bulge !== 0)).toEqual([
        false,
        true,
        true,
        false,
        false,
      ]);
      const one = after(drawing, value(cutCorners(drawing, ids[0]!, [right!], filletCut(1.75), "Fillet")).edit);
      expect(cutCorners(one, ids[0]!, [top!], filletCut(1.750001), "Fillet")).toMatchObject({
        refusal: { code: "radius-too-large", values: { limit: expect.closeTo(1.75, 12) as number } },
      });
    },
  );
  it("beside a tangent arc: a fillet larger than the edge between goes on to the arc, tangent to it", () => {
    const at = (x: number, y: number) => ({ x, y });
    const { drawing, ids } = drawn({
      kind: "chain",
      closed: true,
      vertices: [
        { id: 0, at: at(-40, 0), bulge: 0 },
        { id: 0, at: at(0, 0), bulge: 0 },
        { id: 0, at: at(0, 8), bulge: Math.tan(Math.PI / 8) }, // R 15 about (-15, 8)
        { id: 0, at: at(-15, 23), bulge: 0 },
        { id: 0, at: at(-40, 23), bulge: 0 },
      ].map((vertex, i) => ({ ...vertex, id: 100 + i })),
    });
    const corner = vertexIds(drawing, ids[0]!)[1]!;
    const round = after(drawing, value(cutCorners(drawing, ids[0]!, [corner], filletCut(11), "Fillet")).edit);
    // by hand: the middle is 11 above the line and 15 - 11 from that of the arc
    const x = -15 + Math.sqrt(4 ** 2 - 3 ** 2);
    const places = chain(round, ids[0]!).vertices.map((vertex) => vertex.at);
    expect(places).toHaveLength(5);
    for (const place of [at(x, 0), at(-15 + (15 / 4) * Math.sqrt(7), 8 + (15 / 4) * 3)])
      expect(Math.min(...places.map((own) => Math.hypot(own.x - place.x, own.y - place.y)))).toBeLessThan(1e-9);
    const refused = cutCorners(drawing, ids[0]!, [corner], filletCut(30), "Fillet");
    const limit = refused.ok ? 0 : (refused.refusal.values.limit as number);
    expect(limit).toBeGreaterThan(11);
    expect(cutCorners(drawing, ids[0]!, [corner], filletCut(limit), "Fillet").ok).toBe(true);
    expect(cutCorners(drawing, ids[0]!, [corner], filletCut(limit * 1.000001), "Fillet").ok).toBe(false);
  });
  it("in a box: of two contours and of loose lines in one edit, those left told; kept edges stay as they are", () => {
    const { drawing: high, ids } = drawn(
      rectangle(50, 40),
      rectangle(30, 20, 60),
      line(100, 0, 120, 0),
      line(120, 0, 120, 20),
    );
    const box = { minX: -1, minY: -1, maxX: 130, maxY: 1 };
    for (const keep of [false, true]) {
      const made = value(cutCornersInBox(indexDrawing(high), box, filletCut(3), "Fillet", () => undefined, keep));
      expect([made.count, made.refusals.length]).toEqual([5, 0]);
      const next = after(high, made.edit);
      if (keep) for (const id of ids) expect(entityOf(next, id)).toEqual(entityOf(high, id));
      else expect(areaOf(next, ids[0]!)).toBeCloseTo(50 * 40 - (2 - Math.PI / 2) * 9, 9);
      const arcs = cutEntities(next).filter((one) => one.kind === "piece" && one.bulge !== 0);
      expect(arcs).toHaveLength(keep ? 5 : 1);
    }
    const large = value(cutCornersInBox(indexDrawing(high), box, filletCut(18), "Fillet", () => undefined, false));
    expect([large.count, large.refusals.length]).toEqual([4, 1]); // 30 is too short for two of 18
  });
  it(
    "are rounded all at once, those that can't be are told; sharpened they are what they were; chamfers take " +
      "their triangles",
    () => {
      fc.assert(
        fc.property(between(10, 80), between(10, 60), between(0.1, 4.9), (w, h, r) => {
          const { drawing, ids } = drawn(rectangle(w, h));
          const id = ids[0]!;
          const made = value(cutCorners(drawing, id, "all", filletCut(r), "Fillet"));
          const round = after(drawing, made.edit);
          expect(made.count).toBe(4);
          expect(Math.abs(areaOf(round, id) - (w * h - (4 - Math.PI) * r * r))).toBeLessThan(1e-9 * w * h);
          let sharp = round;
          for (const { id: vertex } of chain(round, id).vertices.filter(({ bulge }) => bulge !== 0))
            sharp = after(sharp, value(reroundCorner(sharp, { id, vertex }, undefined)).edit);
          expect(Math.abs(areaOf(sharp, id) - w * h)).toBeLessThan(1e-9 * w * h);
          const arc = chain(round, id).vertices.find(({ bulge }) => bulge !== 0)!;
          const changed = after(round, value(reroundCorner(round, { id, vertex: arc.id }, r / 2)).edit);
          expect(areaOf(changed, id) - areaOf(round, id)).toBeCloseTo((1 - Math.PI / 4) * (r * r - (r * r) / 4), 6);
          const cut = after(
            drawing,
            value(cutCorners(drawing, id, "all", (p, q) => chamferCorner(p, q, r, Math.min(2 * r, 9.9 - r)), "Chamfer"))
              .edit,
          );
          expect(areaOf(cut, id)).toBeCloseTo(w * h - 4 * ((r * Math.min(2 * r, 9.9 - r)) / 2), 5);
        }),
        { numRuns: 40 },
      );
      const { drawing, ids } = drawn(rectangle(30, 10));
      expect(cutCorners(drawing, ids[0]!, "all", filletCut(6), "Fillet")).toMatchObject({
        ok: true,
        value: { count: 2, refusals: [{ values: { limit: expect.closeTo(4, 9) as number } }, {}] },
      });
      expect(reroundCorner(drawing, { id: ids[0]!, vertex: vertexIds(drawing, ids[0]!)[0]! }, 2)).toMatchObject({
        refusal: { code: "not-a-fillet" },
      });
    },
  );
  it("an R callout follows its arc to its new radius, and is cut loose with a sharpened one", () => {
    const start = newDrawing("mm", [{ kind: "radius", value: 3, name: "corner" }]);
    const draft = draftEdit(start, "Draw", "draw");
    const id = draft.add(rectangle(30, 20), PROFILE_LAYER);
    const drawing = applyEdit(start, draft.finish());
    const callout = calloutsOf(drawing)[0]!;
    const round = after(
      drawing,
      value(cutCorners(drawing, id, "all", filletCut(3), "Fillet", (edit, refs) => edit.link(callout.id, refs, true)))
        .edit,
    );
    expect(measureCallout(round, calloutsOf(round)[0]!).state).toBe("true");
    const arc = chain(round, id).vertices.find(({ bulge }) => bulge !== 0)!;
    const changed = after(round, value(reroundCorner(round, { id, vertex: arc.id }, 2)).edit);
    expect(measureCallout(changed, calloutsOf(changed)[0]!)).toMatchObject({
      state: "off",
      by: expect.closeTo(-1, 9) as number,
    });
    const sharp = value(reroundCorner(round, { id, vertex: arc.id }, undefined)).edit;
    expect(sharp.cutLoose).toHaveLength(1);
  });
  it(
    "where loose pieces meet are rounded too, the edges kept if wanted; inside corners are relieved, outside " +
      "ones refused",
    () => {
      const { drawing, ids } = drawn(line(-20, 0, 0, 0), line(0, 15, 0, 0));
      const corner = cornerAt(indexDrawing(drawing), { id: ids[0]! }, { x: 0, y: 0 })!;
      expect(corner.kind).toBe("loose");
      if (corner.kind !== "loose") return;
      const round = after(drawing, value(cutLooseCorner(drawing, corner, filletCut(5), "Fillet")).edit);
      expect(
        cutEntities(round).map((entity) => (entity.kind === "piece" ? pieceLength(entity) : 0).toFixed(6)),
      ).toEqual(["15.000000", "10.000000", (2.5 * Math.PI).toFixed(6)]);
      const kept = after(drawing, value(cutLooseCorner(drawing, corner, filletCut(5), "Fillet", true)).edit);
      expect(cutEntities(kept)).toHaveLength(3);
      expect((entityOf(kept, ids[0]!) as Entity & Piece).b).toEqual({ x: 0, y: 0 });

      // the end of a chain and a loose line, and two chains' ends; a piece used up goes, with its chain where that is
      // all of it
      const open = (...corners: readonly Point[]): Shape => {
        let id = 9700;
        return chainOfPieces(
          corners.slice(1).map((b, i) => ({ a: corners[i]!, b, bulge: 0 })),
          false,
          () => id++,
        );
      };
      const mixed = drawn(open({ x: 0, y: 30 }, { x: 0, y: 0 }, { x: 20, y: 0 }), line(20, 15, 20, 0));
      const met = cornerAt(indexDrawing(mixed.drawing), { id: mixed.ids[1]! }, { x: 20, y: 0 })!;
      expect(met).toMatchObject({ kind: "loose", ends: [{ id: mixed.ids[0] }, { id: mixed.ids[1], place: "end" }] });
      if (met.kind !== "loose") return;
      const cut = after(mixed.drawing, value(cutLooseCorner(mixed.drawing, met, filletCut(15), "Fillet")).edit);
      expect(chain(cut, mixed.ids[0]!).vertices.at(-1)!.at).toEqual({ x: 5, y: 0 });
      expect(entityOf(cut, mixed.ids[1]!)).toBeUndefined();
      const chamfered = after(
        mixed.drawing,
        value(cutLooseCorner(mixed.drawing, met, (p, q) => chamferCorner(p, q, 20, 3), "Chamfer")).edit,
      );
      expect(chain(chamfered, mixed.ids[0]!).vertices.map(({ at }) => at)).toEqual([
        { x: 0, y: 30 },
        { x: 0, y: 0 },
      ]);

      const plate = drawn(
        rectangle(60, 40),
        ((): Shape => {
          let id = 9500;
          return chainOfPieces(value(rectangleOf(20, 10, { across: 1, up: 1 }, { x: 30, y: 20 })), true, () => id++);
        })(),
      );
      const [outer, pocket] = plate.ids as [number, number];
      const area = areaOf(plate.drawing, pocket);
      for (const [kind, more] of [
        ["round", (3 / 4) * Math.PI * 4],
        ["edge", (Math.PI * 4) / 2],
        ["bisector", Math.PI * 4 - (Math.PI * 4) / 2 - 4],
      ] as const) {
        const side = value(freeSide(plate.drawing, pocket));
        const made = value(cutCorners(plate.drawing, pocket, "all", reliefCut(2, kind, side), "Corner relief"));
        expect(made.count).toBe(4);
        expect(areaOf(after(plate.drawing, made.edit), pocket) - area).toBeCloseTo(4 * more, 6);
      }
      expect(
        cutCorners(
          plate.drawing,
          outer,
          "all",
          reliefCut(2, "round", value(freeSide(plate.drawing, outer))),
          "Corner relief",
        ),
      ).toMatchObject({ refusal: { code: "corner-outside" } });
    },
  );
});

describe("meet, split, take apart, open, close, turn", () => {
  it("two picked pieces meet at their corner, the picked sides stay; what lies within a chain is refused", () => {
    const { drawing, ids } = drawn(line(-20, 0, -3, 0), line(0, -4, 0, 15), rectangle(9, 9));
    const met = value(
      meetCurves(
        drawing,
        { ref: { id: ids[0]! }, at: { x: -10, y: 0 } },
        { ref: { id: ids[1]! }, at: { x: 0, y: 10 } },
      ),
    );
    const next = after(drawing, met.edit);
    expect([entityOf(next, ids[0]!), entityOf(next, ids[1]!)]).toMatchObject([
      { b: { x: 0, y: 0 } },
      { a: { x: 0, y: 0 }, b: { x: 0, y: 15 } },
    ]);
    const vertex = vertexIds(drawing, ids[2]!)[1]!;
    expect(
      meetCurves(
        drawing,
        { ref: { id: ids[0]! }, at: { x: -10, y: 0 } },
        { ref: { id: ids[2]!, vertex }, at: { x: 9, y: 4 } },
      ),
    ).toMatchObject({ refusal: { code: "inside-chain" } });
    // an arc runs on along its own circle to a corner beyond it, whichever of its ends is nearer
    fc.assert(
      fc.property(between(0, 6), between(0.5, 6.2), fc.boolean(), (start, round, reversed) => {
        const to = start + round;
        const on = (angle: number) => ({ x: 10 * Math.cos(angle), y: 10 * Math.sin(angle) });
        const bulge = Math.tan(0.1); // 0.4 rad of the circle
        const [p, q] = [on(start), on(start + 0.4)];
        const arc = { kind: "piece", ...(reversed ? { a: q, b: p, bulge: -bulge } : { a: p, b: q, bulge }) } as const;
        const {
          drawing: apart,
          ids: [first, second],
        } = drawn(arc, line(2 * on(to).x, 2 * on(to).y, 4 * on(to).x, 4 * on(to).y));
        const { a } = value(
          meetCurves(
            apart,
            { ref: { id: first! }, at: on(start + 0.2) },
            { ref: { id: second! }, at: { x: 3 * on(to).x, y: 3 * on(to).y } },
          ),
        );
        const centre = pieceCentre(a!)!;
        expect(Math.hypot(centre.x, centre.y)).toBeLessThan(1e-9);
        expect(pieceLength(a!)).toBeCloseTo(10 * (0.4 + Math.min(round - 0.4, 2 * Math.PI - round)), 8);
      }),
    );
    const level = drawn(line(0, 0, 5, 0), line(0, 3, 5, 3));
    expect(
      meetCurves(
        level.drawing,
        { ref: { id: level.ids[0]! }, at: { x: 1, y: 0 } },
        { ref: { id: level.ids[1]! }, at: { x: 1, y: 3 } },
      ),
    ).toMatchObject({ refusal: { code: "meet-no-corner" } });
  });
  it("what an edit changes is the part that comes or goes, curve by curve", () => {
    const { drawing, ids } = drawn(line(-20, 0, -3, 0), line(0, -4, 0, 15), circle(50, 0, 5));
    const draft = draftEdit(drawing, "Change", "change");
    draft.replace({ ...entityOf(drawing, ids[0]!)!, ...line(-20, 0, 0, 0) } as Entity);
    draft.replace({ ...entityOf(drawing, ids[1]!)!, ...line(0, 0, 0, 15) } as Entity);
    draft.replace({ ...entityOf(drawing, ids[2]!)!, radius: 6 } as Entity);
    draft.add(line(9, 9, 10, 10), PROFILE_LAYER);
    const { comes, goes } = changedShapes(draft.finish());
    expect(comes).toMatchObject([line(-3, 0, 0, 0), circle(50, 0, 6), line(9, 9, 10, 10)]);
    expect(goes).toMatchObject([line(0, -4, 0, 0), circle(50, 0, 5)]);
    // an arc run on or cut along its circle; another radius is another arc
    fc.assert(
      fc.property(between(0.1, 1.5), between(0.1, 1.5), fc.boolean(), (was, is, turned) => {
        const arc = (sweep: number): Shape => {
          const end = { x: 10 * Math.cos(sweep), y: 10 * Math.sin(sweep) };
          const bulge = Math.tan(sweep / 4);
          return turned
            ? { kind: "piece", a: end, b: { x: 10, y: 0 }, bulge: -bulge }
            : { kind: "piece", a: { x: 10, y: 0 }, b: end, bulge };
        };
        const one = drawn(arc(was));
        const change = draftEdit(one.drawing, "Change", "change");
        change.replace({ ...entityOf(one.drawing, one.ids[0]!)!, ...arc(is) } as Entity);
        const shapes = changedShapes(change.finish());
        const length = (parts: readonly Shape[]): number =>
          parts.reduce((sum, part) => sum + pieceLength(part as Piece), 0);
        expect(length(shapes.comes)).toBeCloseTo(Math.max(0, 10 * (is - was)), 6);
        expect(length(shapes.goes)).toBeCloseTo(Math.max(0, 10 * (was - is)), 6);
      }),
    );
  });
  it("splitting keeps every length, joining puts it together, taking apart gives the same points", () => {
    fc.assert(
      fc.property(points(20), between(0.1, 0.9), fc.integer({ min: 2, max: 9 }), (at, r, n) => {
        const { drawing, ids } = drawn(rectangle(40, 30), circle(100, 0, 12));
        const ref = { id: ids[0]!, vertex: vertexIds(drawing, ids[0]!)[0]! };
        const opened = after(drawing, value(splitAt(drawing, ref, { x: 40 * r, y: at.y })).edit);
        expect(chain(opened, ids[0]!).closed).toBe(false);
        expect(totalLength(opened)).toBeCloseTo(totalLength(drawing), 9);
        const joined = after(opened, value(joinPieces(opened)).edit);
        expect(areaOf(joined, ids[0]!)).toBeCloseTo(1200, 9);
        const apart = value(takeApart(joined, [ids[0]!]));
        const loose = after(joined, apart.edit);
        expect(apart.pieces).toBe(5);
        expect(profileOf(loose).contours.some(({ joined: one, area }) => !one && Math.abs(area - 1200) < 1e-9)).toBe(
          true,
        );
        const round = after(drawing, value(splitInto(drawing, { id: ids[1]! }, n, { x: 112, y: 0 })).edit);
        expect(cutEntities(round).filter((entity) => entity.kind === "piece")).toHaveLength(n);
        expect(totalLength(round)).toBeCloseTo(totalLength(drawing), 6);
      }),
      { numRuns: 30 },
    );
    const { drawing, ids } = drawn(circle(0, 0, 10), line(-20, 0, 20, 0), line(0, -20, 0, 20));
    expect(value(splitAtCrossings(indexDrawing(drawing), { id: ids[0]! })).parts).toBe(4);
    expect(value(splitAtCrossings(indexDrawing(drawing), { id: ids[1]! })).parts).toBe(4);
    expect(splitAt(drawing, { id: ids[0]! }, { x: 10, y: 0 })).toMatchObject({ refusal: { code: "split-circle" } });
  });
  it(
    "a contour opens and closes, starts where it is told, and runs the other way with its links on the same " +
      "pieces",
    () => {
      const start = newDrawing("mm", [{ kind: "length", value: 40, name: "edge" }]);
      const draft = draftEdit(start, "Draw", "draw");
      const id = draft.add(rectangle(40, 30), PROFILE_LAYER);
      const drawing = applyEdit(start, draft.finish());
      const callout = calloutsOf(drawing)[0]!;
      const linked = draftEdit(drawing, "Link", "link");
      linked.link(callout.id, [{ id, vertex: vertexIds(drawing, id)[0]! }]);
      const one = applyEdit(drawing, linked.finish());
      const opened = after(one, value(openOrClose(one, id, { x: 40, y: 30 })).edit);
      expect(chain(opened, id)).toMatchObject({ closed: false });
      expect(chain(opened, id).vertices[0]!.at).toEqual({ x: 40, y: 30 });
      const closed = after(opened, value(openOrClose(opened, id, { x: 0, y: 0 })).edit);
      expect(areaOf(closed, id)).toBeCloseTo(1200, 12);
      for (const turn of [false, true]) {
        const started = after(one, value(startAt(one, id, { x: 40, y: 30 }, turn)));
        expect(chain(started, id).vertices[0]!.at).toEqual({ x: 40, y: 30 });
        expect(Math.sign(enclosedArea(chainPieces(chain(started, id))))).toBe(turn ? -1 : 1);
        expect(measureCallout(started, calloutsOf(started)[0]!).state).toBe("true");
      }
    },
  );
});

describe("copies", () => {
  const things = fc
    .record({ a: points(), b: points(), bulge: fc.constantFrom(0, 0.5, -1.2) })
    .filter(({ a, b }) => distance(a, b) > 1)
    .map((piece): Shape => ({ kind: "piece", ...piece }));
  it("mirrored twice in place are what they were", () => {
    fc.assert(
      fc.property(things, points(), between(-3, 3), (shape, at, angle) => {
        const { drawing, ids } = drawn(shape);
        const twice = [0, 1].reduce(
          (now) => after(now, value(mirrorEntities(now, ids, { at, angle }, false)).edit),
          drawing,
        );
        const [was, is] = [entityOf(drawing, ids[0]!), entityOf(twice, ids[0]!)] as (Entity & Piece)[];
        expect(distance(was!.a, is!.a) + distance(was!.b, is!.b)).toBeLessThan(1e-9 * 400);
        expect(is!.bulge).toBe(was!.bulge);
      }),
    );
  });
  it("half a part mirrored on its middle is one closed contour of twice the area, nothing doubled on the axis", () => {
    const half: Piece[] = [
      { a: { x: 0, y: -10 }, b: { x: 20, y: -10 }, bulge: 0 },
      { a: { x: 20, y: -10 }, b: { x: 20, y: 10 }, bulge: 1 },
      { a: { x: 20, y: 10 }, b: { x: 0, y: 10 }, bulge: 0 },
    ];
    for (const run of [half, half.map(({ a, b, bulge }) => ({ a: b, b: a, bulge: -bulge })).reverse()]) {
      let id = 9000;
      const { drawing, ids } = drawn(
        chainOfPieces(run, false, () => id++),
        line(0, -30, 0, 30),
        circle(0, 0, 4),
      );
      const made = value(mirrorEntities(drawing, ids, { at: { x: 0, y: 5 }, angle: Math.PI / 2 }, true));
      const whole = after(drawing, made.edit);
      expect(made.welded).toBe(3);
      expect(cutEntities(whole)).toHaveLength(3);
      expect(chain(whole, ids[0]!)).toMatchObject({ closed: true });
      expect(chain(whole, ids[0]!).vertices).toHaveLength(4);
      expect(areaOf(whole, ids[0]!)).toBeCloseTo(2 * (400 + (Math.PI * 100) / 2), 9);
    }
    // one end on the axis: one chain across it
    let id = 9000;
    const arm = drawn(
      chainOfPieces(
        [
          { a: { x: 0, y: 0 }, b: { x: 20, y: 0 }, bulge: 0 },
          { a: { x: 20, y: 0 }, b: { x: 25, y: 8 }, bulge: 0 },
        ],
        false,
        () => id++,
      ),
    );
    const both = after(
      arm.drawing,
      value(mirrorEntities(arm.drawing, arm.ids, { at: { x: 0, y: 0 }, angle: Math.PI / 2 }, true)).edit,
    );
    expect(chain(both, arm.ids[0]!).vertices.map(({ at }) => at.x)).toEqual([-25, -20, 20, 25]);
  });
  it(
    "keep shape, layer and line, get corners of their own, and answer the size callouts of what they were " +
      "copied from",
    () => {
      const start = newDrawing("mm", [{ kind: "radius", value: 6, name: "bosses, 3 off" }]);
      const draft = draftEdit(start, "Draw", "draw");
      const id = draft.add(circle(40, 0, 6), PROFILE_LAYER);
      const box = draft.add({ ...rectangle(5, 5), line: "dotted" } as unknown as Shape, PROFILE_LAYER);
      draft.link(calloutsOf(start)[0]!.id, [{ id }]);
      const drawing = applyEdit(start, draft.finish());
      const copied = after(
        drawing,
        value(
          copyEntities(
            drawing,
            [id, box],
            [1, 2].map((i) => turning({ x: 0, y: 0 }, (i * 2 * Math.PI) / 3)),
            "Round",
            "round",
          ),
        ),
      );
      expect(calloutsOf(copied)[0]!.links).toHaveLength(3);
      const chains = cutEntities(copied).filter((entity) => entity.kind === "chain");
      expect(
        new Set(chains.flatMap((entity) => (entity.kind === "chain" ? entity.vertices.map((vertex) => vertex.id) : [])))
          .size,
      ).toBe(12);
      expect(chains.map(({ line: style }) => style)).toEqual(["dotted", "dotted", "dotted"]);
      expect(
        copyEntities(
          drawing,
          [id],
          Array.from({ length: 30_000 }, () => moving({ x: 1, y: 0 })),
          "Rows",
          "rows",
        ),
      ).toMatchObject({ refusal: { code: "count-too-large" } });
    },
  );
});

describe("Join closing gaps", () => {
  const joined = (...pieces: readonly Piece[]) => {
    const start = newDrawing("mm");
    const draft = draftEdit(start, "Draw", "draw");
    for (const { a, b, bulge } of pieces) draft.add({ kind: "piece", a, b, bulge }, PROFILE_LAYER);
    const drawing = applyEdit(start, draft.finish());
    const made = joinPieces(drawing, undefined, 0.1);
    if (!made.ok) throw new Error(made.refusal.code);
    const [chain] = [...cutEntities(applyEdit(drawing, made.value.edit))];
    return { ...made.value, curves: curvesOf(chain!).map(({ curve }) => curve) };
  };
  const from = (a: Point, b: Point, bulge = 0): Piece => ({ a, b, bulge });

  it("at the true corner where that is in reach, with nothing bent", () => {
    const made = joined(from({ x: 0, y: 0 }, { x: 49.95, y: 0 }), from({ x: 50, y: 0.05 }, { x: 50, y: 40 }));
    expect([made.mended, made.bent, made.chains]).toEqual([1, 0, 1]);
    expect(curveEnds(made.curves[0]!)[1]).toEqual({ x: 50, y: 0 });
  });

  it("says of an arc that it has another radius, where only half way is left", () => {
    const made = joined(from({ x: 14, y: 0 }, { x: -14, y: 0 }, 1), from({ x: -14.05, y: 0 }, { x: -14.05, y: -40 }));
    expect([made.mended, made.bent]).toEqual([1, 1]);
    expect(sayJoined(made, "mm")).toContain("1 gap closed, 1 arc with another radius than before");
  });
});
