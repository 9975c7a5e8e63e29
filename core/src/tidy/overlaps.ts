import Flatbush from "flatbush";
import { boundsOf, unionBounds, type Bounds } from "../geometry/bounds.ts";
import { circleHalves } from "../geometry/circle.ts";
import {
  arcBetween,
  pieceBounds,
  pieceDirection,
  pieceLength,
  pieceNearest,
  piecePoint,
  pieceRadius,
  reversePiece,
  type Piece,
} from "../geometry/piece.ts";
import { angleOf, distance, times, type Point } from "../geometry/point.ts";
import { signedAngle } from "../numeric/angle.ts";
import { coverOf, liesOn, placeOn, positionOn, trackOf, type Cover, type Track } from "./carriers.ts";
import { classesOf, type Strand } from "./strands.ts";
import {
  JOINED,
  keyOf,
  severityOf,
  type Absorbed,
  type Finding,
  type Thing,
  type TidyCode,
  type TidyOptions,
} from "./things.ts";

/** Strands on one carrier that lie on one another or end to end. */
type Group = { readonly track: Track; readonly members: readonly Member[] };
type Member = { readonly strand: number; readonly cover: Cover };

export type Untangled = {
  readonly strands: readonly Strand[];
  readonly findings: readonly Finding[];
  /** Things of which something was changed: their pieces are on their own now. */
  readonly touched: ReadonlySet<number>;
  /** The ends of shared edges of which one copy was to go: what is open there is so by request. */
  readonly openedAt: readonly Point[];
  /** Pieces that went, each with one that stays and lies where it lay. */
  readonly absorbed: readonly Absorbed[];
};

export const boxOf = (strand: Strand): Bounds =>
  strand.circle
    ? unionBounds(circleHalves(strand.circle).map(pieceBounds))!
    : strand.piece.bulge === 0
      ? boundsOf([strand.piece.a, strand.piece.b])
      : pieceBounds(strand.piece);

/**
 * Takes away what lies on something else (duplicates whatever their direction, overlaps), and makes one piece of loose ones that run
 * on in one line or arc. An edge that two closed outlines share is no duplicate: without it an outline would be open. n log n.
 */
export const untangle = (things: readonly Thing[], all: readonly Strand[], options: TidyOptions): Untangled => {
  const classes = classesOf(things, options.ignore);
  const noted: Noted = {
    findings: [],
    touched: new Set(),
    openedAt: [],
    absorbed: [],
    whole: new Set(),
    accepted: new Map(),
  };
  const out: (readonly Strand[])[] = all.map((strand) => [strand]);
  const boxes = all.map(boxOf);
  const tree = treeOf(boxes);
  const degree = (place: Point, own: number): number => {
    const { tolerance } = options;
    const near: Strand[] = [];
    tree?.search(place.x - tolerance, place.y - tolerance, place.x + tolerance, place.y + tolerance, (i) => {
      if (classes[all[i]!.thing] === own) near.push(all[i]!);
      return false;
    });
    return directionsAt(near, place, tolerance);
  };
  const work: Work = { all, things, classes, options, degree, noted, out };
  for (const group of groupsOf(all, boxes, tree, things, classes, options.tolerance)) resolveGroup(group, work);
  return {
    strands: flattened(out),
    findings: noted.findings,
    touched: noted.touched,
    openedAt: noted.openedAt,
    absorbed: noted.absorbed,
  };
};

/** A loop: flat() is slow on a hundred thousand short lists. */
const flattened = <T>(lists: readonly (readonly T[])[]): readonly T[] => {
  const all: T[] = [];
  for (const list of lists) for (const one of list) all.push(one);
  return all;
};

const treeOf = (boxes: readonly Bounds[]): Flatbush | undefined => {
  if (boxes.length === 0) return undefined;
  const tree = new Flatbush(boxes.length);
  for (const box of boxes) tree.add(box.minX, box.minY, box.maxX, box.maxY);
  tree.finish();
  return tree;
};

