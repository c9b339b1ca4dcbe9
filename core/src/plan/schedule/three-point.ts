import { normalCdf } from '../../shared';

/** Least, most likely and most; any unit, all the same. */
export interface ThreePoint {
  readonly least: number;
  readonly likely: number;
  readonly most: number;
}

/**
 * Mean and variance of a three-point estimate.
 *
 *   mean = (o + 4 m + p) / 6      variance = ((p − o) / 6)²
 *
 * @source Hillier & Lieberman, Introduction to Operations Research, PERT three-estimate approach
 * @example
 * threePoint({ least: 2, likely: 3.5, most: 8 }); // => { mean: 4, variance: 1 }
 */
export const threePoint = ({ least, likely, most }: ThreePoint): { readonly mean: number; readonly variance: number } => ({
  mean: (least + 4 * likely + most) / 6,
  variance: ((most - least) / 6) ** 2,
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
export const betaShape = ({ least, likely, most }: ThreePoint): { readonly alpha: number; readonly beta: number } => ({
  alpha: 1 + (4 * (likely - least)) / (most - least),
  beta: 1 + (4 * (most - likely)) / (most - least),
});
