import { median } from 'd3-array';
import { studentQuantile } from '../../shared';

interface MeanReading {
  readonly n: number;
  readonly mean: number;
  /** experimental standard deviation of a single reading; null from one reading */
  readonly s: number | null;
  /** standard uncertainty of the mean, with that of the instrument */
  readonly u: number;
  /** half-width of the interval that covers the mean with 95 %; null from one reading */
  readonly half95: number | null;
}

/**
 * Mean of repeated readings of one thing, and its standard uncertainty.
 *
 *   s² = Σ (xᵢ − x̄)² / (n − 1)     u² = s²/n + u(instrument)²
 *   95 %: t(ν) u,  ν = u⁴ / ((s²/n)² / (n − 1)), cut to a whole number (Welch–Satterthwaite; the instrument's u is taken as known)
 *
 * What the instrument itself is uncertain by does not go away by reading it again, so that it is added after the mean.
 *
 * @param readings at least one, all in one unit
 * @param instrumentU standard uncertainty of the instrument, in the same unit
 * @throws RangeError without a reading or with one that is no number
 * @source JCGM 100:2008 (GUM), 4.2.1 to 4.2.3 and 5.1.2; coverage G.4.1
 * @example
 * meanReading([5.007, 4.994, 5.005, 4.99, 4.999], 0).mean; // => 4.999
 */
export const meanReading = (readings: readonly number[], instrumentU: number): MeanReading => {
  const n = readings.length;
  if (n === 0 || !readings.every(Number.isFinite)) throw new RangeError('a mean needs readings that are numbers');
  const mean = readings.reduce((sum, x) => sum + x, 0) / n;
  if (n === 1) return { n, mean, s: null, u: instrumentU, half95: null };
  const s = Math.sqrt(readings.reduce((sum, x) => sum + (x - mean) ** 2, 0) / (n - 1));
  const typeA = s / Math.sqrt(n);
  const u = Math.hypot(typeA, instrumentU);
  const freedom = typeA > 0 ? Math.floor((n - 1) * (u / typeA) ** 4) : Number.POSITIVE_INFINITY;
  return { n, mean, s, u, half95: studentQuantile(0.975, Math.min(freedom, MOST_FREEDOM)) * u };
};

/** From so many degrees of freedom on Student's t is the normal distribution to five digits. */
const MOST_FREEDOM = 1e6;

/** Readings farther from the others than chance explains, by their place: a slip of the pen, a wrong unit. */
const MOST_DEVIATIONS = 3.5;
const MAD_TO_SIGMA = 0.6745;

/**
 * Places of readings that do not belong to the others: modified z-score above 3.5 from the median. The readings are taken to
 * scatter by no less than the instrument is uncertain: one step of it among readings that are else alike is no slip.
 *
 * @param instrumentU standard uncertainty of the instrument, in the unit of the readings; 0 where it is not known
 * @source B. Iglewicz, D. Hoaglin, How to detect and handle outliers (1993)
 */
export const outliers = (readings: readonly number[], instrumentU = 0): readonly number[] => {
  if (readings.length < 4) return [];
  const middle = median(readings)!;
  const spread = Math.max(
    MAD_TO_SIGMA * instrumentU,
    median(readings, (x) => Math.abs(x - middle))!,
  );
  if (!(spread > 0)) return readings.flatMap((x, i) => (x === middle ? [] : [i]));
  return readings.flatMap((x, i) => ((MAD_TO_SIGMA * Math.abs(x - middle)) / spread > MOST_DEVIATIONS ? [i] : []));
};
