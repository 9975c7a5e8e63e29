import Flatbush from "flatbush";
import { calloutText, toleranceText } from "../callouts/describe.ts";
import { calloutsOf, cutEntities, layerOf, unitOf, type Drawing } from "../drawing/drawing.ts";
import { curvesOf } from "../drawing/entity.ts";
import type { CutRole } from "../drawing/layer.ts";
import { arcOf } from "../geometry/piece.ts";
import { isSmooth, smoothOf, type Curve } from "../geometry/curve.ts";
import { boundsMiddle, boundsOf } from "../geometry/bounds.ts";
import { add, distance, norm, subtract, type Point } from "../geometry/point.ts";
import { TRUE_WITHIN } from "../numeric/tolerance.ts";
import { profileOf } from "../profile/profile.ts";

/** A curve that is in one drawing only. */
export type Lone = { readonly curve: Curve; readonly at: Point };

/** A curve that is in both, at another place. */
export type Moved = { readonly from: Curve; readonly to: Curve; readonly at: Point; readonly by: Point };

/** How two drawings differ. Lengths and areas in their unit. */
export type Comparison = {
  /** So many pieces and circles are the same, whatever their ids, directions and layers' names. */
  readonly same: number;
  readonly came: readonly Lone[];
  readonly went: readonly Lone[];
  readonly moved: readonly Moved[];
  /** What is enclosed, holes taken off. */
  readonly area: readonly [before: number, after: number];
  /** Undefined where one of them is a file that has none. */
  readonly callouts: readonly { readonly before?: string; readonly after?: string }[] | undefined;
  /** The units differ: lengths were compared as numbers. */
  readonly units: boolean;
};

/** Areas that differ by less than this part are one. */
const SAME_AREA = 1e-9;
/** True where as much is enclosed: what is a hole in one and a disc in the other tells by that. */
export const sameArea = ({ area: [before, after] }: Comparison): boolean =>
  Math.abs(after - before) <= SAME_AREA * Math.max(before, after);

/** True where nothing differs. */
export const isSame = (found: Comparison): boolean =>
  found.came.length + found.went.length + found.moved.length + (found.callouts?.length ?? 0) === 0 &&
  !found.units &&
  sameArea(found);

/** A curve as it is matched: its place, and its shape as seen from there, whichever way it runs. */
type Seen = {
  readonly curve: Curve;
  readonly at: Point;
  readonly places: readonly Point[];
  /** What its layer says that it is: what is marked is not the same as what is cut. */
  readonly role: CutRole | undefined;
  used: boolean;
};

/** Points of a curve that tell its shape, first one that few others have: circles about one middle share that. */
const placesOf = (curve: Curve): readonly Point[] => {
  if (curve.kind === "circle") {
    const { centre, radius } = curve;
    return [{ x: centre.x + radius, y: centre.y }, centre];
  }
  if (curve.kind === "piece") {
    const arc = arcOf(curve);
    const angle = arc && arc.from + arc.sweep / 2;
    const middle =
      arc === undefined || angle === undefined
        ? { x: (curve.a.x + curve.b.x) / 2, y: (curve.a.y + curve.b.y) / 2 }
        : { x: arc.centre.x + arc.radius * Math.cos(angle), y: arc.centre.y + arc.radius * Math.sin(angle) };
    return [middle, curve.a, curve.b];
  }
  if (!isSmooth(curve)) return [];
  return [0.5, 0, 1, 0.25, 0.75].map(smoothOf(curve).at);
};

const seen = (drawing: Drawing): Seen[] =>
  cutEntities(drawing).flatMap((entity) =>
    curvesOf(entity).flatMap(({ curve }): Seen[] => {
      const places = placesOf(curve);
      const [at] = places;
      return at ? [{ curve, at, places, role: layerOf(drawing, entity.layer)?.role, used: false }] : [];
    }),
  );

/** True where two curves are the same shape, the second moved by so much. */
const sameShape = (p: Seen, q: Seen, by: Point): boolean => {
  if (p.curve.kind !== q.curve.kind || p.places.length !== q.places.length) return false;
  if ((p.role === "mark") !== (q.role === "mark")) return false;
  const near = (a: Point, b: Point): boolean => distance(add(a, by), b) <= TRUE_WITHIN;
  const [, ...ps] = p.places;
  const [, ...qs] = q.places;
  if (!near(p.at, q.at)) return false;
  if (p.curve.kind === "circle") return near(ps[0]!, qs[0]!);
  const turned = [qs[1]!, qs[0]!, ...(qs.length > 2 ? [qs[3]!, qs[2]!] : [])];
  return ps.every((at, i) => near(at, qs[i]!)) || ps.every((at, i) => near(at, turned[i]!));
};

const treeOf = (all: readonly Seen[]): Flatbush | undefined => {
  if (all.length === 0) return undefined;
  const tree = new Flatbush(all.length);
  for (const { at } of all) tree.add(at.x, at.y, at.x, at.y);
  tree.finish();
  return tree;
};

const STILL: Point = { x: 0, y: 0 };

/** What has the same shape, moved by so much, and is not used yet. */
const likeIt = (p: Seen, after: readonly Seen[], tree: Flatbush, by: Point): Seen | undefined => {
  const { x, y } = add(p.at, by);
  return tree
    .search(x - TRUE_WITHIN, y - TRUE_WITHIN, x + TRUE_WITHIN, y + TRUE_WITHIN)
    .map((i) => after[i]!)
    .find((one) => !one.used && sameShape(p, one, by));
};

