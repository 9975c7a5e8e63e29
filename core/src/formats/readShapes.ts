import type { ReleasedContour } from "../checks/releasePlan.ts";
import type { Circle } from "../geometry/circle.ts";
import { halfAxes, type Ellipse } from "../geometry/ellipse.ts";
import { transformFree, type Free } from "../geometry/free.ts";
import { arcBetween, arcOf, transformPiece, type Piece } from "../geometry/piece.ts";
import { cross, dot, leftOf, norm, times, add, type Point } from "../geometry/point.ts";
import { scaleOf, transformPoint, transformVector, type Similarity } from "../geometry/transform.ts";
import type { Unit } from "../numeric/units.ts";
import { SAME_SIZE, WHOLE_TURN_WITHIN } from "../numeric/tolerance.ts";

/** The geometry of something read from a file. */
export type ReadGeometry =
  | ({ readonly kind: "circle" } & Circle)
  | { readonly kind: "chain"; readonly closed: boolean; readonly pieces: readonly Piece[] }
  | ({ readonly kind: "piece" } & Piece)
  | ({ readonly kind: "ellipse" } & Ellipse)
  | ({ readonly kind: "free" } & Free)
  | { readonly kind: "point"; readonly at: Point };

/** A shape read from a file, on its layer; colour and line style as the file names them, where it does. */
export type ReadShape = ReadGeometry & { readonly layer: string; readonly colour?: string; readonly line?: string };

/** A whole contour, or an open run, in one. */
export type WholeShape = Extract<ReadShape, { readonly kind: "circle" | "chain" }>;

export type ReadLayer = {
  readonly name: string;
  readonly colour?: string;
  /** Switched off or frozen. */
  readonly hidden: boolean;
  readonly locked: boolean;
};

/** A dimension read from a file, by the points that define it. */
export type ReadDimension = {
  readonly kind: "linear" | "radius" | "diameter" | "angle" | "angle of lines" | "ordinate";
  /**
   * Linear: from and to. Radius: centre and a point on it. Diameter: two points across. Angle: corner and two places;
   * of lines two points on either. Ordinate: from where it counts, and the place.
   */
  readonly places: readonly Point[];
  /** Where its line, or its text, stands. */
  readonly line: Point;
  readonly text?: Point;
  /** Linear: its direction, radians; along its places where it says nothing. Ordinate: 0 for x. */
  readonly angle?: number;
  /** It bears a text of its own instead of the number. */
  readonly worded: boolean;
};

/** A text with its leaders, read from a file. */
export type ReadLeader = {
  /** What they point to. */
  readonly tips: readonly Point[];
  /** Where the first of them ends at the text. */
  readonly line: Point;
  readonly text: string;
};

export type ReadDrawing = {
  /** The unit of the shapes; undefined when the file names none. */
  readonly unit: Unit | undefined;
  /** The unit that the file names where it was converted to `unit`, such as cm. */
  readonly convertedFrom?: string;
  readonly layers: readonly ReadLayer[];
  readonly shapes: readonly ReadShape[];
  /** Dimensions by their points, in the shapes' unit; told, and put on what was read when it is opened. */
  readonly dimensions?: readonly ReadDimension[];
  /** Leaders that have words, in the shapes' unit; as dimensions are. */
  readonly leaders?: readonly ReadLeader[];
  /** Geometry that was met and could not be read, by its type: it is missing. */
  readonly leftOut: Readonly<Record<string, number>>;
  /** Masks of an SVG that were not applied: what they would hide is there. */
  readonly clips?: number;
  /** What was met and is nothing that is cut, by its type. */
  readonly aside: Readonly<Record<string, number>>;
  /** Things that the file marks as invisible: told, not read. */
  readonly invisible: number;
  /** Texts of any kind: told, not read. */
  readonly texts: number;
  /** Things whose numbers make no geometry: left out, with the line (or place) at which each begins. */
  readonly degenerate: readonly { readonly type: string; readonly line: number }[];
};

/** What a file holds that is nothing that is cut, by its type, where dimensions and leaders are put on nothing. */
export const notCut = ({ aside, dimensions = [], leaders = [] }: ReadDrawing): Readonly<Record<string, number>> => {
  const all = { ...aside };
  if (dimensions.length > 0) all.DIMENSION = (all.DIMENSION ?? 0) + dimensions.length;
  if (leaders.length > 0) all.LEADER = (all.LEADER ?? 0) + leaders.length;
  return all;
};

/** Contours that are released, as shapes to be written. */
export const releasedShapes = (contours: readonly ReleasedContour[]): readonly WholeShape[] =>
  contours.map((contour) => (contour.kind === "circle" ? contour : { ...contour, kind: "chain" }));