type Noted = {
  readonly findings: Finding[];
  readonly touched: Set<number>;
  readonly openedAt: Point[];
  readonly absorbed: Absorbed[];
  /** Things that are there twice, as a whole: said once for all their pieces. */
  readonly whole: Set<number>;
  readonly accepted: Map<number, boolean>;
};
type Work = {
  readonly all: readonly Strand[];
  readonly things: readonly Thing[];
  readonly classes: readonly number[];
  readonly options: TidyOptions;
  /** In how many directions something leaves a place, what lies on one another counted once. */
  readonly degree: (place: Point, own: number) => number;
  readonly noted: Noted;
  /** What becomes of each strand. */
  readonly out: (readonly Strand[])[];
};

/** Directions (radians) closer than this leave a place together, if they bend alike. */
const TOGETHER = 2e-3;

const directionsAt = (strands: readonly Strand[], place: Point, tolerance: number): number => {
  const leaving: { angle: number; bend: number }[] = [];
  const note = (direction: Point, bend: number): void => {
    const angle = angleOf(direction);
    const known = leaving.some((one) => {
      const off = Math.abs(signedAngle(one.angle - angle));
      return off < TOGETHER && Math.abs(one.bend - bend) <= 0.05 * Math.max(Math.abs(one.bend), Math.abs(bend)) + 1e-9;
    });
    if (!known) leaving.push({ angle, bend });
  };
  for (const { piece, circle } of strands) {
    const halves = circle ? circleHalves(circle) : [piece];
    for (const one of halves) {
      const { t, distance: off } = pieceNearest(one, place);
      if (off > tolerance) continue;
      const bend = one.bulge === 0 ? 0 : Math.sign(one.bulge) / pieceRadius(one);
      const length = pieceLength(one);
      if (t * length > tolerance || length <= tolerance) note(times(pieceDirection(one, t), -1), -bend);
      if ((1 - t) * length > tolerance || length <= tolerance) note(pieceDirection(one, t), bend);
    }
  }
  return leaving.length;
};

/** Groups of strands of one class whose covers overlap or abut on one carrier, found by their boxes. */
const groupsOf = (
  all: readonly Strand[],
  boxes: readonly Bounds[],
  tree: Flatbush | undefined,
  things: readonly Thing[],
  classes: readonly number[],
  tolerance: number,
): readonly Group[] => {
  if (!tree) return [];
  const root = all.map((_, i) => i);
  const find = (i: number): number => {
    let at = i;
    while (root[at] !== at) at = root[at] = root[root[at]!]!;
    return at;
  };
  const joined = new Uint8Array(all.length); // 1 where something else lies in the same group
  all.forEach((strand, i) => {
    const { minX, minY, maxX, maxY } = boxes[i]!;
    let track: Track | undefined;
    tree.search(minX - tolerance, minY - tolerance, maxX + tolerance, maxY + tolerance, (j) => {
      if (j <= i || (strand.piece.bulge === 0) !== (all[j]!.piece.bulge === 0)) return false;
      if (classes[strand.thing] !== classes[all[j]!.thing] || find(i) === find(j)) return false;
      if (standsAcross(strand.piece, all[j]!.piece, tolerance)) return false;
      track ??= trackOf(strand);
      if (!related(track, strand, all[j]!, tolerance, things)) return false;
      root[find(j)] = find(i);
      joined[i] = joined[j] = 1;
      return false;
    });
  });
  const byRoot = new Map<number, number[]>();
  for (let i = 0; i < all.length; i++) if (joined[i]) void (byRoot.get(find(i))?.push(i) ?? byRoot.set(find(i), [i]));
  return [...byRoot.values()].map((members) => groupOf(all, members));
};

