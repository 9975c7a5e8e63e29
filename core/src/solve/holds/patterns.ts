import { distance, type Point } from "../../geometry/point.ts";
import { pointGrid } from "../../geometry/pointGrid.ts";
import { least } from "../../numeric/greatest.ts";
import { apart, vanishes, type Equation } from "../equations.ts";
import { combined, type Spot } from "../lin.ts";
import type { Model } from "../model.ts";
import { clustersOf, type Cluster, type RoundThing } from "./clusters.ts";
import { exactly, type Finder, type Meant, type Relation } from "./relation.ts";

/** Middles times members that are tried, at most. */
const MOST_TRIED = 300_000;

/** A number for each size, one for those that are nearly the same: each no more than `reach` from the next. */
const classesOf = (clusters: readonly Cluster[], reach: number): ReadonlyMap<RoundThing, number> => {
  const sorted = clusters.flatMap(({ members }) => members).sort((p, q) => p.size - q.size);
  let found = 0;
  return new Map(
    sorted.map((one, i) => {
      const before = sorted[i - 1];
      if (before && one.size - before.size > reach + one.off + before.off) found++;
      return [one, found] as const;
    }),
  );
};

/** Clusters that are alike to the number: the sizes of all their members are. */
const alike = (clusters: readonly Cluster[], reach: number): readonly (readonly Cluster[])[] => {
  const classes = classesOf(clusters, reach);
  const kinds = new Map<string, Cluster[]>();
  for (const one of clusters) {
    if (one.members.every(({ isArc }) => isArc)) continue;
    const like = one.members
      .map((member) => `${member.isArc ? "a" : "c"}${classes.get(member)!}`)
      .sort()
      .join(" ");
    kinds.set(like, [...(kinds.get(like) ?? []), one]);
  }
  return [...kinds.values()];
};

/** In a rough drawing what lies this near a circle (part of the size) and a turn is on it; sizes agree to a part. */
const [ROUGHLY, ROUGH_TURN, ROUGHLY_ALIKE] = [0.05, (8 * Math.PI) / 180, 0.12];

/** Clusters whose circles are about of one size. */
const roughlyAlike = (clusters: readonly Cluster[]): readonly (readonly Cluster[])[] => {
  const sizeOf = ({ members }: Cluster): number => members.find(({ isArc }) => !isArc)?.size ?? 0;
  const sorted = clusters.filter((one) => sizeOf(one) > 0).sort((p, q) => sizeOf(p) - sizeOf(q));
  const groups: Cluster[][] = [];
  for (const one of sorted) {
    const group = groups.at(-1);
    if (group && sizeOf(one) - sizeOf(group.at(-1)!) <= ROUGHLY_ALIKE * sizeOf(one)) group.push(one);
    else groups.push([one]);
  }
  return groups;
};

/** Like circles on one circle about a centre that is there: evenly spaced where they are, else as far from it. */
export const boltCircles: Finder = (model, meant) => {
  const reach = meant === "exact" ? exactly(model) : ROUGHLY;
  const clusters = clustersOf(model, meant);
  const found: Relation[] = [];
  for (const group of meant === "exact" ? alike(clusters, reach) : roughlyAlike(clusters)) {
    if (group.length < 3) continue;
    const middles = middlesFor(clusters, group, reach);
    if (middles.length * group.length > MOST_TRIED) continue;
    const taken = new Set<Cluster>();
    for (const middle of middles) {
      const far = group
        .filter((one) => !taken.has(one))
        .map((one) => ({ one, r: distance(one.at, middle.at) }))
        .filter(({ r }) => r > 2 * reach)
        .sort((p, q) => p.r - q.r);
      let from = 0;
      for (let i = 1; i <= far.length; i++) {
        if (i < far.length && far[i]!.r - far[from]!.r <= reach) continue;
        const ring = far.slice(from, i).map(({ one }) => one);
        from = i;
        if (ring.length < 3 || (!middle.cluster && ring.length < group.length)) continue;
        const relation = ringOf(model, ring, middle, meant);
        if (!relation) continue;
        ring.forEach((one) => taken.add(one));
        found.push(relation);
      }
    }
  }
  return found;
};

