import type { Bounds } from "../../geometry/bounds.ts";
import type { Mask } from "./ink.ts";
import { crossedSides, ringAbout } from "./rings.ts";
import type { Part } from "./parts.ts";

/** Letters are no larger than so many strokes. */
const LETTER = 17;
/** A dash is so many times as long as thick, which is no more than so many strokes; a dot is no longer than so. */
const [DASH_LONG, DASH_THICK, DOT] = [2.6, 1.7, 2.4];
/** The next dash lies no farther than so many strokes ahead, so many aside, and turns by no more (radians). */
const [AHEAD, OFF_AXIS, TURNS] = [12, 2, 0.35];
/** Letters of one word lie no farther from each other than this part of the higher, and are as high but for this. */
const [APART, AS_HIGH] = [0.9, 3.2];

type Small = {
  readonly part: Part;
  readonly wide: number;
  readonly high: number;
  readonly kind: "dash" | "dot" | "letter";
  /** Of a dash: its middle, its direction, half its length. */
  readonly x: number;
  readonly y: number;
  readonly angle: number;
  readonly half: number;
};

const smallOf = (part: Part, stroke: number, width: number): Small => {
  const [wide, high] = [part.maxX - part.minX + 1, part.maxY - part.minY + 1];
  let [x, y, xx, xy, yy] = [0, 0, 0, 0, 0];
  for (const at of part.pixels) {
    const [u, v] = [(at % width) + 0.5, Math.floor(at / width) + 0.5];
    x += u;
    y += v;
    xx += u * u;
    xy += u * v;
    yy += v * v;
  }
  const n = part.pixels.length;
  [x, y] = [x / n, y / n];
  [xx, xy, yy] = [xx / n - x * x, xy / n - x * y, yy / n - y * y];
  const spread = Math.hypot(xx - yy, 2 * xy);
  const [greater, lesser] = [(xx + yy + spread) / 2, Math.max(0, (xx + yy - spread) / 2)];
  // of an even bar the variance is a twelfth of its length squared
  const [long, thick] = [Math.sqrt(12 * greater), Math.sqrt(12 * lesser)];
  const kind =
    Math.max(wide, high) <= DOT * stroke
      ? "dot"
      : long >= DASH_LONG * thick && thick <= DASH_THICK * stroke
        ? "dash"
        : "letter";
  return { part, wide, high, kind, x, y, angle: Math.atan2(2 * xy, xx - yy) / 2, half: long / 2 };
};

/** The distance of two boxes, each way. */
const apart = ({ part: p }: Small, { part: q }: Small): readonly [number, number] => [
  Math.max(0, p.minX - q.maxX, q.minX - p.maxX),
  Math.max(0, p.minY - q.maxY, q.minY - p.maxY),
];

/** True of dashes and dots of which the one lies ahead of the other, as in a centre line. */
const inRow = (one: Small, other: Small, stroke: number): boolean => {
  if (one.kind !== "dash") return false;
  const [dx, dy] = [other.x - one.x, other.y - one.y];
  const [c, s] = [Math.cos(one.angle), Math.sin(one.angle)];
  const gap = Math.abs(dx * c + dy * s) - one.half - other.half;
  const off = Math.abs(dy * c - dx * s);
  if (gap > AHEAD * stroke || gap < -stroke || off > OFF_AXIS * stroke + 0.2 * Math.max(0, gap)) return false;
  if (other.kind === "dot") return true;
  const turn = Math.abs(Math.sin(other.angle - one.angle));
  return other.kind === "dash" && turn <= Math.sin(TURNS);
};

/** True of a hole with its centre mark. */
const isCrossedRing = ({ part }: Small, mask: Mask, stroke: number): boolean => {
  const ring = ringAbout(mask, { x: (part.minX + part.maxX) / 2, y: (part.minY + part.maxY) / 2 }, stroke);
  return ring !== undefined && crossedSides({ centre: ring.at, radius: ring.radius }, mask, stroke) >= 3;
};

/** Small parts that stand together as words do, by words; dashes in a row and what stands alone are none. */
export const lettersOf = (
  parts: readonly Part[],
  stroke: number,
  mask: Mask,
): { readonly letters: readonly Part[]; readonly boxes: readonly Bounds[] } => {
  const small = parts
    .filter((p) => Math.max(p.maxX - p.minX, p.maxY - p.minY) < LETTER * stroke)
    .map((part) => smallOf(part, stroke, mask.width))
    .sort((p, q) => p.part.minX - q.part.minX);
  const reach = LETTER * stroke * 2;
  const ahead = new Map<Small, Small[]>();
  const beside = new Map<Small, Small[]>();
  const put = (into: Map<Small, Small[]>, one: Small, other: Small): void => {
    const own = into.get(one) ?? [];
    own.push(other);
    into.set(one, own);
  };
  small.forEach((one, i) => {
    for (let k = i + 1; k < small.length; k++) {
      const other = small[k]!;
      if (other.part.minX - one.part.maxX > reach) break;
      if (inRow(one, other, stroke) || inRow(other, one, stroke)) {
        put(ahead, one, other);
        put(ahead, other, one);
      }
      const [across, down] = apart(one, other);
      const high = Math.max(one.high, one.wide, other.high, other.wide);
      const low = Math.min(Math.max(one.high, one.wide), Math.max(other.high, other.wide));
      if (Math.max(across, down) > APART * high * (one.kind === "dot" || other.kind === "dot" ? 0.5 : 1)) continue;
      if (low * AS_HIGH < high && one.kind !== "dot" && other.kind !== "dot") continue;
      put(beside, one, other);
      put(beside, other, one);
    }
  });
  // a row has two dashes: a dash with a dot alone is an i
  const rows = new Set<Small>();
  for (const first of ahead.keys()) {
    if (rows.has(first)) continue;
    const row = [first];
    for (const one of row) for (const other of ahead.get(one) ?? []) if (!row.includes(other)) row.push(other);
    if (row.filter(({ kind }) => kind === "dash").length > 1) for (const one of row) rows.add(one);
  }
  const isLetter = (one: Small): boolean =>
    one.kind === "letter" ? !isCrossedRing(one, mask, stroke) : !rows.has(one);
  const letters: Part[] = [];
  const boxes: Bounds[] = [];
  const seen = new Set<Small>();
  for (const first of small) {
    if (seen.has(first) || !isLetter(first)) continue;
    seen.add(first);
    const word = [first];
    for (const one of word)
      for (const other of beside.get(one) ?? [])
        if (!seen.has(other) && isLetter(other)) {
          seen.add(other);
          word.push(other);
        }
    const plain = word.filter(({ kind }) => kind === "letter");
    // what stands alone is a hole, or a mark
    if (plain.length === 0 || word.filter(({ kind }) => kind !== "dot").length === 1) continue;
    const [minX, minY, maxX, maxY] = (["minX", "minY", "maxX", "maxY"] as const).map((side) =>
      word.reduce(
        (best, { part }) => (side.startsWith("min") ? Math.min(best, part[side]) : Math.max(best, part[side])),
        side.startsWith("min") ? Infinity : -Infinity,
      ),
    ) as [number, number, number, number];
    boxes.push({ minX, minY, maxX: maxX + 1, maxY: maxY + 1 });
    for (const { part } of word) letters.push(part);
  }
  return { letters, boxes };
};
