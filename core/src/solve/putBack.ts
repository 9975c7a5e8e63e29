import { entitiesOf } from "../drawing/drawing.ts";
import { reshaped, type Entity } from "../drawing/entity.ts";
import { arcBetween, pieceRadius, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { linAt, type Lin, type Spot } from "./lin.ts";
import type { Edge, Model } from "./model.ts";

/** A bulge is looked for so many units in the last place about it, for the radius to be read as called. */
const ULPS = 24;

/** What moved less than this part of the size stays to the bit. */
const STAYED = 1e-13;

/** What unknowns are called outright: lengths in the job's unit, by the unknown. */
export type Called = ReadonlyMap<number, number>;

/**
 * The entities that differ where the unknowns do, in the drawing's coordinates. What did not move keeps its numbers to
 * the bit; a radius that is called is that number.
 */
export const entitiesAt = (model: Model, x: ArrayLike<number>, called: Called): readonly Entity[] => {
  const { drawing, origin, size, start } = model;
  const moved = (lin: Lin): boolean => lin.at.some((i) => Math.abs(x[i]! - start[i]!) > STAYED);
  const place = (spot: Spot, was: Point): Point => ({
    x: lenOr(spot.x, was.x, origin.x),
    y: lenOr(spot.y, was.y, origin.y),
  });
  const lenOr = (lin: Lin, was: number, from: number): number => (moved(lin) ? from + size * linAt(lin, x) : was);
  const lengthOf = (lin: Lin): number => called.get(lin.at[0] ?? -1) ?? size * linAt(lin, x);

  /** The bulge of an edge between two places as they are now. */
  const bulgeNow = (edge: Edge, a: Point, b: Point): number => {
    const { arc, piece } = edge;
    if (!arc) return piece.bulge;
    const centre = { x: origin.x + size * linAt(arc.centre.x, x), y: origin.y + size * linAt(arc.centre.y, x) };
    const { bulge } = arcBetween(a, b, centre, arc.sweep > 0);
    const wanted = called.get(arc.radius.at[0] ?? -1);
    return wanted === undefined ? bulge : readAs({ a, b, bulge }, wanted);
  };
  const edgeMoved = ({ a, b, arc }: Edge): boolean =>
    [a.x, a.y, b.x, b.y, ...(arc ? [arc.centre.x, arc.centre.y, arc.radius] : [])].some(moved);

  const out: Entity[] = [];
  for (const entity of entitiesOf(drawing)) {
    const next = ((): Entity | undefined => {
      switch (entity.kind) {
        case "point": {
          const spot = model.cornerOf(entity.id, "");
          return spot && reshaped(entity, { kind: "point", at: place(spot, entity.at) });
        }
        case "circle": {
          const round = model.roundOf({ id: entity.id });
          if (!round || ![round.centre.x, round.centre.y, round.radius].some(moved)) return undefined;
          const radius = moved(round.radius) ? lengthOf(round.radius) : entity.radius;
          return reshaped(entity, { kind: "circle", centre: place(round.centre, entity.centre), radius });
        }
        case "piece": {
          const edge = model.edgeOf({ id: entity.id });
          if (!edge || !edgeMoved(edge)) return undefined;
          const [a, b] = [place(edge.a, entity.a), place(edge.b, entity.b)];
          return reshaped(entity, { kind: "piece", a, b, bulge: bulgeNow(edge, a, b) });
        }
        case "chain": {
          const edges = entity.vertices.map(({ id }) => model.edgeOf({ id: entity.id, vertex: id }));
          if (!edges.some((edge) => edge && edgeMoved(edge))) return undefined;
          const places = entity.vertices.map(({ at, id }) => place(model.cornerOf(entity.id, id)!, at));
          const vertices = entity.vertices.map((vertex, i) => {
            const edge = edges[i];
            const next = places[(i + 1) % places.length]!;
            const bulge = edge && edgeMoved(edge) ? bulgeNow(edge, places[i]!, next) : vertex.bulge;
            return { ...vertex, at: places[i]!, bulge };
          });
          return reshaped(entity, { ...entity, vertices });
        }
        default:
          return undefined;
      }
    })();
    if (next && differs(entity, next)) out.push(next);
  }
  return out;
};

/** The bulge near by at which a piece's radius is read as called; the nearest to that where none is. */
const readAs = (piece: Piece, wanted: number): number => {
  const step = Math.abs(piece.bulge) * Number.EPSILON;
  let best = piece.bulge;
  let off = Infinity;
  for (let k = 0; k <= 2 * ULPS && off > 0; k++) {
    const bulge = piece.bulge + (k % 2 === 0 ? -k / 2 : (k + 1) / 2) * step;
    const miss = Math.abs(pieceRadius({ ...piece, bulge }) - wanted);
    if (miss < off) [best, off] = [bulge, miss];
  }
  return best;
};

const differs = (p: Entity, q: Entity): boolean => JSON.stringify(p) !== JSON.stringify(q);
