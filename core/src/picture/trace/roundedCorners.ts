import { filletCorner } from "../../construct/fillet.ts";
import { carrierNearest, type Carrier } from "../../geometry/curve.ts";
import { pieceDirection, pieceNearest, type Piece } from "../../geometry/piece.ts";
import { angleOf, cross, distance, dot, midpoint, subtract, unit, type Point } from "../../geometry/point.ts";
import { jointOf } from "../../fit/measured/joints.ts";
import { turned } from "../../fit/measured/segments.ts";
import { signedAngle, TURN } from "../../numeric/angle.ts";
import { greatest, least } from "../../numeric/greatest.ts";
import { alongOf } from "./carriers.ts";
import { pointsOf, strokeOf, type Frame, type Run, type Stroke } from "./strokes.ts";

/** A corner is looked at where what lies between two longer pieces is no longer than so many strokes. */
const MOST = 16;
/** Its neighbours are told without so many strokes, or so much of them, at either end. */
const [ENDS_OFF, PART_OFF] = [6, 0.25];
/** It turns by this much at least, and no more (radians). */
const [LEAST_TURN, MOST_TURN] = [0.4, 2.7];
/** Radii tried, in strokes, and how much each is larger than the one before. */
const [FROM, UP_TO, STEP] = [2.5, 20, 1.06];
/** A half round end is tried every so many strokes further out. */
const STEP_OUT = 0.1;
/** What is told by its neighbours and a radius costs so many prices; by nothing but them, none. */
const [OF_FILLET, OF_LINE, OF_ARC] = [2, 3, 4];
/** Ink this many strokes before and after it tells it, too. */
const BESIDE = 8;

/** Points that are left of a piece, and that an arc has, at least. */
const [FEWEST, ARC_POINTS] = [3, 5];

type Corner = { readonly cost: number; readonly before: Piece; readonly arc?: Piece; readonly after: Piece };

/** A run without its ends, which may be another's. */
const middleOf = ({ line, from, to }: Run, stroke: number): Run => {
  const off = Math.round(Math.min(ENDS_OFF * stroke, PART_OFF * (to - from)));
  return { line, from: from + off, to: to - off };
};

const carrierOf = (frame: Frame, { kind, runs }: Stroke): Carrier => {
  const middle = strokeOf(frame, [middleOf(runs[0]!, frame.stroke)]);
  const along = alongOf(frame, { kind, sums: middle.sums }, pointsOf(middle.runs[0]!)[0]!);
  if (along.circle) return { kind: "circle", ...along.circle };
  const [at, on] = [along.place(0), along.place(1)];
  return { kind: "line", at, direction: { x: on.x - at.x, y: on.y - at.y } };
};

/** The part of a carrier from one place to another, the way that points go along it. */
const pieceOn = (carrier: Carrier, a: Point, b: Point, points: readonly Point[]): Piece => {
  if (carrier.kind === "line") return { a, b, bulge: 0 };
  const angle = (p: Point): number => Math.atan2(p.y - carrier.centre.y, p.x - carrier.centre.x);
  const way = turned(points, 0, points.length, carrier.centre);
  const turn = signedAngle(angle(b) - angle(a));
  const sweep = [turn, turn + TURN, turn - TURN]
    .filter((one) => one * way > 0)
    .reduce((best, one) => (Math.abs(one - way) < Math.abs(best - way) ? one : best), Infinity);
  return { a, b, bulge: Number.isFinite(sweep) ? Math.tan(sweep / 4) : 0 };
};

const sharpOf = (frame: Frame, one: Stroke, other: Stroke): Corner | undefined => {
  const [p, q] = [carrierOf(frame, one), carrierOf(frame, other)];
  const [before, after] = [pointsOf(one.runs[0]!), pointsOf(other.runs[0]!)];
  const near = midpoint(before.at(-1)!, after[0]!);
  const corner = jointOf(p, q, near);
  if (distance(corner, near) > MOST * frame.stroke) return undefined;
  return {
    cost: 0,
    before: pieceOn(p, carrierNearest(p, before[0]!), corner, before),
    after: pieceOn(q, corner, carrierNearest(q, after.at(-1)!), after),
  };
};

/** What some ink costs as a corner between pieces. */
const costOf = (frame: Frame, points: readonly Point[], { before, arc, after }: Omit<Corner, "cost">): number => {
  const pieces = [before, ...(arc ? [arc] : []), after];
  let sum = 0;
  for (const p of points) sum += least(pieces.map((piece) => pieceNearest(piece, p).distance)) ** 2;
  return sum / (frame.size ** 2 * frame.varianceFor(0)) + (arc ? OF_FILLET * frame.priceFor(points.length) : 0);
};

/**
 * An end drawn half round between two pieces that run back beside each other: the circle that touches both, as far out
 * as its ink tells. Undefined where they are not lines that do.
 */
