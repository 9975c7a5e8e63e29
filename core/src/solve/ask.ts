import { measureCallout } from "../callouts/measure.ts";
import type { Callout } from "../drawing/callout.ts";
import { calloutsOf, type Drawing } from "../drawing/drawing.ts";
import type { Ref } from "../drawing/ref.ts";
import type { Id } from "../numeric/id.ts";
import { calledEquations } from "./called.ts";
import type { Equation } from "./equations.ts";
import type { Relation } from "./holds/index.ts";
import type { Model } from "./model.ts";

/** What is asked: which callouts are to measure what they call, what is let go of, what stays where it is. */
export type TrueAsk = {
  readonly callouts: readonly Id[];
  /** Another number than a callout has, for asking what would be. */
  readonly values?: ReadonlyMap<Id, number>;
  /** Relations by their keys. */
  readonly letGo?: ReadonlySet<string>;
  /** Edges and circles that stay where they are. */
  readonly stays?: readonly Ref[];
  /** The drawing is exact as it is, whatever it looks like. */
  readonly asDrawn?: boolean;
};

/** The name of a relation by which it can be let go of. */
export const relationKey = ({ kind, refs, axis }: Pick<Relation, "kind" | "refs" | "axis">): string =>
  [kind, axis ?? "", ...refs.map(({ id, vertex, place }) => `${id}.${vertex ?? ""}.${String(place ?? "")}`)].join(" ");

/** A callout that binds, the number that it is to measure, and what makes it so. */
export type Told = {
  readonly callout: Callout;
  readonly value: number;
  readonly isAsked: boolean;
  readonly equations: readonly Equation[];
};

/** The number that a callout is to measure; undefined where it does not bind. */
const boundTo = (drawing: Drawing, callout: Callout, ask: TrueAsk): number | undefined => {
  const isAsked = ask.callouts.includes(callout.id);
  const state = measureCallout(drawing, callout);
  // lines that are not parallel yet measure nothing and can be made to
  if (isAsked) return callout.links.length > 0 ? (ask.values?.get(callout.id) ?? callout.value) : undefined;
  // one that is off stays off as it likes; one that is within keeps what it measures
  if (callout.reference || state.state === "off" || state.state === "not placed") return undefined;
  return state.state === "true" ? callout.value : state.measured;
};

/** Callouts that bind: placed, required, and told by geometry; those that are asked first. */
export const toldBy = (model: Model, ask: TrueAsk): readonly Told[] =>
  calloutsOf(model.drawing)
    .flatMap((callout): readonly Told[] => {
      const value = boundTo(model.drawing, callout, ask);
      const equations = value === undefined ? undefined : calledEquations(model, callout, value);
      return equations ? [{ callout, value: value!, isAsked: ask.callouts.includes(callout.id), equations }] : [];
    })
    .sort((p, q) => Number(q.isAsked) - Number(p.isAsked) || p.callout.id - q.callout.id);

/** The radii that are called, in the job's unit, by their unknowns. */
export const calledRadii = (model: Model, told: readonly Told[]): ReadonlyMap<number, number> => {
  const called = new Map<number, number>();
  for (const { callout, value } of told)
    if (callout.kind === "radius" || callout.kind === "diameter")
      for (const ref of callout.links) {
        const lin = model.roundOf(ref)?.radius;
        if (lin?.at.length === 1 && ref.place === undefined)
          called.set(lin.at[0]!, callout.kind === "radius" ? value : value / 2);
      }
  return called;
};

/** True of a radius held, or held equal to another, where what is called says otherwise: that was never meant. */
export const saysOther = (model: Model, called: ReadonlyMap<number, number>, { kind, refs }: Relation): boolean => {
  if (kind !== "equal" && kind !== "size") return false;
  const [one, other] = refs.map((ref) => called.get(model.roundOf(ref)?.radius.at[0] ?? -1));
  return kind === "size" ? one !== undefined : one !== undefined && other !== undefined && one !== other;
};

/** The unknowns that what is asked reaches through what holds. */
export const reachedBy = (width: number, equations: readonly Equation[], from: readonly Equation[]): Uint8Array => {
  const parents = Int32Array.from({ length: width }, (_, i) => i);
  const rootOf = (i: number): number => {
    while (parents[i] !== i) i = parents[i] = parents[parents[i]!]!;
    return i;
  };
  const unknowns = ({ of }: Equation): readonly number[] => of.flatMap(({ at }) => at);
  for (const equation of equations) {
    const [first, ...rest] = unknowns(equation);
    for (const one of rest) parents[rootOf(one)] = rootOf(first!);
  }
  const roots = new Set(from.flatMap(unknowns).map(rootOf));
  return Uint8Array.from({ length: width }, (_, i) => (roots.has(rootOf(i)) ? 1 : 0));
};
