import { pieceLength } from "../geometry/piece.ts";
import { type Point } from "../geometry/point.ts";
import { boxesOf } from "../geometry/boxesOf.ts";
import { boxTree } from "../geometry/boxTree.ts";
import { sortShort } from "../numeric/sortShort.ts";
import { placeOn } from "./carriers.ts";
import { degreeOf, type Degree } from "./degree.ts";
import { groupOf, groupsOf, type Group } from "./grouping.ts";
import { mergeLoose } from "./mergeLoose.ts";
import { pieceAlong, runsOf, stretchesOf, type Stretch, type Stretches } from "./stretches.ts";
import { classesOf, type Strand } from "./strands.ts";
import {
  keyOf,
  severityOf,
  type Absorbed,
  type Finding,
  type Thing,
  type TidyCode,
  type TidyOptions,
} from "./things.ts";

export type Untangled = {
  readonly strands: readonly Strand[];
  readonly findings: readonly Finding[];
  /** Things of which something was changed: their pieces are on their own now. */
  readonly touched: readonly number[];
  /** The ends of shared edges of which one copy was to go: what is open there is so by request. */
  readonly openedAt: readonly Point[];
  /** Pieces that went, each with one that stays and lies where it lay. */
  readonly absorbed: readonly Absorbed[];
};

/**
 * Takes away what lies on something else (duplicates whatever their direction, overlaps), and makes one piece of loose ones that run
 * on in one line or arc. An edge that two closed outlines share is no duplicate: without it an outline would be open. n log n.
 */
export const untangle = (things: readonly Thing[], all: readonly Strand[], options: TidyOptions): Untangled => {
  const classes = classesOf(things, options.ignore);
  const noted: Noted = {
    findings: [],
    touched: [],
    openedAt: [],
    absorbed: [],
    whole: new Set(),
    accepted: new Map(),
  };
  const out: (readonly Strand[] | undefined)[] = new Array<undefined>(all.length);
  const tree = boxTree(boxesOf(all.map(({ circle, piece }) => circle ?? piece)));
  const degree = degreeOf(all, tree, classes, options.tolerance);
  const work: Work = { all, things, classes, options, degree, noted, out };
  const { members, starts } = groupsOf(all, tree, things, classes, options.tolerance);
  for (let k = 0; k + 1 < starts.length; k++) {
    const from = starts[k]!;
    const to = starts[k + 1]!;
    if (to - from === 2 && resolvePair(members[from]!, members[from + 1]!, work)) continue;
    resolveGroup(groupOf(all, Array.from(members.subarray(from, to))), work);
  }
  return {
    strands: standing(all, out),
    findings: noted.findings,
    touched: noted.touched,
    openedAt: noted.openedAt,
    absorbed: noted.absorbed,
  };
};

/** What stands afterwards, in the order of what it came from. */
const standing = (all: readonly Strand[], out: Work["out"]): readonly Strand[] => {
  const stands: Strand[] = [];
  for (let i = 0; i < all.length; i++) {
    const made = out[i];
    if (!made) stands.push(all[i]!);
    else for (const one of made) stands.push(one);
  }
  return stands;
};

export type Noted = {
  readonly findings: Finding[];
  readonly touched: number[];
  readonly openedAt: Point[];
  readonly absorbed: Absorbed[];
  /** Things that are there twice, as a whole: said once for all their pieces. */
  readonly whole: Set<number>;
  readonly accepted: Map<number, boolean>;
};
export type Work = {
  readonly all: readonly Strand[];
  readonly things: readonly Thing[];
  readonly classes: readonly number[];
  readonly options: TidyOptions;
  readonly degree: Degree;
  readonly noted: Noted;
  /** What becomes of each strand; nothing is said where it stays as it is. */
  readonly out: (readonly Strand[] | undefined)[];
};

const NO_VALUES = {};

/** What becomes of a strand that goes. */
const GONE: readonly Strand[] = [];

/** True where outlines come together, by the directions that leave a place. */
const branches = (degree: number): boolean => degree % 2 === 1 && degree > 1;

/**
 * The commonest group by itself: two loose lines, one on the other from end to end, that no outlines share. The one that came first
 * stays. False where it is another group.
 */