const roundEnd = (frame: Frame, points: readonly Point[], one: Stroke, other: Stroke): Corner | undefined => {
  const [p, q] = [carrierOf(frame, one), carrierOf(frame, other)];
  if (p.kind !== "line" || q.kind !== "line") return undefined;
  const [before, after] = [pointsOf(one.runs[0]!), pointsOf(other.runs[0]!)];
  // both ways as the ink goes
  const way = (points: readonly Point[], { direction }: { readonly direction: Point }): Point => {
    const on = unit(direction)!;
    return dot(subtract(points.at(-1)!, points[0]!), on) < 0 ? { x: -on.x, y: -on.y } : on;
  };
  const [out, back] = [way(before, p), way(after, q)];
  const axis = unit(subtract(out, back));
  if (!axis || Math.abs(signedAngle(angleOf(back) - angleOf(out))) < MOST_TURN) return undefined;
  const from = carrierNearest(p, before.at(-1)!);
  const to = carrierNearest(q, after[0]!);
  const middle = midpoint(from, to);
  const width = distance(from, to);
  if (width > MOST * frame.stroke) return undefined;
  const furthest = greatest(points.map((point) => dot(subtract(point, middle), axis)));
  let best: Corner | undefined;
  for (let t = furthest - width; t <= furthest; t += STEP_OUT * frame.stroke) {
    const place = { x: middle.x + t * axis.x, y: middle.y + t * axis.y };
    const [a, b] = [carrierNearest(p, place), carrierNearest(q, place)];
    const arc = { a, b, bulge: cross(out, subtract(b, a)) > 0 ? 1 : -1 };
    const corner = {
      before: { a: carrierNearest(p, before[0]!), b: a, bulge: 0 },
      arc,
      after: { a: b, b: carrierNearest(q, after.at(-1)!), bulge: 0 },
    };
    const cost = costOf(frame, points, corner);
    if (cost < (best?.cost ?? Infinity)) best = { ...corner, cost };
  }
  return best;
};

/** The cheapest of a corner: sharp, or rounded; undefined where its neighbours don't meet in one. */
const bestCorner = (frame: Frame, points: readonly Point[], one: Stroke, other: Stroke): Corner | undefined => {
  const sharp = sharpOf(frame, one, other);
  if (!sharp) return roundEnd(frame, points, one, other);
  const turn = Math.abs(
    signedAngle(angleOf(pieceDirection(sharp.after, 0)) - angleOf(pieceDirection(sharp.before, 1))),
  );
  if (turn > MOST_TURN) return roundEnd(frame, points, one, other);
  if (turn < LEAST_TURN) return undefined;
  let best: Corner = { ...sharp, cost: costOf(frame, points, sharp) };
  for (let radius = FROM * frame.stroke; radius <= UP_TO * frame.stroke; radius *= STEP) {
    const made = filletCorner(sharp.before, sharp.after, radius);
    if (!made.ok || !made.value.before || !made.value.after) continue;
    const { before, arc, after } = made.value;
    const cost = costOf(frame, points, { before, arc, after });
    if (cost < best.cost) best = { cost, before, arc, after };
  }
  return best;
};

/** What ink between two places of a path costs as it was cut, but for parameters. */
const costNow = (frame: Frame, strokes: readonly Stroke[], from: number, to: number): number => {
  let sum = 0;
  for (const one of strokes) {
    const run = one.runs[0]!;
    const along = alongOf(frame, one, pointsOf(run)[0]!);
    for (let k = Math.max(from, run.from); k < Math.min(to, run.to); k++) sum += along.at(run.line.points[k]!).off ** 2;
  }
  return sum / (frame.size ** 2 * frame.varianceFor(0));
};

/** The pieces about a corner, cut where its own ends are; undefined where nothing is left of them. */
const cutAt = (frame: Frame, one: Run, other: Run, { before, arc, after }: Corner): readonly Stroke[] | undefined => {
  const { line } = one;
  const nearest = (end: Point): number => {
    let [at, far] = [one.from, Infinity];
    for (let k = one.from; k < other.to; k++) {
      const off = distance(line.points[k]!, end);
      if (off < far) [far, at] = [off, k];
    }
    return at;
  };
  const [from, to] = [nearest(arc?.a ?? before.b), nearest(arc?.b ?? after.a)];
  if (from < one.from + FEWEST || to > other.to - FEWEST || to < from + (arc ? ARC_POINTS : 0)) return undefined;
  const piece = (first: number, last: number): Stroke => strokeOf(frame, [{ line, from: first, to: last }]);
  return [
    piece(one.from, from),
    ...(arc ? [{ ...piece(from, to), kind: "arc" as const }] : []),
    piece(arc ? to : from, other.to),
  ];
};

/**
 * The pieces of one path, each in one run of it, with its corners told by what lies beside them: a short piece between
 * two longer ones, or nothing, is sharp, or rounded by an arc that touches both, where that is the cheaper tale.
 */
export const roundedCorners = (strokes: readonly Stroke[], frame: Frame): readonly Stroke[] => {
  const out: Stroke[] = [];
  const beside = Math.round(BESIDE * frame.stroke);
  for (let i = 0; i < strokes.length; i++) {
    const [before, own, next] = [out.at(-1), strokes[i]!, strokes[i + 1]];
    if (!before) {
      out.push(own);
      continue;
    }
    const isShort = next && own.length < Math.min(MOST * frame.stroke, before.length, next.length);
    const after = isShort ? next : own;
    const [one, other] = [before.runs[0]!, after.runs[0]!];
    const [from, to] = [Math.max(one.from, one.to - beside), Math.min(other.to, other.from + beside)];
    const best = bestCorner(frame, one.line.points.slice(from, to), before, after);
    const price = isShort ? (own.kind === "line" ? OF_LINE : OF_ARC) * frame.priceFor(to - from) : 0;
    const now = costNow(frame, isShort ? [before, own, after] : [before, after], from, to) + price;
    const cut = best && best.cost < now ? cutAt(frame, one, other, best) : undefined;
    if (!cut) {
      out.push(own);
      continue;
    }
    out.pop();
    for (const piece of cut) out.push(piece);
    if (isShort) i += 1;
  }
  return out;
};
