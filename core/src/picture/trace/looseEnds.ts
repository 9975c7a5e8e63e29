import { entitiesOf, type Drawing } from "../../drawing/drawing.ts";
import type { Piece } from "../../geometry/piece.ts";
import { distance, equalPoint, type Point } from "../../geometry/point.ts";
import { pointGrid } from "../../geometry/pointGrid.ts";
import type { Id } from "../../numeric/id.ts";
import { RESOLUTION } from "../../numeric/tolerance.ts";

/** Those of some places at which no other of them is. */
const alone = (places: readonly Point[]): readonly Point[] => {
  const grid = pointGrid(places, RESOLUTION);
  return places.filter((place, i) => {
    let met = false;
    grid.near(place, (k) => {
      if (k !== i && distance(places[k]!, place) <= RESOLUTION) met = true;
    });
    return !met;
  });
};

/** The ends of what lies on a layer that meet no other's. */
const looseEnds = (drawing: Drawing, layer: Id): readonly Point[] =>
  alone(
    [...entitiesOf(drawing)].flatMap((one) => {
      if (one.layer !== layer) return [];
      if (one.kind === "piece") return [one.a, one.b];
      return one.kind === "chain" && !one.closed ? [one.vertices[0]!.at, one.vertices.at(-1)!.at] : [];
    }),
  );

/**
 * Pieces whose loose ends go to the nearest loose end on a layer no farther than a reach: there they meet what was
 * accepted before, wherever that has moved since. A piece that this would make nothing of stays as it is.
 */
export const ontoLooseEnds = (
  drawing: Drawing,
  layer: Id,
  pieces: readonly Piece[],
  reach: number,
): readonly Piece[] => {
  const targets = reach > 0 ? looseEnds(drawing, layer) : [];
  if (targets.length === 0) return pieces;
  const grid = pointGrid(targets, reach);
  const loose = new Set(alone(pieces.flatMap(({ a, b }) => [a, b])));
  const moved = (end: Point): Point => {
    let best = end;
    let near = reach;
    if (loose.has(end))
      grid.near(end, (k) => {
        const far = distance(targets[k]!, end);
        if (far <= near) [best, near] = [targets[k]!, far];
      });
    return best;
  };
  return pieces.map((piece) => {
    const [a, b] = [moved(piece.a), moved(piece.b)];
    return equalPoint(a, b) ? piece : { ...piece, a, b };
  });
};
