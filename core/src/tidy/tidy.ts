import Flatbush from "flatbush";
import { joinRuns, runPieces } from "../contour/joining.ts";
import { circleHalves } from "../geometry/circle.ts";
import { pieceLength, type Piece } from "../geometry/piece.ts";
import { distance, equalPoint, type Point } from "../geometry/point.ts";
import { pointGrid } from "../geometry/pointGrid.ts";
import { meetings } from "../intersect/meetings.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import { closeEnds } from "./ends.ts";
import { boxOf, untangle } from "./overlaps.ts";
import { sharedPairing } from "./sharedPairing.ts";
import { strandsOf, type Strand } from "./strands.ts";
import {
  JOINED,
  keyOf,
  severityOf,
  type Finding,
  type Origin,
  type Thing,
  type Tidied,
  type TidyCode,
  type TidyOptions,
  type TidyResult,
} from "./things.ts";

/**
 * Tidies lines, arcs, circles and chains: takes duplicates and overlaps away, makes fragments one, closes gaps and cuts tails within
 * the tolerance, joins what meets into chains, and says what stays in the way (open, crossing, tiny). What is clean comes back number
 * for number, in its order. Twice is the same as once. Near n log n.
 */
export const tidy = (things: readonly Thing[], options: TidyOptions): TidyResult => {
  const report = options.report ?? (() => undefined);
  const { strands, zero } = strandsOf(things);
  const findings: Finding[] = [];
  const touched = new Set<number>();
  const accept = (finding: Omit<Finding, "fixed">): boolean => options.accept?.(finding) ?? true;
  for (const { thing, piece } of zero) {
    const finding = noted("tiny", piece.a, [things[thing]!.id], { length: 0 }, true);
    const fixed = accept(finding);
    findings.push({ ...finding, fixed });
    if (fixed) touched.add(thing);
  }
  report(0.1);
  const untangled = untangle(things, strands, options);
  report(0.5);
  const closed = closeEnds(things, untangled.strands, options);
  report(0.65);
  for (const thing of [...untangled.touched, ...closed.touched]) touched.add(thing);
  const standing = put(things, closed.strands, touched);
  report(0.8);
  const stays = [
    openFindings(standing, untangled.openedAt),
    tinyFindings(standing, options.tolerance),
    crossingFindings(standing),
  ];
  report(1);
  return {
    things: standing.map(({ made }) => made),
    findings: [findings, untangled.findings, closed.findings, ...stays].flat(),
    absorbed: untangled.absorbed,
  };
};

const noted = (
  code: TidyCode,
  at: Point,
  ids: readonly number[],
  values: Finding["values"] = {},
  mendable = false,
): Omit<Finding, "fixed"> => ({ code, severity: severityOf(code), mendable, at, key: keyOf(code, at), ids, values });

/** A thing that stands, with its pieces to be looked at. */
type Standing = {
  readonly made: Tidied;
  readonly pieces: readonly Piece[];
  readonly closed: boolean;
  readonly ids: readonly number[];
  readonly circle: boolean;
};

/** What stands after the work: untouched closed things as they were, the rest joined end to end, in the order of the things. */
const put = (
  things: readonly Thing[],
  strands: readonly Strand[],
  touched: ReadonlySet<number>,
): readonly Standing[] => {
  const out: { order: number; standing: Standing }[] = [];
  const loose = new Map<string, { parts: Part[] }>();
  const byThing = new Map<number, Strand[]>();
  for (const strand of strands) void (byThing.get(strand.thing)?.push(strand) ?? byThing.set(strand.thing, [strand]));
  things.forEach((thing, order) => {
    const own = byThing.get(order) ?? [];
    const keep = (standing: Standing): void => void out.push({ order, standing });
    if (own.length === 0) return;
    const whole = !touched.has(order);
    if (whole && thing.shape.kind === "circle") return keep(circleOf(thing, own[0]!, thing.id));
    if (whole && thing.shape.kind === "chain" && thing.shape.closed) return keep(closedOf(thing));
    const key = String(thing.layer);
    const parts = loose.get(key)?.parts ?? [];
    loose.set(key, { parts });
    if (whole && thing.shape.kind === "chain") {
      const { pieces } = thing.shape;
      parts.push({ order, thing, pieces, origins: pieces.map((_, piece) => [{ id: thing.id, piece }]), whole });
      return;
    }
    for (const strand of own) {
      if (strand.circle) keep(circleOf(thing, strand, undefined));
      else
        parts.push({
          order,
          thing,
          pieces: [strand.piece],
          origins: [strand.origins],
          whole,
          shared: strand.shared ?? false,
        });
    }
  });
  const all = [out, ...[...loose.values()].map(({ parts }) => joined(parts))].flat();
  all.sort((p, q) => p.order - q.order);
  return all.map(({ standing }) => standing);
};

