import { joinRuns, runPieces, type Ends, type Run } from "../contour/joining.ts";
import { boxesOf } from "../geometry/boxesOf.ts";
import { runTree } from "../geometry/boxTree.ts";
import { circleHalves, type Circle } from "../geometry/circle.ts";
import { pieceCarrier } from "../geometry/curve.ts";
import { pieceLength, type Piece } from "../geometry/piece.ts";
import { distance, equalPoint, type Point } from "../geometry/point.ts";
import { pointGrid } from "../geometry/pointGrid.ts";
import { meetings } from "../intersect/meetings.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import { closeEnds } from "./ends.ts";
import { untangle } from "./untangle.ts";
import { sharedPairing } from "./sharedPairing.ts";
import { originsOf, strandsOf, type Strand } from "./strands.ts";
import {
  JOINED,
  findingKey,
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
  const touched = new Uint8Array(things.length); // 1 where something of a thing was changed
  const accept = (finding: Omit<Finding, "fixed">): boolean => options.accept?.(finding) ?? true;
  for (const { thing, piece } of zero) {
    const finding = noted("tiny", piece.a, [things[thing]!.id], { length: 0 }, true);
    const fixed = accept(finding);
    findings.push({ ...finding, fixed });
    if (fixed) touched[thing] = 1;
  }
  report(0.1);
  const untangled = untangle(things, strands, options);
  report(0.5);
  const closed = closeEnds(things, untangled.strands, options);
  report(0.65);
  for (const list of [untangled.touched, closed.touched]) list.forEach((thing) => void (touched[thing] = 1));
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
): Omit<Finding, "fixed"> => ({ code, severity: severityOf(code), mendable, at, ids, values });

/** A thing that stands, with its pieces to be looked at. */
type Standing = { readonly made: Tidied; readonly pieces: readonly Piece[]; readonly closed: boolean };

/** The things that it came from. */
const idsOf = ({ made }: Standing): readonly number[] => {
  const ids = new Set<number>();
  for (const own of made.origins) for (const { id } of own) ids.add(id);
  return [...ids];
};

/** What may be joined with others of its layer: a strand, or all of an open chain. */
type Part = Ends & { readonly order: number; readonly strand: Strand | undefined };
type Ordered = { readonly order: number; readonly standing: Standing };

/** What stands after the work: untouched closed things as they were, the rest joined end to end, in the order of the things. */
const put = (things: readonly Thing[], strands: readonly Strand[], touched: Uint8Array): readonly Standing[] => {
  const out: Ordered[] = [];
  const loose = new Map<string, Part[]>();
  // strands come in the order of their things
  for (let from = 0, to = 0; from < strands.length; from = to) {
    const order = strands[from]!.thing;
    while (to < strands.length && strands[to]!.thing === order) to += 1;
    const thing = things[order]!;
    const { shape } = thing;
    const whole = touched[order] === 0;
    if (whole && shape.kind === "circle") {
      out.push({ order, standing: standingOf(thing, shape, [], true, [originsOf(strands[from]!, things)], true) });
      continue;
    }
    if (whole && shape.kind === "chain" && shape.closed) {
      const { pieces } = shape;
      out.push({ order, standing: standingOf(thing, shape, pieces, true, ownOrigins(thing.id, pieces), true) });
      continue;
    }
    const layer = String(thing.layer);
    const parts = loose.get(layer) ?? [];
    if (parts.length === 0) loose.set(layer, parts);
    if (whole && shape.kind === "chain") {
      parts.push({ a: shape.pieces[0]!.a, b: shape.pieces.at(-1)!.b, order, strand: undefined });
      continue;
    }
    for (let i = from; i < to; i++) {
      const strand = strands[i]!;
      const { circle, piece } = strand;
      if (!circle) {
        parts.push({ a: piece.a, b: piece.b, order, strand });
        continue;
      }
      const shape = { kind: "circle", ...circle } as const;
      out.push({ order, standing: standingOf(thing, shape, [], true, [originsOf(strand, things)]) });
    }
  }
  for (const parts of loose.values()) for (const one of joined(parts, things, touched)) out.push(one);
  out.sort((p, q) => p.order - q.order);
  return out.map(({ standing }) => standing);
};

const ownOrigins = (id: number, pieces: readonly Piece[]): readonly (readonly Origin[])[] =>
  pieces.map((_, piece) => [{ id, piece }]);

/** A thing that stands, looking like the one it came from; `same` where it is that one. */
const standingOf = (
  { id, layer, colour, line }: Thing,
  shape: Thing["shape"],
  pieces: readonly Piece[],
  closed: boolean,
  origins: Tidied["origins"],
  same = false,
): Standing => {
  const made: { -readonly [K in keyof Tidied]: Tidied[K] } = { layer, shape, origins };
  if (colour !== undefined) made.colour = colour;
  if (line !== undefined) made.line = line;
  if (same) made.same = id;
  return { made, pieces, closed };
};

const hasLength = ({ a, b }: Piece): boolean => !equalPoint(a, b);