/** A file of more curves than this is refused: far beyond any sheet, and what can be tidied in the memory at hand. */
export const MOST_CURVES = 2_000_000;

/** An affine map as the matrix [[a, c, e], [b, d, f]]; arcs stay arcs only where it is a similarity. */
export type Affine = Similarity;

/** True where a transform keeps shapes: it scales alike in all directions, within rounding. */
export const isSimilarity = ({ a, b, c, d }: Affine): boolean => {
  const size = Math.max(Math.abs(a), Math.abs(b), Math.abs(c), Math.abs(d));
  return (
    Math.abs(Math.hypot(a, b) - Math.hypot(c, d)) <= SAME_SIZE * size &&
    Math.abs(a * c + b * d) <= SAME_SIZE * size * size
  );
};

/**
 * A shape under an affine map. Unequal stretching makes ellipses of circles and arcs, and takes chains with arcs apart.
 */
export const placed = (m: Affine, shape: ReadGeometry): readonly ReadGeometry[] => {
  switch (shape.kind) {
    case "point":
      return [{ kind: "point", at: transformPoint(m, shape.at) }];
    case "free": {
      const { degree, knots, points, weights } = shape;
      const own = { degree, knots, points, ...(weights ? { weights } : {}) };
      return [{ kind: "free", ...transformFree(m, own) }];
    }
    case "ellipse":
      return [stretched(m, shape)];
    case "circle":
      return isSimilarity(m)
        ? [{ kind: "circle", centre: transformPoint(m, shape.centre), radius: shape.radius * scaleOf(m) }]
        : [
            stretched(m, {
              centre: shape.centre,
              major: { x: shape.radius, y: 0 },
              ratio: 1,
              from: 0,
              sweep: 2 * Math.PI,
            }),
          ];
    case "piece":
      return [placedPiece(m, shape)];
    case "chain": {
      if (isSimilarity(m) || shape.pieces.every(({ bulge }) => bulge === 0))
        return [{ kind: "chain", closed: shape.closed, pieces: shape.pieces.map((piece) => straightOrSame(m, piece)) }];
      return shape.pieces.map((piece) => placedPiece(m, piece));
    }
  }
};

const straightOrSame = (m: Affine, piece: Piece): Piece =>
  piece.bulge === 0
    ? { a: transformPoint(m, piece.a), b: transformPoint(m, piece.b), bulge: 0 }
    : transformPiece(m, piece);

const placedPiece = (m: Affine, piece: Piece): ReadGeometry => {
  const arc = arcOf(piece);
  if (!arc || isSimilarity(m)) return { kind: "piece", ...straightOrSame(m, piece) };
  const { centre, radius, from, sweep } = arc;
  return stretched(m, { centre, major: { x: radius, y: 0 }, ratio: 1, from, sweep });
};

/**
 * An ellipse under an affine map, again by its longer half axis. Source: the axes of the conic with the conjugate half
 * diameters u and v lie at half the angle atan2(2 u·v, u·u - v·v) (Rytz's construction in numbers; derived here).
 */
const stretched = (m: Affine, { centre, major, ratio, from, sweep }: Ellipse): ReadGeometry => {
  const [u, v] = [transformVector(m, major), transformVector(m, times(leftOf(major), ratio))];
  const turn = Math.atan2(2 * dot(u, v), dot(u, u) - dot(v, v)) / 2;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const [p, q] = [add(times(u, c), times(v, s)), add(times(v, c), times(u, -s))];
  const side = cross(p, q) < 0 ? -1 : 1;
  const [first, second] = norm(p) >= norm(q) ? [p, q] : [q, p];
  const swapped = first === q;
  // with the axes swapped the eccentric angle starts a quarter turn later, and the side turns
  const shift = swapped ? turn + Math.PI / 2 : turn;
  const made: Ellipse = {
    centre: transformPoint(m, centre),
    major: first,
    ratio: norm(first) === 0 ? 1 : norm(second) / norm(first),
    from: side * (from - shift),
    sweep: side * sweep,
  };
  const round = Math.abs(made.ratio - 1) <= SAME_SIZE;
  if (!round) return { kind: "ellipse", ...made };
  const radius = halfAxes(made)[0];
  if (Math.abs(made.sweep) >= 2 * Math.PI - WHOLE_TURN_WITHIN) return { kind: "circle", centre: made.centre, radius };
  const start = Math.atan2(made.major.y, made.major.x) + made.from;
  const at = (angle: number): Point => ({
    x: made.centre.x + radius * Math.cos(angle),
    y: made.centre.y + radius * Math.sin(angle),
  });
  return { kind: "piece", ...arcBetween(at(start), at(start + made.sweep), made.centre, made.sweep > 0) };
};
