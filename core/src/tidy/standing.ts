import { JOINED } from "../numeric/tolerance.ts";
import {
  circleRound,
  enclosesNothing,
  joinRuns,
  runPieces,
  weldPieces,
  type Ends,
  type Run,
} from "../contour/joining.ts";
import type { Circle } from "../geometry/circle.ts";
import { pieceCarrier } from "../geometry/curve.ts";
import type { Piece } from "../geometry/piece.ts";
import { distance, equalPoint } from "../geometry/point.ts";
import { pointGrid } from "../geometry/pointGrid.ts";
import { withoutSeams } from "./seams.ts";
import { agreed } from "../numeric/agreed.ts";
import { sharedPairing } from "./sharedPairing.ts";
import { originsOf, type Looks, type Strand } from "./strands.ts";
import { type Origin, type Thing, type Tidied } from "./things.ts";

/** A thing that stands, with its pieces to be looked at. */
export type TidiedThing = { readonly made: Tidied; readonly pieces: readonly Piece[]; readonly closed: boolean };

/** The things that it came from. */
export const idsOf = ({ made }: TidiedThing): readonly number[] => {
  const ids = new Set<number>();
  for (const own of made.origins) for (const { id } of own) ids.add(id);
  return [...ids];
};

/**
 * What may be joined with others of its kind: a strand, or all of an open chain; whether its first and its last piece
 * are shared edges.
 */
type OpenStrand = Ends & {
  readonly order: number;
  readonly strand: Strand | undefined;
  readonly shared: readonly [boolean, boolean];
};
const [SHARED, NOT_SHARED] = [[true, true] as const, [false, false] as const];
type Ordered = { readonly order: number; readonly standing: TidiedThing };

/**
 * What stands after the work: untouched closed things as they were, the rest joined end to end, in the order of the
 * things.
 */
export const put = (
  things: readonly Thing[],
  strands: readonly Strand[],
  touched: Uint8Array,
  { kinds }: Looks,
  merges: boolean,
): readonly TidiedThing[] => {
  const out: Ordered[] = [];
  const loose = new Map<number, OpenStrand[]>();
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
    const round = !merges && shape.kind === "chain" && shape.closed ? strands.slice(from, to) : [];
    if (comesRound(round)) {
      const pieces = weldPieces(
        round.map(({ piece }) => piece),
        true,
      );
      const origins = round.map((strand) => originsOf(strand, things));
      out.push({ order, standing: standingRound(thing, pieces, true, origins) });
      continue;
    }
    const kind = kinds[order]!;
    const parts = loose.get(kind) ?? [];
    if (parts.length === 0) loose.set(kind, parts);
    if (whole && shape.kind === "chain") {
      const [first, last] = [strands[from]!, strands[to - 1]!];
      const shared = first.shared || last.shared ? ([!!first.shared, !!last.shared] as const) : NOT_SHARED;
      parts.push({ a: shape.pieces[0]!.a, b: shape.pieces.at(-1)!.b, order, strand: undefined, shared });
      continue;
    }
    for (let i = from; i < to; i++) {
      const strand = strands[i]!;
      const { circle, piece } = strand;
      if (!circle) {
        parts.push({ a: piece.a, b: piece.b, order, strand, shared: strand.shared ? SHARED : NOT_SHARED });
        continue;
      }
      const shape = { kind: "circle", ...circle } as const;
      out.push({ order, standing: standingOf(thing, shape, [], true, [originsOf(strand, things)]) });
    }
  }
  for (const parts of loose.values()) for (const one of joined(parts, things, touched, merges)) out.push(one);
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
): TidiedThing => {
  const made: { -readonly [K in keyof Tidied]: Tidied[K] } = { layer, shape, origins };
  if (colour !== undefined) made.colour = colour;
  if (line !== undefined) made.line = line;
  if (same) made.same = id;
  return { made, pieces, closed };
};

/** What pieces end to end make: a circle where they go round one, a closed chain where they enclose something. */
const standingRound = (
  thing: Thing,
  pieces: readonly Piece[],
  closed: boolean,
  origins: Tidied["origins"],
): TidiedThing => {
  const circle = closed ? circleRound(pieces) : undefined;
  if (circle) return standingOf(thing, { kind: "circle", ...circle }, [], true, [origins.flat()]);
  const isClosed = closed && !enclosesNothing(pieces);
  const shape: Tidied["shape"] =
    pieces.length === 1 && !isClosed ? { kind: "piece", ...pieces[0]! } : { kind: "chain", closed: isClosed, pieces };
  return standingOf(thing, shape, pieces, isClosed, origins);
};

/** True of what is left of a closed chain where it still comes round by itself, whatever else ends at its corners. */
const comesRound = (strands: readonly Strand[]): boolean =>
  strands.length > 1 &&
  strands.every(
    ({ circle, piece }, i) => !circle && distance(piece.b, strands[(i + 1) % strands.length]!.piece.a) <= JOINED,
  ) &&
  !enclosesNothing(strands.map(({ piece }) => piece));

const hasLength = ({ a, b }: Piece): boolean => !equalPoint(a, b);

/** Parts of one kind joined end to end, in the order of the first part of each. */
const joined = (
  parts: readonly OpenStrand[],
  things: readonly Thing[],
  touched: Uint8Array,
  merges: boolean,
): Ordered[] => {
  const piecesOf = ({ order, strand }: OpenStrand): readonly Piece[] => {
    if (strand) return [strand.piece];
    const { shape } = things[order]!;
    return shape.kind === "chain" ? shape.pieces : [];
  };
  const piecesAt = (part: number): readonly Piece[] => piecesOf(parts[part]!);
  const shared = (end: number): boolean => parts[end >> 1]!.shared[end & 1]!;
  const pairing = parts.some(({ shared }) => shared !== NOT_SHARED)
    ? sharedPairing(piecesAt, shared, onlyOther(parts))
    : undefined;
  const standingOfRun = (run: Run): Ordered | undefined => {
    const { links, closed } = run;
    let first = parts[links[0]!.part]!;
    let origins: (readonly Origin[])[] = [];
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
    const thing = commonLook(
      things[order]!,
      links.map(({ part }) => things[parts[part]!.order]!),
    );
    if (links.length === 1 && touched[order] === 0 && !closed)
      return { order, standing: standingOf(thing, thing.shape, piecesOf(first), false, origins, true) };
    const round = closed && links.length === 1 ? roundOf(piecesOf(first)) : undefined;
    if (round) return { order, standing: standingOf(thing, { kind: "circle", ...round }, [], true, origins) };
    const all = runPieces(run, piecesAt);
    const long = all.every(hasLength);
    const pieces = long ? all : all.filter(hasLength);
    if (pieces.length === 0) return undefined; // all of it within a resolution
    if (!long) origins = origins.filter((_, i) => hasLength(all[i]!));
    if (!merges) return { order, standing: standingRound(thing, pieces, closed, origins) };
    return { order, standing: standingRound(thing, ...withoutSeams(pieces, closed, origins)) };
  };
  return joinRuns(parts, JOINED, pairing)
    .map(standingOfRun)
    .filter((one) => one !== undefined);
};

/** A thing with the colour and the line style that all linked share: the rest says nothing of the whole. */
const commonLook = ({ colour: _, line: __, ...rest }: Thing, linked: readonly Thing[]): Thing => {
  const colour = agreed(linked.map((one) => one.colour));
  const line = agreed(linked.map((one) => one.line));
  return { ...rest, ...(colour === undefined ? {} : { colour }), ...(line === undefined ? {} : { line }) };
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