/** The track of the longest member, by which the others are measured. */
const groupOf = (all: readonly Strand[], members: readonly number[]): Group => {
  const size = (i: number): number => (all[i]!.circle ? Infinity : pieceLength(all[i]!.piece));
  const longest = members.reduce((best, i) => (size(i) > size(best) ? i : best));
  const track = trackOf(all[longest]!);
  return { track, members: members.map((strand) => ({ strand, cover: coverOf(track, all[strand]!) })) };
};

/** True for two straight pieces, long beside the tolerance, at more than 30 degrees: they share a place at most. */
const standsAcross = (p: Piece, q: Piece, tolerance: number): boolean => {
  if (p.bulge !== 0 || q.bulge !== 0) return false;
  const [px, py, qx, qy] = [p.b.x - p.a.x, p.b.y - p.a.y, q.b.x - q.a.x, q.b.y - q.a.y];
  const [pp, qq, area] = [px * px + py * py, qx * qx + qy * qy, px * qy - py * qx];
  const long = 16 * tolerance * tolerance;
  return pp > long && qq > long && area * area > 0.25 * pp * qq;
};

/** Lies on one another for more than a touch, or runs on end to end in the same line or arc without a corner. */
const related = (track: Track, p: Strand, q: Strand, tolerance: number, things: readonly Thing[]): boolean => {
  const own = coverOf(track, p);
  const other = trackOf(q);
  if (track.carrier.kind !== other.carrier.kind) return false;
  const shared = overlapOf(track, own, coverOf(track, q));
  const short = Math.min(own.length, coverOf(other, q).length);
  if (shared > Math.min(tolerance, short / 2)) {
    // what they share must lie on both: of the shorter all of it, else the ends of the stretch
    if (liesOn(track, q, tolerance) || liesOn(other, p, tolerance)) return true;
    return !p.circle && !q.circle && shareStretch(p.piece, q.piece, Math.min(tolerance, short / 2), tolerance);
  }
  if (p.circle || q.circle) return false;
  // end to end: only loose ones become one, a corner kept in a chain is meant
  const loose = things[p.thing]!.shape.kind === "piece" && things[q.thing]!.shape.kind === "piece";
  return loose && abuts(p, q, tolerance) && (liesOn(track, q, tolerance) || liesOn(other, p, tolerance));
};

/** A stretch that both pieces share: between ends of either that lie on the other, longer than `least`, and on both all the way. */
const shareStretch = (p: Piece, q: Piece, least: number, tolerance: number): boolean => {
  const onBoth = (place: Point): boolean => pieceNearest(q, place).distance <= tolerance;
  const stops = [p.a, p.b, q.a, q.b]
    .map((place) => ({ place, ...pieceNearest(p, place) }))
    .filter(({ place, distance: off }) => off <= tolerance && onBoth(place))
    .map(({ t }) => t)
    .sort((s, t) => s - t);
  const length = pieceLength(p);
  return stops.slice(1).some((to, i) => {
    const from = stops[i]!;
    return (
      (to - from) * length > least &&
      [0.25, 0.5, 0.75].every((part) => onBoth(piecePoint(p, from + (to - from) * part)))
    );
  });
};

const within = ({ round }: Track, { from, length }: Cover, position: number, tolerance: number): boolean => {
  const off = round === undefined ? position - from : (((position - from) % round) + round) % round;
  return (off >= -tolerance && off <= length + tolerance) || (round !== undefined && off >= round - tolerance);
};

/** The length that two covers share; round a circle in both of the places where they may. */
const overlapOf = ({ round }: Track, p: Cover, q: Cover): number => {
  const shared = (shift: number): number =>
    Math.min(p.from + p.length, q.from + shift + q.length) - Math.max(p.from, q.from + shift);
  return round === undefined
    ? shared(0)
    : [-round, 0, round].reduce((sum, shift) => sum + Math.max(0, shared(shift)), 0);
};

