import { RESOLUTION, SMOOTH_TURN } from "../numeric/tolerance.ts";
import { offCarrier, positionAlong, type Span } from "../arrangement/span.ts";
import { circlesOf, spanList } from "../arrangement/spanList.ts";
import { enclosedArea } from "../contour/chainMeasure.ts";
import { windingNumber } from "../contour/winding.ts";
import { boxesOf } from "../geometry/boxesOf.ts";
import { runTree, type BoxTree } from "../geometry/boxTree.ts";
import type { Piece } from "../geometry/piece.ts";
import type { Circles } from "../geometry/rings.ts";
import { cross, distance, dot, equalPoint, subtract, unit, type Point } from "../geometry/point.ts";
import { SHARP_LIMIT } from "./rawPieces.ts";
import type { Spread } from "./gathered.ts";
import { cornerPlace, type CornerList, type Joined } from "./sources.ts";

export type Zone = {
  /**
   * True where a place lies within the zone that an offset keeps clear of, for more than `slack`; bands of `own` pieces
   * aside.
   */
  readonly holds: (p: Point, slack: number, own?: readonly number[]) => boolean;
  /**
   * Where a place does not lie within, whether it is as far, to within `reach`, from another piece than `from`, where
   * it comes from, and its neighbours: things that touch.
   */
  readonly look: (
    p: Point,
    slack: number,
    reach: number,
    from: number,
    own?: readonly number[],
  ) => "within" | "shared" | "free";
  /** True of a place that lies on the other side of closed sources; never where some are open. */
  readonly isBehind: (p: Point) => boolean;
};

/**
 * What an offset by `signed` to the left (to the right where it is below 0) keeps clear of. Where all corners are
 * round: whatever lies closer to the pieces. Else, for contours, what lies behind them, a band along that side of each
 * piece, and the corner pieces that are asked for; for open chains bands on both sides, and discs about the corners
 * that open to the other side and about the ends. Answers from an index of the pieces.
 */
export const zoneOf = (joined: Joined, spreads: readonly (Spread | undefined)[], signed: number): Zone => {
  const { pieces, corners } = joined;
  const by = Math.abs(signed);
  const side = Math.sign(signed);
  const list = spanList(pieces);
  const { span } = list;
  const circles = circlesOf(list);
  const tree = treeWhenWorthIt(pieces, circles);
  const isNearer = (i: number, p: Point, limit: number): boolean => {
    const off = Math.hypot(p.x - circles[3 * i]!, p.y - circles[3 * i + 1]!) - circles[3 * i + 2]!;
    return !(off >= limit || off <= -limit) && nearer(span(i), p, limit);
  };
  const open = corners.before.some((p, k) => p < 0 || corners.after[k]! < 0);
  const isBehind = open ? () => false : behindOf(joined, tree, side);
  const [before, after] = neighbours(corners, pieces.length);
  const isOther = (i: number, from: number): boolean => i !== from && i !== before[from] && i !== after[from];
  if (spreads.every((spread) => !spread || spread.kind === "round"))
    return {
      holds: (p, slack) => any(tree, p, by, (i) => isNearer(i, p, by - slack)),
      look: (p, slack, reach, from) => {
        let shared = false;
        const within = any(tree, p, by + reach, (i) => {
          if (!isNearer(i, p, by + reach)) return false;
          if (isNearer(i, p, by - slack)) return true;
          shared ||= isOther(i, from);
          return false;
        });
        return within ? "within" : shared ? "shared" : "free";
      },
      isBehind,
    };
  const smooth = smoothEnds(joined, spreads);
  const places = cornersByPiece(corners, pieces.length);
  // no corner piece reaches farther than the limit of sharp ones; a little more, for those of arcs
  const reach = 1.1 * SHARP_LIMIT * by;
  const holds: Zone["holds"] = (p, slack, own = []) =>
    isBehind(p) ||
    any(
      tree,
      p,
      reach,
      (i) =>
        (!own.includes(i) && inBand(span(i), p, slack, by, open ? 0 : side, smooth[i]!)) ||
        places[i]!.some((corner) => {
          const spread = spreads[corner];
          const inPiece = spread && inSpread(joined, corner, spread, span, p, by, side, slack);
          return inPiece ?? (open && distance(p, cornerPlace(joined, corner)) < by - slack);
        }),
    );
  const look: Zone["look"] = (p, slack, near, from, own) => {
    if (holds(p, slack, own)) return "within";
    const shared = any(tree, p, by + near, (i) => isOther(i, from) && isNearer(i, p, by + near));
    return shared ? "shared" : "free";
  };
  return { holds, look, isBehind };
};

/** For each piece the one before it and the one after it, -1 for none. */
const neighbours = ({ before, after }: CornerList, pieces: number): readonly [Int32Array, Int32Array] => {
  const [last, next] = [new Int32Array(pieces).fill(-1), new Int32Array(pieces).fill(-1)];
  before.forEach((p, k) => {
    const q = after[k]!;
    if (p >= 0) next[p] = q;
    if (q >= 0) last[q] = p;
  });
  return [last, next];
};

type Within = Pick<BoxTree, "within">;

/** A few looks go through all boxes; only more of them are worth a tree. */
const FEW_LOOKS = 8;

