import { expect, it } from "vitest";
import { carrierOf } from "../../../geometry/curve.ts";
import { piecePoint, pieceRadius, type Piece } from "../../../geometry/piece.ts";
import { cross, distance, subtract, type Point } from "../../../geometry/point.ts";
import { after, mirroring, moving, scaling, transformPoint, turning } from "../../../geometry/transform.ts";
import type { Outcome } from "../../../numeric/outcome.ts";
import { randomFrom } from "../../../testing/contours.ts";
import { inkOff, type Proposal } from "../proposal.ts";
import {
  asKind,
  breakMoved,
  breaksOf,
  holdsOf,
  mergedInto,
  splitAt,
  toCorner,
  toTouch,
  type Proposals,
} from "./index.ts";

/** A corner of a plate with a round end of 40: a line, a quarter of a circle, a line; ink that strays by a tenth. */
const corner = (by: (p: Point) => Point = (p) => p, scale = 1, mirrored = false) => {
  const random = randomFrom(5);
  const quarter = (mirrored ? -1 : 1) * Math.tan(Math.PI / 8);
  const pieces: readonly Piece[] = [
    { a: { x: 0, y: 0 }, b: { x: 200, y: 0 }, bulge: 0 },
    { a: { x: 200, y: 0 }, b: { x: 240, y: 40 }, bulge: quarter },
    { a: { x: 240, y: 40 }, b: { x: 240, y: 200 }, bulge: 0 },
  ];
  const placed = pieces.map(({ a, b, bulge }): Piece => ({ a: by(a), b: by(b), bulge }));
  const stray = (): number => 0.1 * scale * (random() - 0.5);
  const ink = placed.map((piece) =>
    Array.from({ length: 41 }, (_, k) => {
      const { x, y } = piecePoint(piece, k / 40);
      return { x: x + stray(), y: y + stray() };
    }),
  );
  const one = (id: number, piece: Piece, own: readonly Point[]): Proposal => {
    const shape = { kind: "piece" as const, ...piece };
    return { id, group: "outline", shape, ink: own, off: inkOff(own, shape) };
  };
  return { pieces: placed, ink, one, all: placed.map((piece, id) => one(id, piece, ink[id]!)) };
};
const ORIGIN = { x: 0, y: 0 };
/** As large as pictures are, turned and mirrored. */
const PLACEMENTS = [0, 0.3, 1.1, 2.9, 4, 5.5].map((angle, k) =>
  [
    k % 2 === 0 ? scaling(ORIGIN, 1) : mirroring(ORIGIN, 0.7),
    turning(ORIGIN, angle),
    scaling(ORIGIN, [1, 0.4, 3, 12, 1, 0.8][k]!),
    moving({ x: 900 * k, y: 400 }),
  ].reduce(after),
);
const made = (answer: Outcome<Proposals>): Proposals => {
  if (!answer.ok) throw new Error(answer.refusal.code);
  return answer.value;
};
const piece = (all: Proposals, id: number): Piece => all.find((one) => one.id === id)!.shape as unknown as Piece;

