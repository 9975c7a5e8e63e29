import { circleHalves } from "../geometry/circle.ts";
import { least } from "../numeric/greatest.ts";
import { fitMeasured } from "../fit/measured/index.ts";
import { arcBetween, pieceLength, piecePoint, pieceRadius, type Piece } from "../geometry/piece.ts";
import { along, leftOf, subtract, times, unit, type Point } from "../geometry/point.ts";
import { randomFrom, type Random } from "./contours.ts";

/**
 * Points along a closed outline, a step apart, each off by a normal deviate of `sigma` in x and in y (Box and Muller).
 * With `alike` each goes that part of the way with the one before.
 */
export const measuredPoints = (
  pieces: readonly Piece[],
  step: number,
  sigma: number,
  random: Random,
  alike = 0,
): Point[] => {
  const own = sigma * Math.sqrt(1 - alike * alike);
  const deviate = (): number => own * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  let [u, v] = [0, 0];
  const out: Point[] = [];
  let next = step * random();
  for (const piece of pieces) {
    const length = pieceLength(piece);
    for (; next < length; next += step) {
      const { x, y } = piecePoint(piece, next / length);
      [u, v] = [alike * u + deviate(), alike * v + deviate()];
      out.push({ x: x + u, y: y + v });
    }
    next -= length;
  }
  return out;
};

/** Corners with the radius of each: an outline of lines with an arc where the radius is not 0. */
const cornered = (corners: readonly (readonly [x: number, y: number, radius: number])[]): Piece[] => {
  const places = corners.map(([x, y]): Point => ({ x, y }));
  const rounds = corners.map(([, , radius], i) => {
    const p = places[i]!;
    const [u, v] = [unit(subtract(p, places.at(i - 1)!))!, unit(subtract(places[(i + 1) % places.length]!, p))!];
    const turn = Math.atan2(u.x * v.y - u.y * v.x, u.x * v.x + u.y * v.y);
    const size = radius * Math.tan(Math.abs(turn) / 2);
    const [a, b] = [along(p, u, -size), along(p, v, size)];
    const centre = along(a, times(leftOf(u), Math.sign(turn)), radius);
    return { a, b, arc: radius === 0 ? [] : [arcBetween(a, b, centre, turn > 0)] };
  });
  return rounds.flatMap(({ b, arc }, i): Piece[] => [
    ...arc,
    { a: b, b: rounds[(i + 1) % rounds.length]!.a, bulge: 0 },
  ]);
};

/** Arcs about centres, each tangent to the lines or arcs beside it, given by their ends. */
const arc = (centre: Point, radius: number, from: number, to: number): Piece => {
  const on = (angle: number): Point => ({
    x: centre.x + radius * Math.cos(angle),
    y: centre.y + radius * Math.sin(angle),
  });
  return arcBetween(on(from), on(to), centre, to > from);
};

/** A belt round two circles: arcs with tangent lines between them. */
const link = (apart: number, large: number, small: number): Piece[] => {
  const lean = Math.acos((large - small) / apart);
  const [left, right] = [
    arc({ x: 0, y: 0 }, large, lean, 2 * Math.PI - lean),
    arc({ x: apart, y: 0 }, small, -lean, lean),
  ];
  return [left, { a: left.b, b: right.a, bulge: 0 }, right, { a: right.b, b: left.a, bulge: 0 }];
};

/** An oval of four arcs tangent to one another. */
const oval = (end: number, side: number, apart: number): Piece[] => {
  // the side's centre lies on the upright axis so that its circle touches the ends' from outside
  const down = Math.sqrt((side - end) ** 2 - apart ** 2);
  const lean = Math.atan2(down, apart);
  return [
    arc({ x: apart, y: 0 }, end, -lean, lean),
    arc({ x: 0, y: -down }, side, lean, Math.PI - lean),
    arc({ x: -apart, y: 0 }, end, Math.PI - lean, Math.PI + lean),
    arc({ x: 0, y: down }, side, Math.PI + lean, 2 * Math.PI - lean),
  ];
};

/** Eight outlines as they are traced, millimetres. */
export const TRACED_SHAPES: Readonly<Record<string, readonly Piece[]>> = {
  rectangle: cornered([
    [0, 0, 0],
    [200, 0, 0],
    [200, 100, 0],
    [0, 100, 0],
  ]),
  "rounded rectangle": cornered([
    [0, 0, 18],
    [160, 0, 18],
    [160, 90, 18],
    [0, 90, 18],
  ]),
  slot: link(70, 15, 15),
  link: link(110, 32, 18),
  "gasket ear": cornered([
    [0, 0, 0],
    [120, 0, 30],
    [150, 70, 14],
    [60, 130, 40],
    [0, 90, 0],
  ]),
  oval: oval(20, 130, 55),
  bracket: cornered([
    [0, 0, 0],
    [140, 0, 0],
    [140, 30, 8],
    [40, 30, 12],
    [40, 110, 8],
    [0, 110, 0],
  ]),
  circle: [...circleHalves({ centre: { x: 10, y: 20 }, radius: 45 })],
};

/** A tracing fitted: whether its lines and arcs are the outline's, and how many standard errors each radius is off. */
export const tracedRightly = (
  name: string,
  sigma: number,
  seed: number,
  alike = 0,
): { readonly right: boolean; readonly off: readonly number[] } => {
  const outline = TRACED_SHAPES[name]!;
  const made = fitMeasured(measuredPoints(outline, 0.5, sigma, randomFrom(seed), alike), true);
  const isCircle = name === "circle";
  if (!made || isCircle || made.circle) return { right: isCircle && made?.circle !== undefined, off: [] };
  const right = inTurn(made.pieces) === inTurn(outline);
  const radii = outline.flatMap((piece) => (piece.bulge === 0 ? [] : [pieceRadius(piece)]));
  const off = made.pieces.flatMap((piece, i) => {
    if (piece.bulge === 0) return [];
    const apart = least(radii.map((radius) => Math.abs(radius - pieceRadius(piece))));
    return [apart / made.radiusErrors[i]!];
  });
  return { right, off: right ? off : [] };
};

/** The kinds of pieces in turn, from wherever they come first in the alphabet. */
const inTurn = (pieces: readonly Piece[]): string => {
  const kinds = pieces.map(({ bulge }) => (bulge === 0 ? "line" : "arc"));
  return kinds.map((_, i) => [...kinds.slice(i), ...kinds.slice(0, i)].join(" ")).sort()[0]!;
};
