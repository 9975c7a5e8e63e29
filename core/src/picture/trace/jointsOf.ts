import { curveNearest } from "../../geometry/curve.ts";
import { pieceDirection } from "../../geometry/piece.ts";
import { cross, distance, dot, subtract, type Point } from "../../geometry/point.ts";
import type { Drawn } from "./explained.ts";
import type { Shape } from "./shapes.ts";

/** Where an end goes on into another piece's, or ends on another piece. */
export type Joint = {
  readonly one: number;
  readonly end: "a" | "b";
  readonly other: number;
  /** The other's end that it goes on into; undefined where it ends somewhere on it. */
  readonly into?: "a" | "b";
  readonly at: Point;
  readonly tangent: boolean;
};

/** Ends as near as so many strokes are one, and so near to a piece they end on it. */
const [ENDS, BODY] = [6, 3];
/** Ends on one way that run past each other, by no more than so many strokes, go on into each other. */
const OVERLAPS = 25;
/** What turns by less than this there (radians) is tangent. */
const TANGENT = 0.4;

type End = { readonly piece: number; readonly end: "a" | "b"; readonly at: Point; readonly way: Point };

const endsOf = (drawn: readonly Drawn[]): readonly End[] =>
  drawn.flatMap(({ shape }, piece): readonly End[] =>
    shape.kind === "circle"
      ? []
      : (["a", "b"] as const).map((end) => ({
          piece,
          end,
          at: shape[end],
          way: pieceDirection(shape, end === "a" ? 0 : 1),
        })),
  );

/** Which way a shape goes at a place on it. */
const curveDirection = (shape: Shape, t: number, { x, y }: Point): Point =>
  shape.kind === "circle" ? { x: shape.centre.y - y, y: x - shape.centre.x } : pieceDirection(shape, t);

const turn = (p: Point, q: Point): number => Math.abs(Math.atan2(Math.abs(cross(p, q)), Math.abs(dot(p, q))));

/** Which way an end leaves its piece. */
const outward = ({ end, way }: End): Point => (end === "b" ? way : { x: -way.x, y: -way.y });

/** True of ends of which each lies beside the other's piece, past its end. */
const overlaps = (drawn: readonly Drawn[], p: End, q: End, width: number): boolean => {
  if (distance(p.at, q.at) > OVERLAPS * width || turn(p.way, q.way) > TANGENT) return false;
  if (dot(outward(p), outward(q)) > 0 || dot(subtract(p.at, q.at), outward(p)) < 0) return false;
  const beside = (end: End, other: End): boolean =>
    curveNearest(drawn[other.piece]!.shape, end.at).distance <= BODY * width;
  return beside(p, q) && beside(q, p);
};

/** The joints of an outline's pieces: end to end, the nearest first, and of what is left end on piece. */
export const jointsOf = (drawn: readonly Drawn[], width: number): readonly Joint[] => {
  const ends = endsOf(drawn);
  const pairs = ends.flatMap((p, i) =>
    ends.slice(i + 1).flatMap((q) => {
      const far = distance(p.at, q.at);
      return p.piece !== q.piece && (far <= ENDS * width || overlaps(drawn, p, q, width)) ? [{ p, q, far }] : [];
    }),
  );
  const taken = new Set<End>();
  const out: Joint[] = [];
  const isLine = (i: number): boolean => {
    const { shape } = drawn[i]!;
    return shape.kind === "piece" && shape.bulge === 0;
  };
  for (const { p, q } of pairs.sort((one, other) => one.far - other.far)) {
    if (taken.has(p) || taken.has(q)) continue;
    taken.add(p);
    taken.add(q);
    const tangent = turn(p.way, q.way) <= TANGENT && !(isLine(p.piece) && isLine(q.piece));
    const at = { x: (p.at.x + q.at.x) / 2, y: (p.at.y + q.at.y) / 2 };
    out.push({ one: p.piece, end: p.end, other: q.piece, into: q.end, at, tangent });
  }
  for (const own of ends) {
    if (taken.has(own)) continue;
    let best: { readonly other: number; readonly at: Point; readonly way: Point; readonly far: number } | undefined;
    drawn.forEach(({ shape }, other) => {
      if (other === own.piece) return;
      const { t, at, distance: far } = curveNearest(shape, own.at);
      if (far >= (best?.far ?? Infinity)) return;
      best = { other, at, way: curveDirection(shape, t, at), far };
    });
    if (!best || best.far > BODY * width) continue;
    const tangent = turn(own.way, best.way) <= TANGENT && !(isLine(own.piece) && isLine(best.other));
    out.push({ one: own.piece, end: own.end, other: best.other, at: best.at, tangent });
  }
  return out;
};
