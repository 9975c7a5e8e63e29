import { pieceLength } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { JOINED } from "../numeric/tolerance.ts";
import { nodesOf } from "./nodes.ts";
import { noted } from "./noted.ts";
import type { Looks, Strand } from "./strands.ts";
import type { Finding, Thing, TidyOptions } from "./things.ts";

/**
 * Takes stubs away: what goes from a corner, at which two longer pieces meet, no farther than the tolerance and nowhere
 * else. What something is attached to stays. Linear but for the welding of ends.
 */
export const cutStubs = (
  things: readonly Thing[],
  strands: readonly Strand[],
  { tolerance, accept }: TidyOptions,
  { kinds }: Looks,
): { strands: readonly Strand[]; findings: readonly Finding[]; touched: readonly number[] } => {
  const findings: Finding[] = [];
  const gone = new Set<number>();
  for (const { at, members, reach } of stubsOf(things, strands, tolerance, kinds)) {
    const ids = [...new Set(members.map((i) => things[strands[i]!.thing]!.id))];
    const finding = noted("tail", at, ids, { width: reach, moves: reach }, true);
    const fixed = accept?.(finding) ?? true;
    findings.push({ ...finding, fixed });
    if (fixed) for (const i of members) gone.add(i);
  }
  return {
    strands: gone.size === 0 ? strands : strands.filter((_, i) => !gone.has(i)),
    findings,
    touched: [...gone].map((i) => strands[i]!.thing),
  };
};

/** A corner, the strands that go from it to nowhere, and how far the farthest goes. */
type Stub = { readonly at: Point; readonly members: readonly number[]; readonly reach: number };

const stubsOf = (
  things: readonly Thing[],
  strands: readonly Strand[],
  tolerance: number,
  kinds: readonly number[],
): readonly Stub[] => {
  const short = strands.map(
    ({ circle, piece, thing }) => !circle && !things[thing]!.attached && pieceLength(piece) <= tolerance,
  );
  if (!short.includes(true)) return [];
  const nodeOf = nodesOf(strands, kinds, JOINED);
  const longAt = new Map<number, number>(); // how many longer pieces end at a node
  const shortAt = new Map<number, number[]>(); // the ends of short ones there
  strands.forEach(({ circle }, i) => {
    if (circle) return;
    for (const end of [2 * i, 2 * i + 1]) {
      const node = nodeOf[end]!;
      if (!short[i]) longAt.set(node, (longAt.get(node) ?? 0) + 1);
      else void (shortAt.get(node)?.push(end) ?? shortAt.set(node, [end]));
    }
  });
  const seen = new Set<number>();
  /** The short pieces that one leads to, up to nodes where longer ones end, and those nodes. */
  const spread = (first: number): { readonly roots: ReadonlySet<number>; readonly members: readonly number[] } => {
    const members = [first];
    const roots = new Set<number>();
    seen.add(first);
    for (const i of members)
      for (const end of [2 * i, 2 * i + 1]) {
        const node = nodeOf[end]!;
        if (longAt.has(node)) roots.add(node);
        else
          for (const next of shortAt.get(node)!)
            if (!seen.has(next >> 1)) {
              seen.add(next >> 1);
              members.push(next >> 1);
            }
      }
    return { roots, members };
  };
  const stubs: Stub[] = [];
  short.forEach((isShort, i) => {
    if (!isShort || seen.has(i)) return;
    const { roots, members } = spread(i);
    const [root, ...more] = roots;
    if (root === undefined || more.length > 0 || longAt.get(root)! < 2) return;
    const { piece } = strands[shortAt.get(root)![0]! >> 1]!;
    const at = shortAt.get(root)![0]! & 1 ? piece.b : piece.a;
    const reach = members.reduce((far, m) => Math.max(far, farthest(strands[m]!, at)), 0);
    if (reach <= tolerance) stubs.push({ at, members, reach });
  });
  return stubs;
};

const farthest = ({ piece }: Strand, from: Point): number =>
  Math.max(distance(piece.a, from), distance(piece.b, from), piece.bulge === 0 ? 0 : pieceLength(piece) / 2);
