import { median } from 'd3-array';
import type { CheckReading, Reading } from '../../record';

/** One check of an instrument against something known, as a share of it. */
export interface ChartPoint {
  readonly reading: CheckReading;
  /** (value − nominal)/nominal */
  readonly errorFraction: number;
  readonly isOut: boolean;
}

/** A stretch in which an instrument was off: from the last good check before it to the first good one after it. */
export interface OffStretch {
  /** ISO 8601; null: there was no good check before */
  readonly from: string | null;
  readonly to: string | null;
  readonly firstSeen: string;
  /** on average over its checks */
  readonly errorFraction: number;
}

export interface InstrumentChart {
  readonly instrument: string;
  readonly serial: string;
  readonly quantity: CheckReading['quantity'];
  /** in the order of time */
  readonly points: readonly ChartPoint[];
  /** standard deviation of a check in control, as a share, and what it was taken from */
  readonly sFraction: number;
  readonly sFrom: 'moving ranges' | 'assumed';
  /** ± 3 s around no error */
  readonly limitFraction: number;
  /** exponentially weighted average of the errors, λ = 0.2, point by point, with its own limits */
  readonly weighted: readonly { readonly value: number; readonly limit: number }[];
  readonly off: readonly OffStretch[];
}

/** From so many checks on, the scatter is taken from them. */
const ENOUGH = 5;
/** A check of a bench instrument scatters by so much where too few are known. Assumed. */
const ASSUMED_S = 0.0003;
/** Median of the range of two normal values, in standard deviations: √2 · 0.674490 */
const MEDIAN_RANGE = 0.953873;
const LIMIT = 3;
/** Weight of the newest error, and limits of the average in its standard deviations. @source Montgomery, λ = 0.2, L = 2.962 */
const [LAMBDA, WIDTH] = [0.2, 2.962];

const scatter = (errors: readonly number[], leastS: number): Pick<InstrumentChart, 'sFraction' | 'sFrom'> => {
  if (errors.length < ENOUGH) return { sFraction: Math.max(ASSUMED_S, leastS), sFrom: 'assumed' };
  const ranges = errors.slice(1).map((error, i) => Math.abs(error - errors[i]!));
  return { sFraction: Math.max((median(ranges) ?? 0) / MEDIAN_RANGE, leastS, ASSUMED_S / 10), sFrom: 'moving ranges' };
};

const offStretches = (points: readonly ChartPoint[]): readonly OffStretch[] => {
  const off: OffStretch[] = [];
  let out: ChartPoint[] = [];
  let lastGood: string | null = null;
  const close = (to: string | null): void => {
    if (out.length === 0) return;
    const errorFraction = out.reduce((sum, point) => sum + point.errorFraction, 0) / out.length;
    off.push({ from: lastGood, to, firstSeen: out[0]!.reading.takenAt, errorFraction });
    out = [];
  };
  for (const point of points) {
    if (point.isOut) out.push(point);
    else {
      close(point.reading.takenAt);
      lastGood = point.reading.takenAt;
    }
  }
  close(null);
  return off;
};

/**
 * Control charts of the instruments of a study from their check readings: individual errors against ± 3 s, s from the median of the
 * moving ranges, which a jump does not widen.
 *
 *   s = median |eᵢ − eᵢ₋₁| / 0.954     zᵢ = λ eᵢ + (1 − λ) zᵢ₋₁, limits ± L s √(λ/(2 − λ) (1 − (1 − λ)²ⁱ))
 *
 * @source Shewhart individuals chart; EWMA: Roberts 1959
 */
export const instrumentCharts = (checks: readonly CheckReading[]): readonly InstrumentChart[] => {
  const bySerial = new Map<string, CheckReading[]>();
  for (const check of checks) {
    const key = `${check.serial} ${check.quantity}`;
    bySerial.set(key, [...(bySerial.get(key) ?? []), check]);
  }
  return [...bySerial.values()].map((own) => {
    const ordered = own.sort((a, b) => (a.takenAt < b.takenAt ? -1 : a.takenAt > b.takenAt ? 1 : 0));
    const errors = ordered.map(({ value, nominal }) => (value - nominal) / nominal);
    const leastS = Math.max(...ordered.map(({ nominal, nominalU }) => nominalU / nominal));
    const { sFraction, sFrom } = scatter(errors, leastS);
    const limitFraction = LIMIT * sFraction;
    const points = ordered.map((reading, i) => ({ reading, errorFraction: errors[i]!, isOut: Math.abs(errors[i]!) > limitFraction }));
    let average = 0;
    const weighted = errors.map((error, i) => {
      average = LAMBDA * error + (1 - LAMBDA) * average;
      return { value: average, limit: WIDTH * sFraction * Math.sqrt((LAMBDA / (2 - LAMBDA)) * (1 - (1 - LAMBDA) ** (2 * (i + 1)))) };
    });
    const { instrument, serial, quantity } = ordered.at(-1)!;
    return { instrument, serial, quantity, points, sFraction, sFrom, limitFraction, weighted, off: offStretches(points) };
  });
};

/** A reading that was taken while its instrument was off, and by how much it reads high. */
export interface DoubtfulReading {
  readonly reading: Reading;
  readonly chart: InstrumentChart;
  readonly errorFraction: number;
}

/** Readings that were taken while their instrument was off; what was corrected by a later reading of the same field is left out. */
export const doubtfulReadings = (readings: readonly Reading[], charts: readonly InstrumentChart[]): readonly DoubtfulReading[] => {
  const off = charts.filter((chart) => chart.off.length > 0);
  if (off.length === 0) return [];
  const latest = new Map<string, Reading>();
  for (const reading of readings) {
    const key = `${reading.aboutId} ${reading.aboutField ?? ''} ${reading.quantity}`;
    const before = latest.get(key);
    if (!before || before.takenAt < reading.takenAt) latest.set(key, reading);
  }
  return [...latest.values()].flatMap((reading): readonly DoubtfulReading[] => {
    const chart = off.find((one) => one.serial === reading.serial && one.quantity === reading.quantity);
    const stretch = chart?.off.find(({ from, to }) => (from === null || reading.takenAt > from) && (to === null || reading.takenAt < to));
    return chart && stretch ? [{ reading, chart, errorFraction: stretch.errorFraction }] : [];
  });
};
