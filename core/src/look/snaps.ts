import { feetOf } from "../construct/perpendiculars.ts";
import { tangentLinesFromPoint } from "../construct/tangentLines.ts";
import { settingsOf } from "../drawing/drawing.ts";
import { DATUM, type Ref } from "../drawing/ref.ts";
import { growBounds } from "../geometry/bounds.ts";
import { circlePoint, type Circle } from "../geometry/circle.ts";
import {
  carrierNearest,
  carrierOf,
  curveNearest,
  isSmooth,
  smoothOf,
  type Curve,
  type SmoothCurve,
} from "../geometry/curve.ts";
import { ellipseParameter } from "../geometry/ellipse.ts";
import { arcOf, piecePoint } from "../geometry/piece.ts";
import { cross, distance, subtract, type Point } from "../geometry/point.ts";
import { equalParts, feetOn } from "../geometry/smooth.ts";
import { meetCarriers, meetingPoints } from "../intersect/carriers.ts";
import { meetings } from "../intersect/meetings.ts";
import { placeOf, placeRefOn } from "../attach/places.ts";
import { normalAngle } from "../numeric/angle.ts";
import { refined, rootsOn } from "../numeric/roots.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import { nearestInIndex, searchIndex, type DrawingIndex, type Item } from "./drawingIndex.ts";

export const SNAP_KINDS = [
  "end",
  "crossing",
  "centre",
  "point",
  "datum",
  "sharp",
  "middle",
  "quarter",
  "tangent",
  "perpendicular",
  "extended",
  "area",
  "grid",
  "nearest",
] as const;
export type SnapKind = (typeof SNAP_KINDS)[number];

/** The word on the tag of each snap. */
export const SNAP_WORDS: Readonly<Record<SnapKind, string>> = {
  end: "end",
  crossing: "crossing",
  centre: "centre",
  point: "point",
  datum: "datum",
  sharp: "sharp corner",
  middle: "middle",
  quarter: "quarter",
  tangent: "tangent",
  perpendicular: "perpendicular",
  extended: "crossing if extended",
  area: "centre of area",
  grid: "grid",
  nearest: "nearest",
};

export type Snap = { readonly kind: SnapKind; readonly at: Point; readonly ref?: Ref };

/** At most this many curves near the pointer are met with each other: a crowded place must not stall it. */
const CROSSING_LIMIT = 24;

/**
 * Curves that may cross if extended are looked for as far as this many times the reach, and no more than so many of
 * them.
 */
const EXTENDED_REACH = 30;
const EXTENDED_LOOKED_AT = 200;
const EXTENDED_LIMIT = 10;

/**
 * An arc of more than about 160 degrees rounds no corner (its bulge), and a sharp corner lies no farther from its arc
 * than so many times as far as this is from end to end.
 */
const [MOST_ROUNDED, MOST_SHARP] = [0.84, 3];

/** No more than this many snaps are answered: nobody steps through more. */
const ANSWERED = 96;

/** A kind further down the list must be nearer by this part of the reach to win over one further up. */
const RANK_STEP = 0.08;

type Quarter = { readonly at: Point; readonly quarter: 0 | 1 | 2 | 3 };

const QUARTERS = [0, 1, 2, 3] as const;
const turnOf = (quarter: number): number => (quarter * Math.PI) / 2;

const quarters = (curve: Curve): readonly Quarter[] => {
  const on = (circle: Circle, quarter: Quarter["quarter"]): Quarter => ({
    at: circlePoint(circle, turnOf(quarter)),
    quarter,
  });
  if (curve.kind === "circle") return QUARTERS.map((quarter) => on(curve, quarter));
  const arc = curve.kind === "piece" ? arcOf(curve) : undefined;
  if (!arc) return [];
  const isOn = (angle: number): boolean =>
    normalAngle(arc.sweep > 0 ? angle - arc.from : arc.from - angle) < Math.abs(arc.sweep);
  return QUARTERS.filter((quarter) => isOn(turnOf(quarter))).map((quarter) => on(arc, quarter));
};

type Note = (kind: SnapKind, place: Point, ref?: Ref) => void;

/**
 * The places of an ellipse or a free curve: ends, middle, ends of its axes, and where a line from `from` is square or
 * tangent to it.
 */