type Middle = { readonly at: Point; readonly cluster?: Cluster };

/** Centres about which a group may stand: those of other round things, and their own middle. */
const middlesFor = (clusters: readonly Cluster[], group: readonly Cluster[], reach: number): readonly Middle[] => {
  const own = group.reduce((sum, { at }) => ({ x: sum.x + at.x / group.length, y: sum.y + at.y / group.length }), {
    x: 0,
    y: 0,
  });
  const others = clusters.filter((one) => !group.includes(one));
  const grid = pointGrid(
    others.map(({ at }) => at),
    reach,
  );
  // the nearest, circles before arcs: what an arc's centre is in a rough drawing says little
  let central: Cluster | undefined;
  const rank = ({ members, at }: Cluster): number => distance(at, own) + (members[0]!.isArc ? reach : 0);
  grid.near(own, (i) => {
    const one = others[i]!;
    if (distance(one.at, own) <= reach && (!central || rank(one) < rank(central))) central = one;
  });
  return [
    ...(central ? [{ at: central.at, cluster: central }] : [{ at: own }]),
    ...others.filter((one) => one !== central).map((cluster) => ({ at: cluster.at, cluster })),
  ];
};

/** Undefined for what is not evenly spaced in a rough drawing, where much lies about equally far from something. */
const ringOf = (
  model: Model,
  ring: readonly Cluster[],
  { at, cluster }: Middle,
  meant: Meant,
): Relation | undefined => {
  const angle = (p: Point): number => Math.atan2(p.y - at.y, p.x - at.x);
  const sorted = [...ring].sort((p, q) => angle(p.at) - angle(q.at));
  const first = sorted[0]!;
  const base = angle(first.at);
  const radius = distance(first.at, at);
  const isExact = meant === "exact";
  // the circle that it was laid out on, where there is one
  const laidOut = cluster?.members.find(({ size, layout }) =>
    isExact ? Math.abs(size - radius) <= exactly(model) : layout && Math.abs(size - radius) <= ROUGHLY,
  );
  const gaps = sorted.map(({ at: p }, i) => {
    const next = sorted[i + 1];
    return (next ? angle(next.at) : base + 2 * Math.PI) - angle(p);
  });
  const smallest = least(gaps);
  const step = (2 * Math.PI) / (isExact ? Math.round((2 * Math.PI) / smallest) : ring.length);
  const off = isExact ? exactly(model) / radius : ROUGH_TURN;
  const isEven = gaps.every((gap) => Math.abs(gap - step * Math.round(gap / step)) <= off);
  if (!isEven && !isExact) return undefined;
  const middle = cluster?.centre ?? model.helpSpot(at);
  const refs = ring.map(({ members }) => members[0]!.ref);
  const equations: Equation[] = [];
  if (isEven) {
    if (laidOut) equations.push(apart(first.centre, middle, laidOut.radius));
    let turned = 0;
    sorted.slice(1).forEach(({ centre }, i) => {
      turned += step * Math.round(gaps[i]! / step);
      for (const one of turnedAbout(middle, first.centre, centre, turned)) equations.push(one);
    });
  } else {
    const far = laidOut?.radius ?? model.help(radius);
    for (const { centre } of sorted) equations.push(apart(centre, middle, far));
  }
  return { kind: "bolt circle", refs, equations, at };
};

/** One place is another turned about a middle: linear, as the angle is given. */
const turnedAbout = (middle: Spot, from: Spot, to: Spot, angle: number): readonly Equation[] => {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const by = { x: combined(from.x, middle.x, 1, -1), y: combined(from.y, middle.y, 1, -1) };
  const own = { x: combined(to.x, middle.x, 1, -1), y: combined(to.y, middle.y, 1, -1) };
  return [
    vanishes(combined(own.x, combined(by.x, by.y, c, -s), 1, -1)),
    vanishes(combined(own.y, combined(by.x, by.y, s, c), 1, -1)),
  ];
};
