import { arcBetween, pieceLength, piecePoint, type Piece } from "../geometry/piece.ts";
import { along, leftOf, subtract, times, turned, unit, type Point } from "../geometry/point.ts";

/** Made-up contours for tests and benchmarks, counter-clockwise. `random` gives numbers in [0, 1). */
export type Random = () => number;

/** The same numbers for the same seed (a linear congruence, Park and Miller). */
export const randomFrom = (seed: number): Random => {
  let state = (seed % 2147483646) + 1;
  return () => (state = (state * 16807) % 2147483647) / 2147483647;
};

export const polygon = (corners: readonly (readonly [number, number])[]): Piece[] =>
  corners.map(([x, y], i) => {
    const [u, v] = corners[(i + 1) % corners.length]!;
    return { a: { x, y }, b: { x: u, y: v }, bulge: 0 };
  });

/** `count` lines round a centre with tangent arcs between them: the corners of a star, each rounded. */
export const blob = (count: number, radius: number, depth: number, random: Random): Piece[] => {
  const corners = Array.from({ length: count }, (_, i): Point => {
    const angle = (2 * Math.PI * i) / count;
    const away = radius * (1 + depth * (random() - 0.5) + 0.1 * Math.sin(5 * angle));
    return { x: away * Math.cos(angle), y: away * Math.sin(angle) };
  });
  return roundedCorners(corners, 0.4);
};

/** A polygon with every corner rounded by an arc that takes `part` of the shorter neighbouring edge's half. */
export const roundedCorners = (corners: readonly Point[], part: number): Piece[] => {
  const rounds = corners.map((p, i) => {
    const [before, after] = [corners.at(i - 1)!, corners[(i + 1) % corners.length]!];
    const [u, v] = [unit(subtract(p, before))!, unit(subtract(after, p))!];
    const turn = Math.atan2(u.x * v.y - u.y * v.x, u.x * v.x + u.y * v.y);
    const size =
      (part * Math.min(Math.hypot(p.x - before.x, p.y - before.y), Math.hypot(after.x - p.x, after.y - p.y))) / 2;
    if (Math.abs(turn) < 1e-3) return { a: p, b: p };
    const [a, b] = [along(p, u, -size), along(p, v, size)];
    const radius = size / Math.tan(Math.abs(turn) / 2);
    const centre = along(a, times(leftOf(u), Math.sign(turn)), radius);
    return { a, b, arc: arcBetween(a, b, centre, turn > 0) };
  });
  return rounds.flatMap(({ b, arc }, i): Piece[] => {
    const line = { a: b, b: rounds[(i + 1) % rounds.length]!.a, bulge: 0 };
    return arc ? [arc, line] : [line];
  });
};

/**
 * A contour as straight pieces about `step` long, their corners off it by up to `noise` in x and in y, as a tracing has
 * them.
 */
export const traced = (contour: readonly Piece[], step: number, noise: number, random: Random): Piece[] => {
  const off = (): number => (2 * random() - 1) * noise;
  const corners = contour.flatMap((piece) => {
    const count = Math.max(1, Math.round(pieceLength(piece) / step));
    return Array.from({ length: count }, (_, i): readonly [number, number] => {
      const { x, y } = piecePoint(piece, i / count);
      return [x + off(), y + off()];
    });
  });
  return polygon(corners);
};

/**
 * A star-shaped contour with lines and arcs both ways at random; arcs are flat enough not to reach their neighbours.
 */
export const star = (count: number, random: Random): Piece[] => {
  const corners = Array.from({ length: count }, (_, i): readonly [number, number] => {
    const angle = (2 * Math.PI * (i + 0.6 * random())) / count;
    const away = 30 + 60 * random();
    return [away * Math.cos(angle), away * Math.sin(angle)];
  });
  return polygon(corners).map((piece) => ({ ...piece, bulge: random() < 0.5 ? 0 : 0.3 * (random() - 0.5) }));
};

/**
 * Lobes round a ring: arcs that sweep so far (radians) with arcs between them that run on in their tangents, whose
 * chords take the rest of each `part`. Joints lie off by what `off` gives in x and in y.
 */
export const meander = (lobes: number, sweep: number, part: number, off: () => number): Piece[] => {
  const step = (2 * Math.PI) / lobes;
  const at = (angle: number): Point => ({ x: 40 * Math.cos(angle) + off(), y: 40 * Math.sin(angle) + off() });
  const joints = Array.from({ length: lobes }, (_, i): readonly Point[] => [
    at(i * step),
    at((i + part) * step),
  ]).flat();
  // chords on a ring turn by half a step at each joint; what one arc has more than that the other must take back
  const bulges = [Math.tan(sweep / 4), Math.tan((step - sweep) / 4)];
  return joints.map((a, i): Piece => ({ a, b: joints[(i + 1) % joints.length]!, bulge: bulges[i % 2]! }));
};

/** A back with teeth that stand close: grows together outwards, splits into many inwards. */
export const comb = (teeth: number): Piece[] => {
  const top: [number, number][] = [];
  for (let i = 0; i < teeth; i++) top.push([i * 4 + 1, 2], [i * 4 + 1, 20], [i * 4 + 3.5, 20], [i * 4 + 3.5, 2]);
  return polygon([[0, 0], [4 * teeth + 0.5, 0], [4 * teeth + 0.5, 2], ...top.reverse(), [0, 2]]);
};

/** Two squares with a neck between them, `neck` wide. */
export const dumbbell = (neck: number): Piece[] =>
  polygon([
    [0, 0],
    [20, 0],
    [20, 10 - neck / 2],
    [40, 10 - neck / 2],
    [40, 0],
    [60, 0],
    [60, 20],
    [40, 20],
    [40, 10 + neck / 2],
    [20, 10 + neck / 2],
    [20, 20],
    [0, 20],
  ]);

