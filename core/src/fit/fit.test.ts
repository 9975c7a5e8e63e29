import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { freeThrough } from "../construct/freeThrough.ts";
import { chainOfPieces } from "../contour/index.ts";
import { applyEdit, newDrawing, PROFILE_LAYER } from "../drawing/index.ts";
import { draftEdit, jointNear, slideJoint } from "../edits/index.ts";
import { ellipseAt, smoothOf, type Curve } from "../geometry/index.ts";
import { arcOf, pieceDirection, pieceRadius, type Piece } from "../geometry/piece.ts";
import { angleOf, distance, subtract } from "../geometry/point.ts";
import { signedAngle } from "../numeric/angle.ts";
import { polygon, roundedCorners } from "../testing/contours.ts";
import { flattened } from "../testing/flattened.ts";
import { distanceTo } from "../testing/offsetChecks.ts";
import { arcsThrough, fitCurve, fitOneArc, fitRun, type ArcFit } from "./index.ts";
import { lineToPoints } from "./toPoints.ts";

const ellipse = (a: number, b: number, from = 0, sweep = 2 * Math.PI): Curve & { kind: "ellipse" } => ({
  kind: "ellipse",
  centre: { x: 3, y: -2 },
  major: { x: a * Math.cos(0.4), y: a * Math.sin(0.4) },
  ratio: b / a,
  from,
  sweep,
});
const place = fc.record({
  x: fc.double({ min: -60, max: 60, noNaN: true }),
  y: fc.double({ min: -60, max: 60, noNaN: true }),
});
/** A free curve through places well apart. */
const free = fc
  .array(place, { minLength: 3, maxLength: 9 })
  .filter((all) => all.every((p, i) => all.every((q, j) => i <= j || distance(p, q) > 8)))
  // no cusps: those are corners
  .filter((all) =>
    all
      .slice(2)
      .every(
        (r, i) =>
          Math.abs(signedAngle(angleOf(subtract(r, all[i + 1]!)) - angleOf(subtract(all[i + 1]!, all[i]!)))) < 2,
      ),
  )
  .map((all): Curve => {
    const made = freeThrough(all);
    if (!made.ok) throw new Error(made.refusal.code);
    return { kind: "free", ...made.value };
  });
/** The same pulled about by weights. */
const weighted = fc.tuple(free, fc.double({ min: 0.3, max: 3, noNaN: true })).map(([curve, w]): Curve => {
  if (curve.kind !== "free") throw new Error(curve.kind);
  return { ...curve, weights: curve.points.map((_, i) => (i % 2 === 0 ? 1 : w)) };
});
const kinks = ({ pieces, closed }: ArcFit): number =>
  Math.max(
    0,
    ...pieces.map((piece, i) => {
      if (i === 0 && !closed) return 0;
      return Math.abs(signedAngle(angleOf(pieceDirection(piece, 0)) - angleOf(pieceDirection(pieces.at(i - 1)!, 1))));
    }),
  );
/** How far the true curve and the fit lie apart, both ways, by dense sampling of both. */
const apart = (curve: Curve, { pieces }: ArcFit): number => {
  if (curve.kind !== "ellipse" && curve.kind !== "free") throw new Error(curve.kind);
  const smooth = smoothOf(curve);
  const away = distanceTo(pieces);
  const chords = Array.from({ length: 2401 }, (_, i) => smooth.at(i / 2400));
  const back = distanceTo(chords.slice(1).map((b, i): Piece => ({ a: chords[i]!, b, bulge: 0 })));
  const onFit = pieces.flatMap((piece) => flattened(piece, 1e-2));
  return Math.max(...chords.map(away), ...onFit.map(back));
};

/** Places at which a fit is held against its curve. */
const SEEN = 20_000;