type Part = {
  readonly order: number;
  readonly thing: Thing;
  readonly pieces: readonly Piece[];
  readonly origins: readonly (readonly Origin[])[];
  readonly whole: boolean;
  readonly shared?: boolean;
};

const about = ({ layer, colour, line }: Thing): Pick<Tidied, "layer" | "colour" | "line"> => ({
  layer,
  ...(colour === undefined ? {} : { colour }),
  ...(line === undefined ? {} : { line }),
});

const circleOf = (thing: Thing, strand: Strand, same: number | undefined): Standing => ({
  made: {
    ...about(thing),
    shape: same === undefined ? { kind: "circle", ...strand.circle! } : thing.shape,
    ...(same === undefined ? {} : { same }),
    origins: [strand.origins],
  },
  pieces: [],
  closed: true,
  ids: strand.origins.map(({ id }) => id),
  circle: true,
});

const closedOf = (thing: Thing & { readonly shape: { readonly kind: "chain" | "piece" | "circle" } }): Standing => {
  const { pieces } = thing.shape as Extract<Thing["shape"], { kind: "chain" }>;
  return {
    made: {
      ...about(thing),
      shape: thing.shape,
      same: thing.id,
      origins: pieces.map((_, piece) => [{ id: thing.id, piece }]),
    },
    pieces,
    closed: true,
    ids: [thing.id],
    circle: false,
  };
};

const idsOf = (parts: readonly Part[]): readonly number[] => {
  const ids = new Set<number>();
  for (const { origins } of parts) for (const each of origins) for (const { id } of each) ids.add(id);
  return [...ids];
};

const joined = (parts: readonly Part[]): { order: number; standing: Standing }[] => {
  const partPieces = parts.map(({ pieces }) => pieces);
  const ends = parts.map(({ pieces }) => ({ start: pieces[0]!.a, end: pieces.at(-1)!.b }));
  const pairing = parts.some(({ shared }) => shared)
    ? sharedPairing(partPieces, (part) => parts[part]!.shared === true, onlyOther(ends))
    : undefined;
  return joinRuns(ends, JOINED, pairing).map((run) => {
    const own = run.links.map(({ part }) => parts[part]!);
    const first = own.reduce((best, part) => (part.order < best.order ? part : best));
    const alone = own.length === 1 && first.whole && !run.closed;
    const order = first.order;
    const ids = idsOf(own);
    if (alone)
      return {
        order,
        standing: {
          made: { ...about(first.thing), shape: first.thing.shape, same: first.thing.id, origins: first.origins },
          pieces: first.pieces,
          closed: false,
          ids,
          circle: false,
        },
      };
    const pieces = runPieces(run, partPieces).filter(({ a, b }) => distance(a, b) > 0);
    const origins: (readonly Origin[])[] = [];
    for (const { part, reversed } of run.links) {
      const own = parts[part]!.origins;
      for (const each of reversed ? [...own].reverse() : own) origins.push(each);
    }
    const single = pieces.length === 1 && !run.closed;
    return {
      order,
      standing: {
        made: {
          ...about(first.thing),
          shape: single ? { kind: "piece", ...pieces[0]! } : { kind: "chain", closed: run.closed, pieces },
          origins,
        },
        pieces,
        closed: run.closed,
        ids,
        circle: false,
      },
    };
  });
};

