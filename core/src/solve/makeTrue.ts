import { measureCallout } from "../callouts/measure.ts";
import type { Callout } from "../drawing/callout.ts";
import { calloutsOff } from "../checks/verdict.ts";
import { calloutsOf, cutEntities, entitiesOf, entityOf, type Drawing } from "../drawing/drawing.ts";
import { applyEdit, type Edit } from "../drawing/edit.ts";
import type { Entity } from "../drawing/entity.ts";
import { draftEdit } from "../edits/draftEdit.ts";
import { angleOf, norm, subtract } from "../geometry/point.ts";
import type { Id } from "../numeric/id.ts";
import { refuse, type Refusal } from "../numeric/outcome.ts";
import { agreeing, type Group } from "./agreeing.ts";
import { calledRadii, reachedBy, relationKey, saysOther, toldBy, type Told, type TrueAsk } from "./ask.ts";
import { turnedBy, type Equation } from "./equations.ts";
import { fewest, holds, nearest, type Task } from "./fewest.ts";
import { PRIORITIES, relationsIn, type Relation } from "./holds/index.ts";
import { LEVEL } from "./lin.ts";
import { meaningOf } from "./meaning.ts";
import { modelOf, type Model } from "./model.ts";
import { entitiesAt } from "./putBack.ts";
import { fighting, solveRough, UNCERTAIN } from "./rough.ts";
import { spoiled } from "./spoiled.ts";
import { numbersStanding } from "./standing.ts";
import { weightsOf } from "./weights.ts";

/** What was made true: the edit, what holds in it and what had to be let go of. */
export type MadeTrue = {
  readonly edit: Edit;
  readonly holds: readonly Relation[];
  readonly letGo: readonly Relation[];
  /** Callouts that hold no more by it, as nothing tells them by moving: places on free curves, references. */
  readonly lost: readonly Id[];
  /** True where the drawing is not exact: rounded, or drawn by hand, so that more is meant in it than holds. */
  readonly rough: boolean;
};

/** Numbers that can't all be true, as long as some relations hold: all of them but any one agree. */
export type Odds = { readonly callouts: readonly Id[]; readonly relations: readonly Relation[] };

/** What came of it; a contradiction with what fights. */
export type TrueAnswer =
  | { readonly ok: true; readonly value: MadeTrue }
  | { readonly ok: false; readonly refusal: Refusal; readonly odds?: Odds; readonly rough?: boolean };

type Source = { readonly told: Told } | { readonly relation: Relation } | "structure";

/** Values of the unknowns that were found, with what holds at them. */
type Found = {
  readonly x: ArrayLike<number>;
  readonly kept: readonly Relation[];
  readonly gone: readonly Relation[];
};
type Answer = { readonly ok: true; readonly value: Found } | (TrueAnswer & { readonly ok: false });

/** What is meant this strongly gives way only when the drafter says so. */
const STRONG = PRIORITIES["in line"];
export const isStrong = ({ kind }: Relation): boolean => PRIORITIES[kind] >= STRONG;

/** The groups in which equations hold together: what may never go, what only the drafter lets go, and the rest. */
const groupsOf = (model: Model, told: readonly Told[], relations: readonly Relation[]): readonly Group<Source>[] => {
  const group = (from: Source, equations: Group<Source>["equations"], mayGo: boolean): Group<Source> => ({
    from,
    equations,
    mayGo,
  });
  return [
    ...model.structure.map((equation) => group("structure", [equation], false)),
    ...relations.filter(isStrong).map((relation) => group({ relation }, relation.equations, false)),
    ...told.map((one) => group({ told: one }, one.equations, false)),
    ...relations.filter((one) => !isStrong(one)).map((relation) => group({ relation }, relation.equations, true)),
  ];
};

const relationsOf = (sources: readonly Source[]): readonly Relation[] =>
  sources.flatMap((from) => (from !== "structure" && "relation" in from ? [from.relation] : []));

const calloutIds = (sources: readonly Source[]): readonly Id[] =>
  sources.flatMap((from) => (from !== "structure" && "told" in from ? [from.told.callout.id] : []));

const atOdds = (odds: Odds): Answer => ({
  ...refuse("true-at-odds", { count: odds.callouts.length }),
  odds: { ...odds, callouts: odds.callouts.toSorted((p, q) => p - q) },
});