const resolvePair = (i: number, j: number, { all, things, classes, options, degree, noted, out }: Work): boolean => {
  const { tolerance } = options;
  const one = all[i]!;
  const other = all[j]!;
  const first = things[one.thing]!;
  const second = things[other.thing]!;
  if (one.piece.bulge !== 0 || first.shape.kind !== "piece" || second.shape.kind !== "piece") return false;
  if (first.attached || second.attached) return false;
  // where both begin and end along the longer one
  const longer = pieceLength(other.piece) > pieceLength(one.piece) ? other.piece : one.piece;
  const { x, y } = longer.a;
  const length = pieceLength(longer);
  const dx = (longer.b.x - x) / length;
  const dy = (longer.b.y - y) / length;
  const position = (p: Point): number => dx * (p.x - x) + dy * (p.y - y);
  const a = position(one.piece.a);
  const b = position(one.piece.b);
  const c = position(other.piece.a);
  const d = position(other.piece.b);
  const apart = Math.max(Math.abs(Math.min(a, b) - Math.min(c, d)), Math.abs(Math.max(a, b) - Math.max(c, d)));
  const from = Math.min(a, b, c, d);
  const to = Math.min(Math.max(a, b), Math.max(c, d));
  // ends that are told apart make stretches of their own, and short ones none
  if (apart > tolerance / 8 || to - from <= 2 * tolerance) return false;
  const own = classes[one.thing]!;
  if (branches(degree(one.piece.a, own)) && branches(degree(one.piece.b, own))) return false;
  const middle = (from + to) / 2;
  const at = { x: x + dx * middle, y: y + dy * middle };
  const finding = {
    code: "duplicate" as const,
    severity: severityOf("duplicate"),
    mendable: true,
    at,
    key: keyOf("duplicate", at, String(second.id)),
    ids: [second.id, first.id],
    values: NO_VALUES,
    fixed: true,
  };
  const fixed = (finding.fixed = options.accept?.(finding) ?? true);
  noted.findings.push(finding);
  if (!fixed) return true;
  out[j] = GONE;
  noted.touched.push(other.thing);
  for (const went of other.origins) noted.absorbed.push([went, one.origins[0]!]);
  return true;
};

const resolveGroup = (group: Group, work: Work): void => {
  const { all, things, classes, options, noted, out } = work;
  const { members } = group;
  const { tolerance } = options;
  const thingOf = (i: number): Thing => things[all[members[i]!.strand]!.thing]!;
  // which copy stays: what something is attached to, what closes, what is longer, what came first
  const rank = (i: number): number => {
    const { shape, attached } = thingOf(i);
    return (attached ? 2 : 0) + (shape.kind === "chain" && shape.closed ? 1 : 0);
  };
  const length = (i: number): number => members[i]!.cover.length;
  const order = members.map((_, i) => i);
  sortShort(
    order,
    (i, j) =>
      rank(j) - rank(i) ||
      (Math.abs(length(j) - length(i)) > tolerance ? length(j) - length(i) : 0) ||
      members[i]!.strand - members[j]!.strand,
  );
  const place = [...order]; // of a member in that order
  order.forEach((i, at) => void (place[i] = at));
  const lain: Lain = {
    group,
    own: classes[all[members[0]!.strand]!.thing]!,
    stretches: stretchesOf(group, all, tolerance),
    order,
    place,
    thingOf,
    note: (code, at, ids, mendable = true, more = "") => {
      const finding = { code, severity: severityOf(code), mendable, at, key: keyOf(code, at, more), ids, values: NO_VALUES, fixed: false }; // prettier-ignore
      finding.fixed = mendable && (options.accept?.(finding) ?? true);
      noted.findings.push(finding);
      return finding.fixed;
    },
  };
  const shared = sharedStretches(lain, work);
  const { kept, sharing } = stayingOf(lain, shared, work);
  const made = madeOf(lain, work);
  for (const i of sharing) {
    const { strand: home } = members[i]!;
    out[home] = (out[home] ?? [all[home]!]).map((strand) => ({ ...strand, shared: true }));
  }
  mergeLoose(lain, sharing.size === 0 ? kept : kept.filter((i) => !sharing.has(i)), made, work);
};

/** A group with the stretches of its track, and its members in the order in which they may stay. */
export type Lain = {
  readonly group: Group;
  /** The class of its strands. */
  readonly own: number;
  readonly stretches: Stretches;
  readonly order: readonly number[];
  readonly place: readonly number[];
  readonly thingOf: (member: number) => Thing;
  /** Notes a finding; true where it is mended. */
  readonly note: (code: TidyCode, at: Point, ids: readonly number[], mendable?: boolean, more?: string) => boolean;
};

const middleOf = ({ track }: Group, { from, length }: Stretch): Point => placeOn(track, from + length / 2);

const idsOf = ({ thingOf }: Lain, members: readonly number[]): readonly number[] => [
  ...new Set(members.map((i) => thingOf(i).id)),
];

const NONE_SHARED: ReadonlySet<Stretch> = new Set();

