import { placeOf } from "../attach/places.ts";
import { chainPiece } from "../contour/chain.ts";
import { entitiesOf, entityOf, isLayout, layerOf, drawingBounds, type Drawing } from "../drawing/drawing.ts";
import type { Entity } from "../drawing/entity.ts";
import { DATUM, type Ref } from "../drawing/ref.ts";
import { pieceCentre, pieceRadius, sweepOf, type Piece } from "../geometry/piece.ts";
import { distance, type Point } from "../geometry/point.ts";
import { pointGrid } from "../geometry/pointGrid.ts";
import { unitAt } from "../numeric/angle.ts";
import { greatest } from "../numeric/greatest.ts";
import type { Id } from "../numeric/id.ts";
import { resolutionFor } from "../numeric/tolerance.ts";
import { apart, beside, type Equation } from "./equations.ts";
import { combined, combinedSpots, constant, spot, unknown, type Lin, type Spot } from "./lin.ts";

/** What an unknown is, by which it is weighed. */
export type Sort = "corner" | "centre" | "radius" | "arc centre" | "arc radius" | "help";

/** A straight or round piece, by its ends and, of an arc, its centre and radius. */
export type Edge = {
  readonly ref: Ref;
  readonly a: Spot;
  readonly b: Spot;
  readonly arc?: { readonly centre: Spot; readonly radius: Lin; readonly sweep: number };
  /** An arc so flat that its bulge is kept instead: its centre is no place to work with. */
  readonly flat?: true;
  readonly layout: boolean;
  /** As it was drawn, in the model's coordinates. */
  readonly piece: Piece;
};

/** A circle of its own. */
export type Round = {
  readonly ref: Ref;
  readonly centre: Spot;
  readonly radius: Lin;
  readonly layout: boolean;
  readonly at: Point;
  readonly size: number;
};

/** An endless line; it stays where it is. */
export type Guide = { readonly ref: Ref; readonly at: Point; readonly angle: number };

/** Where two edges of one outline, or loose ones that meet, share an end. */
export type Joint = {
  readonly one: Edge;
  readonly other: Edge;
  /** The end that they share, and that it is the end of the first and the start of the other, where that is so. */
  readonly at: Spot;
  readonly from: "a" | "b";
  readonly to: "a" | "b";
};

/**
 * A drawing as unknowns: every corner, every circle's and arc's centre and radius, in coordinates about the middle of
 * the drawing whose size is 1. What lies on locked layers, endless lines, ellipses and free curves are numbers.
 */
export type Model = {
  readonly drawing: Drawing;
  readonly origin: Point;
  readonly size: number;
  readonly start: number[];
  readonly sorts: Sort[];
  readonly edges: readonly Edge[];
  readonly rounds: readonly Round[];
  readonly guides: readonly Guide[];
  readonly joints: readonly Joint[];
  /** Arcs end on their circles, and what places need to be told. */
  readonly structure: Equation[];
  /** How near is the same, in the model's coordinates. */
  readonly near: number;
  /** By how much bulges may be off because a file rounded them. */
  readonly bulgeOff: number;
  /** What a reference names: a place, a straight line, a circle; undefined for what can't be told by unknowns. */
  readonly spotOf: (ref: Ref) => Spot | undefined;
  readonly lineOf: (ref: Ref) => readonly [Spot, Spot] | undefined;
  readonly roundOf: (ref: Ref) => { readonly centre: Spot; readonly radius: Lin } | undefined;
  readonly edgeOf: (ref: Ref) => Edge | undefined;
  /** An unknown of its own that is nothing drawn: a length, or where something lies along an axis. */
  readonly help: (value: number, axis?: "x" | "y") => Lin;
  readonly helpSpot: (at: Point) => Spot;
  /** Which unknowns say where something lies along x and along y; -1 where it lies along the other axis alone. */
  readonly places: readonly (readonly [x: number, y: number])[];
  /** The corner of a chain by its vertex, or a loose piece's end. */
  readonly cornerOf: (id: Id, which: Id | "a" | "b" | "") => Spot | undefined;
};

