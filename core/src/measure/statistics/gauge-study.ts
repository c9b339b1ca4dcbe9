import { fDistribution } from '../../shared';

/** Readings of a crossed study: every person measures every part the same number of times. [person][part][trial] */
export type Crossed = readonly (readonly (readonly number[])[])[];

interface VarianceLine {
  readonly source: 'part' | 'person' | 'part × person' | 'repeat';
  readonly sumOfSquares: number;
  readonly freedom: number;
  readonly meanSquare: number;
  readonly f: number | null;
  /** chance of such an F or a larger one without any effect */
  readonly p: number | null;
}

export interface GaugeResult {
  readonly persons: number;
  readonly parts: number;
  readonly trials: number;
  readonly table: readonly VarianceLine[];
  /** the interaction is not certain and its line was joined with that of the repeats */
  readonly isPooled: boolean;
  /** standard deviations, in the unit of the readings */
  readonly repeatability: number;
  readonly reproducibility: number;
  readonly gauge: number;
  readonly partToPart: number;
  readonly total: number;
  /** gauge over total */
  readonly gaugeFraction: number;
  /** kinds of part the measurement tells apart */
  readonly distinct: number;
  readonly verdict: 'good' | 'usable with care' | 'not good enough' | 'not known';
  /** why nothing can be said of it, or what to be careful of, in words; empty when nothing is in the way */
  readonly doubts: readonly string[];
}

/** Above this the interaction is joined with the repeats. */
const POOL_ABOVE_P = 0.25;
const GOOD_BELOW = 0.1;
const USABLE_BELOW = 0.3;

/**
 * Repeatability and reproducibility of a measurement by the analysis of variance of a crossed study.
 *
 *   σ²(repeat) = MSᵣ     σ²(person × part) = (MSᵢ − MSᵣ)/r     σ²(person) = (MSₚ − MSᵢ)/(n r)     σ²(part) = (MS − MSᵢ)/(k r)
 *   gauge² = repeat² + person² + (person × part)²     distinct = ⌊√2 part / gauge⌋
 *
 * A variance that comes out below zero is zero. Where the interaction is not certain (p > 0.25) it is joined with the
 * repeats. Good below 10 % of the total, usable with care below 30 %.
 *
 * @throws RangeError when persons, parts or trials are fewer than two, or not all alike
 * @source Montgomery, Design and Analysis of Experiments, two-factor random model; limits as in common use
 */
export const gaugeResult = (readings: Crossed): GaugeResult => {
  const [k, n, r] = [readings.length, readings[0]?.length ?? 0, readings[0]?.[0]?.length ?? 0];
  if (!(k >= 2 && n >= 2 && r >= 2)) throw new RangeError('a crossed study needs two persons, two parts and two trials at least');
  const isWhole = readings.every(
    (byPart) => byPart.length === n && byPart.every((trials) => trials.length === r && trials.every(Number.isFinite)),
  );
  if (!isWhole) throw new RangeError('every person must have measured every part the same number of times');
  const all = readings.flat(2);
  const doubts = doubtsOf(readings);
  const grand = meanOf(all);
  const squares = (means: readonly number[], each: number): number => each * means.reduce((sum, m) => sum + (m - grand) ** 2, 0);
  const persons = readings.map((byPart) => meanOf(byPart.flat()));
  const parts = Array.from({ length: n }, (_, j) => meanOf(readings.flatMap((byPart) => byPart[j]!)));
  const cells = readings.flatMap((byPart) => byPart.map(meanOf));
  const [ssPerson, ssPart] = [squares(persons, n * r), squares(parts, k * r)];
  const ssBoth = squares(cells, r) - ssPerson - ssPart;
  const ssTotal = all.reduce((sum, x) => sum + (x - grand) ** 2, 0);
  const ssRepeat = ssTotal - ssPerson - ssPart - ssBoth;
  const [dfPart, dfPerson, dfBoth, dfRepeat] = [n - 1, k - 1, (n - 1) * (k - 1), n * k * (r - 1)];
  const [msPart, msPerson, msBoth, msRepeat] = [ssPart / dfPart, ssPerson / dfPerson, ssBoth / dfBoth, ssRepeat / dfRepeat];
  const line = (
    source: VarianceLine['source'],
    sumOfSquares: number,
    freedom: number,
    over: readonly [number, number] | null,
  ): VarianceLine => {
    const meanSquare = sumOfSquares / freedom;
    // nothing over nothing is no ratio
    const f = over === null || !(over[0] > 0) ? null : meanSquare / over[0];
    return { source, sumOfSquares, freedom, meanSquare, f, p: f === null || over === null ? null : 1 - fDistribution(f, freedom, over[1]) };
  };
  const table = [
    line('part', ssPart, dfPart, [msBoth, dfBoth]),
    line('person', ssPerson, dfPerson, [msBoth, dfBoth]),
    line('part × person', ssBoth, dfBoth, [msRepeat, dfRepeat]),
    line('repeat', ssRepeat, dfRepeat, null),
  ];
  const isPooled = (table[2]!.p ?? 1) > POOL_ABOVE_P;
  const error = isPooled ? (ssBoth + ssRepeat) / (dfBoth + dfRepeat) : msRepeat;
  const between = isPooled ? error : msBoth;
  const both = isPooled ? 0 : Math.max(0, (msBoth - msRepeat) / r);
  const person = Math.max(0, (msPerson - between) / (n * r));
  const part = Math.max(0, (msPart - between) / (k * r));
  const gauge = Math.sqrt(error + person + both);
  const total = Math.sqrt(error + person + both + part);
  const gaugeFraction = total > 0 ? gauge / total : 0;
  const distinct = gauge > 0 ? Math.floor((Math.SQRT2 * Math.sqrt(part)) / gauge) : 0;
  return {
    ...{ persons: k, parts: n, trials: r, table, isPooled, gauge, total, gaugeFraction },
    repeatability: Math.sqrt(error),
    reproducibility: Math.sqrt(person + both),
    partToPart: Math.sqrt(part),
    distinct,
    verdict: verdictOf(gaugeFraction, distinct, doubts.length > 0 || !(gauge > 0)),
    doubts,
  };
};