it.each(PLACEMENTS.map((by, k) => [k, by] as const))(
  "proposals changed by hand keep together, in placement %i",
  (_, by) => {
    const place = (p: Point): Point => transformPoint(by, p);
    const scale = Math.hypot(by.a, by.b);
    const { pieces, ink, one, all } = corner(place, scale, by.a * by.d < by.b * by.c);
    const near = (p: Point, q: Point, within: number): void => expect(distance(p, q)).toBeLessThan(within * scale);

    // the arc taken for a chamfer is an arc again, and meets both lines
    const chamfer = all.map((own) => (own.id === 1 ? one(1, { ...pieces[1]!, bulge: 0 }, ink[1]!) : own));
    const round = made(asKind(chamfer, 1, "arc"));
    expect(Math.abs(pieceRadius(piece(round, 1)) / scale - 40)).toBeLessThan(0.2);
    for (const [p, q] of [
      [piece(round, 0).b, piece(round, 1).a],
      [piece(round, 1).b, piece(round, 2).a],
    ] as const)
      expect(distance(p, q)).toBe(0);
    expect(piece(made(asKind(all, 1, "line")), 1).bulge).toBe(0);
    const whole = carrierOf(made(asKind(all, 1, "circle")).find(({ id }) => id === 1)!.shape)!;
    near(whole.kind === "circle" ? whole.centre : place({ x: 0, y: 0 }), place({ x: 200, y: 40 }), 0.2);

    // parted and put together it is what it was
    const parted = made(splitAt(all, 0, place({ x: 80, y: 3 }), 3));
    expect(parted).toHaveLength(4);
    near(piece(parted, 0).b, place({ x: 80, y: 0 }), 1e-6);
    expect(distance(piece(parted, 0).b, piece(parted, 3).a)).toBe(0);
    const joined = made(mergedInto(parted, 0, 3));
    expect(joined).toHaveLength(3);
    near(piece(joined, 0).a, pieces[0]!.a, 0.2);
    expect(piece(joined, 0).bulge).toBe(0);
    expect(distance(piece(joined, 0).b, piece(joined, 1).a)).toBe(0);
    // ink of a line and an arc together lies off any one piece
    expect(made(mergedInto(all, 0, 1)).find(({ id }) => id === 0)!.off).toBeGreaterThan(scale);

    // lines run to their corner: where x is 240 and y is 0
    const sharp = made(toCorner([all[0]!, all[2]!], 0, 2));
    near(piece(sharp, 0).b, place({ x: 240, y: 0 }), 1e-6);
    near(piece(sharp, 2).a, place({ x: 240, y: 0 }), 1e-6);

    // an arc that was found too flat touches the line: its centre lies as far from it as its radius (Euclid III.18)
    const flat = all.map((own) =>
      own.id === 1 ? one(1, { ...pieces[1]!, bulge: 0.7 * pieces[1]!.bulge }, ink[1]!) : own,
    );
    const touching = made(toTouch(flat, 1, 0));
    const arc = carrierOf(touching[1]!.shape)!;
    if (arc.kind !== "circle") throw new Error("no arc");
    const { a, b } = piece(touching, 0);
    const away = Math.abs(cross(subtract(b, a), subtract(arc.centre, a))) / distance(a, b);
    expect(Math.abs(away / arc.radius - 1)).toBeLessThan(1e-9);
    expect(Math.abs(arc.radius / scale - 40)).toBeLessThan(0.5);
    expect(distance(piece(touching, 0).b, piece(touching, 1).a)).toBe(0);
    expect(holdsOf(touching, touching[1]!)).toContainEqual({ kind: "touches", other: 0 });

    // an arc that ended too late ends where it is told to
    expect(breaksOf(all)).toHaveLength(2);
    const late = [
      one(0, { ...pieces[0]!, b: place({ x: 150, y: 0 }) }, ink[0]!.slice(0, 31)),
      one(1, { ...pieces[1]!, a: place({ x: 150, y: 0 }) }, [...ink[0]!.slice(31), ...ink[1]!]),
      all[2]!,
    ];
    const ended = made(breakMoved(late, 0, "b", place({ x: 200, y: 1 })));
    near(piece(ended, 0).b, place({ x: 200, y: 0 }), 3);
    expect(Math.abs(pieceRadius(piece(ended, 1)) / scale - 40)).toBeLessThan(0.5);
    expect(distance(piece(ended, 1).b, piece(ended, 2).a)).toBe(0);
  },
);

it("what holds is told by how it lies, and let go by fitting to the ink alone", () => {
  const { all } = corner();
  expect(holdsOf(all, all[0]!)).toEqual([{ kind: "level" }, { kind: "touches", other: 1 }]);
  expect(holdsOf(all, all[2]!)).toEqual([{ kind: "upright" }, { kind: "touches", other: 1 }]);
  const free = made(asKind(all, 0, "line"));
  expect(holdsOf(free, free[0]!)).toEqual([]);
  const ring = (id: number, x: number, radius: number): Proposal => {
    const shape = { kind: "circle" as const, centre: { x, y: 0 }, radius };
    return { id, group: "outline", shape, off: 0, ink: [] };
  };
  const rings = [ring(0, 0, 5), ring(1, 0, 9), ring(2, 30, 5)];
  expect(holdsOf(rings, rings[0]!)).toEqual([
    { kind: "one centre", other: 1 },
    { kind: "equal", other: 2 },
  ]);
});

it("what can't be done is refused by its name", () => {
  const { all } = corner();
  const ring: Proposal = {
    id: 9,
    group: "outline",
    shape: { kind: "circle", centre: { x: 500, y: 0 }, radius: 4 },
    off: 0,
    ink: [],
  };
  const codeOf = (answer: Outcome<Proposals>): string => (answer.ok ? "" : answer.refusal.code);
  expect(codeOf(asKind([...all, ring], 9, "line"))).toBe("trace-no-fit");
  expect(codeOf(mergedInto([...all, ring], 0, 9))).toBe("trace-no-merge");
  expect(codeOf(splitAt([...all, ring], 9, { x: 504, y: 0 }, 10))).toBe("trace-no-split");
  expect(codeOf(splitAt(all, 0, { x: 0, y: 0 }, 10))).toBe("trace-no-split");
  expect(codeOf(toCorner([...all, ring], 0, 9))).toBe("trace-no-corner");
  expect(codeOf(toTouch(all, 0, 2))).toBe("trace-no-touch");
  expect(codeOf(breakMoved(all, 0, "a", { x: 9, y: 0 }))).toBe("trace-no-break");
});
