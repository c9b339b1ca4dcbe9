import { normalCdf } from '../../shared';

/** Optimistic, most likely and pessimistic; any unit, all the same. */
export interface ThreePoint {
  readonly optimistic: number;
  readonly mostLikely: number;
  readonly pessimistic: number;
}

/**
 * Mean and variance of a three-point estimate.
 *
 *   mean = (o + 4 m + p) / 6      variance = ((p − o) / 6)²
 *
 * @source Hillier & Lieberman, Introduction to Operations Research, PERT three-estimate approach
 * @example
 * threePoint({ optimistic: 2, mostLikely: 3.5, pessimistic: 8 }); // => { mean: 4, variance: 1 }
 */
export const threePoint = ({ optimistic, mostLikely, pessimistic }: ThreePoint): { readonly mean: number; readonly variance: number } => ({
  mean: (optimistic + 4 * mostLikely + pessimistic) / 6,
  variance: ((pessimistic - optimistic) / 6) ** 2,
});

/**
 * Chance that a sum of many independent times is at most `by`, taken as normal.
 *
 * @example
 * chanceBy(44, 9, 47); // => 0.8413
 */
export const chanceBy = (mean: number, variance: number, by: number): number => {
  if (!(variance > 0)) return by >= mean ? 1 : 0;
  return normalCdf(by, mean, Math.sqrt(variance));
};

/** Shape of the beta distribution with the mean and the spread of a three-point estimate. */
export const betaShape = ({ optimistic, mostLikely, pessimistic }: ThreePoint): { readonly alpha: number; readonly beta: number } => ({
  alpha: 1 + (4 * (mostLikely - optimistic)) / (pessimistic - optimistic),
  beta: 1 + (4 * (pessimistic - mostLikely)) / (pessimistic - optimistic),
});
