import { distance, type Point } from "../../geometry/point.ts";
import type { Mask } from "./ink.ts";

/** A middle line between two nodes, or with free ends, or coming round. Pixels' places, y down. */
export type Branch = {
  points: Point[];
  /** The node at its start and at its end. */
  ends: [Node | undefined, Node | undefined];
  readonly closed: boolean;
};

/** Where middle lines meet. */
export type Node = { at: Point; readonly branches: Set<Branch> };

/** Branches that end freely and are shorter than so many strokes are what thinning leaves at corners. */
const SPUR = 1.3;

/** The middle of a pixel. */
const HALF = 0.5;

const AROUND = [
  [0, -1],
  [1, 0],
  [0, 1],
  [-1, 0],
  [1, -1],
  [1, 1],
  [-1, 1],
  [-1, -1],
] as const;

/** What a line one pixel wide is made of: branches between nodes, without short spurs. */
export const branchesOf = (line: Mask, stroke: number): readonly Branch[] => {
  const { width, height } = line;
  const data = line.data.slice();
  const isSet = (x: number, y: number): boolean =>
    x >= 0 && y >= 0 && x < width && y < height && data[y * width + x] === 1;
  const crossings = (x: number, y: number): number => {
    let turns = 0;
    let before = isSet(x - 1, y - 1);
    for (const [dx, dy] of [
      [0, -1],
      [1, -1],
      [1, 0],
      [1, 1],
      [0, 1],
      [-1, 1],
      [-1, 0],
      [-1, -1],
    ] as const) {
      const own = isSet(x + dx, y + dy);
      if (own && !before) turns++;
      before = own;
    }
    return turns;
  };
  // pixels at which three or more branches meet, those that touch as one node
  const nodeAt = new Map<number, Node>();
  const meeting: number[] = [];
  for (let i = 0; i < data.length; i++)
    if (data[i] === 1 && crossings(i % width, Math.floor(i / width)) >= 3) meeting.push(i);
  const isMeeting = new Set(meeting);
  for (const first of meeting) {
    if (nodeAt.has(first)) continue;
    const cluster = [first];
    const seen = new Set(cluster);
    for (const at of cluster)
      for (const [dx, dy] of AROUND) {
        const next = at + dy * width + dx;
        if (isMeeting.has(next) && !seen.has(next)) {
          seen.add(next);
          cluster.push(next);
        }
      }
    const sum = cluster.reduce((p, at) => ({ x: p.x + (at % width) + HALF, y: p.y + Math.floor(at / width) + HALF }), {
      x: 0,
      y: 0,
    });
    const node: Node = { at: { x: sum.x / cluster.length, y: sum.y / cluster.length }, branches: new Set() };
    for (const at of cluster) nodeAt.set(at, node);
  }
  for (const at of meeting) data[at] = 0;
  // what is left are runs
  const branches: Branch[] = [];
  const neighbours = (at: number): number[] => {
    const [x, y] = [at % width, Math.floor(at / width)];
    return AROUND.flatMap(([dx, dy]) => (isSet(x + dx, y + dy) ? [at + dy * width + dx] : []));
  };
  const nodesBeside = (at: number): readonly Node[] => [
    ...new Set(AROUND.flatMap(([dx, dy]) => nodeAt.get(at + dy * width + dx) ?? [])),
  ];
  const walk = (from: number): void => {
    const run = [from];
    data[from] = 0;
    for (let at = from; ;) {
      const next = neighbours(at)[0];
      if (next === undefined) break;
      for (const other of neighbours(at)) if (other !== next && nextTo(other, next)) data[other] = 0;
      run.push(next);
      data[next] = 0;
      at = next;
    }
    const points = run.map((at) => ({ x: (at % width) + HALF, y: Math.floor(at / width) + HALF }));
    const [starts, stops] = [nodesBeside(run[0]!), nodesBeside(run.at(-1)!)];
    // a single pixel between two nodes belongs to both
    const start = starts[0];
    const stop = run.length === 1 ? starts[1] : (stops.find((node) => node !== start) ?? stops[0]);
    const closed = !start && !stop && run.length > 3 && distance(points[0]!, points.at(-1)!) < 2;
    const branch: Branch = { points, ends: [start, stop], closed };
    start?.branches.add(branch);
    stop?.branches.add(branch);
    branches.push(branch);
  };
  const nextTo = (p: number, q: number): boolean =>
    Math.abs((p % width) - (q % width)) <= 1 && Math.abs(Math.floor(p / width) - Math.floor(q / width)) <= 1;
  const ends: number[] = [];
  for (let i = 0; i < data.length; i++)
    if (data[i] === 1 && (neighbours(i).length <= 1 || nodesBeside(i).length > 0)) ends.push(i);
  for (const at of ends) if (data[at] === 1) walk(at);
  for (let i = 0; i < data.length; i++) if (data[i] === 1) walk(i);
  return contracted(withoutSpurs(branches, stroke), stroke);
};

const lengthOf = ({ points }: Branch): number =>
  points.slice(1).reduce((sum, p, i) => sum + distance(points[i]!, p), 0);

const withoutSpurs = (branches: readonly Branch[], stroke: number): readonly Branch[] => {
  const left = new Set(branches);
  for (const branch of branches) {
    const [start, stop] = branch.ends;
    const isSpur = (start === undefined) !== (stop === undefined) && lengthOf(branch) < SPUR * stroke;
    const node = start ?? stop;
    if (!isSpur || !node || node.branches.size < 3) continue;
    node.branches.delete(branch);
    left.delete(branch);
  }
  return [...left];
};

/** Where two strokes cross the middle line has two nodes: those nearer to each other than so many strokes are one. */
const ONE_NODE = 1.6;

const contracted = (branches: readonly Branch[], stroke: number): readonly Branch[] => {
  const left = new Set(branches);
  for (const branch of branches) {
    const [start, stop] = branch.ends;
    if (!start || !stop || start === stop || lengthOf(branch) >= ONE_NODE * stroke) continue;
    left.delete(branch);
    start.branches.delete(branch);
    stop.branches.delete(branch);
    start.at = { x: (start.at.x + stop.at.x) / 2, y: (start.at.y + stop.at.y) / 2 };
    for (const other of stop.branches) {
      other.ends = other.ends.map((end) => (end === stop ? start : end)) as Branch["ends"];
      start.branches.add(other);
    }
    stop.branches.clear();
  }
  return [...left];
};
