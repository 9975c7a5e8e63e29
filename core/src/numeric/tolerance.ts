/**
 * How near is near, for places, sizes and directions alike, and nowhere else. Resolution is what the algorithms take
 * for one point; the join tolerance is the drafter's and says what tidying may mend; the rest says what rounding
 * leaves.
 */

/**
 * Two points closer than this are one point to the algorithms (units of the job), for drawings within 1e5 of the
 * origin.
 */
export const RESOLUTION = 1e-7;

/** Resolution for coordinates up to `extent`: relative beyond 1e5, because doubles thin out there. */
export const resolutionFor = (extent: number): number => Math.max(RESOLUTION, 1e-12 * extent);

/** Tidying's default reach, in the job's own unit. Common practice: about a third of a thin cutter's kerf error. */
export const JOIN_TOLERANCE = { mm: 0.05, in: 0.002 } as const;

/** Where arcs stand for a smooth curve, in areas and offsets, they lie within this part of the join tolerance. */
export const ARC_PART = 0.2;

/** A callout closer to its value than this is true (units of the job, or degrees for an angle). */
export const TRUE_WITHIN = 1e-6;

/**
 * A reference names the same place as before within this: an end that was welded moved by a resolution at most, its
 * neighbour as well.
 */
export const SAME_PLACE = 4 * RESOLUTION;

/** Ends closer than this are joined already: tidying finds nothing there. */
export const JOINED = 1e-6;

/** Places in the keys of findings are rounded to this, so that they stay the same when something else is mended. */
export const KEY_STEP = 1e-4;

/** Join tolerances below this are far smaller than what is drawn: points are welded by the finer way. */
export const FINE_TOLERANCE = 1e-4;

/** Pieces without length, and distances that are as good as equal: far under the resolution. */
export const NO_LENGTH = 1e-9;

/** Less than this is not left of a piece that an offset cuts back at its corners. */
export const LEAST_LEFT = 1e-6;

/** Vertices of an offset closer than this to both carriers are as good as they get. */
export const ON_CARRIER = 1e-11;

/** Sizes closer than this part of them are one: scales, ends that close a path, a width found by halving. */
export const SAME_SIZE = 1e-9;

/** A number as near as this to a whole one is that: counts and degrees that went through radians. */
export const WHOLE_WITHIN = 1e-9;

/** What rounding leaves of a result of some steps, as a part of what went in: a determinant under it is none. */
export const ROUNDING = 1e-12;

/** A coefficient as small as this beside the others is none. */
export const NEGLIGIBLE = 1e-14;

/** A discriminant, a difference of two products, as near to 0 as this part of them is 0: a touch. */
export const DISCRIMINANT = 1e-11;

/** A search whose step is this part of the size has settled; Newton's next would be far under rounding. */
export const SETTLED = 1e-13;

/** The same of a parameter from 0 to 1. */
export const SETTLED_PARAMETER = 1e-15;

/** A step that changes no digit of what it is added to. */
export const LAST_DIGIT = 1e-16;

/** A step of more than this part, when a search should only polish, strays: it began at a double root. */
export const STRAYS = 1e-3;

/** Arcs flatter than this (bulge) are worked with by their chord. */
export const FLAT_BULGE = 1e-3;

/** Arcs as flat as this (bulge) are lines: they turn by four times as much, well under what is smooth. */
export const STRAIGHT_BULGE = 1e-9;

/** Bends (1 / radius) smaller than this are straight. */
export const LEAST_BEND = 1e-9;

/** Directions (radians) that a fit takes for one: well under what is smooth. */
export const SAME_TANGENT = 1e-7;

/**
 * A turn (radians) under this is smooth: joined at the bisector an offset is off by turn² / 8, 5e-11 of its distance.
 */
export const SMOOTH_TURN = 2e-5;

/** What neighbours may lie off their shared end, for it to be taken for smooth: far under what is told apart. */
export const OFF_SMOOTH = 1e-10;

/** Directions farther apart than this (radians) are a corner of a curve that is smooth elsewhere. */
export const KINK = 1e-4;

/** Curves whose directions differ by less than this (sine) where they meet touch. */
export const TOUCHES_WITHIN = 1e-4;

/** So far (parameter) beside a root it is looked whether a curve stays on one side. */
export const BESIDE = 1e-4;

/** Directions closer than this (radians) run on without a corner, or leave a place together: copies of one edge. */
export const RUNS_ON = 2e-3;

/**
 * How an SVG agrees with what was written: browsers hold coordinates in single precision (2^-24) and make cubic curves
 * of arcs. Shapes as parts of their size, places as parts of their distance from the origin; a bulge, worked out from
 * radius and chord, near half a turn only to the root of a double's precision.
 */
export const SVG_AGREES = { shapes: 1e-3, places: 1e-6, bulges: 1e-7 } as const;

/** Angles in a file, written in degrees and read in radians, agree to this (degrees): some roundings of 360. */
export const ANGLES_AGREE = 1e-12;

/** Directions closer than this (sine) are parallel: at 1e5 their meeting would lie beyond any drawing. */
export const PARALLEL = 1e-12;

/** Directions closer than this (sine or radians) are one: what rounding leaves of a direction that was meant. */
export const SAME_DIRECTION = 1e-9;

/** Directions closer than this (sine) are tangent: well under what a drafter or a machine tells apart. */
export const TANGENT_WITHIN = 1e-6;

/** Parameters of a curve (0 to 1) closer than this are one place on it. */
export const SAME_PARAMETER = 1e-9;

/** A sweep (radians) that lacks less than this of a whole turn is one. */
export const WHOLE_TURN_WITHIN = 1e-12;

/** The bulge above which an arc turns by more than half a turn, rounding left aside. */
export const HALF_TURN_BULGE = 1 + 1e-6;

/**
 * The residual asked of every construction: 1e-9 of the size of what is involved plus 8 units in the last place of the
 * largest coordinate.
 */
export const residualBound = (size: number, largest: number): number =>
  1e-9 * size + 8 * 2 ** (Math.floor(Math.log2(Math.max(largest, Number.MIN_VALUE))) - 52);