/** An end of one at an end of the other, and running on, not turning back. */
const abuts = (p: Strand, q: Strand, tolerance: number): boolean =>
  [p.piece, reversePiece(p.piece)].some((one) =>
    [q.piece, reversePiece(q.piece)].some((other) => distance(one.b, other.a) <= tolerance),
  );

/** A stretch of a group between two places where members end: who covers it, and how often it stays. */
type Atom = { readonly from: number; readonly length: number; readonly cover: readonly number[]; left: number };
type Stop = { readonly position: number; readonly place: Point };

/**
 * The commonest group by itself: two loose lines or arcs, one on the other from end to end, that no outlines share. The one that came first, or that
 * something is attached to, stays. False where it is another group.
 */
const resolvePair = (
  { track, members }: Group,
  { all, things, classes, options, degree, noted, out }: Work,
): boolean => {
  const { tolerance } = options;
  if (members.length !== 2 || track.round !== undefined) return false;
  const [p, q] = [members[0]!, members[1]!];
  const [one, other] = [all[p.strand]!, all[q.strand]!];
  const [first, second] = [things[one.thing]!, things[other.thing]!];
  if (first.shape.kind !== "piece" || second.shape.kind !== "piece" || first.attached || second.attached) return false;
  const [pEnd, qEnd] = [p.cover.from + p.cover.length, q.cover.from + q.cover.length];
  const [from, to] = [Math.min(p.cover.from, q.cover.from), Math.min(pEnd, qEnd)];
  const apart = Math.max(Math.abs(p.cover.from - q.cover.from), Math.abs(pEnd - qEnd));
  // ends that are told apart make stretches of their own, and short ones none
  if (apart > tolerance / 8 || to - from <= 2 * tolerance) return false;
  const own = classes[one.thing]!;
  const ends = [one.piece.a, one.piece.b].map((at) => degree(at, own));
  if (ends.every((n) => n % 2 === 1 && n > 1)) return false;
  const at = placeOn(track, (from + to) / 2);
  const key = keyOf("duplicate", at, String(second.id));
  const finding = { code: "duplicate" as const, severity: severityOf("duplicate"), mendable: true, at, key, ids: [second.id, first.id], values: {} }; // prettier-ignore
  const fixed = options.accept?.(finding) ?? true;
  noted.findings.push({ ...finding, fixed });
  if (!fixed) return true;
  out[q.strand] = [];
  noted.touched.add(other.thing);
  for (const went of other.origins) noted.absorbed.push([went, one.origins[0]!]);
  return true;
};

