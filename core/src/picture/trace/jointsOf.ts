import { pieceDirection, pieceNearest } from "../../geometry/piece.ts";
import { cross, distance, dot, type Point } from "../../geometry/point.ts";
import type { Drawn } from "./explained.ts";

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
          at: shape.piece[end],
          way: pieceDirection(shape.piece, end === "a" ? 0 : 1),
        })),
  );

const turn = (p: Point, q: Point): number => Math.abs(Math.atan2(Math.abs(cross(p, q)), Math.abs(dot(p, q))));

/** The joints of an outline's pieces: end to end, the nearest first, and of what is left end on piece. */
export const jointsOf = (drawn: readonly Drawn[], width: number): readonly Joint[] => {
  const ends = endsOf(drawn);
  const pairs = ends.flatMap((p, i) =>
    ends.slice(i + 1).flatMap((q) => {
      const far = distance(p.at, q.at);
      return p.piece !== q.piece && far <= ENDS * width ? [{ p, q, far }] : [];
    }),
  );
  const taken = new Set<End>();
  const out: Joint[] = [];
  const isLine = (i: number): boolean => {
    const { shape } = drawn[i]!;
    return shape.kind === "piece" && shape.piece.bulge === 0;
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
      if (shape.kind === "circle") {
        const { centre, radius } = shape.circle;
        const away = distance(own.at, centre);
        const far = Math.abs(away - radius);
        const [dx, dy] = [(own.at.x - centre.x) / away, (own.at.y - centre.y) / away];
        const at = { x: centre.x + radius * dx, y: centre.y + radius * dy };
        if (far < (best?.far ?? Infinity)) best = { other, at, way: { x: -dy, y: dx }, far };
        return;
      }
      const near = pieceNearest(shape.piece, own.at);
      if (near.distance < (best?.far ?? Infinity))
        best = { other, at: near.at, way: pieceDirection(shape.piece, near.t), far: near.distance };
    });
    if (!best || best.far > BODY * width) continue;
    const tangent = turn(own.way, best.way) <= TANGENT && !(isLine(own.piece) && isLine(best.other));
    out.push({ one: own.piece, end: own.end, other: best.other, at: best.at, tangent });
  }
  return out;
};
