import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { slotOf } from "../construct/shapes.ts";
import { enclosedArea } from "../contour/chainMeasure.ts";
import { chainOfPieces, chainPieces } from "../contour/index.ts";
import {
  applyEdit,
  curvesOf,
  drawingText,
  entityOf,
  invertEdit,
  newDrawing,
  PROFILE_LAYER,
  type Drawing,
  type Edit,
  type Entity,
} from "../drawing/index.ts";
import { pieceCentre, pieceLength, pieceRadius, type Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { handlesOf, indexDrawing } from "../look/index.ts";
import type { Outcome } from "../numeric/outcome.ts";
import type { Shape } from "../shape/index.ts";
import { between } from "../testing/placements.ts";
import {
  addCorner,
  cutCorners,
  draftEdit,
  filletCut,
  joinPieces,
  lengthenEnd,
  lengthTo,
  removeCorner,
  shiftPiece,
  stretch,
  takeApart,
} from "./index.ts";

type ChainEntity = Entity & { readonly kind: "chain" };
const value = <T>(outcome: Outcome<T>): T => {
  if (!outcome.ok) throw new Error(outcome.refusal.code);
  return outcome.value;
};
const drawn = (...shapes: readonly Shape[]): { drawing: Drawing; ids: number[] } => {
  const start = newDrawing("mm");
  const draft = draftEdit(start, "Draw", "draw");
  const ids = shapes.map((shape) => draft.add(shape, PROFILE_LAYER));
  return { drawing: applyEdit(start, draft.finish()), ids };
};
const after = (drawing: Drawing, edit: Edit): Drawing => {
  const next = applyEdit(drawing, edit);
  expect(drawingText(applyEdit(next, invertEdit(edit)))).toBe(drawingText(drawing));
  return next;
};
const contour = (pieces: readonly Piece[], closed = true): Shape => {
  let id = 9000;
  return chainOfPieces(pieces, closed, () => id++);
};
const polygon = (...corners: readonly Point[]): Shape =>
  contour(corners.map((a, i) => ({ a, b: corners[(i + 1) % corners.length]!, bulge: 0 })));
/** A place turned about the origin and moved far away, so that nothing is level and numbers are large. */
const placed = (x: number, y: number): Point => ({ x: 1e5 + 0.8 * x - 0.6 * y, y: -2e4 + 0.6 * x + 0.8 * y });
const box = (w: number, h: number): Shape => polygon(placed(0, 0), placed(w, 0), placed(w, h), placed(0, h));
const chain = (drawing: Drawing, id: number): ChainEntity => entityOf(drawing, id) as ChainEntity;
const area = (drawing: Drawing, id: number): number => Math.abs(enclosedArea(chainPieces(chain(drawing, id))));
const vertex = (drawing: Drawing, id: number, i: number): { id: number; vertex: number } => ({
  id,
  vertex: chain(drawing, id).vertices[i]!.id,
});
const rounded = (drawing: Drawing, id: number, radius: number): Drawing =>
  after(drawing, value(cutCorners(drawing, id, "all", filletCut(radius), "Fillet")).edit);
const shift = (drawing: Drawing, ref: { id: number; vertex?: number }, by: number, stays = true): Drawing =>
  after(drawing, value(shiftPiece(indexDrawing(drawing), ref, by, stays)));

describe("a piece shifted aside", () => {
  it("takes its neighbours along: a rectangle grows by just that, with its rounded corners as they were", () => {
    fc.assert(
      fc.property(between(30, 90), between(30, 90), between(1, 8), between(-10, 20), (w, h, r, by) => {
        const sharp = drawn(box(w, h));
        const id = sharp.ids[0]!;
        // the side at the right, on the outside of which is its right
        expect(area(shift(sharp.drawing, vertex(sharp.drawing, id, 1), -by), id)).toBeCloseTo((w + by) * h, 5);
        const round = rounded(sharp.drawing, id, r);
        const side = chainPieces(chain(round, id)).findIndex(
          (piece) => piece.bulge === 0 && distance(piece.a, placed(w, r)) < 1e-6,
        );
        const wide = shift(round, vertex(round, id, side), -by);
        expect(area(wide, id)).toBeCloseTo((w + by) * h - (4 - Math.PI) * r * r, 5);
        const arcs = chainPieces(chain(wide, id)).filter(({ bulge }) => bulge !== 0);
        expect(arcs).toHaveLength(4);
        for (const arc of arcs) expect(pieceRadius(arc)).toBeCloseTo(r, 6);
        // and back again, vertex by vertex, with the same start
        const back = shift(wide, vertex(wide, id, side), by);
        chain(back, id).vertices.forEach(({ id: own, at }, i) => {
          expect(own).toBe(chain(round, id).vertices[i]!.id);
          expect(distance(at, chain(round, id).vertices[i]!.at)).toBeLessThan(1e-7);
        });
      }),
    );
  });

  it("keeps the ends of a slot half round, and lets them go where that is wanted", () => {
    fc.assert(
      fc.property(between(20, 80), between(4, 12), between(-3, 9), (apart, width, by) => {
        const { drawing, ids } = drawn(contour(value(slotOf(placed(0, 0), placed(apart, 0), width))));
        const id = ids[0]!;
        const pieces = chainPieces(chain(drawing, id));
        const side = pieces.findIndex(({ bulge }) => bulge === 0);
        const sign = Math.sign(enclosedArea(pieces)); // its left is the inside where this is above zero
        const wide = shift(drawing, vertex(drawing, id, side), -sign * by);
        const own = width + by;
        expect(area(wide, id)).toBeCloseTo(apart * own + (Math.PI * own * own) / 4, 5);
        const loose = shift(drawing, vertex(drawing, id, side), -sign * Math.min(by, 0), false);
        expect(chainPieces(chain(loose, id)).filter(({ bulge }) => bulge !== 0)).toHaveLength(2);
      }),
    );
  });

  it("works on loose pieces that meet, as on the chain they make", () => {
    fc.assert(
      fc.property(between(30, 90), between(1, 8), between(-10, 20), (w, r, by) => {
        const whole = drawn(box(w, 40));
        const id = whole.ids[0]!;
        const round = rounded(whole.drawing, id, r);
        const side = chainPieces(chain(round, id)).findIndex(
          (p) => p.bulge === 0 && distance(p.a, placed(w, r)) < 1e-6,
        );
        const apart = after(round, value(takeApart(round, [id])).edit);
        const loose = [...curvesById(apart)].find(
          ([, piece]) => piece.bulge === 0 && distance(piece.a, chainPieces(chain(round, id))[side]!.a) < 1e-9,
        )!;
        const moved = shift(apart, { id: loose[0] }, -by);
        const joined = after(moved, value(joinPieces(moved)).edit);
        const [made] = [...curvesChains(joined)];
        expect(Math.abs(enclosedArea(chainPieces(made!)))).toBeCloseTo((w + by) * 40 - (4 - Math.PI) * r * r, 5);
      }),
    );
  });

  it("names how far it goes before an edge beside it is used up; arcs move about their centre", () => {
    const { drawing, ids } = drawn(polygon({ x: 0, y: 0 }, { x: 40, y: 0 }, { x: 40, y: 30 }, { x: 0, y: 30 }));
    const top = vertex(drawing, ids[0]!, 2);
    expect(shiftPiece(indexDrawing(drawing), top, 30, true)).toMatchObject({
      refusal: { code: "shift-too-far", values: { limit: 30 } },
    });
    expect(area(shift(drawing, top, 29.999), ids[0]!)).toBeCloseTo(0.04, 9);
    const bow = drawn(
      contour([
        { a: { x: -10, y: 0 }, b: { x: 10, y: 0 }, bulge: 1 },
        { a: { x: 10, y: 0 }, b: { x: 10, y: 20 }, bulge: 0 },
        { a: { x: 10, y: 20 }, b: { x: -10, y: 20 }, bulge: 0 },
        { a: { x: -10, y: 20 }, b: { x: -10, y: 0 }, bulge: 0 },
      ]),
    );
    const [first] = chainPieces(chain(shift(bow.drawing, vertex(bow.drawing, bow.ids[0]!, 0), -5, false), bow.ids[0]!));
    expect([pieceRadius(first!), pieceCentre(first!)!.x]).toEqual([expect.closeTo(15, 9), expect.closeTo(0, 9)]);
    expect([first!.a.x, first!.b.x]).toEqual([-10, 10]);
    const crossed = drawn(
      contour(
        [
          { a: { x: 0, y: 0 }, b: { x: 10, y: 0 }, bulge: 0 },
          { a: { x: 10, y: 0 }, b: { x: 20, y: 0 }, bulge: 0 },
        ],
        false,
      ),
    );
    expect(
      shiftPiece(indexDrawing(crossed.drawing), vertex(crossed.drawing, crossed.ids[0]!, 0), 2, true),
    ).toMatchObject({ refusal: { code: "shift-no-meeting" } });
  });
});

const curvesById = (drawing: Drawing): Map<number, Piece> => {
  const found = new Map<number, Piece>();
  for (const entity of allEntities(drawing))
    for (const { curve, ref } of curvesOf(entity)) if (curve.kind === "piece") found.set(ref.id, curve);
  return found;
};
const curvesChains = (drawing: Drawing): ChainEntity[] =>
  allEntities(drawing).filter((entity): entity is ChainEntity => entity.kind === "chain");
const allEntities = (drawing: Drawing): Entity[] =>
  Array.from({ length: drawing.nextId }, (_, id) => entityOf(drawing, id)).filter((one) => one !== undefined);

describe("an end or a corner stretched", () => {
  it("moves the corner itself where one is rounded: as if moved sharp, then rounded", () => {
    const corners = [
      [0, 0],
      [60, 0],
      [60, 40],
      [0, 40],
    ] as const;
    fc.assert(
      fc.property(between(1, 6), between(-8, 12), between(-8, 12), fc.integer({ min: 0, max: 1 }), (r, x, y, which) => {
        const sharp = drawn(box(60, 40));
        const id = sharp.ids[0]!;
        const round = rounded(sharp.drawing, id, r);
        // either end of the arc at the corner 60, 40
        const arc = chainPieces(chain(round, id)).find(
          (piece) => piece.bulge !== 0 && distance(pieceCentre(piece)!, placed(60 - r, 40 - r)) < 1e-6,
        )!;
        const end = which === 0 ? arc.a : arc.b;
        const own = chain(round, id).vertices.find(({ at }) => at === end)!;
        const step = { x: 0.8 * x - 0.6 * y, y: 0.6 * x + 0.8 * y };
        const to = { x: end.x + step.x, y: end.y + step.y };
        const moved = after(round, value(stretch(round, [{ id, vertex: own.id }], to, true)));
        const expected = drawn(
          polygon(...corners.map(([u, v]) => (u === 60 && v === 40 ? placed(u + x, v + y) : placed(u, v)))),
        );
        expect(area(moved, id)).toBeCloseTo(area(rounded(expected.drawing, expected.ids[0]!, r), expected.ids[0]!), 5);
        expect(chainPieces(chain(moved, id)).filter(({ bulge }) => bulge !== 0)).toHaveLength(4);
      }),
    );
  });

  it("moves all ends that meet there; an arc keeps its sweep; nothing may be left without length", () => {
    const { drawing, ids } = drawn(
      { kind: "piece", a: { x: 0, y: 0 }, b: { x: 10, y: 0 }, bulge: 0 },
      { kind: "piece", a: { x: 20, y: 5 }, b: { x: 10, y: 0 }, bulge: 0.5 },
    );
    const shared = handlesOf(ids.map((id) => entityOf(drawing, id)!)).find(({ refs }) => refs.length === 2)!;
    const moved = after(drawing, value(stretch(drawing, shared.refs, { x: 12, y: -3 }, true)));
    expect(entityOf(moved, ids[0]!)).toMatchObject({ b: { x: 12, y: -3 } });
    expect(entityOf(moved, ids[1]!)).toMatchObject({ a: { x: 20, y: 5 }, b: { x: 12, y: -3 }, bulge: 0.5 });
    expect(stretch(drawing, shared.refs, { x: 0, y: 0 }, true)).toMatchObject({ refusal: { code: "no-length" } });
  });

  it("of an arc that runs into its neighbour keeps it so", () => {
    fc.assert(
      fc.property(between(12, 40), between(2, 30), (x, y) => {
        const { drawing, ids } = drawn(
          contour(
            [
              { a: { x: 0, y: 0 }, b: { x: 10, y: 0 }, bulge: 0 },
              { a: { x: 10, y: 0 }, b: { x: 20, y: 10 }, bulge: Math.tan(Math.PI / 8) },
            ],
            false,
          ),
        );
        const moved = after(drawing, value(stretch(drawing, [vertex(drawing, ids[0]!, 2)], { x, y }, true)));
        const arc = chainPieces(chain(moved, ids[0]!))[1]!;
        expect(pieceCentre(arc)!.x).toBeCloseTo(10, 7); // square over the end of the level line
        expect(arc.b).toEqual({ x, y });
      }),
    );
  });
});

describe("lengthen, add and take out corners", () => {
  it("gives an end the typed length on its own line or circle; the length to a place is where it is nearest", () => {
    fc.assert(
      fc.property(between(0.1, 2.5), between(1, 55), fc.boolean(), (sweep, length, atStart) => {
        const [from, to] = [placed(10, 0), placed(10 * Math.cos(sweep), 10 * Math.sin(sweep))];
        const { drawing, ids } = drawn({ kind: "piece", a: from, b: to, bulge: Math.tan(sweep / 4) });
        const ref = { id: ids[0]!, place: atStart ? ("start" as const) : ("end" as const) };
        const made = entityOf(after(drawing, value(lengthenEnd(drawing, ref, length))), ids[0]!) as Entity & Piece;
        expect(pieceLength(made)).toBeCloseTo(length, 6);
        expect(distance(pieceCentre(made)!, placed(0, 0))).toBeLessThan(1e-6);
        expect(atStart ? made.b : made.a).toEqual(atStart ? to : from);
        if (!atStart) expect(lengthTo({ a: from, b: to, bulge: Math.tan(sweep / 4) }, made.b)).toBeCloseTo(length, 5);
      }),
    );
    const { drawing, ids } = drawn({ kind: "piece", a: { x: 10, y: 0 }, b: { x: 0, y: 10 }, bulge: 0.4 });
    expect(lengthenEnd(drawing, { id: ids[0]!, place: "end" }, 1e3)).toMatchObject({
      refusal: { code: "arc-whole-turn" },
    });
    expect(lengthenEnd(drawing, { id: ids[0]!, place: "end" }, -1)).toMatchObject({
      refusal: { code: "length-used-up" },
    });
  });

  it("a corner added leaves the shape, taken out again gives the piece back; too little is refused", () => {
    fc.assert(
      fc.property(between(0.05, 0.95), fc.constantFrom(0, 0.6, -0.6), (t, bulge) => {
        const own: Piece = { a: placed(0, 0), b: placed(40, 0), bulge };
        const { drawing, ids } = drawn(
          contour([own, { a: own.b, b: placed(20, -30), bulge: 0 }, { a: placed(20, -30), b: own.a, bulge: 0 }]),
        );
        const id = ids[0]!;
        const near = { x: own.a.x + t * (own.b.x - own.a.x), y: own.a.y + t * (own.b.y - own.a.y) };
        const more = after(drawing, value(addCorner(drawing, vertex(drawing, id, 0), near)));
        expect(chain(more, id).vertices).toHaveLength(4);
        expect(area(more, id)).toBeCloseTo(area(drawing, id), 5);
        const back = after(more, value(removeCorner(more, vertex(more, id, 1))));
        const again = chainPieces(chain(back, id))[0]!;
        expect(again.bulge).toBeCloseTo(bulge, 6);
        expect([again.a, again.b]).toEqual([own.a, own.b]);
      }),
    );
    const three = drawn(polygon({ x: 0, y: 0 }, { x: 9, y: 0 }, { x: 0, y: 9 }));
    expect(removeCorner(three.drawing, vertex(three.drawing, three.ids[0]!, 1))).toMatchObject({
      refusal: { code: "chain-too-short" },
    });
    expect(addCorner(three.drawing, vertex(three.drawing, three.ids[0]!, 0), { x: -5, y: 0 })).toMatchObject({
      refusal: { code: "corner-at-end" },
    });
    // a loose line becomes a chain with the same id, an open chain loses its end piece
    const loose = drawn({ kind: "piece", a: { x: 0, y: 0 }, b: { x: 10, y: 0 }, bulge: 0 });
    const bent = after(loose.drawing, value(addCorner(loose.drawing, { id: loose.ids[0]! }, { x: 4, y: 1 })));
    expect(chain(bent, loose.ids[0]!).vertices.map(({ at }) => at.x)).toEqual([0, 4, 10]);
    const short = after(bent, value(removeCorner(bent, vertex(bent, loose.ids[0]!, 2))));
    expect(chain(short, loose.ids[0]!).vertices.map(({ at }) => at.x)).toEqual([0, 4]);
  });

  it("each kind of thing has its handles", () => {
    const { drawing, ids } = drawn(
      box(40, 30),
      { kind: "circle", centre: { x: 0, y: 0 }, radius: 5 },
      { kind: "piece", a: { x: 0, y: 0 }, b: { x: 10, y: 0 }, bulge: 0 },
    );
    const counts = ids.map((id) => {
      const kinds = handlesOf([entityOf(drawing, id)!]).map(({ kind }) => kind);
      return Object.fromEntries([...new Set(kinds)].map((kind) => [kind, kinds.filter((one) => one === kind).length]));
    });
    expect(counts).toEqual([
      { corner: 4, middle: 4, centre: 1 },
      { centre: 1, radius: 4 },
      { end: 2, middle: 1 },
    ]);
  });
});