const noteSmooth = (curve: SmoothCurve, ref: Ref, from: Point | undefined, note: Note): void => {
  const smooth = smoothOf(curve);
  const { at, first, breaks, closed } = smooth;
  if (!closed) {
    note("end", at(0), { ...ref, place: "start" });
    note("end", at(1), { ...ref, place: "end" });
    note("middle", equalParts(smooth, 2)[1]!, { ...ref, place: "middle" });
  }
  if (curve.kind === "ellipse")
    for (const quarter of QUARTERS) {
      const t = ellipseParameter(curve, turnOf(quarter));
      if (t !== undefined) note("quarter", at(t), { ...ref, place: { quarter } });
    }
  if (!from) return;
  for (const t of feetOn(smooth, from)) note("perpendicular", at(t), { ...ref, place: { along: t } });
  for (const t of rootsOn((s) => cross(first(s), subtract(at(s), from)), refined(breaks, 6)))
    note("tangent", at(t), { ...ref, place: { along: t } });
};

/**
 * The points that the pointer at `at` may mean, within `reach`, best first: near beats far, and at about the same
 * distance an end beats a crossing beats a centre, and so on down the list of kinds; "nearest" comes last whatever its
 * distance. Tangent and perpendicular points are those of a line from `from`, where one is being drawn. `grid` is the
 * pitch of grid points, where they are wanted. Nothing in reach: an empty list.
 */
export const snapsAt = (
  index: DrawingIndex,
  at: Point,
  reach: number,
  {
    from,
    kinds,
    grid,
  }: { from?: Point | undefined; kinds?: ReadonlySet<SnapKind> | undefined; grid?: number | undefined } = {},
): readonly Snap[] => {
  const found: Snap[] = [];
  const wants = (kind: SnapKind): boolean => !kinds || kinds.has(kind);
  const note = (kind: SnapKind, place: Point, ref?: Ref): void => {
    if (wants(kind) && distance(place, at) <= reach) found.push(ref ? { kind, at: place, ref } : { kind, at: place });
  };
  const near = searchIndex(index, growBounds({ minX: at.x, minY: at.y, maxX: at.x, maxY: at.y }, reach));
  const curves: Extract<Item, { kind: "curve" }>[] = [];
  const later: Exclude<Item, { kind: "curve" }>[] = [];
  for (const item of near) {
    if (item.kind !== "curve") {
      // of a circle's centre and an arc's at the same place, the circle's own number is the true one
      if (item.derived) later.push(item);
      else note(item.kind, item.at, item.kind === "area" ? { ...item.ref, place: "area" } : item.ref);
      continue;
    }
    const { curve, ref } = item;
    const nearest = curveNearest(curve, at);
    if (nearest.distance > reach) continue;
    curves.push(item);
    note("nearest", nearest.at, placeRefOn(ref, curve, nearest.at));
    for (const { at: place, quarter } of quarters(curve)) note("quarter", place, { ...ref, place: { quarter } });
    if (curve.kind === "piece") {
      note("end", curve.a, { ...ref, place: "start" });
      note("end", curve.b, { ...ref, place: "end" });
      note("middle", piecePoint(curve, 0.5), { ...ref, place: "middle" });
    }
    if (isSmooth(curve)) {
      noteSmooth(curve, ref, from, note);
      continue;
    }
    const carrier = carrierOf(curve);
    if (from && wants("perpendicular"))
      for (const foot of feetOf(curve, from))
        if (curveNearest(curve, foot).distance <= RESOLUTION) note("perpendicular", foot, placeRefOn(ref, curve, foot));
    if (from && wants("tangent") && carrier.kind === "circle") {
      const tangents = tangentLinesFromPoint(from, carrier);
      if (tangents.ok)
        for (const { to } of tangents.value)
          if (curveNearest(curve, to).distance <= RESOLUTION) note("tangent", to, placeRefOn(ref, curve, to));
    }
  }
  for (const { kind, at: place, ref } of later)
    if (!found.some((one) => one.kind === kind && distance(one.at, place) <= RESOLUTION)) note(kind, place, ref);
  if (wants("crossing")) {
    const some = curves.slice(0, CROSSING_LIMIT);
    for (let i = 0; i < some.length; i++)
      for (let j = i + 1; j < some.length; j++)
        for (const meeting of meetings(some[i]!.curve, some[j]!.curve, RESOLUTION))
          if (meeting.kind !== "overlap") note("crossing", meeting.at, crossingRef(some[i]!, some[j]!, meeting.at));
  }
  if (wants("sharp")) for (const { at: place, ref } of sharpCorners(index, at, reach)) note("sharp", place, ref);
  if (wants("extended"))
    for (const { at: place, ref } of extendedCrossings(index, at, reach)) note("extended", place, ref);
  const { datum } = settingsOf(index.drawing);
  note("datum", datum, DATUM);
  if (grid !== undefined && wants("grid"))
    note("grid", {
      x: datum.x + Math.round((at.x - datum.x) / grid) * grid,
      y: datum.y + Math.round((at.y - datum.y) / grid) * grid,
    });
  const score = (snap: Snap): number =>
    snap.kind === "nearest"
      ? 10 * reach + distance(snap.at, at)
      : distance(snap.at, at) + SNAP_KINDS.indexOf(snap.kind) * RANK_STEP * reach;
  const sorted = found
    .map((snap) => ({ snap, score: score(snap) }))
    .sort((p, q) => p.score - q.score)
    .slice(0, ANSWERED)
    .map(({ snap }) => snap);
  const distinct: Snap[] = [];
  for (const snap of sorted)
    if (!distinct.some((other) => distance(other.at, snap.at) <= RESOLUTION)) distinct.push(snap);
  // a crossing, a grid point or the datum may also be a centre or an end: that is the better name for it
  return distinct.map((snap) => {
    const named = UNNAMED.has(snap.kind)
      ? sorted.find((other) => typeof other.ref?.place === "string" && distance(other.at, snap.at) <= RESOLUTION)
      : undefined;
    return named?.ref ? { ...snap, ref: named.ref } : snap;
  });
};

