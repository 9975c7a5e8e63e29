import { measureCallout } from "../callouts/measure.ts";
import { calloutsOf, cutEntities, threadMarkOn, type Drawing } from "../drawing/drawing.ts";
import { DATUM, type Ref } from "../drawing/ref.ts";
import { pieceCentre } from "../geometry/piece.ts";
import { distance, midpoint, type Point } from "../geometry/point.ts";
import { toDegrees } from "../numeric/angle.ts";
import type { Id } from "../numeric/id.ts";
import { isSmoothShape } from "../shape/kinds.ts";
import { followsFrom, rowsOf, type Group, type Sorted } from "./agreeing.ts";
import { calledRadii, saysOther, toldBy, type Told } from "./ask.ts";
import { agree, apart, turnedBy, vanishes, type Equation } from "./equations.ts";
import type { Relation } from "./holds/index.ts";
import { constant, LEVEL, linAt, spot, spotAt, type Lin, type Spot } from "./lin.ts";
import { meaningOf } from "./meaning.ts";
import { modelOf, type Edge, type Model } from "./model.ts";
import { rankOf, type Row } from "./sparse/rank.ts";

/** What could be measured of a thing and is told by nothing: neither called nor by what holds. */
export type OpenMeasure = {
  readonly what: "radius" | "x" | "y" | "length" | "angle";
  readonly of: "hole" | "arc" | "corner" | "edge";
  readonly ref: Ref;
  /** What it is now, in the job's unit or degrees; x and y from the datum. */
  readonly value: number;
  readonly at: Point;
  /** The direction in which it can still move, degrees. */
  readonly way: number;
};

/** How the numbers of a sketch stand to one another. */
export type NumbersStanding = {
  /** What they leave open. */
  readonly open: readonly OpenMeasure[];
  /** Numbers that are said already by others and by what holds. */
  readonly follows: readonly { readonly callout: Id; readonly from: readonly Id[] }[];
  /** The drawing is not exact yet: what its numbers leave open is told once they are true. */
  readonly rough: boolean;
  /** Free curves, ellipses and arcs too flat to have a centre: whether they are told is not looked at. */
  readonly unseen: number;
};

type Source = { readonly told: Told } | "given";

/** A measure that may be open, and the equation that would tell it. */
type Candidate = OpenMeasure & { readonly equation: Equation };

/** The threads that a table tells: their holes' sizes are no question. */
const threaded = (drawing: Drawing): ReadonlySet<string> =>
  new Set(
    calloutsOf(drawing)
      .filter(({ kind }) => kind === "thread")
      .flatMap(({ links }) => links.filter((ref) => threadMarkOn(drawing, ref)).map(({ id }) => String(id))),
  );

/** What can be measured of a drawing, in the order in which a drafter would ask for it. */
const candidatesOf = (model: Model): readonly Candidate[] => {
  const { origin, size, start } = model;
  const out = (p: Point): Point => ({ x: origin.x + size * p.x, y: origin.y + size * p.y });
  const datum = model.spotOf(DATUM) ?? spot(0, 0);
  const known = threaded(model.drawing);
  const rounds = model.rounds.filter(({ layout }) => !layout);
  const edges = model.edges.filter(({ layout }) => !layout);
  const where = (lin: Lin, axis: "x" | "y"): Pick<Candidate, "equation" | "value" | "what" | "way"> => {
    const now = linAt(lin, start);
    return {
      what: axis,
      way: axis === "x" ? 0 : 90,
      value: size * (now - linAt(datum[axis], start)),
      equation: vanishes({ ...lin, plus: lin.plus - now }),
    };
  };
  const radius = (ref: Ref, of: OpenMeasure["of"], lin: Lin, at: Point): Candidate => {
    const now = linAt(lin, start);
    return { what: "radius", of, ref, value: size * now, at, way: 0, equation: agree(lin, constant(now)) };
  };
  const middle = ({ piece }: Edge): Point => out(midpoint(piece.a, piece.b));
  const places = (ref: Ref, of: OpenMeasure["of"], { x, y }: Spot, at: Point): readonly Candidate[] => [
    { of, ref, at, ...where(x, "x") },
    { of, ref, at, ...where(y, "y") },
  ];
  const way = ({ piece: { a, b } }: Edge): number => toDegrees(Math.atan2(b.y - a.y, b.x - a.x));
  const straight = edges.filter(({ piece }) => piece.bulge === 0);
  return [
    ...rounds
      .filter(({ ref }) => !known.has(String(ref.id)))
      .map((one) => radius(one.ref, "hole", one.radius, out(one.at))),
    ...edges.flatMap((edge) => (edge.arc ? [radius(edge.ref, "arc", edge.arc.radius, middle(edge))] : [])),
    ...rounds.flatMap(({ ref, centre, at }) => places({ ...ref, place: "centre" }, "hole", centre, out(at))),
    ...straight.map((edge): Candidate => {
      const length = distance(edge.piece.a, edge.piece.b);
      const equation = apart(edge.a, edge.b, constant(length));
      return {
        what: "length",
        of: "edge",
        ref: edge.ref,
        value: size * length,
        at: middle(edge),
        way: way(edge),
        equation,
      };
    }),
    ...edges.flatMap((edge) =>
      edge.arc ? places({ ...edge.ref, place: "centre" }, "arc", edge.arc.centre, out(pieceCentre(edge.piece)!)) : [],
    ),
    ...straight.map((edge): Candidate => {
      const { a, b } = edge.piece;
      const angle = Math.atan2(b.y - a.y, b.x - a.x);
      const equation = turnedBy(LEVEL, [edge.a, edge.b], angle, 2 * Math.PI, distance(a, b));
      return {
        what: "angle",
        of: "edge",
        ref: edge.ref,
        value: toDegrees(angle),
        at: middle(edge),
        way: way(edge) + 90,
        equation,
      };
    }),
    ...edges.flatMap((edge) => places({ ...edge.ref, place: "start" }, "corner", edge.a, out(edge.piece.a))),
  ];
};