const resolveGroup = (group: Group, work: Work): void => {
  if (resolvePair(group, work)) return;
  const { all, things, classes, options, degree, noted, out } = work;
  const { track, members } = group;
  const { tolerance, sharedEdges } = options;
  const own = classes[all[members[0]!.strand]!.thing]!;
  const thingOf = (i: number): Thing => things[all[members[i]!.strand]!.thing]!;
  const idsOf = (which: readonly number[]): readonly number[] => [...new Set(which.map((i) => thingOf(i).id))];
  const note = (code: TidyCode, at: Point, ids: readonly number[], mendable = true, more = ""): boolean => {
    const finding = { code, severity: severityOf(code), mendable, at, key: keyOf(code, at, more), ids, values: {} };
    const fixed = mendable && (options.accept?.(finding) ?? true);
    noted.findings.push({ ...finding, fixed });
    return fixed;
  };

  const stops = stopsOf(track, members, all, tolerance);
  const atoms = atomsOf(track, stops, members, tolerance);
  const middle = ({ from, length }: Atom): Point => placeOn(track, from + length / 2);
  // edges shared by two outlines stay twice, unless that is not wanted
  const shared = new Set<Atom>();
  for (const atom of atoms) {
    if (atom.cover.length < 2 || stops.length === 0) continue;
    const ends = [atom.from, atom.from + atom.length].map((at) => degree(placeOf(track, stops, at), own));
    if (!ends.every((n) => n % 2 === 1 && n > 1)) continue;
    const mendable = sharedEdges !== "keep";
    const fixed = note("shared-edge", middle(atom), idsOf(atom.cover), mendable);
    atom.left = fixed ? (sharedEdges === "merge" ? 0 : 1) : 2;
    if (fixed && sharedEdges === "drop")
      for (const at of [atom.from, atom.from + atom.length]) noted.openedAt.push(placeOf(track, stops, at));
    shared.add(atom);
  }

  // which copy stays: what something is attached to, what closes, what is longer, what came first
  const rank = (i: number): number => {
    const { shape, attached } = thingOf(i);
    return (attached ? 2 : 0) + (shape.kind === "chain" && shape.closed ? 1 : 0);
  };
  const length = (i: number): number => members[i]!.cover.length;
  const order = members
    .map((_, i) => i)
    .sort(
      (i, j) =>
        rank(j) - rank(i) ||
        (Math.abs(length(j) - length(i)) > tolerance ? length(j) - length(i) : 0) ||
        members[i]!.strand - members[j]!.strand,
    );
  const covers = members.map((_, i) => atoms.filter(({ cover }) => cover.includes(i)));
  const kept: number[] = [];
  const sharing = new Set<number>();
  for (const i of order) {
    const lying = covers[i]!;
    if (lying.length === 0 || lying.every(({ left }) => left > 0)) {
      for (const atom of lying) atom.left -= 1;
      kept.push(i);
      if (lying.some((atom) => shared.has(atom))) sharing.add(i);
      continue;
    }
    const strand = all[members[i]!.strand]!;
    const surplus = lying.find(({ left }) => left === 0)!;
    if (lying.every((atom) => shared.has(atom) && sharedEdges !== "keep")) {
      out[members[i]!.strand] = []; // the shared edge, dropped or merged away
      noted.touched.add(strand.thing);
      continue;
    }
    const twin = kept.find(
      (j) => lying.every(({ cover }) => cover.includes(j)) && Math.abs(length(j) - length(i)) <= 2 * tolerance,
    );
    const said = twin !== undefined && noted.accepted.has(strand.thing) && noted.whole.has(strand.thing);
    const takes = said
      ? noted.accepted.get(strand.thing)!
      : note(
          twin === undefined ? "overlap" : "duplicate",
          middle(surplus),
          idsOf([i, ...kept.filter((j) => covers[j]!.includes(surplus))]),
          true,
          String(thingOf(i).id),
        );
    if (twin !== undefined) {
      noted.whole.add(strand.thing);
      noted.accepted.set(strand.thing, takes);
    }
    if (!takes) {
      // it stays whole, so what it alone covers is covered
      for (const atom of lying) atom.left = Math.max(0, atom.left - 1);
      kept.push(i);
      continue;
    }
    out[members[i]!.strand] = [];
    noted.touched.add(strand.thing);
    const heir = twin ?? kept.find((j) => covers[j]!.includes(surplus));
    if (heir !== undefined)
      for (const went of strand.origins) noted.absorbed.push([went, all[members[heir]!.strand]!.origins[0]!]);
  }

  // what is left uncovered by the copies that stay is made of the longest one that lies there
  const made: { home: number; strand: Strand }[] = [];
  for (const run of runsOf(atoms, (atom) => atom.left > 0 && !(shared.has(atom) && atom.left === 0), track)) {
    for (const atom of run) atom.left -= 1;
    const from = order.find((i) => run.some(({ cover }) => cover.includes(i)))!;
    const source = all[members[from]!.strand]!;
    const origins = order
      .filter((i) => run.some(({ cover }) => cover.includes(i)))
      .flatMap((i) => all[members[i]!.strand]!.origins);
    const piece = pieceAlong(
      track,
      placeOf(track, stops, run[0]!.from),
      placeOf(track, stops, run.at(-1)!.from + run.at(-1)!.length),
      members[from]!.cover.turned,
    );
    made.push({ home: members[from]!.strand, strand: { piece, thing: source.thing, place: source.place, origins } });
    out[members[from]!.strand] = [...out[members[from]!.strand]!, made.at(-1)!.strand];
    noted.touched.add(source.thing);
  }
  for (const i of sharing)
    out[members[i]!.strand] = out[members[i]!.strand]!.map((strand) => ({ ...strand, shared: true }));
  mergeLoose(
    group,
    kept.filter((i) => !sharing.has(i)),
    made,
    stops,
    work,
    note,
    own,
  );
};