/** That each straight edge keeps its direction, the longest first. */
const directionsOf = (model: Model): readonly Equation[] =>
  model.edges
    .filter(({ piece }) => piece.bulge === 0)
    .map(({ a, b, piece }) => ({ a, b, along: subtract(piece.b, piece.a) }))
    .sort((p, q) => norm(q.along) - norm(p.along))
    .map(({ a, b, along }) => turnedBy(LEVEL, [a, b], angleOf(along), 2 * Math.PI, norm(along)));

/** What speaks of unknowns that are free. */
const reaching = <T extends { readonly equations: readonly Equation[] }>(all: readonly T[], fixed: Float64Array) =>
  all.filter(({ equations }) =>
    equations.some(({ of }) => of.some(({ at }) => at.some((i) => Number.isNaN(fixed[i]!)))),
  );

/** As the drawing is exact: what is asked may change, else the fewest things move. */
const revised = (model: Model, told: readonly Told[], relations: readonly Relation[], fixed: Float64Array): Answer => {
  const start = Float64Array.from(model.start);
  const near = reaching(groupsOf(model, told, relations), fixed);
  const agreed = agreeing(start.length, start, fixed, near, model.near);
  const [fight] = agreed.atOdds.filter(({ one }) => one !== "structure");
  if (fight) {
    const all = [fight.one, ...fight.with];
    return atOdds({ callouts: calloutIds(all), relations: relationsOf(all) });
  }
  const gone = new Set<Source>(agreed.gone);
  const task: Task = {
    wanted: start,
    weights: weightsOf(model),
    equations: near.filter(({ from }) => !gone.has(from)).flatMap(({ equations }) => equations),
    fixed,
    directions: directionsOf(model),
  };
  const first = nearest(task);
  if (!holds(first)) return refuse("true-not-found");
  const value = { x: fewest(task, first).x, kept: relationsOf(agreed.kept), gone: relationsOf(agreed.gone) };
  return { ok: true, value };
};

/** As the drawing is not exact: what is meant is put in, as much as can be. */
const meant = (model: Model, told: readonly Told[], relations: readonly Relation[], fixed: Float64Array): Answer => {
  const base = { wanted: Float64Array.from(model.start), weights: weightsOf(model), fixed };
  const must = [...model.structure, ...told.flatMap(({ equations }) => equations)];
  const found = solveRough(base, must, reaching(relations, fixed));
  const isCertain = (one: Relation): boolean => isStrong(one) && !UNCERTAIN.has(one.kind);
  const strong = found?.gone.filter(isCertain) ?? [];
  if (!found || strong.length > 0) {
    const callouts = fighting(base, model.structure, relations.filter(isCertain), told);
    if (callouts.length > 0) return atOdds({ callouts, relations: strong });
    if (!found) return refuse("true-not-found");
  }
  return { ok: true, value: { x: found.settled.x, kept: found.kept, gone: found.gone } };
};

/**
 * Moves the geometry the least so that the asked callouts measure what they call, the others that bind go on doing so,
 * and what holds in the drawing goes on holding, or, where it is a rough one, what is meant in it comes to hold; where
 * these fight, the weakest is let go of. Refused where callouts contradict each other (`odds` names them), where no
 * such drawing was found, and where it would be spoiled. What is asked is true within 1e-6 by the ledger's own measure,
 * and equations hold to 1e-12 of the size; what nothing ties stays to the bit.
 */
