import { circlePoint } from "../geometry/circle.ts";
import { piecePoint } from "../geometry/piece.ts";
import { slotMask } from "../geometry/squares.ts";
import { TURN } from "../numeric/angle.ts";
import { noted } from "./noted.ts";
import { originsOf, rankOf, type Looks, type Strand } from "./strands.ts";
import type { Absorbed, Finding, Thing, TidyOptions } from "./things.ts";

/** So many copies of one curve, number for number, are told as any others; what makes them more goes before. */
const MOST_COPIES = 8;

export type Thinned = {
  readonly strands: readonly Strand[];
  /** Copies that are left as they are: nothing more is asked of them. */
  readonly aside: readonly Strand[];
  readonly findings: readonly Finding[];
  readonly touched: readonly number[];
  readonly absorbed: readonly Absorbed[];
};

/**
 * Takes copies away that lie on many others number for number, as a row of blocks with no space between them makes.
 * Told with the rest each would be compared with each. Time proportional to the strands.
 */
export const thinned = (
  things: readonly Thing[],
  all: readonly Strand[],
  { accept }: TidyOptions,
  { classes }: Looks,
): Thinned => {
  const stacks = stacksOf(all, classes);
  if (stacks.length === 0) return { strands: all, aside: [], findings: [], touched: [], absorbed: [] };
  const rank = (i: number): number => rankOf(things[all[i]!.thing]!);
  const fate = new Uint8Array(all.length); // 1 where a copy goes, 2 where it is left aside
  const findings: Finding[] = [];
  const touched: number[] = [];
  const absorbed: Absorbed[] = [];
  const said = new Map<number, boolean>(); // of a thing, whether its copies go
  for (const stack of stacks) {
    const [first, ...others] = stack.toSorted((i, j) => rank(j) - rank(i) || i - j);
    const stays = all[first!]!;
    for (const i of others.slice(MOST_COPIES - 1)) {
      const { thing } = all[i]!;
      let goes = said.get(thing);
      if (goes === undefined) {
        const finding = noted("duplicate", middleOf(stays), [things[thing]!.id, things[stays.thing]!.id], {}, true);
        goes = accept?.(finding) ?? true;
        findings.push({ ...finding, fixed: goes });
        said.set(thing, goes);
      }
      fate[i] = goes ? 1 : 2;
      if (!goes) continue;
      touched.push(thing);
      for (const origin of originsOf(all[i]!, things)) absorbed.push([origin, originsOf(stays, things)[0]!]);
    }
  }
  return {
    strands: all.filter((_, i) => fate[i] === 0),
    aside: all.filter((_, i) => fate[i] === 2),
    findings,
    touched,
    absorbed,
  };
};

const middleOf = ({ circle, piece }: Strand) => (circle ? circlePoint(circle, TURN / 2) : piecePoint(piece, 0.5));

/** Strands of one class that are the same curve, whichever way they run, where they are too many. */
const stacksOf = (all: readonly Strand[], classes: readonly number[]): readonly (readonly number[])[] => {
  // counted by a hash that copies share, which others do by chance only
  const hashes = new Int32Array(all.length);
  const mask = slotMask(all.length);
  const counts = new Int32Array(mask + 1);
  let most = 0;
  for (let i = 0; i < all.length; i++) {
    const hash = hashOf(all[i]!) & mask;
    hashes[i] = hash;
    const count = (counts[hash]! += 1);
    if (count > most) most = count;
  }
  if (most <= MOST_COPIES) return [];
  const stacks = new Map<string, number[]>();
  all.forEach((strand, i) => {
    if (counts[hashes[i]!]! <= MOST_COPIES) return;
    const key = `${classes[strand.thing]!} ${curveKey(strand)}`;
    const stack = stacks.get(key);
    if (stack) stack.push(i);
    else stacks.set(key, [i]);
  });
  return [...stacks.values()].filter(({ length }) => length > MOST_COPIES);
};

const NUMBER = new Float64Array(1);
const BITS = new Int32Array(NUMBER.buffer);

/** The same whichever way a piece runs. */
const hashOf = ({ circle, piece: { a, b } }: Strand): number => {
  NUMBER[0] = circle ? circle.centre.x + 3 * circle.centre.y + 5 * circle.radius : a.x + b.x + 3 * (a.y + b.y);
  const mixed = Math.imul(BITS[0]! ^ Math.imul(BITS[1]!, 0x9e3779b1), 0x85ebca6b);
  return mixed ^ (mixed >>> 15);
};

const curveKey = ({ circle, piece: { a, b, bulge } }: Strand): string => {
  if (circle) return `${circle.centre.x} ${circle.centre.y} ${circle.radius}`;
  const turned = a.x > b.x || (a.x === b.x && a.y > b.y);
  return turned ? `${b.x} ${b.y} ${a.x} ${a.y} ${-bulge || 0}` : `${a.x} ${a.y} ${b.x} ${b.y} ${bulge}`;
};
