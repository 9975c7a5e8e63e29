import { dot, midpoint, subtract } from "../../geometry/point.ts";
import type { Drawn } from "./explained.ts";
import { inOrder, type Inked } from "./inOrder.ts";
import type { Joint } from "./jointsOf.ts";
import { roundedCorners } from "./roundedCorners.ts";
import { strokesOn, type Frame, type Stroke } from "./strokes.ts";

/** So many points show a path's way, and are left of each piece. */
const WAY = 5;

type Step = Pick<Inked, "p" | "mass">;
type Way = { readonly piece: number; readonly turned: boolean };

/** Pieces that go on into each other end to end, in order and in direction; each of one or more, closed or not. */
const walksOf = (count: number, joints: readonly Joint[]): readonly { ways: readonly Way[]; closed: boolean }[] => {
  const next = new Map<string, { readonly piece: number; readonly end: "a" | "b" }>();
  for (const { one, end, other, into } of joints) {
    if (!into) continue;
    next.set(`${one}${end}`, { piece: other, end: into });
    next.set(`${other}${into}`, { piece: one, end });
  }
  const seen = new Set<number>();
  const walks: { ways: Way[]; closed: boolean }[] = [];
  const walk = (first: Way): void => {
    const ways: Way[] = [];
    let at: Way | undefined = first;
    while (at && !seen.has(at.piece)) {
      seen.add(at.piece);
      ways.push(at);
      const after = next.get(`${at.piece}${at.turned ? "a" : "b"}`);
      at = after && { piece: after.piece, turned: after.end === "b" };
    }
    walks.push({ ways, closed: at?.piece === first.piece && at.turned === first.turned && ways.length > 1 });
  };
  // open ones from an end of theirs, then what is left is closed
  for (let piece = 0; piece < count; piece++) {
    const [a, b] = [next.has(`${piece}a`), next.has(`${piece}b`)];
    if (!seen.has(piece) && (!a || !b)) walk({ piece, turned: a });
  }
  for (let piece = 0; piece < count; piece++) if (!seen.has(piece)) walk({ piece, turned: false });
  return walks;
};

/** Ends of a path before and after that run past each other are cut where they have come as far. */
const endedBetween = (before: Step[], after: Step[]): void => {
  const [last, first] = [before.at(-1)!.p, after[0]!.p];
  const near = before.at(-Math.min(WAY, before.length))!.p;
  const out = subtract(last, near);
  if (dot(subtract(last, first), out) <= 0) return;
  const half = midpoint(last, first);
  const isPast = ({ p }: Step): boolean => dot(subtract(p, half), out) > 0;
  while (before.length > WAY && isPast(before.at(-1)!)) before.pop();
  while (after.length > WAY && !isPast(after[0]!)) after.shift();
};

/** A piece's points a pixel apart: what was gone over twice is the mean of both. */
const evened = (points: readonly Inked[]): Step[] => {
  const out: Step[] = [];
  let group: Inked[] = [];
  const put = (): void => {
    const mean = (value: (one: Inked) => number): number =>
      group.reduce((sum, one) => sum + value(one), 0) / group.length;
    if (group.length > 0)
      out.push({ p: { x: mean(({ p }) => p.x), y: mean(({ p }) => p.y) }, mass: mean((one) => one.mass) });
    group = [];
  };
  for (const one of points) {
    const first = group[0];
    if (first && Math.floor(first.t) !== Math.floor(one.t)) put();
    group.push(one);
  }
  put();
  return out;
};

/**
 * Pieces that hang together end to end walked along once, and all their ink cut anew as one path: where it was broken
 * by what crosses it, or by an arrow that ends on it, it is one again.
 */
export const walkedAgain = (drawn: readonly Drawn[], joints: readonly Joint[], frame: Frame): readonly Stroke[] =>
  walksOf(drawn.length, joints).flatMap(({ ways, closed }) => {
    if (ways.length === 1 && !closed) return [drawn[ways[0]!.piece]!.stroke];
    const own = ways.map(({ piece, turned }) => {
      const points = inOrder(frame, drawn[piece]!);
      return evened(turned ? points.toReversed() : points);
    });
    // what runs past the next one's beginning ends half way between
    own.forEach((points, i) => {
      const next = own[i + 1] ?? (closed ? own[0] : undefined);
      if (next && next !== points) endedBetween(points, next);
    });
    const points = own.flat();
    const path = { points: points.map(({ p }) => p), mass: points.map(({ mass }) => mass), closed };
    return roundedCorners(strokesOn(path, frame), frame);
  });
