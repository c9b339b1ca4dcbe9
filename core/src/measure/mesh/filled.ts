/** Volume of a box by its sides, m³. */
export const boxVolumeM3 = ([a, b, c]: readonly [number, number, number]): number => a * b * c;

/**
 * How much of what surrounds it a part fills, 0…1; null where it encloses nothing, or what surrounds it holds nothing.
 *
 * @example
 * filledFraction(2e-6, boxVolumeM3([0.01, 0.02, 0.02])) // => 0.5
 */
export const filledFraction = (volumeM3: number | null, aroundM3: number): number | null =>
  volumeM3 === null || !(aroundM3 > 0) ? null : volumeM3 / aroundM3;
