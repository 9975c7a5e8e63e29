import { curveAt, entityOf } from "../drawing/drawing.ts";
import { sameTarget, type Ref } from "../drawing/ref.ts";
import { EVERYWHERE } from "../geometry/bounds.ts";
import { carrierOf, curveBounds, curveEnds, curveLength, isSmooth, type Curve } from "../geometry/curve.ts";
import { distance, type Point } from "../geometry/point.ts";
import { SAME_PLACE } from "../numeric/tolerance.ts";
import { carryPlace } from "./carryPlace.ts";
import { becameOf, curveWentTo, type Passage, type Standing } from "./passage.ts";
import { onOneCarrier, runsAgainst, sharedPlaces } from "./sameCurve.ts";

/** Flips or keeps which way a curve is seen. */
const seen = (to: Ref, from: Ref, against: boolean): Ref => {
  const { turned: _, ...rest } = to;
  return (from.turned === true) !== against ? { ...rest, turned: true } : rest;
};

/** What may stand for a curve now: what it is itself, first, and only then what the edit left near it. */
function* candidates(passage: Passage, ref: Ref, went: Curve): Generator<Standing> {
  const own = curveAt(passage.after, ref);
  const { id, vertex } = ref;
  if (own) yield { ref: { id, ...(vertex === undefined ? {} : { vertex }) }, curve: own };
  for (const one of passage.standingIn(curveBounds(went) ?? EVERYWHERE)) if (!sameTarget(one.ref, ref)) yield one;
}

/** The first of `to` that is there, the one that shares most with what was. */
const becameCurve = (passage: Passage, to: readonly Ref[], was: Curve): Standing | undefined => {
  let best: (Standing & { readonly shares: number }) | undefined;
  for (const ref of to) {
    const curve = curveAt(passage.after, ref);
    if (!curve) continue;
    const shares = onOneCarrier(was, curve) ? sharedPlaces(was, curve) : 0;
    if (!best || shares > best.shares) best = { ref, curve, shares };
  }
  return best;
};

/**
 * The reference to the line or circle that `ref` lies on, by a curve on it that shares a stretch with what was, none of
 * `used` where there is another; undefined where nothing does.
 */
export const carryCarrier = (
  passage: Passage,
  ref: Ref,
  directed: boolean,
  used: readonly Ref[] = [],
): Ref | undefined => {
  const was = curveAt(passage.before, ref);
  if (!was) return carryEntity(passage, ref);
  const turned = (to: Ref, curve: Curve, from: Curve): Ref =>
    directed && carrierOf(from)?.kind === "line" ? seen(to, ref, runsAgainst(from, curve)) : to;
  if (passage.reshaped.has(ref.id) && curveAt(passage.after, ref)) return ref;
  const became = becameOf(passage, ref);
  const stated = became && becameCurve(passage, became.to, was);
  if (stated) return turned(stated.ref, stated.curve, was);
  const went = curveWentTo(passage, ref)!;
  if (isSmooth(went)) return curveAt(passage.after, ref)?.kind === went.kind ? ref : undefined;
  let best: { readonly ref: Ref; readonly shares: number; readonly free: boolean } | undefined;
  for (const one of candidates(passage, ref, went)) {
    const shares = onOneCarrier(went, one.curve) ? sharedPlaces(went, one.curve) : 0;
    if (shares === 0) continue;
    if (sameTarget(one.ref, ref)) return turned(withoutPlace(ref), one.curve, went);
    // of two copies each keeps one of its own as long as there are two
    const free = !used.some((other) => sameTarget(other, one.ref));
    if (!best || (free && !best.free) || (free === best.free && shares > best.shares))
      best = { ref: turned(one.ref, one.curve, went), shares, free };
  }
  return best?.ref;
};

/** A chain as a whole: itself, or the one that its first piece belongs to now. */
const carryEntity = (passage: Passage, ref: Ref): Ref | undefined => {
  if (entityOf(passage.after, ref.id)) return ref;
  const was = entityOf(passage.before, ref.id);
  if (!was) return ref;
  const first = was.kind === "chain" && carryCarrier(passage, { id: ref.id, vertex: was.vertices[0]!.id }, false);
  return first ? { id: first.id } : undefined;
};

const withoutPlace = ({ id, vertex, turned }: Ref): Ref => ({
  id,
  ...(vertex === undefined ? {} : { vertex }),
  ...(turned ? { turned } : {}),
});

const sameEnds = (p: readonly Point[], q: readonly Point[]): boolean => {
  if (p.length !== 2 || q.length !== 2) return p.length === q.length;
  const near = (i: number, j: number): boolean => distance(p[i]!, q[j]!) <= SAME_PLACE;
  return (near(0, 0) && near(1, 1)) || (near(0, 1) && near(1, 0));
};

/** True where a curve still runs from where to where it did, along the same way. */
const sameSpan = (went: Curve, is: Curve): boolean => {
  if (!sameEnds(curveEnds(went), curveEnds(is)) || Math.abs(curveLength(went) - curveLength(is)) > SAME_PLACE)
    return false;
  return isSmooth(went) ? is.kind === went.kind : onOneCarrier(went, is);
};

/**
 * The references to a curve from end to end: the curve itself where one still runs so, else, of a straight line, its
 * two ends wherever they are named now; undefined where there is neither.
 */
export const carrySpan = (passage: Passage, ref: Ref): readonly Ref[] | undefined => {
  const was = curveAt(passage.before, ref);
  if (!was) return [ref];
  if (passage.reshaped.has(ref.id) && curveAt(passage.after, ref)) return [ref];
  const became = becameOf(passage, ref);
  if (became?.whole) return became.to.slice(0, 1);
  const went = curveWentTo(passage, ref)!;
  if (became) {
    const within = became.within ?? SAME_PLACE;
    const whole = became.to.find((to) => {
      const curve = curveAt(passage.after, to);
      return curve && Math.abs(curveLength(curve) - curveLength(was)) <= 2 * within;
    });
    if (whole) return [whole];
  }
  for (const { ref: same, curve } of candidates(passage, ref, went)) if (sameSpan(went, curve)) return [same];
  if (went.kind !== "piece" || went.bulge !== 0) return undefined;
  const [start, end] = [carryPlace(passage, { ...ref, place: "start" }), carryPlace(passage, { ...ref, place: "end" })];
  return start && end ? [start, end] : undefined;
};
