/**
 * The two tolerances, and nothing else that decides how near is near.
 *
 * Resolution is what the algorithms take for one point; the join tolerance is the drafter's and says what tidying may
 * mend.
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

/**
 * The residual asked of every construction: 1e-9 of the size of what is involved plus 8 units in the last place of the
 * largest coordinate.
 */
export const residualBound = (size: number, largest: number): number =>
  1e-9 * size + 8 * 2 ** (Math.floor(Math.log2(Math.max(largest, Number.MIN_VALUE))) - 52);
