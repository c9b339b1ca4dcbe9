/**
 * How much of what surrounds it a part fills, 0…1; null where it encloses nothing, or what surrounds it holds nothing.
 *
 * @example
 * filledFraction(2e-6, 4e-6) // => 0.5
 */
export const filledFraction = (volumeM3: number | null, aroundM3: number): number | null =>
  volumeM3 === null || !(aroundM3 > 0) ? null : volumeM3 / aroundM3;