/** Parts of one layer joined end to end, in the order of the first part of each. */
const joined = (parts: readonly Part[], things: readonly Thing[], touched: Uint8Array): Ordered[] => {
  const piecesOf = ({ order, strand }: Part): readonly Piece[] => {
    if (strand) return [strand.piece];
    const { shape } = things[order]!;
    return shape.kind === "chain" ? shape.pieces : [];
  };
  const piecesAt = (part: number): readonly Piece[] => piecesOf(parts[part]!);
  const shared = (part: number): boolean => parts[part]!.strand?.shared ?? false;
  const pairing = parts.some((_, part) => shared(part)) ? sharedPairing(piecesAt, shared, onlyOther(parts)) : undefined;
  const standingOfRun = (run: Run): Ordered | undefined => {
    const { links, closed } = run;
    let first = parts[links[0]!.part]!;
    const origins: (readonly Origin[])[] = [];
    for (let k = 0; k < links.length; k++) {
      const { part, reversed } = links[k]!;
      const own = parts[part]!;
      if (own.order < first.order) first = own;
      if (own.strand) origins.push(originsOf(own.strand, things));
      else {
        const all = ownOrigins(things[own.order]!.id, piecesOf(own));
        for (const one of reversed ? all.toReversed() : all) origins.push(one);
      }
    }
    const { order } = first;
    const thing = things[order]!;
    if (links.length === 1 && touched[order] === 0 && !closed)
      return { order, standing: standingOf(thing, thing.shape, piecesOf(first), false, origins, true) };
    const round = closed && links.length === 1 ? roundOf(piecesOf(first)) : undefined;
    if (round) return { order, standing: standingOf(thing, { kind: "circle", ...round }, [], true, origins) };
    const all = runPieces(run, piecesAt);
    const pieces = all.every(hasLength) ? all : all.filter(hasLength);
    if (pieces.length === 0) return undefined; // all of it within a resolution
    const shape: Tidied["shape"] =
      pieces.length === 1 && !closed ? { kind: "piece", ...pieces[0]! } : { kind: "chain", closed, pieces };
    return { order, standing: standingOf(thing, shape, pieces, closed, origins) };
  };
  return joinRuns(parts, JOINED, pairing)
    .map(standingOfRun)
    .filter((one) => one !== undefined);
};

/** The circle of a single arc, which closes on itself. */
const roundOf = ([piece, ...more]: readonly Piece[]): Circle | undefined => {
  const carrier = piece && more.length === 0 ? pieceCarrier(piece) : undefined;
  return carrier?.kind === "circle" ? { centre: carrier.centre, radius: carrier.radius } : undefined;
};

/** For an end of a part (2 · part, +1 for its end) the only other end that lies there. */
const onlyOther = (parts: readonly Ends[]): ((end: number) => number | undefined) => {
  const points = parts.flatMap(({ a, b }) => [a, b]);
  const grid = pointGrid(points, JOINED);
  return (end) => {
    const near: number[] = [];
    grid.near(points[end]!, (i) => void (i !== end && distance(points[i]!, points[end]!) <= JOINED && near.push(i)));
    return near.length === 1 ? near[0] : undefined;
  };
};

/** What is open only where one copy of a shared edge was to go is no error. */
const openFindings = (standing: readonly Standing[], openedAt: readonly Point[]): Finding[] => {
  const findings: Finding[] = [];
  for (const one of standing) {
    if (one.closed) continue;
    const [start, end] = [one.pieces[0]!.a, one.pieces.at(-1)!.b];
    const finding = noted("open", start, idsOf(one), { apart: distance(start, end) });
    const byRequest = [start, end].every((p) => openedAt.some((at) => distance(at, p) <= JOINED));
    findings.push({ ...finding, severity: byRequest ? "warning" : finding.severity, fixed: false });
  }
  return findings;
};

const tinyFindings = (standing: readonly Standing[], tolerance: number): Finding[] => {
  const findings: Finding[] = [];
  for (const one of standing)
    for (const piece of one.pieces) {
      const length = pieceLength(piece);
      if (length < tolerance) findings.push({ ...noted("tiny", piece.a, idsOf(one), { length }), fixed: false });
    }
  return findings;
};

const shareAnEnd = (p: Piece, q: Piece): boolean => equalPoint(p.a, q.a) || equalPoint(p.a, q.b) || equalPoint(p.b, q.a) || equalPoint(p.b, q.b); // prettier-ignore

/** Where things cross themselves or one another: each place once. Touching and shared edges are no crossing. */
const crossingFindings = (standing: readonly Standing[]): Finding[] => {
  const sides: Piece[] = [];
  const owners: number[] = [];
  standing.forEach(({ pieces, made }, owner) => {
    for (const piece of made.shape.kind === "circle" ? circleHalves(made.shape) : pieces) {
      sides.push(piece);
      owners.push(owner);
    }
  });
  const near: { i: number; j: number }[] = [];
  // straight pieces that share an end have no other place to cross
  const noCrossing = (i: number, j: number): boolean =>
    sides[i]!.bulge === 0 && sides[j]!.bulge === 0 && shareAnEnd(sides[i]!, sides[j]!);
  runTree(boxesOf(sides), (i) => owners[i] === owners[i + 1] && noCrossing(i, i + 1)).pairs(RESOLUTION, (i, j) => {
    if (!noCrossing(i, j)) near.push({ i, j });
  });
  near.sort((p, q) => p.i - q.i || p.j - q.j);
  const found = new Map<string, Finding>();
  for (const { i, j } of near)
    for (const meeting of meetings({ kind: "piece", ...sides[i]! }, { kind: "piece", ...sides[j]! }, RESOLUTION)) {
      if (meeting.kind !== "crossing") continue;
      const ids = [...new Set([i, j].flatMap((side) => idsOf(standing[owners[side]!]!)))];
      const finding = { ...noted("crossing", meeting.at, ids), fixed: false };
      const key = findingKey(finding);
      if (!found.has(key)) found.set(key, finding);
    }
  return [...found.values()];
};
