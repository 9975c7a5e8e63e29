import { curveAt, entityOf, type Drawing } from "../drawing/drawing.ts";
import type { Edit, Hint } from "../drawing/edit.ts";
import { pageGet, type Pages } from "../drawing/pages.ts";
import { sameRef, sameTarget, type Ref } from "../drawing/ref.ts";
import { carrierNearest, carrierOf, curveEnds, curveLength, curvePoint, type Curve } from "../geometry/curve.ts";
import { cross, distance, subtract, type Point } from "../geometry/point.ts";
import { scaleOf, transformPoint } from "../geometry/transform.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import { linearSpan, textPlace } from "./frame.ts";
import { heldByAnnotation, heldByCallout, holdersOf, idsIn, looseId, type Holder, type Holding } from "./holders.ts";
import { placeOf } from "./places.ts";

/**
 * As far apart as two names of one place may be after an edit: wider than what carrying itself accepts, and no width
 * that a shop could measure.
 */
const APART = 10 * RESOLUTION;

const shown = (p: Point | undefined): string => (p ? `(${p.x}, ${p.y})` : "nowhere");

/**
 * Holds the references of a drawing after an edit against those before it, by points in the plane and not by the way in
 * which they were carried: each names the same place, went where the edit states, or is listed as cut loose. Throws
 * with both places, or both numbers, where one does not.
 */
export const checkCarried = (before: Drawing, edit: Edit, after: Drawing): void => {
  if (!edit.changes.some(({ table }) => table === "entity" || table === "picture")) return;
  for (const was of holdersOf(before)) {
    const is = standingHolder(after, was);
    if (!is || edit.answered?.includes(was.id)) continue;
    const complain = (text: string): never => {
      const refs = `${JSON.stringify(was.refs)} → ${JSON.stringify(is.refs)}`;
      const { id: _, ...says } = was.row;
      throw new Error(`${edit.label}: ${JSON.stringify(says)}: ${text}; ${refs}`);
    };
    const goes = (from: Ref, to: Ref): boolean =>
      (sameRef(from, to) && stands(before, after, from)) || misses(before, edit, after, was, from, to) === undefined;
    const lost = was.refs.filter((from) => !is.refs.some((to) => goes(from, to)));
    if (lost.length > 0 && !edit.cutLoose.some((one) => looseId(one) === was.id)) {
      const why = is.refs.map((to) => misses(before, edit, after, was, lost[0]!, to));
      complain(why.length > 0 ? why.join(" or ") : "it was cut loose and nothing is said");
    }
    for (const to of is.refs) {
      if (was.refs.some((from) => goes(from, to))) continue;
      complain(was.refs.map((from) => misses(before, edit, after, was, from, to)).join(" or "));
    }
    const strayed = textStrayed(before, edit, after, was, is);
    if (strayed) complain(strayed);
  }
};

/** The row of a holder as it is now; undefined where it is gone. */
const standingHolder = (after: Drawing, { table, id }: Holder): Holder | undefined => {
  const row = pageGet(after[table] as Pages<never>, id);
  return row && (table === "callout" ? heldByCallout(row) : heldByAnnotation(row));
};

/**
 * Why the text of a dimension, a note or a mark is not where it belongs: what was not touched stays, what went by one
 * similarity takes it along; undefined where neither says anything.
 */
const textStrayed = (before: Drawing, edit: Edit, after: Drawing, was: Holder, is: Holder): string | undefined => {
  if (was.table !== "annotation" || is.table !== "annotation" || is.refs.length === 0) return undefined;
  if (edit.changes.some(({ table }) => table === "settings")) return undefined;
  const ids = was.refs.flatMap(idsIn);
  const stated = ids.map((id) => edit.lineage.find((hint) => hint.kind === "moved" && hint.ids.includes(id)));
  const [by] = stated;
  if (stated.some((one) => one !== by)) return undefined;
  if (!by && ids.some((id) => edit.lineage.some((hint) => hint.kind === "reshaped" && hint.id === id)))
    return undefined;
  const [from, to] = [textPlace(before, was.row), textPlace(after, is.row)];
  if (!from || !to) return undefined;
  const goes = by?.kind === "moved" ? transformPoint(by.by, from) : from;
  // of a linear dimension only its line has a place of its own: the text is counted from the middle of that
  const way = is.row.kind === "linear" && !by ? linearSpan(after, is.row)?.way : undefined;
  const off = way ? Math.abs(cross(way, subtract(to, goes))) : distance(goes, to);
  const slack = APART * (by?.kind === "moved" ? Math.max(1, scaleOf(by.by)) : 1);
  return off <= slack ? undefined : `its text went from ${shown(goes)} to ${shown(to)}`;
};

/** True for what the edit did not touch at all. */
const stands = (before: Drawing, after: Drawing, ref: Ref): boolean =>
  entityOf(before, ref.id) === entityOf(after, ref.id) && typeof ref.place !== "object";