/** The places where members end, those within the tolerance as one: that of the first. */
const stopsOf = (
  track: Track,
  members: readonly Member[],
  all: readonly Strand[],
  tolerance: number,
): readonly Stop[] => {
  const ends: Stop[] = [];
  for (const { strand } of members) {
    const { circle, piece } = all[strand]!;
    if (!circle) for (const place of [piece.a, piece.b]) ends.push({ position: positionOn(track, place), place });
  }
  ends.sort((p, q) => p.position - q.position);
  const stops: Stop[] = [];
  for (const end of ends) if (stops.length === 0 || end.position - stops.at(-1)!.position > tolerance) stops.push(end);
  const [first, last] = [stops[0], stops.at(-1)];
  const meetsRound = first && last && first !== last && track.round !== undefined && first.position + track.round - last.position <= tolerance; // prettier-ignore
  return meetsRound ? stops.slice(0, -1) : stops;
};

const placeOf = ({ round }: Track, stops: readonly Stop[], position: number): Point => {
  const at = round === undefined ? position : ((position % round) + round) % round;
  const away = (stop: Stop): number => {
    const off = Math.abs(stop.position - at);
    return round === undefined ? off : Math.min(off, round - off);
  };
  return stops.reduce((best, stop) => (away(stop) < away(best) ? stop : best)).place;
};

const atomsOf = (track: Track, stops: readonly Stop[], members: readonly Member[], tolerance: number): Atom[] => {
  const { round } = track;
  const bounds: [number, number][] =
    stops.length === 0
      ? [[0, round!]]
      : stops.slice(0, -1).map(({ position }, i) => [position, stops[i + 1]!.position - position]);
  if (round !== undefined && stops.length > 0) {
    const last = stops.at(-1)!.position;
    bounds.push([last, round - last + stops[0]!.position]);
  }
  return bounds.map(([from, length]) => {
    const cover: number[] = [];
    members.forEach(({ cover: own }, i) => {
      if (within(track, own, from + length / 2, -tolerance / 4)) cover.push(i);
    });
    return { from, length, cover, left: cover.length > 0 ? 1 : 0 };
  });
};

/** Runs of neighbouring atoms that hold. */
const runsOf = (
  atoms: readonly Atom[],
  holds: (atom: Atom) => boolean,
  { round }: Track,
): readonly (readonly Atom[])[] => {
  const runs: Atom[][] = [];
  atoms.forEach((atom, k) => {
    if (!holds(atom)) return;
    if (k > 0 && runs.length > 0 && runs.at(-1)!.at(-1) === atoms[k - 1]) runs.at(-1)!.push(atom);
    else runs.push([atom]);
  });
  const [first, last] = [runs[0], runs.at(-1)];
  const meets =
    round !== undefined && first && last && first !== last && first[0] === atoms[0] && last.at(-1) === atoms.at(-1);
  return meets ? [[...last, ...first], ...runs.slice(1, -1)] : runs;
};

/** A piece along a track between two places on it. */
const pieceAlong = ({ carrier }: Track, start: Point, end: Point, turned: boolean): Piece => {
  const piece: Piece =
    carrier.kind === "line" ? { a: start, b: end, bulge: 0 } : arcBetween(start, end, carrier.centre, true);
  return turned ? reversePiece(piece) : piece;
};

