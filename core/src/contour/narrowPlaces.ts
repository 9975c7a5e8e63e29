import { boxTree } from "../geometry/boxTree.ts";
import { chordsApart } from "../geometry/chordsApart.ts";
import { boxesOf } from "../geometry/boxesOf.ts";
import { arcOf, line, pieceDirection, pieceNearest, piecePoint, type Arc, type Piece } from "../geometry/piece.ts";
import { along, cross, distance, dot, midpoint, subtract, times, unit, type Point } from "../geometry/point.ts";
import { circlesOfCurves } from "../geometry/rings.ts";
import { meetings } from "../intersect/meetings.ts";
import { TURN } from "../numeric/angle.ts";
import { RESOLUTION, SAME_DIRECTION, SAME_PARAMETER, SAME_TANGENT, STRAIGHT_BULGE } from "../numeric/tolerance.ts";
import { enclosedArea } from "./chainMeasure.ts";

/** A closed boundary of material: what lies in it is material (`outside`), or what lies round it (`inside`). */
export type Boundary = { readonly pieces: readonly Piece[]; readonly role: "outside" | "inside" };

/** The shortest way across a strip of material, or of waste, between two boundaries or two parts of one. */
export type NarrowPlace = {
  readonly from: Point;
  readonly to: Point;
  readonly length: number;
  readonly of: "material" | "waste";
  /** The boundaries that `from` and `to` lie on, and the pieces there, by their numbers. */
  readonly boundaries: readonly [number, number];
  readonly pieces: readonly [number, number];
};

/** All boundaries as one list of pieces. */
class Pieces {
  readonly all: Piece[] = [];
  readonly arcs: (Arc | undefined)[] = [];
  readonly owner: number[] = [];
  readonly number: number[] = [];
  readonly before: number[] = [];
  readonly after: number[] = [];
  readonly materialLeft: boolean[];

  constructor(boundaries: readonly Boundary[]) {
    this.materialLeft = boundaries.map(({ pieces, role }) => enclosedArea(pieces) > 0 === (role === "outside"));
    for (const [b, { pieces }] of boundaries.entries()) {
      const first = this.all.length;
      for (const [i, own] of pieces.entries()) {
        const piece = Math.abs(own.bulge) <= STRAIGHT_BULGE ? line(own.a, own.b) : own;
        this.all.push(piece);
        this.arcs.push(arcOf(piece));
        this.owner.push(b);
        this.number.push(i);
        this.before.push(first + ((i + pieces.length - 1) % pieces.length));
        this.after.push(first + ((i + 1) % pieces.length));
      }
    }
  }

  /** How the boundary leaves a place: away from a joint along either side, or both ways; and whether straight. */
  ways(i: number, t: number): readonly [forward: Leaving, back: Leaving] {
    const [next, last] = [t >= 1 - SAME_PARAMETER ? this.after[i]! : i, t <= SAME_PARAMETER ? this.before[i]! : i];
    return [
      { way: pieceDirection(this.all[next]!, next === i ? t : 0), straight: !this.arcs[next] },
      { way: times(pieceDirection(this.all[last]!, last === i ? t : 1), -1), straight: !this.arcs[last] },
    ];
  }

  /** Whether a direction leads from a place into material; undefined where it runs along the boundary. */
  intoMaterial(i: number, t: number, way: Point): boolean | undefined {
    const [forward, back] = this.ways(i, t);
    if ([forward, back].some((one) => dot(one.way, way) > 1 - SAME_DIRECTION)) return undefined;
    return cross(forward.way, way) + cross(way, back.way) > 0 === this.materialLeft[this.owner[i]!];
  }
}

type Leaving = { readonly way: Point; readonly straight: boolean };

/** A place on a piece, by its parameter. */
type On = { readonly at: Point; readonly t: number };

const onPiece = (piece: Piece, p: Point): On => {
  const { t, at } = pieceNearest(piece, p);
  return { at, t };
};

/**
 * A place on the first of two curves where they are nearest each other within both: on the line of their centres; of
 * parallel lines and of circles about one centre in the middle of where they lie side by side.
 */