/** Fewer kinds of part than this told apart are no measurement of parts. @source AIAG, Measurement Systems Analysis, from memory */
const LEAST_DISTINCT = 2;

const verdictOf = (gaugeFraction: number, distinct: number, isDoubtful: boolean): GaugeResult['verdict'] => {
  if (isDoubtful) return 'not known';
  if (distinct < LEAST_DISTINCT) return 'not good enough';
  return gaugeFraction < GOOD_BELOW ? 'good' : gaugeFraction < USABLE_BELOW ? 'usable with care' : 'not good enough';
};

/** More repeats without any scatter than this, and the steps of the reading hide it. @source AIAG, Measurement Systems Analysis: a quarter of the ranges zero, from memory */
const MOST_ZERO_RANGES = 0.25;

/** What keeps a study from saying anything: readings all alike, repeats without scatter, steps too coarse. */
const doubtsOf = (readings: Crossed): readonly string[] => {
  // twelve digits: what a sum of decimals leaves behind the last digit is no reading
  const rounded = readings.map((byPart) => byPart.map((trials) => trials.map((x) => Number(x.toPrecision(12)))));
  const all = rounded.flat(2);
  if (all.every((x) => x === all[0]))
    return ['All readings are the same: nothing can be said of parts or of the measuring. Take a finer instrument'];
  const ranges = rounded.flatMap((byPart) => byPart.map((trials) => Math.max(...trials) - Math.min(...trials)));
  const zero = ranges.filter((range) => range === 0).length / ranges.length;
  if (zero === 1)
    return ['Repeats differ nowhere: the steps of the reading hide how well it repeats. Take a finer instrument, or read more digits'];
  const values = [...new Set(all)].sort((a, b) => a - b);
  const step = Math.min(...values.slice(1).map((x, i) => x - values[i]!));
  return zero > MOST_ZERO_RANGES
    ? [
        `In ${Math.round(zero * 100)} of 100 repeats nothing differs: steps of ${Number(step.toPrecision(3))} are too coarse for what scatters here. Take a finer instrument, or read more digits`,
      ]
    : [];
};

const meanOf = (values: readonly number[]): number => values.reduce((sum, x) => sum + x, 0) / values.length;

/** Average range to standard deviation: 1/d₂ for so many trials, as printed to four digits. */
const K1: Readonly<Record<number, number>> = { 2: 0.8862, 3: 0.5908 };
/** 1/d₂* for the range of so many person means. */
const K2: Readonly<Record<number, number>> = { 2: 0.7071, 3: 0.5231 };
/** 1/d₂* for the range of so many part means. */
const K3: Readonly<Record<number, number>> = {
  2: 0.7071,
  3: 0.5231,
  4: 0.4467,
  5: 0.403,
  6: 0.3742,
  7: 0.3534,
  8: 0.3375,
  9: 0.3249,
  10: 0.3146,
};

interface RangeStudy {
  readonly averageRange: number;
  readonly personRange: number;
  readonly partRange: number;
  readonly repeatability: number;
  readonly reproducibility: number;
  readonly gauge: number;
  readonly partToPart: number;
  readonly total: number;
  readonly distinct: number;
}

/**
 * The same by average and range, which hides the interaction but can be worked out by hand. Null where the constants are
 * not tabled: two or three persons and trials, two to ten parts.
 *
 *   EV = R̄ K₁     AV² = (X̄diff K₂)² − EV²/(n r)     PV = Rₚ K₃
 *
 * @source AIAG, Measurement Systems Analysis, average and range method; constants from memory, confirmed by the published example
 */
export const rangeStudy = (readings: Crossed): RangeStudy | null => {
  const [k, n, r] = [readings.length, readings[0]?.length ?? 0, readings[0]?.[0]?.length ?? 0];
  const [k1, k2, k3] = [K1[r], K2[k], K3[n]];
  if (k1 === undefined || k2 === undefined || k3 === undefined) return null;
  const rangeOf = (values: readonly number[]): number => Math.max(...values) - Math.min(...values);
  const averageRange = meanOf(readings.flatMap((byPart) => byPart.map(rangeOf)));
  const personRange = rangeOf(readings.map((byPart) => meanOf(byPart.flat())));
  const partRange = rangeOf(Array.from({ length: n }, (_, j) => meanOf(readings.flatMap((byPart) => byPart[j]!))));
  const repeatability = averageRange * k1;
  const reproducibility = Math.sqrt(Math.max(0, (personRange * k2) ** 2 - repeatability ** 2 / (n * r)));
  const gauge = Math.hypot(repeatability, reproducibility);
  const partToPart = partRange * k3;
  return {
    ...{ averageRange, personRange, partRange, repeatability, reproducibility, gauge, partToPart },
    total: Math.hypot(gauge, partToPart),
    distinct: gauge > 0 ? Math.floor((Math.SQRT2 * partToPart) / gauge) : 0,
  };
};