/** A motion of the whole is free where it changes no row by more than this part of it. */
const UNCHANGED = 1e-9;

/** What is cut and lies still, as free curves and what is on locked layers do: the rest is told from it. */
const liesStill = ({ drawing, edges, rounds }: Model): boolean =>
  [
    ...edges.map(({ a, layout }) => ({ spot: a, layout })),
    ...rounds.map(({ centre, layout }) => ({ spot: centre, layout })),
  ].some(({ spot, layout }) => !layout && spot.x.at.length + spot.y.at.length === 0) ||
  cutEntities(drawing).some(isSmoothShape);

/**
 * Where the whole lies and how it is turned is nobody's question: rows that hold those of its motions which nothing
 * else does, one for each, so that nothing but it is held.
 */
const holdsStill = (model: Model, rows: readonly Row[]): readonly Row[] => {
  if (liesStill(model)) return [];
  const width = model.start.length;
  const motion = (dx: (x: number, y: number) => number, dy: (x: number, y: number) => number): Float64Array => {
    const v = new Float64Array(width);
    for (const [x, y] of model.places) {
      const [px, py] = [x < 0 ? 0 : model.start[x]!, y < 0 ? 0 : model.start[y]!];
      if (x >= 0) v[x] = dx(px, py);
      if (y >= 0) v[y] = dy(px, py);
    }
    return v;
  };
  const changed = (v: Float64Array): Float64Array =>
    Float64Array.from(rows, ({ at, by }) => at.reduce((sum, i, k) => sum + by[k]! * v[i]!, 0));
  const dot = (p: Float64Array, q: Float64Array): number => p.reduce((sum, value, i) => sum + value * q[i]!, 0);
  const combination = (...parts: readonly (readonly [number, Float64Array])[]): Float64Array =>
    Float64Array.from({ length: width }, (_, i) => parts.reduce((sum, [k, v]) => sum + k * v[i]!, 0));
  const alongX = motion(
    () => 1,
    () => 0,
  );
  const alongY = motion(
    () => 0,
    () => 1,
  );
  const turn = motion(
    (_, y) => -y,
    (x) => x,
  );
  const [ex, ey, er] = [alongX, alongY, turn].map(changed) as [Float64Array, Float64Array, Float64Array];
  // of all directions those that change the least and the most
  const [xx, xy, yy] = [dot(ex, ex), dot(ex, ey), dot(ey, ey)];
  const angle = Math.atan2(2 * xy, xx - yy) / 2;
  const most = combination([Math.cos(angle), alongX], [Math.sin(angle), alongY]);
  const least = combination([-Math.sin(angle), alongX], [Math.cos(angle), alongY]);
  const moves = [most, least].map((v) => ({ v, by: changed(v) }));
  // turned about the place that changes the least
  const held = moves.filter(({ by }) => dot(by, by) > UNCHANGED ** 2);
  const about = combination([1, turn], ...held.map(({ v, by }) => [-dot(by, er) / dot(by, by), v] as const));
  const isFree = (v: Float64Array): boolean =>
    dot(v, v) > 0 && dot(changed(v), changed(v)) <= UNCHANGED ** 2 * dot(v, v);
  // what lies at the datum is where the rest is told from: it is held against being moved, what lies farthest from it
  // against being turned
  const far = ([x, y]: readonly [number, number]): number => Math.hypot(model.start[x]! - at.x, model.start[y]! - at.y);
  const datum = model.spotOf(DATUM);
  const at = datum ? spotAt(datum, model.start) : { x: 0, y: 0 };
  const whole = model.places.filter(([x, y]) => x >= 0 && y >= 0 && model.sorts[x] !== "help");
  if (whole.length === 0) return [];
  const nearest = whole.reduce((best, one) => (far(one) < far(best) ? one : best));
  const farthest = whole.reduce((best, one) => (far(one) > far(best) ? one : best));
  const rowAt = (v: Float64Array, place: readonly [number, number]): Row => {
    const own = place.filter((i) => Math.abs(v[i]!) > UNCHANGED);
    return { at: own, by: own.map((i) => v[i]!) };
  };
  return [
    ...moves.flatMap(({ v }) => (isFree(v) ? [rowAt(v, nearest)] : [])),
    ...(isFree(about) ? [rowAt(about, farthest)] : []),
  ];
};