/** Why `to` is not where `from` was: a sentence with both; undefined where it is. */
const misses = (
  before: Drawing,
  edit: Edit,
  after: Drawing,
  { need }: Holding,
  from: Ref,
  to: Ref,
): string | undefined => {
  const stated = statedFor(edit.lineage, from);
  if (stated?.kind === "reshaped" && sameRef({ ...from, near: to.near! }, to)) return undefined;
  const moved = (p: Point): Point => (stated?.kind === "moved" ? transformPoint(stated.by, p) : p);
  const within = stated?.kind === "became" ? (stated.within ?? Infinity) + APART : APART;
  const was = placeOf(before, from);
  const is = placeOf(after, to);
  if (was) {
    if (!is) return `the place ${shown(moved(was))} is named by nothing`;
    const apart = distance(moved(was), is);
    return apart <= within ? undefined : `the place ${shown(moved(was))} became ${shown(is)}`;
  }
  if (from.place !== undefined)
    return sameRef(from, to) && entityOf(before, from.id) === entityOf(after, from.id)
      ? undefined
      : "what named nothing is kept";
  const [old, now] = [curveAt(before, from), curveAt(after, to)];
  if (!old) return entityOf(before, from.id) && entityOf(after, to.id) ? undefined : "its chain is gone";
  if (stated?.kind === "became" && stated.to.some((one) => sameTarget(one, to))) return undefined;
  const span = need === "span";
  if (span && is) {
    const ends = curveEnds(old).map(moved);
    return ends.some((end) => distance(end, is) <= APART) ? undefined : `an end became ${shown(is)}`;
  }
  if (!now) return "its curve is gone";
  const scale = stated?.kind === "moved" ? scaleOf(stated.by) : 1;
  if (span) {
    const [length, before_] = [curveLength(now), scale * curveLength(old)];
    if (Math.abs(length - before_) > APART) return `its length ${before_} became ${length}`;
  }
  if (need === "direction" && carrierOf(old)?.kind === "line") {
    const [u, v] = [seenAlong(old, from, moved), seenAlong(now, to, (p) => p)];
    if (u.x * v.x + u.y * v.y < 0) return "it is seen the other way round";
  }
  return offCarrier(old, now, moved);
};

/** A step along a straight curve, the way a reference sees it. */
const seenAlong = (curve: Curve, ref: Ref, moved: (p: Point) => Point): Point => {
  const [a, b] = [0, 1].map((t) => moved(curvePoint(curve, t))) as [Point, Point];
  const sign = ref.turned ? -1 : 1;
  return { x: sign * (b.x - a.x), y: sign * (b.y - a.y) };
};

const statedFor = (lineage: readonly Hint[], { id, vertex }: Ref): Hint | undefined =>
  lineage.find(
    (hint) =>
      (hint.kind === "reshaped" && hint.id === id) ||
      (hint.kind === "moved" && hint.ids.includes(id)) ||
      (hint.kind === "became" && hint.from.id === id && hint.from.vertex === vertex),
  );

const PARTS = [0, 0.3, 0.5, 0.7, 1];

/** Why a curve does not lie on the line or circle that another lay on. */
const offCarrier = (old: Curve, now: Curve, moved: (p: Point) => Point): string | undefined => {
  const carrier = carrierOf(now);
  if (!carrier || !carrierOf(old)) return carrier || now.kind !== old.kind ? "another kind of curve" : undefined;
  const [long, short] = curveLength(now) >= curveLength(old) ? [now, old] : [old, now];
  const on = carrierOf(long)!;
  const goes = (p: Point): Point => (short === old ? moved(p) : p);
  if (long === old) return offMoved(old, now, moved);
  const far = PARTS.map((t) => goes(curvePoint(short, t))).find((p) => distance(carrierNearest(on, p), p) > APART);
  return far && `its line or circle left ${shown(far)}`;
};

/** The same where the older of the two is the longer: its moved places are held against the newer's. */
const offMoved = (old: Curve, now: Curve, moved: (p: Point) => Point): string | undefined => {
  const carrier = carrierOf(old)!;
  if (carrier.kind === "circle") {
    const own = carrierOf(now)!;
    if (own.kind !== "circle") return "a circle became a line";
    const centre = moved(carrier.centre);
    const far = PARTS.map((t) => curvePoint(now, t)).find(
      (p) => Math.abs(distance(centre, p) - distance(centre, moved(curvePoint(old, 0)))) > APART,
    );
    return far && `its circle about ${shown(centre)} left ${shown(far)}`;
  }
  const [a, b] = [0, 1].map((t) => moved(curvePoint(old, t))) as [Point, Point];
  const size = distance(a, b);
  const far = PARTS.map((t) => curvePoint(now, t)).find(
    (p) => Math.abs((p.x - a.x) * (b.y - a.y) - (p.y - a.y) * (b.x - a.x)) / size > APART,
  );
  return far && `its line left ${shown(far)}`;
};