export const makeTrue = (drawing: Drawing, ask: TrueAsk): TrueAnswer => {
  const model = modelOf(drawing);
  const told = toldBy(model, ask);
  const asked = told.filter(({ isAsked }) => isAsked);
  if (asked.length === 0) return refuse("true-nothing-told");
  const called = calledRadii(model, told);
  const isKept = (one: Relation): boolean => !ask.letGo?.has(relationKey(one)) && !saysOther(model, called, one);
  const { relations: found, isExact } = ask.asDrawn
    ? { relations: relationsIn(model, "exact"), isExact: true }
    : meaningOf(model);
  const relations = found.filter(isKept);
  const reached = reachedBy(
    model.start.length,
    groupsOf(model, told, relations).flatMap(({ equations }) => equations),
    asked.flatMap(({ equations }) => equations),
  );
  const fixed = Float64Array.from(model.start, (value, i) => (reached[i] ? NaN : value));
  for (const i of staying(model, ask)) fixed[i] = model.start[i]!;
  const answer = (isExact ? revised : meant)(model, told, relations, fixed);
  const rough = !isExact;
  if (!answer.ok) return { ...answer, rough };
  const { x, kept, gone } = answer.value;

  const changed = entitiesAt(model, x, called);
  const edit = madeOf(drawing, changed);
  const after = applyEdit(drawing, edit);
  const spoil = spoiled(drawing, after, changed);
  if (spoil) return { ...refuse("true-spoils", { spoil }), rough };
  // the ledger decides what is true, not what was solved
  const untrue = asked.filter(({ callout, value }) => measureCallout(after, { ...callout, value }).state !== "true");
  const { broken, lost } = othersAfter(drawing, after, told);
  if (untrue.length + broken.length > 0) return { ...refuse("true-not-found"), rough };
  return {
    ok: true,
    value: {
      edit: isAllTold(after) ? madeOf(drawing, unmarked(drawing, after)) : edit,
      holds: kept,
      letGo: gone,
      lost,
      rough,
    },
  };
};

const madeOf = (drawing: Drawing, changed: readonly Entity[]): Edit => {
  const draft = draftEdit(drawing, "Make true", "make-true");
  for (const entity of changed) draft.reshape(entity);
  return draft.finish();
};

/** True where something was traced, and numbers tell all of the drawing by now. */
const isAllTold = (drawing: Drawing): boolean => {
  if (!cutEntities(drawing).some((one) => one.traced) || calloutsOff(drawing).length > 0) return false;
  const { open, rough, unseen } = numbersStanding(drawing);
  return !rough && unseen === 0 && open.length === 0;
};

/** What changed, and what was traced, without the mark of that. */
const unmarked = (before: Drawing, after: Drawing): readonly Entity[] =>
  [...entitiesOf(after)].flatMap(({ traced, ...entity }) =>
    traced || entityOf(before, entity.id) !== entityOf(after, entity.id) ? [entity] : [],
  );

/**
 * Callouts that held and hold no more: `broken` those that were asked to go on holding, `lost` those that can't be
 * asked, as nothing tells them by moving.
 */
const othersAfter = (drawing: Drawing, after: Drawing, told: readonly Told[]) => {
  const holding = (one: Callout, now: Drawing): boolean => ["true", "within"].includes(measureCallout(now, one).state);
  const gone = calloutsOf(drawing).filter((one) => holding(one, drawing) && !holding(one, after));
  const isTold = new Set(told.map(({ callout }) => callout.id));
  const isAsked = new Set(told.filter((one) => one.isAsked).map(({ callout }) => callout.id));
  return {
    broken: gone.filter(({ id }) => isTold.has(id) && !isAsked.has(id)),
    lost: gone.filter(({ id }) => !isTold.has(id)).map(({ id }) => id),
  };
};

/** The unknowns of what is to stay where it is. */
const staying = (model: Model, { stays = [] }: TrueAsk): readonly number[] =>
  stays.flatMap((ref) => {
    const edge = model.edgeOf(ref);
    const round = model.roundOf(ref);
    const spots = [...(edge ? [edge.a, edge.b] : []), ...(round ? [round.centre] : [])];
    return [...spots.flatMap(({ x, y }) => [x, y]), ...(round ? [round.radius] : [])].flatMap(({ at }) => at);
  });

/** A refused number is looked for between what is drawn and what is asked, to this part of the way. */
const LIMIT_STEPS = 9;

/** How far towards a number that is refused a callout goes; undefined for several, and where it measures nothing. */
export const trueLimit = (drawing: Drawing, ask: TrueAsk): number | undefined => {
  const [id, ...more] = ask.callouts;
  const callout = calloutsOf(drawing).find((one) => one.id === id);
  const state = callout && measureCallout(drawing, callout);
  if (id === undefined || more.length > 0 || !state || state.state === "not placed") return undefined;
  const [from, to] = [state.measured, ask.values?.get(id) ?? callout.value];
  const goes = (value: number): boolean => makeTrue(drawing, { ...ask, values: new Map([[id, value]]) }).ok;
  if (!goes(from)) return undefined;
  let [good, bad] = [0, 1];
  for (let step = 0; step < LIMIT_STEPS; step++) {
    const part = (good + bad) / 2;
    if (goes(from + part * (to - from))) good = part;
    else bad = part;
  }
  return from + good * (to - from);
};
