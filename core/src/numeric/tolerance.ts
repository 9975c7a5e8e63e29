/**
 * How near is near, for places and directions alike. Resolution is what the algorithms take for one point; the join
 * tolerance is the drafter's and says what tidying may mend. Steps at which a root search stops, and what one format's
 * reader lets pass, stand where they are used, with their reason.
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

/** A callout closer to its value than this is true (units of the job, or degrees for an angle). */
export const TRUE_WITHIN = 1e-6;

/**
 * A reference names the same place as before within this: an end that was welded moved by a resolution at most, its
 * neighbour as well.
 */
export const SAME_PLACE = 4 * RESOLUTION;

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
