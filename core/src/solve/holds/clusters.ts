import { distance, type Point } from "../../geometry/point.ts";
import { pointGrid } from "../../geometry/pointGrid.ts";
import { pieceCentre, type Piece } from "../../geometry/piece.ts";
import type { Ref } from "../../drawing/ref.ts";
import { greatest } from "../../numeric/greatest.ts";
import { linAt, type Lin, type Spot } from "../lin.ts";
import type { Model } from "../model.ts";
import { exactly, type Meant } from "./relation.ts";

/** A circle or an arc, by its centre and its size now. */
export type RoundThing = {
  readonly ref: Ref;
  readonly centre: Spot;
  readonly radius: Lin;
  readonly at: Point;
  readonly size: number;
  readonly isArc: boolean;
  readonly layout: boolean;
  /** By how much its centre may be off because its bulge was rounded. */
  readonly off: number;
};

/** Circles and arcs about one centre, the circles first. */
export type Cluster = { readonly members: readonly RoundThing[]; readonly centre: Spot; readonly at: Point };

/** No centre is taken for off by more than this part of the size, however flat its arc. */
const MOST_OFF = 3e-4;

/** By how much the centre moves where the bulge is off by so much: its derivative, for the chord as it is. */
const centreOff = ({ a, b, bulge }: Piece, bulgeOff: number): number =>
  Math.min(MOST_OFF, ((distance(a, b) * (1 + bulge ** 2)) / (4 * bulge ** 2)) * bulgeOff);

/** Every circle and every arc that has a centre to work with. */
export const roundThings = (model: Model): readonly RoundThing[] => [
  ...model.rounds.map((one) => ({ ...one, isArc: false, off: 0 })),
  ...model.edges.flatMap(({ ref, arc, piece, layout }) =>
    arc
      ? [
          {
            ref,
            centre: arc.centre,
            radius: arc.radius,
            at: pieceCentre(piece)!,
            size: linAt(arc.radius, model.start),
            isArc: true,
            layout,
            off: centreOff(piece, model.bulgeOff),
          },
        ]
      : [],
  ),
];

/** In a rough drawing what is one inside the other, its centre no farther off than these parts, is about one centre. */
const [ROUGH_OF_SIZE, ROUGH_OF_RADIUS, ROUGH_OF_ARC] = [0.08, 0.3, 0.3];

/** One inside the other, the greater about it; or arcs of one circle. */
const isRoughlyAbout = (own: RoundThing, other: RoundThing, off: number): boolean =>
  own.size <= 0.9 * other.size
    ? off <= ROUGH_OF_RADIUS * other.size && (other.isArc || own.isArc || off + own.size < other.size)
    : own.isArc && other.isArc && off <= ROUGH_OF_ARC * own.size;

/** Round things by their centres. */
export const clustersOf = (model: Model, meant: Meant): readonly Cluster[] => {
  const things = roundThings(model);
  const reach = meant === "exact" ? exactly(model) : ROUGH_OF_SIZE;
  const grid = pointGrid(
    things.map(({ at }) => at),
    reach + 2 * Math.max(0, greatest(things.map(({ off }) => off))),
  );
  const leads = Int32Array.from(things, (_, i) => i);
  // the greatest first: what lies inside it joins it
  const order = things.map((_, i) => i).sort((p, q) => things[q]!.size - things[p]!.size || p - q);
  const done = new Uint8Array(things.length);
  for (const i of order) {
    done[i] = 1;
    const own = things[i]!;
    let best = Infinity;
    grid.near(own.at, (k) => {
      const other = things[k]!;
      const off = distance(own.at, other.at);
      if (!done[k] || k === i || off > reach + own.off + other.off || off >= best) return;
      if (meant === "rough" && !isRoughlyAbout(own, other, off)) return;
      best = off;
      leads[i] = leads[k]!;
    });
  }
  const groups = new Map<number, RoundThing[]>();
  for (const i of order) {
    const lead = leads[i]!;
    groups.set(lead, [...(groups.get(lead) ?? []), things[i]!]);
  }
  return [...groups.values()].map((members) => {
    const sorted = [...members].sort((p, q) => Number(p.isArc) - Number(q.isArc));
    return { members: sorted, centre: sorted[0]!.centre, at: sorted[0]!.at };
  });
};