/** A wheel with straight-sided teeth, rounded at the tips. */
export const gear = (teeth: number): Piece[] => {
  const corners = Array.from({ length: teeth * 4 }, (_, i): Point => {
    const angle = (2 * Math.PI * (i + (i % 2 === 0 ? 0.2 : -0.2))) / (teeth * 4);
    return turned({ x: i % 4 < 2 ? 40 : 48, y: 0 }, angle);
  });
  return roundedCorners(corners, 0.3);
};

/** Steps on a grid: many equal distances, parallel edges and meetings in one place. */
export const steps = (count: number, random: Random): Piece[] => {
  const heights = Array.from({ length: count }, () => 2 + Math.floor(random() * 6));
  const top: [number, number][] = heights.flatMap((h, i) => [
    [i * 2, h],
    [i * 2 + 2, h],
  ]);
  return polygon([[0, 0], [count * 2, 0], ...top.reverse()]);
};

export const mapped = (pieces: readonly Piece[], to: (p: Point) => Point): Piece[] =>
  pieces.map(({ a, b, bulge }) => ({ a: to(a), b: to(b), bulge }));

/**
 * A cover in inches (common practice): steps of 1, 2.5, 1 and 2 on one side, a straight top to a boss of R 1.5 at 7.5,
 * a tangent line down to a base of 7, fillets of .75, .25 and 1.
 */
export const cover = (): Piece[] => {
  const [dx, dy, r] = [0.5, 2.5, 1.5];
  const away = Math.hypot(dx, dy);
  const long = Math.sqrt(away * away - r * r);
  const heading = Math.atan2(dy, dx) - Math.asin(r / away);
  const back = 1 / Math.tan((Math.PI - heading) / 2);
  const ends: readonly (readonly [x: number, y: number, radius: number])[] = [
    [0, 0, 0],
    [7 - back, 0, 1],
    [7 + back * Math.cos(heading), back * Math.sin(heading), 0],
    [7 + long * Math.cos(heading), long * Math.sin(heading), 1.5],
    [7.5, 4, 0],
    [1.25, 4, 0.75],
    [0.5, 3.25, 0],
    [0.5, 2, 0],
    [2.25, 2, -0.25],
    [2.5, 1.75, 0],
    [2.5, 1.25, -0.25],
    [2.25, 1, 0],
    [0, 1, 0],
  ];
  return ends.map(([x, y, radius], i) => {
    const [u, v] = ends[(i + 1) % ends.length]!;
    const [a, b] = [
      { x, y },
      { x: u, y: v },
    ];
    const half = radius === 0 ? 0 : Math.asin(Math.hypot(u - x, v - y) / (2 * radius));
    // the boss is the only arc over a quarter turn; its centre tells its sweep
    return radius === 1.5 ? arcBetween(a, b, { x: 7.5, y: 2.5 }, true) : { a, b, bulge: Math.tan(half / 2) };
  });
};

/** As a file has them that keeps so many decimals of places; of bulges, too, where `bulges` says so. */
export const roundedTo = (pieces: readonly Piece[], decimals: number, bulges?: number): Piece[] => {
  const to = (value: number, digits: number): number => Number(value.toFixed(digits));
  const places = mapped(pieces, ({ x, y }) => ({ x: to(x, decimals), y: to(y, decimals) }));
  return bulges === undefined ? places : places.map((piece) => ({ ...piece, bulge: to(piece.bulge, bulges) }));
};

/** A circle about the origin as so many arcs, the first from `from` (radians). */
export const arcsRound = (radius: number, count: number, from: number): Piece[] =>
  Array.from({ length: count }, (_, i): Piece => {
    const at = (k: number): Point => turned({ x: radius, y: 0 }, from + (2 * Math.PI * (k % count)) / count);
    return { a: at(i), b: at(i + 1), bulge: Math.tan(Math.PI / (2 * count)) };
  });

/** A rectangle about the origin with all corners rounded. */
export const roundedRectangle = (width: number, height: number, radius: number): Piece[] => {
  const [w, h, r] = [width / 2, height / 2, radius];
  const ends: readonly (readonly [number, number])[] = [
    [r - w, -h],
    [w - r, -h],
    [w, r - h],
    [w, h - r],
    [w - r, h],
    [r - w, h],
    [-w, h - r],
    [-w, r - h],
  ];
  return polygon(ends).map((piece, i) => ({ ...piece, bulge: i % 2 === 1 ? Math.tan(Math.PI / 8) : 0 }));
};

/** A strip of a width along a spiral of half circles whose windings lie `pitch` apart, with flat ends. */
export const spiral = (halves: number, inner: number, pitch: number, width: number): Piece[] => {
  const way: Piece[] = [];
  let at: Point = { x: inner, y: 0 };
  for (let i = 0; i < halves; i++) {
    const across = 2 * inner + (i + 0.5) * pitch;
    const b = { x: at.x + (i % 2 === 0 ? -across : across), y: 0 };
    way.push({ a: at, b, bulge: 1 });
    at = b;
  }
  const moved = (by: number): Piece[] =>
    way.map(({ a, b, bulge }, i): Piece => {
      const side = i % 2 === 0 ? by : -by;
      return { a: { x: a.x + side, y: 0 }, b: { x: b.x - side, y: 0 }, bulge };
    });
  const [outer, own] = [moved(width / 2), moved(-width / 2).map(({ a, b, bulge }) => ({ a: b, b: a, bulge: -bulge }))];
  own.reverse();
  return [
    ...outer,
    { a: outer.at(-1)!.b, b: own[0]!.a, bulge: 0 },
    ...own,
    { a: own.at(-1)!.b, b: outer[0]!.a, bulge: 0 },
  ];
};
