import type { Callout } from "../drawing/callout.ts";
import { calloutsOf, curveAt, entityOf, type Drawing } from "../drawing/drawing.ts";
import type { Edit, Hint } from "../drawing/edit.ts";
import { pageGet } from "../drawing/pages.ts";
import { sameRef, sameTarget, type Ref } from "../drawing/ref.ts";
import { carrierNearest, carrierOf, curveEnds, curveLength, curvePoint, type Curve } from "../geometry/curve.ts";
import { distance, type Point } from "../geometry/point.ts";
import { scaleOf, transformPoint } from "../geometry/transform.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
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
  for (const was of calloutsOf(before)) {
    const is = pageGet(after.callout, was.id);
    if (!is || edit.answered?.includes(was.id)) continue;
    const complain = (text: string): never => {
      const links = `${JSON.stringify(was.links)} → ${JSON.stringify(is.links)}`;
      throw new Error(`${edit.label}: ${was.kind} ${was.value} ${was.name}: ${text}; ${links}`);
    };
    const goes = (from: Ref, to: Ref): boolean =>
      (sameRef(from, to) && stands(before, after, from)) || misses(before, edit, after, was, from, to) === undefined;
    const lost = was.links.filter((from) => !is.links.some((to) => goes(from, to)));
    if (lost.length > 0 && !edit.cutLoose.some(({ callout }) => callout === was.id)) {
      const why = is.links.map((to) => misses(before, edit, after, was, lost[0]!, to));
      complain(why.length > 0 ? why.join(" or ") : "it was cut loose and nothing is said");
    }
    for (const to of is.links) {
      if (was.links.some((from) => goes(from, to))) continue;
      complain(was.links.map((from) => misses(before, edit, after, was, from, to)).join(" or "));
    }
  }
};

/** True for what the edit did not touch at all. */
const stands = (before: Drawing, after: Drawing, ref: Ref): boolean =>
  entityOf(before, ref.id) === entityOf(after, ref.id) && typeof ref.place !== "object";

/** Why `to` is not where `from` was: a sentence with both; undefined where it is. */
const misses = (
  before: Drawing,
  edit: Edit,
  after: Drawing,
  { kind, links }: Callout,
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
  const span = (kind === "length" || kind === "centres") && links.length === 1;
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
  if (kind === "angle" && carrierOf(old)?.kind === "line") {
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