describe("arc fit", () => {
  it.each([
    [50, 25, 28],
    [100, 50, 40],
  ])("an ellipse of half axes %d and %d within 0.01: at most %d arcs, tangent, near everywhere", (a, b, most) => {
    const fit = fitCurve(ellipse(a, b), 0.01)!;
    expect(fit.pieces.length).toBeLessThanOrEqual(most);
    expect(kinks(fit)).toBeLessThan(1e-6);
    expect(apart(ellipse(a, b), fit)).toBeLessThan(0.0101);
    expect(fit.deviation).toBeLessThanOrEqual(0.01);
    expect(fit.pieces.every((piece) => piece.bulge !== 0)).toBe(true);
  });

  it("free curves and parts of ellipses: within the tolerance both ways, tangent within 1e-6, ends exactly", () => {
    const part = fc
      .tuple(
        fc.double({ min: 20, max: 80, noNaN: true }),
        fc.double({ min: 2, max: 20, noNaN: true }),
        fc.double({ min: 0, max: 6, noNaN: true }),
        fc.double({ min: 0.3, max: 6, noNaN: true }),
      )
      .map(([a, b, from, sweep]): Curve => ellipse(a, b, from, sweep));
    fc.assert(
      fc.property(fc.oneof(free, weighted, part), fc.constantFrom(0.2, 0.02), (curve, tolerance) => {
        if (curve.kind !== "ellipse" && curve.kind !== "free") return;
        const fit = fitCurve(curve, tolerance)!;
        const smooth = smoothOf(curve);
        expect([fit.pieces[0]!.a, fit.pieces.at(-1)!.b]).toEqual([smooth.at(0), smooth.at(1)]);
        expect(kinks(fit)).toBeLessThan(1e-6);
        expect(fit.deviation).toBeLessThanOrEqual(tolerance);
        // what is said is so between all places, and no more than that
        const away = distanceTo(fit.pieces);
        let seen = 0;
        for (let i = 0; i <= SEEN; i++) seen = Math.max(seen, away(smooth.at(i / SEEN)));
        expect(seen).toBeLessThanOrEqual(fit.deviation + 1e-13); // the last bits of places some 100 away
        expect(fit.deviation).toBeLessThan(1.003 * seen + 1e-4);
        expect(apart(curve, fit)).toBeLessThan(tolerance * 1.02 + 2e-3);
      }),
      { numRuns: 20 },
    );
  });

  it("tiny chords along lines and arcs become these again, corners kept", () => {
    const source = roundedCorners(
      [
        { x: 0, y: 0 },
        { x: 80, y: 0 },
        { x: 90, y: 50 },
        { x: 10, y: 60 },
      ],
      0.5,
    );
    const points = source.flatMap((piece) => flattened(piece, 0.002));
    const run = points.map((a, i): Piece => ({ a, b: points[(i + 1) % points.length]!, bulge: 0 }));
    const fit = fitRun(run, true, 0.01)!;
    expect(fit.pieces.filter(({ bulge }) => bulge === 0)).toHaveLength(4);
    expect(fit.pieces.length).toBeLessThanOrEqual(12);
    expect(fit.deviation).toBeLessThan(0.01);
    const radii = source.filter(({ bulge }) => bulge !== 0).map(pieceRadius);
    for (const piece of fit.pieces.filter(({ bulge }) => bulge !== 0))
      expect(Math.min(...radii.map((r) => Math.abs(r - pieceRadius(piece)) / r))).toBeLessThan(0.02);
    const square = polygon([
      [0, 0],
      [10, 0],
      [10, 10],
      [0, 10],
    ]);
    expect(fitRun(square, true, 0.01)!.pieces).toEqual(square);
  });

  it("a free curve that is nearly one arc is made one, as near as one can be", () => {
    const circle = ellipse(40, 40, 0.2, 1.2);
    const made = freeThrough(Array.from({ length: 9 }, (_, i) => ellipseAt(circle, 0.2 + (1.2 * i) / 8)));
    if (!made.ok) throw new Error(made.refusal.code);
    const one = fitOneArc({ kind: "free", ...made.value })!;
    const smooth = smoothOf({ kind: "free", ...made.value });
    const away = distanceTo([{ a: one.piece.a, b: one.piece.b, bulge: Math.tan(0.3) }]); // the circle that it came from
    const own = Math.max(...Array.from({ length: 401 }, (_, i) => away(smooth.at(i / 400))));
    expect(one.deviation).toBeLessThanOrEqual(own);
    expect(own).toBeLessThan(0.06);
    expect(Math.abs(arcOf(one.piece)!.radius - 40)).toBeLessThan(0.3);
    expect([one.piece.a, one.piece.b]).toEqual([ellipseAt(circle, 0.2), ellipseAt(circle, 1.4)]);
  });

  it(
    "a joint of tangent arcs slides: the ends and their directions stay, all stays tangent, the joint comes as " +
      "near as it can",
    () => {
      fc.assert(
        fc.property(
          fc.array(place, { minLength: 3, maxLength: 3 }),
          fc.double({ min: -0.3, max: 0.3, noNaN: true }),
          (all, along) => {
            if (all.some((p, i) => i > 0 && distance(p, all[i - 1]!) < 10)) return;
            const pieces = arcsThrough(all, false);
            if (pieces.length !== 2 || pieces.some(({ bulge }) => Math.abs(bulge) > 0.8)) return;
            let id = 10;
            const draft = draftEdit(newDrawing("mm"), "Draw", "draw");
            const chain = draft.add(
              chainOfPieces(pieces, false, () => id++),
              PROFILE_LAYER,
            );
            const drawing = applyEdit(newDrawing("mm"), draft.finish());
            const to = { x: pieces[0]!.b.x + 30 * along, y: pieces[0]!.b.y - 20 * along };
            const made = slideJoint(drawing, chain, jointNear(drawing, chain, to)!, to);
            if (!made.ok) throw new Error(made.refusal.code);
            const [p, q] = made.value.pieces;
            expect([p!.a, q!.b, p!.b]).toEqual([pieces[0]!.a, pieces[1]!.b, q!.a]);
            const off = (one: Piece, t: number, other: Piece, s: number): number =>
              Math.abs(signedAngle(angleOf(pieceDirection(one, t)) - angleOf(pieceDirection(other, s))));
            for (const turn of [off(p!, 0, pieces[0]!, 0), off(q!, 1, pieces[1]!, 1), off(p!, 1, q!, 0)])
              expect(turn).toBeLessThan(1e-7);
            expect(distance(p!.b, to)).toBeLessThanOrEqual(distance(pieces[0]!.b, to) + 1e-9);
          },
        ),
      );
    },
  );
});

it("two hundred thousand points are fitted like a few", () => {
  const points = Array.from({ length: 200_001 }, (_, i) => ({ x: i / 1000, y: i % 2 === 0 ? 0.5 : -0.5 }));
  const fitted = lineToPoints(points)!;
  expect(Math.abs(fitted.piece.b.x - fitted.piece.a.x)).toBeCloseTo(200, 3);
  expect(fitted.residuals.largest).toBeCloseTo(0.5, 3);
});