/** Loose pieces of the group that run on end to end become one, where nothing else ends; all the way round they become a circle. */
const mergeLoose = (
  { track, members }: Group,
  kept: readonly number[],
  made: readonly { readonly home: number; readonly strand: Strand }[],
  stops: readonly Stop[],
  { all, things, options, degree, noted, out }: Work,
  note: (code: TidyCode, at: Point, ids: readonly number[]) => boolean,
  own: number,
): void => {
  const { tolerance } = options;
  type Loose = { readonly strand: Strand; readonly cover: Cover; readonly home: number; readonly fresh: boolean };
  const loose: Loose[] = [
    ...kept.flatMap((i): Loose[] => {
      const { strand, cover } = members[i]!;
      const { shape } = things[all[strand]!.thing]!;
      return shape.kind === "piece" ? [{ strand: all[strand]!, cover, home: strand, fresh: false }] : [];
    }),
    ...made.map(({ strand, home }): Loose => ({ strand, cover: coverOf(track, strand), home, fresh: true })),
  ].sort((p, q) => p.cover.from - q.cover.from);
  if (loose.length < 2) return;
  const endOf = ({ cover: { from, length } }: Loose): number => from + length;
  const meets = (p: Loose, q: Loose): boolean => {
    const off = q.cover.from - endOf(p);
    const gap = track.round === undefined ? Math.abs(off) : Math.abs(off - track.round * Math.round(off / track.round));
    return gap <= tolerance && degree(placeOf(track, stops, q.cover.from), own) === 2;
  };
  const runs: Loose[][] = [[loose[0]!]];
  for (const one of loose.slice(1)) {
    const last = runs.at(-1)!;
    if (meets(last.at(-1)!, one)) last.push(one);
    else runs.push([one]);
  }
  const closes = track.round !== undefined && meets(loose.at(-1)!, loose[0]!);
  const goesRound = closes && runs.length === 1;
  if (closes && !goesRound) runs[0] = [...runs.pop()!, ...runs[0]!];
  for (const run of runs) {
    if (run.length < 2) continue;
    const joints = run.slice(1).filter((one, i) => !(one.fresh || run[i]!.fresh));
    const ids = [...new Set(run.map(({ strand }) => things[strand.thing]!.id))];
    // pieces left of an overlap become one with what they go on from, without a finding of their own
    if (joints.length > 0) {
      const spread = Math.max(...run.slice(1).map((one, i) => distance(endPlace(run[i]!.strand, track), startPlace(one.strand, track)))); // prettier-ignore
      const code = spread > JOINED ? "gap" : "fragment";
      if (!note(code, startPlace(joints[0]!.strand, track), ids)) continue;
    }
    const longest = run.reduce((best, one) => (one.cover.length > best.cover.length ? one : best));
    const origins = run.flatMap(({ strand }) => strand.origins);
    const first = run.reduce((best, one) => (one.home < best.home ? one : best));
    const { carrier } = track;
    const strand: Strand =
      goesRound && carrier.kind === "circle"
        ? {
            piece: circleHalves(carrier)[0]!,
            circle: { centre: carrier.centre, radius: carrier.radius },
            thing: first.strand.thing,
            place: 0,
            origins,
          }
        : {
            piece: pieceAlong(
              track,
              startPlace(run[0]!.strand, track),
              endPlace(run.at(-1)!.strand, track),
              longest.cover.turned,
            ),
            thing: first.strand.thing,
            place: 0,
            origins,
          };
    for (const one of run) {
      out[one.home] = out[one.home]!.filter((other) => other !== one.strand);
      noted.touched.add(one.strand.thing);
    }
    out[first.home] = [...out[first.home]!, strand];
  }
};

const startPlace = (strand: Strand, track: Track): Point =>
  coverOf(track, strand).turned ? strand.piece.b : strand.piece.a;
const endPlace = (strand: Strand, track: Track): Point =>
  coverOf(track, strand).turned ? strand.piece.a : strand.piece.b;