/** Kinds of snaps that go by the name of an end, a middle or a centre where one is there. */
const UNNAMED: ReadonlySet<SnapKind> = new Set(["crossing", "extended", "grid", "datum"]);

type CurveItem = Extract<Item, { kind: "curve" }>;
const crossingRef = (p: CurveItem, q: CurveItem, at: Point): Ref => ({ ...p.ref, place: { crosses: q.ref }, near: at });

/** Where the sides of rounded corners near the pointer would meet: the sharp corner that numbers are given to. */
const sharpCorners = (
  index: DrawingIndex,
  at: Point,
  reach: number,
): readonly { readonly at: Point; readonly ref: Ref }[] =>
  nearestInIndex(index, at, EXTENDED_LOOKED_AT, EXTENDED_REACH * reach)
    .flatMap(({ ref, ...item }) => {
      if (item.kind !== "curve" || ref.vertex === undefined || item.curve.kind !== "piece") return [];
      const { a, b, bulge } = item.curve;
      const [middle, most] = [piecePoint(item.curve, 0.5), MOST_SHARP * distance(a, b)];
      const rounds = bulge !== 0 && Math.abs(bulge) <= MOST_ROUNDED && distance(middle, at) <= most + reach;
      return rounds ? [{ ref: { ...ref, place: "sharp" as const }, middle, most }] : [];
    })
    .slice(0, EXTENDED_LIMIT)
    .flatMap(({ ref, middle, most }) => {
      const place = placeOf(index.drawing, ref);
      return place && distance(place, middle) <= most ? [{ at: place, ref }] : [];
    });

/**
 * Where curves near the pointer would cross if they ran on: their carriers pass within reach, and one of the curves at
 * least does not.
 */
const extendedCrossings = (
  index: DrawingIndex,
  at: Point,
  reach: number,
): readonly { readonly at: Point; readonly ref: Ref }[] => {
  const passing = nearestInIndex(index, at, EXTENDED_LOOKED_AT, EXTENDED_REACH * reach)
    .flatMap((item) => {
      if (item.kind !== "curve") return [];
      const carrier = carrierOf(item.curve);
      if (!carrier) return [];
      const passes = distance(carrierNearest(carrier, at), at) <= reach;
      return passes ? [{ carrier, ends: curveNearest(item.curve, at).distance > reach, item }] : [];
    })
    .slice(0, EXTENDED_LIMIT);
  const places: { at: Point; ref: Ref }[] = [];
  for (let i = 0; i < passing.length; i++)
    for (let j = i + 1; j < passing.length; j++) {
      const [one, other] = [passing[i]!, passing[j]!];
      if (!one.ends && !other.ends) continue;
      for (const place of meetingPoints(meetCarriers(one.carrier, other.carrier, RESOLUTION)))
        places.push({ at: place, ref: crossingRef(one.item, other.item, place) });
    }
  return places;
};