/** What is given, then what is called: in this order it is asked what follows from what. */
const standingGroups = (model: Model, told: readonly Told[], found: readonly Relation[]): readonly Group<Source>[] => {
  const called = calledRadii(model, told);
  const relations = found.filter((one) => one.kind !== "size" && one.kind !== "land" && !saysOther(model, called, one));
  return [
    ...[...model.structure, ...relations.flatMap(({ equations }) => equations)].map((equation): Group<Source> => ({
      from: "given",
      equations: [equation],
      mayGo: false,
    })),
    ...told.map((one): Group<Source> => ({ from: { told: one }, equations: one.equations, mayGo: false })),
  ];
};

/**
 * What the numbers of a sketch leave open in its drawing, and which of them are said twice: by the rank of what is
 * called and of what holds, to first order, as the drawing stands. Open measures are told one after the other, each as
 * if those before it were known, so there are as many as numbers are missing. Exact where what is called is true; a
 * callout that is off counts as called. Of what is not exact nothing is told: ranks lie where nothing holds yet.
 */
export const numbersStanding = (drawing: Drawing): NumbersStanding => {
  const model = modelOf(drawing);
  const all = calloutsOf(drawing);
  const told = toldBy(model, { callouts: all.filter(({ reference }) => !reference).map(({ id }) => id) });
  const smooth = cutEntities(drawing).filter(isSmoothShape).length;
  const unseen = smooth + model.edges.filter(({ flat }) => flat).length;
  const { relations, isExact } = meaningOf(model);
  if (!isExact) return { open: [], follows: [], rough: true, unseen };
  const candidates = candidatesOf(model);
  const groups = standingGroups(model, told, relations);
  // only now are all unknowns there
  const free = new Float64Array(model.start.length).fill(NaN);
  const { sorted, following } = followsFrom(model.start.length, model.start, free, groups);
  // what is said otherwise by the others fights them, and says nothing twice
  const untrue = new Set(all.filter((one) => measureCallout(drawing, one).state !== "true").map(({ id }) => id));
  const follows = following.flatMap(calloutsIn).filter(({ callout }) => !untrue.has(callout));
  return { open: openOf(model, sorted, candidates, free), follows, rough: false, unseen };
};

const calloutsIn = ({ one, from }: { readonly one: Source; readonly from: readonly Source[] }) => {
  if (one === "given") return [];
  const ids = from.flatMap((source) => (source === "given" ? [] : [source.told.callout.id]));
  return [{ callout: one.told.callout.id, from: [...new Set(ids)] }];
};

const openOf = (
  model: Model,
  { rows }: Sorted,
  candidates: readonly Candidate[],
  free: Float64Array,
): readonly OpenMeasure[] => {
  const told = rowsOf(
    candidates.map(({ equation }) => equation),
    model.start,
    free,
  );
  const rank = rankOf(model.start.length, [...rows, ...told.map(({ row }) => row)]);
  for (const row of rows) rank.add(row);
  for (const row of holdsStill(model, rows)) rank.add(row);
  return candidates.flatMap(({ equation: _, ...measure }, i) => {
    const { row } = told[i]!;
    return row.at.length > 0 && rank.add(row) ? [measure] : [];
  });
};
