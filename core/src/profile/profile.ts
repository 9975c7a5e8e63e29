import Flatbush from "flatbush";
import { enclosedArea } from "../contour/chainMeasure.ts";
import { enclosesNothing, joinRuns, runPieces, type Ends } from "../contour/joining.ts";
import { nestingDepths } from "../contour/nesting.ts";
import { cutEntities, layerOf, type Drawing } from "../drawing/drawing.ts";
import type { Entity } from "../drawing/entity.ts";
import type { CutRole } from "../drawing/layer.ts";
import type { Bounds } from "../geometry/bounds.ts";
import { circleArea, circleHalves, circleLength } from "../geometry/circle.ts";
import { pieceLength, piecesBounds, type Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import type { Id } from "../numeric/id.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import { isSmoothShape, shapePieces } from "../shape/kinds.ts";

/**
 * A free end of an open chain, with the nearest other free end where there is one, and on which other layer that lies.
 */
export type OpenEnd = {
  readonly at: Point;
  readonly gap?: {
    readonly to: Point;
    readonly distance: number;
    readonly apart?: { readonly layer: string; readonly ids: readonly Id[] };
  };
};

/** Something that closes: a closed chain, a circle, or loose pieces that meet all round (`joined` false). */
export type Contour = {
  readonly closed: true;
  readonly ids: readonly Id[];
  readonly joined: boolean;
  readonly circle?: { readonly centre: Point; readonly radius: number };
  readonly pieces: readonly Piece[];
  /** What its layer says it is; where that leaves it to the nesting, what follows from the depth. */
  readonly role: "outside" | "inside" | "mark";
  readonly depth: number;
  /** Without sign. */
  readonly area: number;
  readonly length: number;
  readonly lines: number;
  readonly arcs: number;
  readonly bounds: Bounds;
};

/** Something with two free ends, or a loose branch. */
export type OpenChain = {
  readonly closed: false;
  /** The name of the layer that it lies on. */
  readonly layer: string;
  readonly ids: readonly Id[];
  readonly pieces: readonly Piece[];
  readonly ends: readonly OpenEnd[];
  readonly length: number;
  readonly lines: number;
  readonly arcs: number;
  readonly bounds: Bounds;
};

export type Profile = {
  readonly contours: readonly Contour[];
  readonly open: readonly OpenChain[];
  /** Open chains on layers of marks, which need not close. */
  readonly marks: readonly Omit<OpenChain, "ends">[];
  /** Ellipses and free curves: they must become arcs before they can be cut. */
  readonly smooth: readonly Id[];
};

/** A contour while it is made out: its depth and its role come last. */
type Unsorted = Omit<Contour, "depth" | "role"> & { depth: number; role: Contour["role"] };

type OpenRun = Ends & { readonly entity: Entity; readonly pieces: readonly Piece[] };

const counts = (pieces: readonly Piece[]): { lines: number; arcs: number } => {
  const arcs = pieces.filter(({ bulge }) => bulge !== 0).length;
  return { lines: pieces.length - arcs, arcs };
};

/**
 * What the drawing holds to cut or mark: contours, outermost and largest first, each with its nesting depth and the
 * role that follows from it, and what is open, with its free ends and gaps. Loose pieces that meet within `joinWithin`
 * are taken together. Lengths in the job's unit. With `among`, only of those entities.
 */
export const profileOf = (
  drawing: Drawing,
  joinWithin = RESOLUTION,
  among: Iterable<Entity> = cutEntities(drawing),
): Profile => {
  const closed: Unsorted[] = [];
  const roles = new Map<Id, CutRole>();
  const smooth: Id[] = [];
  const loose = new Map<Id, OpenRun[]>();
  for (const entity of among) {
    const asked = layerOf(drawing, entity.layer)?.role;
    if (asked && asked !== "profile") roles.set(entity.id, asked);
    if (isSmoothShape(entity)) {
      smooth.push(entity.id);
      continue;
    }
    if (entity.kind === "circle") {
      const pieces = circleHalves(entity);
      const { centre, radius } = entity;
      closed.push({
        closed: true,
        ids: [entity.id],
        joined: true,
        circle: { centre, radius },
        pieces,
        area: circleArea(entity),
        length: circleLength(entity),
        lines: 0,
        arcs: 0,
        bounds: piecesBounds(pieces)!,
        depth: 0,
        role: "mark",
      });
      continue;
    }
    const pieces = shapePieces(entity) ?? [];
    if (pieces.length === 0) continue;
    if (entity.kind === "chain" && entity.closed) closed.push(contourOf([entity.id], true, pieces));
    else {
      const part: OpenRun = { entity, pieces, a: pieces[0]!.a, b: pieces.at(-1)!.b };
      void (loose.get(entity.layer)?.push(part) ?? loose.set(entity.layer, [part]));
    }
  }

  const open: Omit<OpenChain, "ends">[] = [];
  for (const parts of loose.values()) {
    for (const run of joinRuns(parts, joinWithin)) {
      const ids = run.links.map(({ part }) => parts[part]!.entity.id);
      const pieces = runPieces(run, (part) => parts[part]!.pieces);
      if (run.closed && !enclosesNothing(pieces)) closed.push(contourOf(ids, false, pieces));
      else {
        const length = pieces.reduce((sum, piece) => sum + pieceLength(piece), 0);
        open.push({
          closed: false,
          layer: layerOf(drawing, parts[run.links[0]!.part]!.entity.layer)?.name ?? "",
          ids,
          pieces,
          length,
          ...counts(pieces),
          bounds: piecesBounds(pieces)!,
        });
      }
    }
  }

  // things of one contour lie on one layer
  const askedOf = ({ ids }: { ids: readonly Id[] }): CutRole | undefined => roles.get(ids[0]!);
  const isMark = (one: { ids: readonly Id[] }): boolean => askedOf(one) === "mark";
  const cut = closed.filter((contour) => !isMark(contour));
  const depths = nestingDepths(cut.map(({ pieces }) => pieces));
  cut.forEach((contour, i) => {
    const asked = askedOf(contour);
    contour.depth = depths[i]!;
    contour.role = asked === "outside" || asked === "inside" ? asked : contour.depth % 2 === 0 ? "outside" : "inside";
  });
  const contours: Contour[] = [...cut, ...closed.filter(isMark)];
  contours.sort((p, q) => p.depth - q.depth || q.area - p.area || p.ids[0]! - q.ids[0]!);
  return { contours, open: withGaps(open.filter((chain) => !isMark(chain))), marks: open.filter(isMark), smooth };
};

const contourOf = (ids: readonly Id[], joined: boolean, pieces: readonly Piece[]): Unsorted => ({
  closed: true,
  ids,
  joined,
  pieces,
  area: Math.abs(enclosedArea(pieces)),
  length: pieces.reduce((sum, piece) => sum + pieceLength(piece), 0),
  ...counts(pieces),
  bounds: piecesBounds(pieces)!,
  depth: 0,
  role: "mark",
});

/**
 * Each open chain with its two free ends and how far the nearest other free end is; a lone piece has no gap to itself.
 */
const withGaps = (chains: readonly Omit<OpenChain, "ends">[]): readonly OpenChain[] => {
  if (chains.length === 0) return [];
  const ends = chains.flatMap(({ pieces }) => [pieces[0]!.a, pieces.at(-1)!.b]);
  const tree = new Flatbush(ends.length);
  for (const { x, y } of ends) tree.add(x, y, x, y);
  tree.finish();
  return chains.map((chain, i) => {
    const lone = chain.pieces.length === 1;
    const endOf = (own: number): OpenEnd => {
      const at = ends[own]!;
      const [other] = tree.neighbors(at.x, at.y, 1, Infinity, (j) => j !== own && !(lone && j >> 1 === i));
      if (other === undefined) return { at };
      const { layer, ids } = chains[other >> 1]!;
      const gap = { to: ends[other]!, distance: distance(at, ends[other]!) };
      return { at, gap: layer === chain.layer ? gap : { ...gap, apart: { layer, ids } } };
    };
    return { ...chain, ends: [endOf(2 * i), endOf(2 * i + 1)] };
  });
};