/** Edges shared by two outlines: they stay twice, unless that is not wanted. */
const sharedStretches = (lain: Lain, { options, degree, noted }: Work): ReadonlySet<Stretch> => {
  const { group, own, stretches, note } = lain;
  const { sharedEdges } = options;
  let shared = NONE_SHARED;
  if (stretches.stops.places.length === 0) return shared;
  for (const stretch of stretches.all) {
    const { cover, start, end } = stretch;
    if (cover.length < 2 || !branches(degree(start, own)) || !branches(degree(end, own))) continue;
    const fixed = note("shared-edge", middleOf(group, stretch), idsOf(lain, cover), sharedEdges !== "keep");
    stretch.left = fixed ? (sharedEdges === "merge" ? 0 : 1) : 2;
    if (fixed && sharedEdges === "drop") noted.openedAt.push(start, end);
    shared = new Set([...shared, stretch]);
  }
  return shared;
};

/** Which members stay, in their order, and which of them are shared edges; the others are taken away. */
const stayingOf = (
  lain: Lain,
  shared: ReadonlySet<Stretch>,
  { all, options, noted, out }: Work,
): { kept: readonly number[]; sharing: ReadonlySet<number> } => {
  const { tolerance, sharedEdges } = options;
  const { group, stretches, order, place, thingOf, note } = lain;
  const { members } = group;
  const kept: number[] = [];
  const stays = members.map(() => false);
  const sharing = new Set<number>();
  const keep = (i: number): void => {
    kept.push(i);
    stays[i] = true;
  };
  for (const i of order) {
    const lying = stretches.of[i]!;
    const surplus = lying.find(({ left }) => left <= 0);
    if (!surplus) {
      for (const stretch of lying) stretch.left -= 1;
      keep(i);
      if (shared.size > 0 && lying.some((stretch) => shared.has(stretch))) sharing.add(i);
      continue;
    }
    const { strand: home, cover } = members[i]!;
    const strand = all[home]!;
    if (sharedEdges !== "keep" && lying.every((stretch) => shared.has(stretch))) {
      out[home] = GONE; // the shared edge, dropped or merged away
      noted.touched.push(strand.thing);
      continue;
    }
    const staying = surplus.cover.filter((j) => stays[j]).sort((p, q) => place[p]! - place[q]!);
    const twin = staying.find(
      (j) =>
        Math.abs(members[j]!.cover.length - cover.length) <= 2 * tolerance &&
        lying.every((stretch) => stretch.cover.includes(j)),
    );
    const said = twin !== undefined && noted.whole.has(strand.thing);
    const code = twin === undefined ? "overlap" : "duplicate";
    const takes = said
      ? noted.accepted.get(strand.thing)!
      : note(code, middleOf(group, surplus), idsOf(lain, [i, ...staying]), true, String(thingOf(i).id));
    if (twin !== undefined) {
      noted.whole.add(strand.thing);
      noted.accepted.set(strand.thing, takes);
    }
    if (!takes) {
      // it stays whole, so what it alone covers is covered
      for (const stretch of lying) stretch.left = Math.max(0, stretch.left - 1);
      keep(i);
      continue;
    }
    out[home] = GONE;
    noted.touched.push(strand.thing);
    const heir = twin ?? staying[0];
    if (heir !== undefined)
      for (const went of strand.origins) noted.absorbed.push([went, all[members[heir]!.strand]!.origins[0]!]);
  }
  return { kept, sharing };
};

/** A strand made where what stays leaves something uncovered, and in whose place. */
export type Made = { readonly home: number; readonly strand: Strand };

/** What is left uncovered by the copies that stay is made of the first member that lies there. */
const madeOf = ({ group, stretches, place }: Lain, { all, noted, out }: Work): readonly Made[] => {
  const { track, members } = group;
  return runsOf(stretches.all, ({ left }) => left > 0, track).map((run) => {
    for (const stretch of run) stretch.left -= 1;
    const lying = (run.length === 1 ? [...run[0]!.cover] : [...new Set(run.flatMap(({ cover }) => cover))]).sort(
      (i, j) => place[i]! - place[j]!,
    );
    const { strand: home, cover } = members[lying[0]!]!;
    const source = all[home]!;
    const origins = lying.flatMap((i) => all[members[i]!.strand]!.origins);
    const piece = pieceAlong(track, run[0]!.start, run.at(-1)!.end, cover.turned);
    const strand = { piece, thing: source.thing, place: source.place, origins };
    out[home] = [...(out[home] ?? [source]), strand];
    noted.touched.push(source.thing);
    return { home, strand };
  });
};
