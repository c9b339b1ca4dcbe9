import type { InstrumentReading } from './instrument-reading';

/** A load whose reading was kept, as long as it was not seen to be lifted. */
export interface TakenLoad {
  readonly partId: string;
  /** how many lay on the scale together */
  readonly count: number;
  readonly valueKg: number;
}

/** Below this share of its range nothing lies on a scale. Assumed. */
const NOTHING_OF_MOST = 0.00002;

/** True while nothing lies on the scale, as far as its range lets it tell. @param most the most it weighs, kg */
export const isEmpty = ({ value }: Pick<InstrumentReading, 'value'>, most: number | null): boolean =>
  value !== null && value < (most ?? 1) * NOTHING_OF_MOST;

/**
 * What is left of a taken load after another reading: none once the scale stood empty or was set to nothing, or once it read less than half
 * of it: a scale that settles may not come to rest at nothing between two loads.
 */
export const watchLoad = (taken: TakenLoad | null, reading: Pick<InstrumentReading, 'value'>, most: number | null): TakenLoad | null =>
  taken !== null && (isEmpty(reading, most) || (reading.value !== null && reading.value < taken.valueKg / 2)) ? null : taken;

/**
 * Whether a reading is of the load that was taken already: it was never lifted, and it weighs the same.
 *
 *   |m − m₁| ≤ 2 √2 u
 *
 * @source JCGM 100:2008 (GUM), 5.1.2: the uncertainty of a difference of two readings
 */
export const isSameLoad = (taken: TakenLoad | null, { value, u }: Pick<InstrumentReading, 'value' | 'u'>): boolean =>
  taken !== null && value !== null && Math.abs(value - taken.valueKg) <= 2 * Math.SQRT2 * (u ?? 0) + 1e-9;