const doubleNormal = (p: Piece, one: Arc | undefined, q: Piece, other: Arc | undefined): readonly Point[] => {
  if (!one && !other) return sideBySide(p, q);
  if (one && other) {
    const apart = distance(one.centre, other.centre);
    if (apart <= RESOLUTION) return [piecePoint(p, 0.5), outTo(one, piecePoint(q, 0.5))];
    const way = times(subtract(other.centre, one.centre), 1 / apart);
    if (apart > one.radius + other.radius || apart < one.radius - other.radius)
      return [along(one.centre, way, one.radius)];
    return apart < other.radius - one.radius ? [along(one.centre, way, -one.radius)] : [];
  }
  const [arc, straight] = one ? [one, q] : [other!, p];
  const dir = unit(subtract(straight.b, straight.a));
  if (!dir) return [];
  const foot = along(straight.a, dir, dot(subtract(arc.centre, straight.a), dir));
  if (distance(foot, arc.centre) <= arc.radius) return [];
  return [one ? outTo(arc, foot) : foot];
};

const outTo = ({ centre, radius }: Arc, p: Point): Point =>
  along(centre, unit(subtract(p, centre)) ?? { x: 1, y: 0 }, radius);

/** The middle of where two parallel lines lie side by side, on the first. */
const sideBySide = (p: Piece, q: Piece): readonly Point[] => {
  const [dir, other] = [unit(subtract(p.b, p.a)), unit(subtract(q.b, q.a))];
  if (!dir || !other || Math.abs(cross(dir, other)) > SAME_DIRECTION) return [];
  const [a, b] = [q.a, q.b].map((at) => dot(subtract(at, p.a), dir)) as [number, number];
  const [from, to] = [Math.max(0, Math.min(a, b)), Math.min(distance(p.a, p.b), Math.max(a, b))];
  return to - from > RESOLUTION ? [along(p.a, dir, (from + to) / 2)] : [];
};

/** A way across that is off square by less than this (sine of 3°) is one: few strips of a file are quite parallel. */
const NEARLY_SQUARE = 0.052;
/** Two sides that part by less than this (cosine of 15°) from the end of a strip are those of a strip. */
const STRIP = 0.966;

/**
 * The places where two boundaries, or two parts of one, come nearest each other with material or with waste between
 * them, no longer than `limit`: shortest first, of those that lie near one another between the same boundaries the
 * shortest. Each is a place where the distance grows to all sides, or nearly stays, exact between lines and arcs: both
 * ends square to the boundary, or at a corner; and the ends of strips, whose sides may part a little. Touching
 * boundaries have none where they touch. Near n log n where few pieces lie within `limit` of one another. Source:
 * critical points of the distance of two curves (elementary; derived here).
 */
