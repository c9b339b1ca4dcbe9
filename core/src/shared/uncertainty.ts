/**
 * Standard uncertainty of a reading that is only known to its last digit: half a step either way, equally likely.
 *
 *   u = step / √12
 *
 * @param step the smallest step shown, in the unit of the value
 * @source JCGM 100:2008 (GUM), 4.3.7 and F.2.2.1, rectangular distribution
 * @example resolutionU(1) // => 0.2886751345948129
 */
export const resolutionU = (step: number): number => step / Math.sqrt(12);

/** Coverage factor: differences are told from nothing at this many standard uncertainties. @source JCGM 100:2008 (GUM), 6.3, k = 2 for about 95 % */
export const COVERAGE_FACTOR = 2;

/**
 * The expanded uncertainty U = k u, k = 2: what stands behind “±”, typed or shown. Records keep the standard uncertainty u.
 *
 * @param u standard uncertainty, in any unit
 * @source JCGM 100:2008 (GUM), 6.2.1
 */
export const expandedU = (u: number): number => COVERAGE_FACTOR * u;

/** The standard uncertainty of one that was typed or stated behind “±”. */
export const standardU = (expanded: number): number => expanded / COVERAGE_FACTOR;

/**
 * Relative standard uncertainty given to a mass marked as an estimate with `~` and nothing else said.
 * Assumed by this product: a practised hand judges a mass to about one part in ten.
 */
export const ESTIMATE_RELATIVE_U = 0.1;
