import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { rectangleOf } from "../construct/rectangle.ts";
import { centroidOf } from "../contour/centroid.ts";
import { enclosedArea } from "../contour/chainMeasure.ts";
import {
  applyEdit,
  CUT_ROLES,
  drawingFromRows,
  drawingText,
  entitiesOf,
  entityOf,
  invertEdit,
  layerOf,
  LAYOUT_LAYER,
  layersOf,
  MARK_LAYER,
  newDrawing,
  PROFILE_LAYER,
  type Drawing,
  type Entity,
} from "../drawing/index.ts";
import { circleHalves } from "../geometry/circle.ts";
import { arcOf, pieceLength, pieceRadius, transformPiece, type Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { moving, scaleOf, transformPoint, turning } from "../geometry/transform.ts";
import { indexDrawing, snapsAt, type SnapKind } from "../look/index.ts";
import { RESOLUTION, residualBound } from "../numeric/tolerance.ts";
import { propertiesOf, type Shape } from "../shape/index.ts";
import { between, placements, points } from "../testing/placements.ts";
import {
  addLayer,
  changeLayer,
  changeProperty,
  draftEdit,
  moveLayer,
  putInRole,
  putOnLayer,
  removeLayer,
  showLayers,
  transformEntities,
} from "./index.ts";

const withShapes = (shapes: readonly Shape[], layer = PROFILE_LAYER): { drawing: Drawing; ids: number[] } => {
  const start = newDrawing("mm");
  const draft = draftEdit(start, "Draw", "draw");
  const ids = shapes.map((shape) => draft.add(shape, layer));
  return { drawing: applyEdit(start, draft.finish()), ids };
};
const line = (a: Point, b: Point): Shape => ({ kind: "piece", a, b, bulge: 0 });
const value = <T>(outcome: { ok: true; value: T } | { ok: false; refusal: { code: string } }): T => {
  if (!outcome.ok) throw new Error(outcome.refusal.code);
  return outcome.value;
};
const code = (outcome: { ok: boolean; refusal?: { code: string } }): string => outcome.refusal?.code ?? "done";

describe("the rectangle", () => {
  const corners = fc.constantFrom("sharp" as const, "round" as const, "cut" as const);
  const places = fc.constantFrom(0 as const, 1 as const, 2 as const);
  it("has its sides, its corners and its chosen place, wherever it is put (areas by closed formulas)", () => {
    fc.assert(
      fc.property(
        between(1, 900),
        between(1, 900),
        between(0, 1),
        corners,
        places,
        places,
        points(),
        between(-3, 3),
        (w, h, part, kind, across, up, at, angle) => {
          const size = kind === "sharp" ? 0 : (part * Math.min(w, h)) / 2;
          const pieces = value(
            rectangleOf(w, h, { across, up }, at, kind === "sharp" ? { kind } : { kind, size }, angle),
          );
          const gone = kind === "round" ? (4 - Math.PI) * size * size : kind === "cut" ? 2 * size * size : 0;
          expect(Math.abs(enclosedArea(pieces) - (w * h - gone))).toBeLessThan(1e-9 * w * h + 1e-9);
          pieces.forEach((piece, i) => expect(piece.b).toBe(pieces[(i + 1) % pieces.length]!.a));
          const middle = centroidOf(pieces)!;
          const back = transformPoint(turning(at, -angle), middle);
          expect(back.x - at.x).toBeCloseTo(((1 - across) * w) / 2, 6);
          expect(back.y - at.y).toBeCloseTo(((1 - up) * h) / 2, 6);
        },
      ),
    );
  });
  it("takes a corner of half its side as a full round end, and says the largest for a millionth more", () => {
    const whole = value(rectangleOf(18, 3.5, { across: 0, up: 0 }, { x: 0, y: 0 }, { kind: "round", size: 1.75 }));
    expect(whole.map(({ bulge }) => bulge !== 0)).toEqual([false, true, true, false, true, true]);
    expect(enclosedArea(whole)).toBeCloseTo(14.5 * 3.5 + Math.PI * 1.75 ** 2, 12);
    const over = rectangleOf(18, 3.5, { across: 0, up: 0 }, { x: 0, y: 0 }, { kind: "round", size: 1.750001 });
    expect(over).toMatchObject({ refusal: { code: "radius-too-large", values: { limit: 1.75 } } });
    expect(code(rectangleOf(0, 5, { across: 0, up: 0 }, { x: 0, y: 0 }))).toBe("no-length");
  });
});

describe("the centre of area", () => {
  it(
    "of a half disc lies 4 r / 3 pi above its diameter, of a segment where the handbook has it (Machinery's " +
      "Handbook)",
    () => {
      fc.assert(
        fc.property(placements, between(0.01, 3.1), (m, half) => {
          // a circular segment of half angle `half`: its centre lies c³ / 12 A from the circle's centre
          const [s, c] = [Math.sin(half), Math.cos(half)];
          const arc: Piece = { a: { x: s, y: c }, b: { x: -s, y: c }, bulge: Math.tan(half / 2) };
          const area = half - s * c;
          const known = { x: 0, y: (2 * s) ** 3 / 12 / area };
          const found = centroidOf([arc, { a: arc.b, b: arc.a, bulge: 0 }].map((piece) => transformPiece(m, piece)));
          const at = transformPoint(m, known);
          // the formula itself cancels for flat segments
          const bound =
            residualBound(scaleOf(m), Math.max(Math.abs(at.x), Math.abs(at.y), scaleOf(m))) / Math.min(1, half ** 3);
          expect(distance(found!, at)).toBeLessThan(8 * bound);
        }),
      );
    },
  );
  it("of a circle is its centre, of nothing is none", () => {
    expect(centroidOf(circleHalves({ centre: { x: 3, y: 4 }, radius: 2 }))).toEqual({
      x: expect.closeTo(3, 12),
      y: expect.closeTo(4, 12),
    });
    expect(centroidOf([])).toBeUndefined();
    expect(
      centroidOf([
        { a: { x: 0, y: 0 }, b: { x: 1, y: 0 }, bulge: 0 },
        { a: { x: 1, y: 0 }, b: { x: 0, y: 0 }, bulge: 0 },
      ]),
    ).toBeUndefined();
  });
});

describe("properties", () => {
  it("read back what was typed, and keep what they say they keep", () => {
    const arcs = fc
      .record({ a: points(), b: points(), bulge: between(-2, 2) })
      .filter(({ a, b, bulge }) => distance(a, b) > 1 && Math.abs(bulge) > 0.05);
    fc.assert(
      fc.property(arcs, between(0.5, 400), between(1, 350), (piece, size, degrees) => {
        const { drawing, ids } = withShapes([{ kind: "piece", ...piece }]);
        const after = (name: string, to: number): Entity & Piece => {
          const edit = value(changeProperty(drawing, ids, name, to));
          return [...entitiesOf(applyEdit(drawing, edit))].at(-1) as Entity & Piece;
        };
        const chord = distance(piece.a, piece.b);
        if (size > chord / 2 + 0.01) expect(pieceRadius(after("radius", size))).toBeCloseTo(size, 6);
        else if (size < chord / 2 - 0.01)
          expect(changeProperty(drawing, ids, "radius", size)).toMatchObject({
            refusal: { values: { limit: chord / 2 } },
          });
        const swept = after("sweep", degrees);
        expect(Math.abs(arcOf(swept)!.sweep)).toBeCloseTo((degrees * Math.PI) / 180, 6);
        expect(swept.a).toEqual(piece.a);
        expect(distance(arcOf(swept)!.centre, arcOf(piece)!.centre)).toBeLessThan(1e-6 * (1 + pieceRadius(piece)));
        expect(propertiesOf(after("a x", size)).find(({ name }) => name === "a x")!.value).toBe(size);
      }),
    );
  });
  it("of several things change together; impossible ones are refused and nothing changes", () => {
    const circles: Shape[] = [5, 7].map((radius) => ({ kind: "circle", centre: { x: radius, y: 0 }, radius }));
    const { drawing, ids } = withShapes([...circles, line({ x: 0, y: 0 }, { x: 3, y: 4 })]);
    const edit = value(changeProperty(drawing, ids.slice(0, 2), "diameter", 26));
    const after = applyEdit(drawing, edit);
    expect([...entitiesOf(after)].flatMap((one) => (one.kind === "circle" ? [one.radius] : []))).toEqual([13, 13]);
    expect(drawingText(applyEdit(after, invertEdit(edit)))).toBe(drawingText(drawing));
    const longer = [...entitiesOf(applyEdit(drawing, value(changeProperty(drawing, [ids[2]!], "length", 10))))].at(
      -1,
    ) as Entity & Piece;
    expect(longer.b).toEqual({ x: expect.closeTo(6, 12), y: expect.closeTo(8, 12) });
    expect(pieceLength(longer)).toBeCloseTo(10, 12);
    expect(code(changeProperty(drawing, [ids[0]!], "radius", 0))).toBe("value-not-positive");
    expect(code(changeProperty(drawing, [ids[2]!], "b x", 0.0))).toBe("done");
    expect(code(changeProperty(drawing, [], "radius", 5))).toBe("nothing-selected");
  });
});

describe("layers", () => {
  it("go with what lies on them, or leave it on another one; nothing of a locked one goes", () => {
    const { drawing, ids } = withShapes([line({ x: 0, y: 0 }, { x: 9, y: 0 }), line({ x: 0, y: 5 }, { x: 9, y: 5 })]);
    const made = applyEdit(drawing, value(addLayer(drawing, "Scribed", "mark")));
    const layer = layersOf(made).find(({ name }) => name === "Scribed")!;
    const held = applyEdit(made, value(putOnLayer(made, ids, layer.id)));
    const on = (of: Drawing) => ids.map((id) => entityOf(of, id)?.layer);
    expect(on(applyEdit(held, value(removeLayer(held, layer.id, "goes"))))).toEqual([undefined, undefined]);
    const moved = applyEdit(held, value(removeLayer(held, layer.id, { to: PROFILE_LAYER })));
    expect([on(moved), layersOf(moved).length]).toEqual([[PROFILE_LAYER, PROFILE_LAYER], 3]);
    const locked = applyEdit(held, value(changeLayer(held, layer.id, { locked: true })));
    expect(code(removeLayer(locked, layer.id, "goes"))).toBe("layer-locked");
    expect(code(removeLayer(held, layer.id, { to: layer.id }))).toBe("pick-first");
    const shut = applyEdit(held, value(changeLayer(held, PROFILE_LAYER, { locked: true })));
    expect(code(removeLayer(shut, layer.id, { to: PROFILE_LAYER }))).toBe("layer-locked");
  });
  it("are put in another order, coloured and shown alone; each undone to the byte", () => {
    const drawing = newDrawing("mm");
    const names = (of: Drawing) => layersOf(of).map(({ name }) => name);
    const down = value(moveLayer(drawing, PROFILE_LAYER, 1));
    const after = applyEdit(drawing, down);
    expect(names(after)).toEqual(["Layout", "Profile", "Marks"]);
    expect(names(applyEdit(after, value(moveLayer(after, MARK_LAYER, -1))))).toEqual(["Layout", "Marks", "Profile"]);
    expect(value(moveLayer(after, MARK_LAYER, 1)).changes).toEqual([]);
    expect(drawingText(applyEdit(after, invertEdit(down)))).toBe(drawingText(drawing));
    const red = applyEdit(after, value(changeLayer(after, MARK_LAYER, { colour: "1" })));
    expect(layerOf(red, MARK_LAYER)?.colour).toBe("1");
    expect(layerOf(applyEdit(red, value(changeLayer(red, MARK_LAYER, { colour: undefined }))), MARK_LAYER)).toEqual(
      layerOf(after, MARK_LAYER),
    );
    const alone = applyEdit(red, value(showLayers(red, MARK_LAYER)));
    expect(
      layersOf(alone)
        .filter(({ shown }) => shown)
        .map(({ id }) => id),
    ).toEqual([MARK_LAYER]);
    expect(layersOf(applyEdit(alone, value(showLayers(alone, "all")))).every(({ shown }) => shown)).toBe(true);
    // what is stored of it opens
    expect(drawingText(drawingFromRows(JSON.parse(drawingText(red)), red.nextId))).toBe(drawingText(red));
  });
  it("of a role take contours; one is made where there is none, under a name that is free", () => {
    const { drawing, ids } = withShapes([{ kind: "circle", centre: { x: 0, y: 0 }, radius: 5 }]);
    const roleOf = (of: Drawing) => layerOf(of, entityOf(of, ids[0]!)!.layer);
    for (const role of CUT_ROLES) {
      const put = applyEdit(drawing, value(putInRole(drawing, ids, role)));
      expect(roleOf(put)?.role).toBe(role);
      expect(layersOf(put).length).toBe(role === "outside" || role === "inside" ? 4 : 3);
    }
    const named = applyEdit(drawing, value(addLayer(drawing, "Inside", "mark")));
    const put = applyEdit(named, value(putInRole(named, ids, "inside")));
    expect(roleOf(put)).toMatchObject({ name: "Layer 5", role: "inside" });
    // the second goes onto the same
    expect(layersOf(applyEdit(put, value(putInRole(put, ids, "inside")))).length).toBe(5);
    expect(code(putInRole(drawing, [], "inside"))).toBe("nothing-selected");
    expect(code(putInRole(drawing, [4], "inside"))).toBe("endless-is-layout");
  });
  it("are made, renamed, locked and removed; what can't be is refused", () => {
    const { drawing, ids } = withShapes([line({ x: 0, y: 0 }, { x: 9, y: 0 })]);
    const first = applyEdit(drawing, value(addLayer(drawing, " Scribed ", "mark")));
    const layer = layersOf(first).find(({ name }) => name === "Scribed")!;
    expect(code(addLayer(first, "scribed", "mark"))).toBe("layer-name-taken");
    const held = applyEdit(first, value(putOnLayer(first, ids, layer.id)));
    expect(code(removeLayer(held, layer.id))).toBe("layer-not-empty");
    expect(code(removeLayer(held, LAYOUT_LAYER))).toBe("layer-last");
    expect(code(putOnLayer(held, [4], PROFILE_LAYER))).toBe("endless-is-layout");
    const locked = applyEdit(held, value(changeLayer(held, layer.id, { locked: true })));
    expect(code(putOnLayer(locked, ids, PROFILE_LAYER))).toBe("layer-locked");
    expect(code(changeProperty(locked, ids, "length", 4))).toBe("layer-locked");
    expect(code(transformEntities(locked, ids, moving({ x: 1, y: 0 }), "Move", "move"))).toBe("layer-locked");
    expect(layersOf(applyEdit(first, value(removeLayer(first, layer.id)))).map(({ name }) => name)).not.toContain(
      "Scribed",
    );
  });
});

describe("snaps in crowded places", () => {
  const only = (...kinds: SnapKind[]) => new Set(kinds);
  it("finds where curves would cross if they ran on, and not where they do", () => {
    const { drawing } = withShapes([
      line({ x: 0, y: 0 }, { x: 8, y: 0 }),
      line({ x: 10, y: -9 }, { x: 10, y: -2 }),
      { kind: "circle", centre: { x: 30, y: 0 }, radius: 5 },
    ]);
    const index = indexDrawing(drawing);
    const found = snapsAt(index, { x: 10.3, y: 0.2 }, 1, { kinds: only("extended") });
    expect(found[0]).toMatchObject({ kind: "extended", at: { x: 10, y: 0 } });
    expect(snapsAt(index, { x: 25.2, y: 0.1 }, 1, { kinds: only("extended") })[0]?.at.x).toBeCloseTo(25, 9);
    expect(snapsAt(index, { x: 4, y: 0.2 }, 1, { kinds: only("extended") })).toEqual([]);
  });
  it("finds the centre of area of a contour, grid points from the datum, and only the kinds that are on", () => {
    const chain: Shape = {
      kind: "chain",
      closed: true,
      vertices: [
        { id: 90, at: { x: 0, y: 0 }, bulge: 0 },
        { id: 91, at: { x: 30, y: 0 }, bulge: 0 },
        { id: 92, at: { x: 0, y: 30 }, bulge: 0 },
      ],
    };
    const index = indexDrawing(withShapes([chain]).drawing);
    expect(snapsAt(index, { x: 10.3, y: 9.9 }, 1)[0]).toMatchObject({
      kind: "area",
      at: { x: expect.closeTo(10, 9) as number },
    });
    expect(snapsAt(index, { x: 10.3, y: 9.9 }, 1, { kinds: only("end", "nearest") })).toEqual([]);
    expect(snapsAt(index, { x: 44.2, y: 50.4 }, 1, { kinds: only("grid"), grid: 5 })[0]!.at).toEqual({ x: 45, y: 50 });
  });
  it("among a hundred ends within reach the nearest wins, each can be reached, and no place is named twice", () => {
    fc.assert(
      fc.property(fc.array(points(0.8), { minLength: 20, maxLength: 50 }), points(0.8), (ends, at) => {
        const { drawing } = withShapes(ends.map((end, i) => line(end, { x: 50 + i, y: 60 })));
        const found = snapsAt(indexDrawing(drawing), at, 1, { kinds: only("end") });
        const within = ends.filter((end) => distance(end, at) <= 1);
        for (const end of within) expect(found.some((snap) => distance(snap.at, end) <= RESOLUTION)).toBe(true);
        for (const [i, snap] of found.entries())
          expect(found.slice(i + 1).some((other) => distance(other.at, snap.at) <= RESOLUTION)).toBe(false);
        found.forEach(
          (snap, i) => i > 0 && expect(distance(snap.at, at)).toBeGreaterThanOrEqual(distance(found[i - 1]!.at, at)),
        );
      }),
      { numRuns: 40 },
    );
  });
});
