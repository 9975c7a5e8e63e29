import type { Point } from "../../geometry/point.ts";
import { signedAngle } from "../../numeric/angle.ts";
import type { Branch, Node } from "./graph.ts";

/** A run of middle line through its crossings. */
export type Path = { readonly points: readonly Point[]; readonly closed: boolean };

/** Branches go on into each other where they turn by no more than this (radians). */
const TURNS = (40 * Math.PI) / 180;
/** Their directions are taken from places so many strokes from the node, or where they are shorter half way along. */
const FAR = 4;

/**
 * Which way a branch leaves a node, as an angle: what it bends by twice as far out is taken off; undefined of one that
 * is too short to tell.
 */
const leaving = (branch: Branch, node: Node, stroke: number): number | undefined => {
  const points = branch.ends[0] === node ? branch.points : branch.points.toReversed();
  if (points.length < 2) return undefined;
  const at = Math.min(Math.round(FAR * stroke), points.length >> 1);
  const angle = ({ x, y }: Point): number => Math.atan2(y - node.at.y, x - node.at.x);
  const [near, far] = [angle(points[Math.max(0, at - 1)]!), angle(points[Math.min(points.length, 2 * at) - 1]!)];
  return at < stroke ? far : near - signedAngle(far - near);
};

/** Which branch goes on into which at a node: the straightest first; both of two. */
const pairsAt = (node: Node, stroke: number): readonly (readonly [Branch, Branch])[] => {
  const branches = [...node.branches];
  if (branches.length === 2) return [[branches[0]!, branches[1]!]];
  const ways = branches.map((branch) => leaving(branch, node, stroke));
  const turn = (p: number, q: number): number => Math.abs(signedAngle(q + Math.PI - p));
  const all = branches.flatMap((one, i) =>
    branches.slice(i + 1).flatMap((other, k) => {
      const [p, q] = [ways[i], ways[i + 1 + k]];
      return p !== undefined && q !== undefined ? [{ one, other, turns: turn(p, q) }] : [];
    }),
  );
  const taken = new Set<Branch>();
  return all
    .filter(({ turns }) => turns <= TURNS)
    .sort((p, q) => p.turns - q.turns)
    .flatMap(({ one, other }) => {
      if (taken.has(one) || taken.has(other)) return [];
      taken.add(one);
      taken.add(other);
      return [[one, other] as const];
    });
};

/** Branches joined into paths where they go on into each other. */
export const pathsOf = (branches: readonly Branch[], stroke: number): readonly Path[] => {
  const nodes = new Set(branches.flatMap(({ ends }) => ends.filter((node) => node !== undefined)));
  const next = new Map<Branch, Map<Node, Branch>>();
  const put = (from: Branch, node: Node, to: Branch): void => {
    const own = next.get(from) ?? new Map<Node, Branch>();
    own.set(node, to);
    next.set(from, own);
  };
  for (const node of nodes)
    for (const [one, other] of pairsAt(node, stroke)) {
      if (one === other) continue;
      put(one, node, other);
      put(other, node, one);
    }
  const done = new Set<Branch>();
  const out: Path[] = [];
  /** From a branch on through a node, as far as it goes. */
  const follow = (from: Branch, through: Node | undefined): { points: Point[]; closed: boolean } => {
    const points: Point[] = [];
    let [branch, node] = [from, through];
    while (node) {
      const after = next.get(branch)?.get(node);
      if (!after) break;
      if (done.has(after)) return { points, closed: after === from };
      done.add(after);
      const isForward: boolean = after.ends[0] === node;
      points.push(node.at);
      for (const p of isForward ? after.points : after.points.toReversed()) points.push(p);
      [branch, node] = [after, isForward ? after.ends[1] : after.ends[0]];
    }
    return { points, closed: false };
  };
  for (const branch of branches) {
    if (done.has(branch)) continue;
    done.add(branch);
    const onward = follow(branch, branch.ends[1]);
    if (onward.closed || branch.closed) {
      out.push({ points: [...branch.points, ...onward.points], closed: true });
      continue;
    }
    const back = follow(branch, branch.ends[0]);
    out.push({ points: [...back.points.toReversed(), ...branch.points, ...onward.points], closed: false });
  }
  return out;
};