/** Uses up every two that are the same shape, the second moved by so much; each once. */
const match = (
  before: readonly Seen[],
  after: readonly Seen[],
  tree: Flatbush | undefined,
  by: Point,
  found: (p: Seen, q: Seen) => void,
): void => {
  if (!tree) return;
  for (const p of before) {
    const q = p.used ? undefined : likeIt(p, after, tree, by);
    if (!q) continue;
    p.used = true;
    q.used = true;
    found(p, q);
  }
};

/** So many of what is left are asked for a way that all went; more tell no more. */
const ASKED = 64;
/** So far away, in nearest ones, a curve is looked for that has moved by itself. */
const NEAREST = 24;

/** Ways that what is left may have gone: from each of a few to those of its shape among the nearest. */
const waysFrom = (before: readonly Seen[], after: readonly Seen[], tree: Flatbush): readonly Point[] => {
  const ways: { by: Point; votes: number }[] = [];
  const all = after.filter(({ used }) => !used);
  const some = before.filter(({ used }) => !used);
  const boxes = [some, all].map((list) => boundsOf(list.map(({ at }) => at)));
  const whole = subtract(boundsMiddle(boxes[1]!), boundsMiddle(boxes[0]!));
  for (const p of some.slice(0, ASKED))
    for (const i of tree.neighbors(p.at.x, p.at.y, NEAREST, Infinity, (k) => !after[k]!.used)) {
      const q = after[i]!;
      const by = subtract(q.at, p.at);
      if (!sameShape(p, q, by)) continue;
      const known = ways.find((way) => distance(way.by, by) <= TRUE_WITHIN);
      if (known) known.votes += 1;
      else ways.push({ by, votes: 1 });
    }
  ways.sort((one, other) => other.votes - one.votes || norm(one.by) - norm(other.by));
  // all of it only where any of a few, taken all over it, went that way
  const step = Math.ceil(some.length / ASKED);
  const goes = some.some((p, i) => i % step === 0 && likeIt(p, after, tree, whole));
  return [...(goes ? [whole] : []), ...ways.map(({ by }) => by)];
};

const calloutLines = (drawing: Drawing): Map<string, string> => {
  const lines = new Map<string, string>();
  for (const callout of calloutsOf(drawing)) {
    const key = `${callout.kind} ${callout.name}`;
    let own = key;
    for (let n = 2; lines.has(own); n++) own = `${key} ${n}`;
    lines.set(own, `${calloutText(callout, unitOf(drawing))} ${callout.name} ${toleranceText(callout)}`.trim());
  }
  return lines;
};

const enclosed = (drawing: Drawing): number =>
  profileOf(drawing).contours.reduce(
    (sum, { role, area }) => sum + (role === "mark" ? 0 : role === "outside" ? area : -area),
    0,
  );

/**
 * What came, went and moved from one drawing to another, by geometry and not by ids: pieces and circles that are cut or
 * marked are the same where they lie on one another within 1e-6, whichever way they run. What is left is matched where
 * much of it went the same way, else with the nearest of its shape; turned or changed curves went and came. Callouts
 * are compared where both are jobs (`called`). Near n log n.
 */
export const compareDrawings = (a: Drawing, b: Drawing, { called = true } = {}): Comparison => {
  const [before, after] = [seen(a), seen(b)];
  let [same, asked] = [0, false];
  match(before, after, treeOf(after), STILL, (p, q) => {
    same += 1;
    asked ||= p.role !== q.role;
  });
  const moved: Moved[] = [];
  for (let turn = 0; turn < ASKED; turn++) {
    const [some, others] = [before, after].map((list) => list.filter(({ used }) => !used));
    const tree = treeOf(others!);
    if (some!.length === 0 || !tree) break;
    const was = moved.length;
    for (const by of waysFrom(some!, others!, tree)) {
      match(some!, others!, tree, by, (p, q) => {
        moved.push({ from: p.curve, to: q.curve, at: q.at, by });
        asked ||= p.role !== q.role;
      });
      if (moved.length > was) break;
    }
    if (moved.length === was) break;
  }
  const lone = (list: readonly Seen[]): readonly Lone[] =>
    list
      .filter(({ used }) => !used)
      .map(({ curve, at }) => ({ curve, at: curve.kind === "circle" ? curve.centre : at }));
  const [was, is] = [calloutLines(a), calloutLines(b)];
  const callouts = [...new Set([...was.keys(), ...is.keys()])].flatMap((key) => {
    const [one, other] = [was.get(key), is.get(key)];
    if (one === other) return [];
    return [{ ...(one === undefined ? {} : { before: one }), ...(other === undefined ? {} : { after: other }) }];
  });
  const changed = asked || [before, after].some((list) => list.some(({ used }) => !used));
  const areaBefore = enclosed(a);
  return {
    same,
    went: lone(before),
    came: lone(after),
    moved,
    // what is cut alike, or only moved, encloses what it did
    area: [areaBefore, changed ? enclosed(b) : areaBefore],
    callouts: called ? callouts : undefined,
    units: unitOf(a) !== unitOf(b),
  };
};