export const narrowPlaces = (boundaries: readonly Boundary[], limit: number): readonly NarrowPlace[] => {
  const pieces = new Pieces(boundaries);
  const { all, arcs, owner, number } = pieces;
  const tree = boxTree(boxesOf(all), circlesOfCurves(all));
  const chords = chordsApart(all);
  const found: (NarrowPlace & { readonly end?: number })[] = [];

  const grows = (i: number, { t }: On, way: Point): boolean =>
    // within a piece the nearest place is square to it
    (t > SAME_PARAMETER && t < 1 - SAME_PARAMETER) ||
    pieces.ways(i, t).every((leave) => dot(leave.way, way) <= NEARLY_SQUARE);
  /** True where both could move on side by side on parallel lines: the middle of these is found by itself. */
  const slides = (i: number, from: On, j: number, to: On, way: Point): boolean => {
    const others = pieces.ways(j, to.t);
    return pieces
      .ways(i, from.t)
      .some(
        (one) =>
          one.straight &&
          Math.abs(dot(one.way, way)) <= SAME_TANGENT &&
          others.some((other) => other.straight && dot(one.way, other.way) > 1 - SAME_DIRECTION),
      );
  };
  const note = (i: number, from: On, j: number, to: On, isMiddle = false): void => {
    const length = distance(from.at, to.at);
    if (length > limit || length <= RESOLUTION) return;
    const way = times(subtract(to.at, from.at), 1 / length);
    const back = times(way, -1);
    if (!grows(i, from, way) || !grows(j, to, back)) return;
    if (!isMiddle && slides(i, from, j, to, way)) return;
    const material = pieces.intoMaterial(i, from.t, way);
    if (material === undefined || material !== pieces.intoMaterial(j, to.t, back)) return;
    found.push({
      from: from.at,
      to: to.at,
      length,
      of: material ? "material" : "waste",
      boundaries: [owner[i]!, owner[j]!],
      pieces: [number[i]!, number[j]!],
    });
  };
  const look = (i: number, j: number): void => {
    const [p, q] = [all[i]!, all[j]!];
    for (const [at, t] of [
      [p.a, 0],
      [p.b, 1],
    ] as const)
      note(i, { at, t }, j, onPiece(q, at));
    for (const [at, t] of [
      [q.a, 0],
      [q.b, 1],
    ] as const)
      note(i, onPiece(p, at), j, { at, t });
    for (const place of doubleNormal(p, arcs[i], q, arcs[j])) {
      const from = onPiece(p, place);
      if (distance(from.at, place) <= RESOLUTION) note(i, from, j, onPiece(q, from.at), true);
    }
  };
  /** The end of a strip: a piece that goes across from one side to the other, which run on from it side by side. */
  const lookAtEnd = (end: number): void => {
    const [j, i] = [pieces.before[end]!, pieces.after[end]!];
    if (i === j || i === end || j === end) return;
    const [p, q] = [all[i]!, all[j]!];
    const away = pieceDirection(p, 0);
    const part = dot(away, times(pieceDirection(q, 1), -1));
    // of parallels the middle is found by itself
    if (part < STRIP || (!arcs[i] && !arcs[j] && sideBySide(p, q).length > 0)) return;
    const across = [
      [p.a, onPiece(q, p.a).at],
      [onPiece(p, q.b).at, q.b],
    ] as const;
    const [from, to] = distance(...across[0]) <= distance(...across[1]) ? across[0] : across[1];
    const length = distance(from, to);
    if (length > limit || length <= RESOLUTION) return;
    const way = times(subtract(to, from), 1 / length);
    if (dot(away, way) > NEARLY_SQUARE) return;
    found.push({
      from,
      to,
      length,
      of: cross(away, way) > 0 === pieces.materialLeft[owner[i]!] ? "material" : "waste",
      boundaries: [owner[i]!, owner[j]!],
      pieces: [number[i]!, number[j]!],
      end,
    });
  };
  tree.pairs(limit, (i, j) => {
    if (!chords.apart(i, j, limit)) look(i, j);
  });
  for (let i = 0; i < all.length; i++) lookAtEnd(i);
  // an arc of more than half a turn may come back near where it began
  for (const [i, arc] of arcs.entries())
    if (arc && Math.abs(arc.sweep) > TURN / 2) note(i, { at: all[i]!.a, t: 0 }, i, { at: all[i]!.b, t: 1 });

  found.sort((one, other) => one.length - other.length);
  const kept = new Kept(limit);
  const isFree = (place: NarrowPlace & { readonly end?: number }): boolean => {
    const way = { a: place.from, b: place.to, bulge: 0 };
    let free = true;
    const [x0, x1] = [Math.min(way.a.x, way.b.x), Math.max(way.a.x, way.b.x)];
    const [y0, y1] = [Math.min(way.a.y, way.b.y), Math.max(way.a.y, way.b.y)];
    tree.within(x0, y0, x1, y1, (k) => {
      if (chords.apartFrom(k, way.a.x, way.a.y, way.b.x, way.b.y, RESOLUTION)) return false;
      const met = meetings({ kind: "piece", ...all[k]! }, { kind: "piece", ...way }, RESOLUTION);
      free = met.every((one) =>
        one.kind === "overlap"
          ? k === place.end
          : distance(one.at, way.a) <= 2 * RESOLUTION || distance(one.at, way.b) <= 2 * RESOLUTION,
      );
      return !free;
    });
    return free;
  };
  return found
    .filter((place) => kept.isNew(place) && isFree(place) && kept.keep(place))
    .map(({ end: _, ...place }) => place);
};

/** What was kept already, by where it lies: nearer to one than that is long, between the same two, is no other. */
class Kept {
  private readonly cells = new Map<string, NarrowPlace[]>();
  private readonly size: number;
  constructor(limit: number) {
    this.size = limit;
  }
  private cell({ x, y }: Point, dx: number, dy: number): string {
    return `${Math.floor(x / this.size) + dx} ${Math.floor(y / this.size) + dy}`;
  }
  isNew(place: NarrowPlace): boolean {
    const middle = midpoint(place.from, place.to);
    for (let dx = -1; dx <= 1; dx++)
      for (let dy = -1; dy <= 1; dy++)
        for (const other of this.cells.get(this.cell(middle, dx, dy)) ?? [])
          if (
            other.of === place.of &&
            sameTwo(other.boundaries, place.boundaries) &&
            distance(midpoint(other.from, other.to), middle) <= other.length
          )
            return false;
    return true;
  }
  keep(place: NarrowPlace): true {
    const key = this.cell(midpoint(place.from, place.to), 0, 0);
    void (this.cells.get(key)?.push(place) ?? this.cells.set(key, [place]));
    return true;
  }
}

const sameTwo = ([a, b]: readonly [number, number], [c, d]: readonly [number, number]): boolean =>
  (a === c && b === d) || (a === d && b === c);
