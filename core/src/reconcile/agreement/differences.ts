import { deviation, mean } from 'd3-array';
import { studentQuantile } from '../../shared';

/** Differences between two readings of the same things. */
export interface Differences {
  readonly n: number;
  /** second − first, on average */
  readonly bias: number;
  /** standard deviation of a difference; 0 from one pair */
  readonly s: number;
  /** 95 % of differences lie between these */
  readonly low: number;
  readonly high: number;
  /** half widths of the 95 % intervals of the bias and of a limit */
  readonly biasWithin: number;
  readonly limitWithin: number;
}

/** Of a normal distribution, 95 % lie within so many standard deviations; to two places, as published. */
const Z95 = 1.96;

/**
 * Bias of a second reading against a first and its limits of agreement.
 *
 *   d̄ ± 1.96 s     s(d̄) = s/√n     s(limit) = s √(1/n + 1.96²/(2 (n − 1)))
 *
 * @param pairs first and second reading of each thing
 * @returns null from fewer than two pairs
 * @source Bland and Altman 1986 and 1999
 */
export const differencesOf = (pairs: readonly (readonly [number, number])[]): Differences | null => {
  const n = pairs.length;
  if (n < 2) return null;
  const apart = pairs.map(([first, second]) => second - first);
  const bias = mean(apart)!;
  const s = deviation(apart)!;
  const t = studentQuantile(0.975, n - 1);
  return {
    ...{ n, bias, s, low: bias - Z95 * s, high: bias + Z95 * s, biasWithin: (t * s) / Math.sqrt(n) },
    limitWithin: t * s * Math.sqrt(1 / n + Z95 ** 2 / (2 * (n - 1))),
  };
};
