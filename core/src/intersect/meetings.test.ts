import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { transformCircle } from "../geometry/circle.ts";
import { curveNearest, type Curve } from "../geometry/curve.ts";
import { transformPiece } from "../geometry/piece.ts";
import { distance } from "../geometry/point.ts";
import { scaleOf, type Similarity } from "../geometry/transform.ts";
import { RESOLUTION, residualBound } from "../numeric/tolerance.ts";
import { between, placements, points } from "../testing/placements.ts";
import { meetings, type Meeting } from "./meetings.ts";

const line = (x1: number, y1: number, x2: number, y2: number): Curve => ({
  kind: "piece",
  a: { x: x1, y: y1 },
  b: { x: x2, y: y2 },
  bulge: 0,
});
const circle = (x: number, y: number, radius: number): Curve => ({ kind: "circle", centre: { x, y }, radius });
const kinds = (found: readonly Meeting[]): string[] => found.map(({ kind }) => kind).sort();
const place = (m: Similarity, curve: Curve): Curve =>
  curve.kind === "circle"
    ? { kind: "circle", ...transformCircle(m, curve) }
    : { kind: "piece", ...transformPiece(m, curve as never) };

describe("meetings", () => {
  it.each([
    ["crossing lines", line(-1, 0, 1, 0), line(0, -1, 0, 1), ["crossing"]],
    ["parallel lines", line(0, 0, 1, 0), line(0, 1, 1, 1), []],
    ["an end on the middle of a line", line(0, 0, 2, 0), line(1, 0, 1, 5), ["end"]],
    ["ends that meet", line(0, 0, 1, 0), line(1, 0, 1, 1), ["end"]],
    ["ends that meet on one carrier", line(0, 0, 1, 0), line(1, 0, 3, 0), ["end"]],
    ["collinear, half overlapping", line(0, 0, 2, 0), line(1, 0, 3, 0), ["overlap"]],
    ["the same line the other way", line(0, 0, 2, 0), line(2, 0, 0, 0), ["overlap"]],
    ["a line through a circle", line(-5, 0, 5, 0), circle(0, 0, 2), ["crossing", "crossing"]],
    ["a line ending inside a circle", line(0, 0, 5, 0), circle(0, 0, 2), ["crossing"]],
    ["a tangent line", line(-5, 2, 5, 2), circle(0, 0, 2), ["touch"]],
    ["a tangent line that ends where it touches", line(0, 2, 5, 2), circle(0, 0, 2), ["end"]],
    ["circles that cross", circle(0, 0, 2), circle(3, 0, 2), ["crossing", "crossing"]],
    ["circles that touch from outside", circle(0, 0, 2), circle(5, 0, 3), ["touch"]],
    ["circles that touch from inside", circle(0, 0, 5), circle(3, 0, 2), ["touch"]],
    ["concentric circles", circle(0, 0, 5), circle(0, 0, 2), []],
    ["equal circles", circle(1, 1, 5), circle(1, 1, 5), ["overlap"]],
    [
      "an arc on its own circle",
      { kind: "piece", a: { x: 2, y: 0 }, b: { x: 0, y: 2 }, bulge: Math.tan(Math.PI / 8) },
      circle(0, 0, 2),
      ["overlap"],
    ],
    [
      "endless lines",
      { kind: "endless", through: { x: 1, y: 5 }, angle: Math.PI / 2 },
      { kind: "endless", through: { x: 7, y: 2 }, angle: 0 },
      ["crossing"],
    ],
  ] as const)("%s", (_, a, b, expected) => {
    expect(kinds(meetings(a, b, RESOLUTION))).toEqual(expected);
    expect(kinds(meetings(b, a, RESOLUTION))).toEqual(expected);
  });

  it("tells a touch from a crossing by the thickness of the lens", () => {
    expect(kinds(meetings(line(-5, 2 + 0.9e-7, 5, 2 + 0.9e-7), circle(0, 0, 2), RESOLUTION))).toEqual(["touch"]);
    expect(kinds(meetings(line(-5, 2 - 0.9e-7, 5, 2 - 0.9e-7), circle(0, 0, 2), RESOLUTION))).toEqual(["touch"]);
    expect(kinds(meetings(line(-5, 2 + 1.1e-7, 5, 2 + 1.1e-7), circle(0, 0, 2), RESOLUTION))).toEqual([]);
    expect(kinds(meetings(line(-5, 2 - 1.1e-7, 5, 2 - 1.1e-7), circle(0, 0, 2), RESOLUTION))).toEqual([
      "crossing",
      "crossing",
    ]);
  });

  it("gives the end's own numbers where an end lies on the other", () => {
    const end = { x: 2 * Math.cos(1), y: 2 * Math.sin(1) };
    const found = meetings(circle(0, 0, 2), { kind: "piece", a: end, b: { x: 9, y: 9 }, bulge: 0 }, RESOLUTION);
    expect(found.map((meeting) => meeting.kind !== "overlap" && meeting.at)).toContain(end);
  });

  it("every crossing lies on both, wherever the pair is put, and the count does not change", () => {
    const curves = fc.oneof(
      fc
        .record({ a: points(10), b: points(10), bulge: between(-2, 2) })
        .filter(({ a, b, bulge }) => distance(a, b) > 0.5 && Math.abs(bulge) > 1e-6)
        .map((piece): Curve => ({ kind: "piece", ...piece })),
      fc.record({ centre: points(10), radius: between(0.5, 10) }).map((round): Curve => ({ kind: "circle", ...round })),
    );
    fc.assert(
      fc.property(curves, curves, placements, (a, b, placement) => {
        const scale = scaleOf(placement);
        const [p, q] = [place(placement, a), place(placement, b)];
        const tolerance = Math.max(RESOLUTION, 2e-11);
        const bound = residualBound(100 * scale, 1.5e5 + 100 * scale) * 64;
        for (const meeting of meetings(p, q, tolerance)) {
          if (meeting.kind === "overlap") continue;
          for (const curve of [p, q])
            expect(curveNearest(curve, meeting.at).distance).toBeLessThanOrEqual(
              Math.max(bound, meeting.kind === "crossing" ? 0 : tolerance),
            );
        }
        // a pair that is the same thing at every tolerance from far below to far above the one in force is so
        // everywhere
        const kindsAt = (tolerance: number): string => kinds(meetings(a, b, tolerance)).join();
        const plain = kindsAt(1e-10 / scale);
        if ([1e-8, 1e-6, 1e-5, 1e-4, 1e-3].every((coarse) => kindsAt(coarse / scale) === plain))
          expect(kinds(meetings(p, q, tolerance)).join()).toBe(plain);
      }),
      { numRuns: 400 },
    );
  });
});