/** Arcs are too flat to have a centre when their radius is so many times their chord. */
const FLAT = 1000;

const key = (id: Id, vertex: Id | string = ""): string => `${id} ${vertex}`;

export const modelOf = (drawing: Drawing): Model => {
  const bounds = drawingBounds(drawing);
  const origin = bounds ? { x: (bounds.minX + bounds.maxX) / 2, y: (bounds.minY + bounds.maxY) / 2 } : { x: 0, y: 0 };
  const size = bounds ? Math.hypot(bounds.maxX - bounds.minX, bounds.maxY - bounds.minY) || 1 : 1;
  const extent = bounds ? greatest(Object.values(bounds).map(Math.abs)) : 0;
  const inModel = (p: Point): Point => ({ x: (p.x - origin.x) / size, y: (p.y - origin.y) / size });
  const [start, sorts]: [number[], Sort[]] = [[], []];
  const structure: Equation[] = [];
  const fresh = (value: number, sort: Sort): Lin => {
    start.push(value);
    sorts.push(sort);
    return unknown(start.length - 1);
  };
  const places: (readonly [number, number])[] = [];
  const freshSpot = (p: Point, sort: Sort): Spot => {
    const made = { x: fresh(p.x, sort), y: fresh(p.y, sort) };
    places.push([start.length - 2, start.length - 1]);
    return made;
  };
  const isFixed = (entity: Entity): boolean => layerOf(drawing, entity.layer)?.locked === true;

  const corners = new Map<string, Spot>();
  const edges = new Map<string, Edge>();
  const rounds = new Map<string, Round>();
  const guides: Guide[] = [];
  const joints: Joint[] = [];
  const loose: { readonly at: Point; readonly edge: Edge; readonly end: "a" | "b" }[] = [];

  const addEdge = (entity: Entity, piece: Piece, a: Spot, b: Spot, ref: Ref): Edge => {
    const own: Piece = { a: inModel(piece.a), b: inModel(piece.b), bulge: piece.bulge };
    const base = { ref, a, b, layout: isLayout(drawing, entity), piece: own };
    const edge = ((): Edge => {
      const centre = pieceCentre(own);
      if (!centre) return base;
      const radius = pieceRadius(own);
      if (radius > FLAT * distance(own.a, own.b)) return { ...base, flat: true };
      const fixed = isFixed(entity);
      const arc = {
        centre: fixed ? spot(centre.x, centre.y) : freshSpot(centre, "arc centre"),
        radius: fixed ? constant(radius) : fresh(radius, "arc radius"),
        sweep: sweepOf(own.bulge),
      };
      if (!fixed) for (const end of [a, b]) structure.push(apart(end, arc.centre, arc.radius));
      return { ...base, arc };
    })();
    edges.set(key(ref.id, ref.vertex), edge);
    return edge;
  };

  // loose ends that coincide are one corner
  const ends: { readonly at: Point; readonly entity: Entity; readonly which: string }[] = [];
  for (const entity of entitiesOf(drawing)) {
    if (isFixed(entity)) continue;
    if (entity.kind === "piece")
      for (const which of ["a", "b"] as const) ends.push({ at: inModel(entity[which]), entity, which });
    if (entity.kind === "chain" && !entity.closed && entity.vertices.length > 0)
      for (const vertex of [entity.vertices[0]!, entity.vertices.at(-1)!])
        ends.push({ at: inModel(vertex.at), entity, which: String(vertex.id) });
  }
  const near = Math.max(resolutionFor(extent) / size, 1e-13);
  const grid = pointGrid(
    ends.map(({ at }) => at),
    near,
  );
  ends.forEach(({ at, entity, which }, i) => {
    let first = i;
    grid.near(at, (k) => {
      if (k < first && distance(ends[k]!.at, at) <= near) first = k;
    });
    const own = ends[first]!;
    const shared = first < i ? corners.get(key(own.entity.id, own.which)) : undefined;
    corners.set(key(entity.id, which), shared ?? freshSpot(at, "corner"));
  });

  for (const entity of entitiesOf(drawing)) {
    const fixed = isFixed(entity);
    const corner = (at: Point, which: string | Id): Spot => {
      const known = corners.get(key(entity.id, which));
      if (known) return known;
      const place = inModel(at);
      const made = fixed ? spot(place.x, place.y) : freshSpot(place, "corner");
      corners.set(key(entity.id, which), made);
      return made;
    };
    switch (entity.kind) {
      case "point":
        corner(entity.at, "");
        break;
      case "endless":
        guides.push({ ref: { id: entity.id }, at: inModel(entity.through), angle: entity.angle });
        break;
      case "circle": {
        const at = inModel(entity.centre);
        rounds.set(key(entity.id), {
          ref: { id: entity.id },
          centre: fixed ? spot(at.x, at.y) : freshSpot(at, "centre"),
          radius: fixed ? constant(entity.radius / size) : fresh(entity.radius / size, "radius"),
          layout: isLayout(drawing, entity),
          at,
          size: entity.radius / size,
        });
        break;
      }
      case "piece": {
        const edge = addEdge(entity, entity, corner(entity.a, "a"), corner(entity.b, "b"), { id: entity.id });
        for (const end of ["a", "b"] as const) loose.push({ at: edge.piece[end], edge, end });
        break;
      }
      case "chain": {
        const spots = entity.vertices.map(({ at, id }) => corner(at, id));
        const made: Edge[] = [];
        for (let i = 0; i < entity.vertices.length; i++) {
          const piece = chainPiece(entity, i);
          if (!piece) continue;
          const ref = { id: entity.id, vertex: entity.vertices[i]!.id };
          made.push(addEdge(entity, piece, spots[i]!, spots[(i + 1) % spots.length]!, ref));
        }
        for (let i = 0; i < made.length; i++) {
          const next = made[i + 1] ?? (entity.closed && made.length > 1 ? made[0] : undefined);
          if (next) joints.push({ one: made[i]!, other: next, at: next.a, from: "b", to: "a" });
        }
        if (!entity.closed && made.length > 0) {
          loose.push({ at: made[0]!.piece.a, edge: made[0]!, end: "a" });
          loose.push({ at: made.at(-1)!.piece.b, edge: made.at(-1)!, end: "b" });
        }
        break;
      }
      default:
        break;
    }
  }

  // loose pieces join where just two of them meet
  const byCorner = new Map<Lin, (typeof loose)[number][]>();
  for (const one of loose) {
    const spotHere = one.edge[one.end].x;
    byCorner.set(spotHere, [...(byCorner.get(spotHere) ?? []), one]);
  }
  for (const [one, other, ...more] of byCorner.values()) {
    if (!other || more.length > 0 || one!.edge === other.edge) continue;
    joints.push({ one: one!.edge, other: other.edge, at: one!.edge[one!.end], from: one!.end, to: other.end });
  }

  const edgeOf = (ref: Ref): Edge | undefined => edges.get(key(ref.id, ref.vertex));
  const lineOf = (ref: Ref): readonly [Spot, Spot] | undefined => {
    const edge = edgeOf(ref);
    if (edge) return edge.piece.bulge === 0 ? [edge.a, edge.b] : undefined;
    const entity = entityOf(drawing, ref.id);
    if (entity?.kind !== "endless") return undefined;
    const [at, way] = [inModel(entity.through), unitAt(entity.angle)];
    return [spot(at.x, at.y), spot(at.x + way.x, at.y + way.y)];
  };
  const roundOf: Model["roundOf"] = (ref) => rounds.get(key(ref.id)) ?? edgeOf(ref)?.arc;

  /** A place that hangs on two curves: told by help of its own, on both. */
  const onBoth = (refs: readonly Ref[], at: Point): Spot | undefined => {
    const place = freshSpot(inModel(at), "help");
    const told = refs.map((ref): Equation | undefined => {
      const line = lineOf(ref);
      if (line) return beside(line[0], line[1], place, constant(0));
      const round = roundOf(ref);
      return round && apart(place, round.centre, round.radius);
    });
    if (told.some((one) => !one)) return undefined;
    for (const one of told) structure.push(one!);
    return place;
  };

  const besideCorner = ({ id, vertex }: Ref): readonly Ref[] => {
    const chain = entityOf(drawing, id);
    if (chain?.kind !== "chain") return [];
    const count = chain.vertices.length;
    const i = chain.vertices.findIndex((one) => one.id === vertex);
    return [i - 1, i + 1].map((k) => ({ id, vertex: chain.vertices[(k + count) % count]!.id }));
  };

  const known = new Map<string, Spot | undefined>();
  const spotOf = (ref: Ref): Spot | undefined => {
    const name = JSON.stringify(ref);
    if (!known.has(name)) known.set(name, spotNow(ref));
    return known.get(name);
  };
  const spotNow = (ref: Ref): Spot | undefined => {
    const at = placeOf(drawing, ref);
    if (!at) return undefined;
    const still = (): Spot => {
      const { x, y } = inModel(at);
      return spot(x, y);
    };
    if (ref.id === DATUM.id) return still();
    const entity = entityOf(drawing, ref.id);
    if (!entity || entity.kind === "ellipse" || entity.kind === "free" || entity.kind === "endless")
      return ref.place && typeof ref.place === "object" && "crosses" in ref.place
        ? onBoth([ref, ref.place.crosses], at)
        : still();
    if (entity.kind === "point") return corners.get(key(entity.id, ""));
    const { place } = ref;
    if (place === undefined || place === "area") return undefined;
    if (place === "sharp") return onBoth(besideCorner(ref), at);
    if (typeof place === "object" && "crosses" in place) return onBoth([ref, place.crosses], at);
    const round = roundOf(ref);
    if (place === "centre") return round?.centre;
    if (typeof place === "object" && "quarter" in place && round) {
      const way = unitAt((place.quarter * Math.PI) / 2);
      const out: Spot = { x: combined(round.radius, NONE, way.x), y: combined(round.radius, NONE, way.y) };
      return combinedSpots(round.centre, out);
    }
    const edge = edgeOf(ref);
    if (!edge) {
      if (place === "start" && ref.vertex !== undefined) return corners.get(key(ref.id, ref.vertex));
      if (!round || typeof place !== "object" || !("along" in place)) return undefined;
      const way = unitAt(2 * Math.PI * place.along);
      return combinedSpots(round.centre, {
        x: combined(round.radius, NONE, way.x),
        y: combined(round.radius, NONE, way.y),
      });
    }
    if (place === "start") return edge.a;
    if (place === "end") return edge.b;
    const part = place === "middle" ? 0.5 : typeof place === "object" && "along" in place ? place.along : undefined;
    if (part === undefined) return undefined;
    if (!edge.arc) return combinedSpots(edge.a, edge.b, 1 - part, part);
    if (part !== 0.5) return undefined;
    // the middle of an arc: on it, as far from the one end as from the other
    const middle = freshSpot(inModel(at), "help");
    const far = fresh(distance(inModel(at), edge.piece.a), "help");
    structure.push(apart(middle, edge.arc.centre, edge.arc.radius));
    structure.push(apart(edge.a, middle, far), apart(edge.b, middle, far));
    return middle;
  };

  return {
    drawing,
    origin,
    size,
    start,
    sorts,
    edges: [...edges.values()],
    rounds: [...rounds.values()],
    guides,
    joints,
    structure,
    near,
    bulgeOff: 0,
    spotOf,
    lineOf,
    roundOf,
    edgeOf,
    help: (value, axis) => {
      const made = fresh(value, "help");
      if (axis) places.push(axis === "x" ? [start.length - 1, -1] : [-1, start.length - 1]);
      return made;
    },
    helpSpot: (at) => freshSpot(at, "help"),
    places,
    cornerOf: (id, which) => corners.get(key(id, which)),
  };
};

const NONE: Lin = constant(0);