/**
 * Finds pieces by their boxes; where nothing comes near an offset it is asked a few times only, however many there are.
 */
const treeWhenWorthIt = (pieces: readonly Piece[], circles: Circles): Within => {
  const boxes = boxesOf(pieces);
  let looks = 0;
  let tree: Within | undefined;
  return {
    within: (minX, minY, maxX, maxY, visit) => {
      looks += 1;
      if (looks > FEW_LOOKS) {
        // what follows on one another in a contour mostly lies near
        tree ??= runTree(boxes, (i) => equalPoint(pieces[i]!.b, pieces[i + 1]!.a), circles);
        return tree.within(minX, minY, maxX, maxY, visit);
      }
      for (let i = 0, k = 0; i < pieces.length; i++, k += 4)
        if (
          boxes[k]! <= maxX &&
          boxes[k + 1]! <= maxY &&
          boxes[k + 2]! >= minX &&
          boxes[k + 3]! >= minY &&
          visit(i) === true
        )
          return;
    },
  };
};

/** Whether something near a place holds. */
const any = (tree: Within, p: Point, reach: number, holds: (i: number) => boolean): boolean => {
  let found = false;
  tree.within(p.x - reach, p.y - reach, p.x + reach, p.y + reach, (i) => (found ||= holds(i)));
  return found;
};

/**
 * Whether a place lies behind closed contours, which all have what is free on one side; by those that a ray to the
 * right meets.
 */
const behindOf = ({ pieces, lengths }: Joined, tree: Within, side: number): ((p: Point) => boolean) => {
  // a chain there and back encloses nothing, but for rounding
  const nothing = RESOLUTION * lengths.reduce((sum, length) => sum + length, 0);
  const free = side * enclosedArea(pieces) > nothing ? 1 : 0;
  return (p) => {
    const met: Piece[] = [];
    tree.within(p.x, p.y, Infinity, p.y, (i) => void met.push(pieces[i]!));
    return side * windingNumber(met, p) < free;
  };
};

/** Closer to a piece, its ends included, than `limit`. */
const nearer = (span: Span, p: Point, limit: number): boolean => {
  const off = Math.abs(offCarrier(span, p));
  if (off >= limit) return false;
  const position = positionAlong(span, p);
  if (position >= 0 && position <= span.length) return true;
  return distance(p, span.piece.a) < limit || distance(p, span.piece.b) < limit;
};

/** For each piece 1 where it goes on smoothly at its start, 2 where it does at its end, 3 for both. */
const smoothEnds = (
  { pieces, corners: { before, after, halfTurn } }: Joined,
  spreads: readonly (Spread | undefined)[],
): Uint8Array => {
  const smooth = new Uint8Array(pieces.length);
  before.forEach((p, k) => {
    const q = after[k]!;
    if (p < 0 || q < 0 || spreads[k] || Math.abs(halfTurn[k]!) >= SMOOTH_TURN / 2) return;
    smooth[p]! |= 2;
    smooth[q]! |= 1;
  });
  return smooth;
};

/**
 * Within a band along a piece, on one side or (0) on both; where neighbours turn smoothly no gap is left between their
 * bands.
 */
const inBand = (span: Span, p: Point, slack: number, by: number, side: number, smooth: number): boolean => {
  const off = side === 0 ? Math.abs(offCarrier(span, p)) : side * offCarrier(span, p);
  if (off >= by - slack || off < -slack) return false;
  const position = positionAlong(span, p);
  const over = SMOOTH_TURN * by;
  return position >= (smooth & 1 ? -over : -slack) && position <= span.length + (smooth & 2 ? over : slack);
};

/** Whether a place lies in what stands at a corner; undefined where it lies outside the corner's wedge. */
const inSpread = (
  joined: Joined,
  corner: number,
  spread: Spread,
  span: (i: number) => Span,
  p: Point,
  by: number,
  side: number,
  slack: number,
): boolean | undefined => {
  const at = cornerPlace(joined, corner);
  const { before, after } = joined.corners;
  const away = subtract(p, at);
  // between the spokes, going round from the first towards the other side
  if (side * cross(subtract(spread.start, at), away) > 0 || side * cross(away, subtract(spread.end, at)) > 0)
    return undefined;
  const u = chord(spread);
  switch (spread.kind) {
    case "round":
      return distance(p, at) < by - slack;
    case "flat":
      return side * cross(u, subtract(p, spread.start)) < -slack;
    case "sharp": // on the corner's side of both carriers, but not where round ones have met again
      return (
        distance(p, at) < distance(spread.apex!, at) &&
        side * offCarrier(span(before[corner]!), p) < by - slack &&
        side * offCarrier(span(after[corner]!), p) < by - slack
      );
    case "square":
      return Math.abs(dot(away, u)) < by - slack && Math.abs(cross(away, u)) < by - slack;
  }
};

const chord = ({ start, end }: Spread): Point => unit(subtract(end, start)) ?? { x: 1, y: 0 };

const cornersByPiece = ({ before, after }: CornerList, pieces: number): readonly (readonly number[])[] => {
  const lists: number[][] = Array.from({ length: pieces }, () => []);
  before.forEach((p, corner) => lists[p >= 0 ? p : after[corner]!]!.push(corner));
  return lists;
};
