import type { Model } from "../model.ts";
import { aligned, radii, sameCentres } from "./centres.ts";
import { directions, onGuides } from "./directions.ts";
import { mirrors } from "./mirror.ts";
import { offsetPairs } from "./offsets.ts";
import { boltCircles } from "./patterns.ts";
import { quarters } from "./quarters.ts";
import { PRIORITIES, type Finder, type Meant, type Relation } from "./relation.ts";
import { touching } from "./touching.ts";

export * from "./relation.ts";

const FINDERS: readonly Finder[] = [
  touching,
  sameCentres,
  directions,
  onGuides,
  boltCircles,
  offsetPairs,
  radii,
  aligned,
  quarters,
  mirrors,
];

export const strongestFirst = (relations: readonly Relation[]): readonly Relation[] =>
  relations.toSorted((p, q) => PRIORITIES[q.kind] - PRIORITIES[p.kind]);

/** What holds in a drawing, the strongest first; each finder looks by an index, so this grows as n log n. */
export const relationsIn = (model: Model, meant: Meant): readonly Relation[] =>
  strongestFirst(FINDERS.flatMap((find) => find(model, meant)));
