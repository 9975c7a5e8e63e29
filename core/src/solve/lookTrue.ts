import { measureCallout } from "../callouts/measure.ts";
import { calloutsOf, type Drawing } from "../drawing/drawing.ts";
import type { Edit } from "../drawing/edit.ts";
import type { Entity } from "../drawing/entity.ts";
import type { Ref } from "../drawing/ref.ts";
import { changedShapes, type ChangedShapes } from "../look/changedShapes.ts";
import type { Refusal } from "../numeric/outcome.ts";
import type { Point } from "../geometry/point.ts";
import type { Id } from "../numeric/id.ts";
import { relationKey, type TrueAsk } from "./ask.ts";
import type { Relation, RelationKind } from "./holds/relation.ts";
import { isStrong, makeTrue, trueLimit } from "./makeTrue.ts";

/** A relation as it can be told to a page: what it is and between what, by its key. */
export type Held = {
  readonly key: string;
  readonly kind: RelationKind;
  readonly refs: readonly Ref[];
  readonly strong: boolean;
};

/** How many things of each kind an edit moves. */
export type Moves = {
  readonly corners: number;
  readonly holes: number;
  readonly arcs: number;
  readonly points: number;
};

/** What making numbers true would do, as plain data: worked out in a worker and shown before it is taken. */
export type TrueLook =
  | {
      readonly ok: true;
      readonly edit: Edit;
      readonly shapes: ChangedShapes;
      readonly moves: Moves;
      readonly holds: readonly Held[];
      readonly letGo: readonly Held[];
      readonly rough: boolean;
      /** Callouts that would hold no more. */
      readonly lost: readonly Id[];
      /** Asked callouts whose number is far from what is drawn, so that it may have been misread. */
      readonly doubtful: readonly Id[];
    }
  | {
      readonly ok: false;
      readonly refusal: Refusal;
      readonly rough: boolean;
      readonly odds?: { readonly callouts: readonly Id[]; readonly relations: readonly Held[] };
      /** How far towards the number that is refused it goes. */
      readonly limit?: number;
    };

const heldOf = (relation: Relation): Held => ({
  key: relationKey(relation),
  kind: relation.kind,
  refs: relation.refs,
  strong: isStrong(relation),
});

const movesOf = (edit: Edit): Moves => {
  const moves = { corners: 0, holes: 0, arcs: 0, points: 0 };
  const apart = (p: Point | undefined, q: Point | undefined): boolean => p?.x !== q?.x || p?.y !== q?.y;
  for (const { table, before, after } of edit.changes) {
    if (table !== "entity") continue;
    const [was, now] = [before as Entity, after as Entity];
    if (now.kind === "circle") moves.holes++;
    if (now.kind === "point") moves.points++;
    if (was.kind === "piece" && now.kind === "piece") {
      moves.corners += Number(apart(was.a, now.a)) + Number(apart(was.b, now.b));
      if (was.bulge !== now.bulge) moves.arcs++;
    }
    if (was.kind === "chain" && now.kind === "chain")
      now.vertices.forEach(({ at, bulge }, i) => {
        if (apart(was.vertices[i]?.at, at)) moves.corners++;
        if (was.vertices[i]?.bulge !== bulge) moves.arcs++;
      });
  }
  return moves;
};

/**
 * A number that differs from what is drawn by more than this part of it may have been misread: what a hand is off by in
 * a sketch that was scaled.
 */
const DOUBTFUL = { radius: 0.09, diameter: 0.09, centres: 0.02, length: 0.16 } as const;

/** Which of some callouts call a number far from what is drawn roughly. */
export const doubtfulOf = (drawing: Drawing, ids: readonly Id[]): readonly Id[] =>
  calloutsOf(drawing).flatMap((callout) => {
    const part = (DOUBTFUL as Readonly<Partial<Record<string, number>>>)[callout.kind];
    if (part === undefined || !ids.includes(callout.id)) return [];
    const state = measureCallout(drawing, callout);
    return state.state !== "not placed" && Math.abs(state.by) > part * callout.value ? [callout.id] : [];
  });

/** Sets of callouts that can't all be true; none where nothing fights. */
export const oddsIn = (look: TrueLook | undefined): readonly (readonly Id[])[] =>
  look && !look.ok && look.odds ? [look.odds.callouts] : [];

/** Looks what making numbers true would come to; refused with how far a single number goes. */
export const lookTrue = (drawing: Drawing, ask: TrueAsk): TrueLook => {
  const answer = makeTrue(drawing, ask);
  if (answer.ok) {
    const { edit, holds, letGo, lost, rough } = answer.value;
    return {
      ok: true,
      edit,
      shapes: changedShapes(edit),
      moves: movesOf(edit),
      holds: holds.map(heldOf),
      letGo: letGo.map(heldOf),
      rough,
      lost,
      doubtful: rough ? doubtfulOf(drawing, ask.callouts) : [],
    };
  }
  const { refusal, odds, rough = false } = answer;
  if (odds) return { ok: false, refusal, rough, odds: { ...odds, relations: odds.relations.map(heldOf) } };
  const limit = refusal.code === "true-nothing-told" ? undefined : trueLimit(drawing, ask);
  return { ok: false, refusal, rough, ...(limit === undefined ? {} : { limit }) };
};