/** For an end of a part (2 · part, +1 for its end) the only other end that lies there. */
const onlyOther = (
  parts: readonly { readonly start: Point; readonly end: Point }[],
): ((end: number) => number | undefined) => {
  const points = parts.flatMap(({ start, end }) => [start, end]);
  const grid = pointGrid(points, JOINED);
  return (end) => {
    const near: number[] = [];
    grid.near(points[end]!, (i) => void (i !== end && distance(points[i]!, points[end]!) <= JOINED && near.push(i)));
    return near.length === 1 ? near[0] : undefined;
  };
};

/** What is open only where one copy of a shared edge was to go is no error. */
const openFindings = (standing: readonly Standing[], openedAt: readonly Point[]): Finding[] =>
  standing
    .filter(({ closed }) => !closed)
    .map(({ pieces, ids }) => {
      const [start, end] = [pieces[0]!.a, pieces.at(-1)!.b];
      const finding = noted("open", start, ids, { apart: distance(start, end) });
      const byRequest = [start, end].every((p) => openedAt.some((at) => distance(at, p) <= JOINED));
      return { ...finding, severity: byRequest ? "warning" : finding.severity, fixed: false };
    });

const tinyFindings = (standing: readonly Standing[], tolerance: number): Finding[] =>
  standing.flatMap(({ pieces, ids }) =>
    pieces
      .filter((piece) => pieceLength(piece) < tolerance)
      .map((piece) => ({ ...noted("tiny", piece.a, ids, { length: pieceLength(piece) }), fixed: false })),
  );

type Side = { readonly piece: Piece; readonly owner: number; readonly place: number };

const shareAnEnd = (p: Piece, q: Piece): boolean => equalPoint(p.a, q.a) || equalPoint(p.a, q.b) || equalPoint(p.b, q.a) || equalPoint(p.b, q.b); // prettier-ignore

/** Where things cross themselves or one another: each place once. Touching and shared edges are no crossing. */
const crossingFindings = (standing: readonly Standing[]): Finding[] => {
  const sides: Side[] = standing.flatMap(({ pieces, made }, owner) =>
    (made.shape.kind === "circle" ? circleHalves(made.shape) : pieces).map((piece, place) => ({ piece, owner, place })),
  );
  if (sides.length < 2) return [];
  const boxes = sides.map(({ piece }) => boxOf({ piece, thing: 0, place: 0, origins: [] }));
  const tree = new Flatbush(sides.length);
  for (const box of boxes) tree.add(box.minX, box.minY, box.maxX, box.maxY);
  tree.finish();
  const found = new Map<string, Finding>();
  sides.forEach((side, i) => {
    const { minX, minY, maxX, maxY } = boxes[i]!;
    const near: number[] = [];
    tree.search(minX - RESOLUTION, minY - RESOLUTION, maxX + RESOLUTION, maxY + RESOLUTION, (j) => {
      // straight pieces that share an end have no other place to cross
      if (j > i && !(side.piece.bulge === 0 && sides[j]!.piece.bulge === 0 && shareAnEnd(side.piece, sides[j]!.piece))) near.push(j); // prettier-ignore
      return false;
    });
    for (const j of near) {
      const other = sides[j]!;
      for (const meeting of meetings({ kind: "piece", ...side.piece }, { kind: "piece", ...other.piece }, RESOLUTION)) {
        if (meeting.kind !== "crossing") continue;
        const ids = [...new Set([...standing[side.owner]!.ids, ...standing[other.owner]!.ids])];
        const finding = { ...noted("crossing", meeting.at, ids), fixed: false };
        if (!found.has(finding.key)) found.set(finding.key, finding);
      }
    }
  });
  return [...found.values()];
};
