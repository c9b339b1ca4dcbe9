import { studentCdf } from '../../shared';

/** Fasteners weighed together to learn what one weighs. */
export interface CountSample {
  readonly count: number;
  readonly massKg: number;
  /** standard uncertainty of massKg */
  readonly uKg: number;
  /** the small lots it was weighed in, when it was weighed in several: from three on they tell how parts scatter */
  readonly lots?: readonly { readonly count: number; readonly massKg: number }[];
}

export interface WeighedCount {
  /** nearest whole number */
  readonly count: number;
  /** mass over mass each, before rounding */
  readonly ratio: number;
  /** standard uncertainty of the ratio */
  readonly u: number;
  /** chance that the nearest whole number is the true one */
  readonly certainty: number;
  /** true when the count may be taken as it is */
  readonly isCertain: boolean;
  readonly low: number;
  readonly high: number;
  /** standard deviation of one part as a fraction of its mass, and whether the sample told it or it is assumed */
  readonly spreadFraction: number;
  readonly spreadBy: 'sample' | 'assumed';
  /** most by which the mean part of the lot is taken to differ from that of the sample, as a fraction (assumed) */
  readonly lotFraction: number;
}

/** One part is taken to differ from the next by so much of its mass, until a sample tells better (assumed: castings and clips; turned parts of one lot scatter by 1 %). */
export const PART_SPREAD_FRACTION = 0.05;
/** The mean part of the lot is taken to be off that of the sample by at most so much (assumed: another box, another plating). */
export const LOT_FRACTION = 0.02;
/** A count is certain when it is wrong at most once in a hundred. */
const CERTAIN = 0.99;
const TWO_SIGMA = 2;
/** fewer lots tell nothing of the scatter */
const LEAST_LOTS = 3;

/** A sample with one more small lot weighed. */
export const withLot = (
  sample: CountSample | null,
  lot: { readonly count: number; readonly massKg: number },
  uKg: number,
): CountSample => ({
  count: (sample?.count ?? 0) + lot.count,
  massKg: (sample?.massKg ?? 0) + lot.massKg,
  uKg: Math.hypot(sample?.uKg ?? 0, uKg),
  lots: [...(sample?.lots ?? []), lot],
});

/** Scatter of single parts as the lots of a sample tell it, a fraction of their mass, with its degrees of freedom; null from too few. */
export const spreadOfSample = ({ lots }: CountSample): { readonly fraction: number; readonly freedom: number } | null => {
  if (!lots || lots.length < LEAST_LOTS) return null;
  const count = lots.reduce((sum, lot) => sum + lot.count, 0);
  const eachKg = lots.reduce((sum, lot) => sum + lot.massKg, 0) / count;
  // the mean of k parts scatters by s/√k
  const square = lots.reduce((sum, lot) => sum + lot.count * (lot.massKg / lot.count - eachKg) ** 2, 0) / (lots.length - 1);
  return { fraction: Math.sqrt(square) / eachKg, freedom: lots.length - 1 };
};

interface CountAssumed {
  /** standard deviation of one part as a fraction of its mass; null takes what the sample tells, or what is assumed */
  readonly spreadFraction?: number | null;
  readonly lotFraction?: number;
}

/**
 * How many alike parts lie on a scale, and how certain that is.
 *
 *   r = M / (m/k)     u² = (u(M)/m₁)² + r² (u(m)/m)² + r² s²/k + r s²     m₁ = m/k
 *   certainty: the least over lots off by −d … +d of  F((½ − |e|)/u) + F((½ + |e|)/u) − 1,  e = r (1 ± d) − n,  n the nearest whole number
 *
 * s is the spread of single parts as a fraction: r parts on the scale spread as √r, the k of the sample make the mean
 * uncertain by s/√k. Weighed in three lots or more the sample tells s, with Student's t for how few they were; else it is
 * assumed. The lot may differ from the sample by d as a whole, however large the sample: what is certain must be so at
 * either end.
 *
 * @param massKg mass on the scale, tare taken off, with its standard uncertainty uKg
 * @param sample parts counted by hand and weighed together
 * @throws RangeError when the sample is empty or weighs nothing, or a mass is not finite
 * @source JCGM 100:2008 (GUM), eq. 10, uncorrelated inputs; G.4.1 for the degrees of freedom
 * @example
 * countByWeight({ massKg: 0.1, uKg: 0.0001 }, { count: 10, massKg: 0.05, uKg: 0.0001 }).count; // => 20
 */
export const countByWeight = (
  { massKg, uKg }: { readonly massKg: number; readonly uKg: number },
  sample: CountSample,
  { spreadFraction = null, lotFraction = LOT_FRACTION }: CountAssumed = {},
): WeighedCount => {
  if (!(sample.count >= 1 && sample.massKg > 0)) throw new RangeError('a sample holds at least one part and weighs something');
  if (!(Number.isFinite(massKg) && uKg >= 0 && sample.uKg >= 0)) throw new RangeError('a mass is a finite number with its uncertainty');
  const told = spreadFraction === null ? spreadOfSample(sample) : null;
  const spread = spreadFraction ?? told?.fraction ?? PART_SPREAD_FRACTION;
  const eachKg = sample.massKg / sample.count;
  const ratio = Math.max(0, massKg) / eachKg;
  const byScale = (uKg / eachKg) ** 2 + (ratio * (sample.uKg / sample.massKg)) ** 2;
  const byParts = (ratio * spread) ** 2 / sample.count + ratio * spread ** 2;
  const u = Math.sqrt(byScale + byParts);
  const freedom = told && byParts > 0 ? told.freedom * (u ** 2 / byParts) ** 2 : Number.POSITIVE_INFINITY;
  const count = Math.round(ratio);
  const certaintyAt = (off: number): number => {
    if (u === 0) return off < 0.5 ? 1 : 0;
    return Math.max(0, studentCdf((0.5 - off) / u, freedom) + studentCdf((0.5 + off) / u, freedom) - 1);
  };
  const shift = ratio * lotFraction;
  const certainty = Math.min(...[-shift, shift].map((by) => certaintyAt(Math.abs(ratio + by - count))));
  return {
    count,
    ratio,
    u,
    certainty,
    isCertain: certainty >= CERTAIN,
    low: Math.max(0, Math.floor(ratio - shift - TWO_SIGMA * u + 0.5)),
    high: Math.ceil(ratio + shift + TWO_SIGMA * u - 0.5),
    spreadFraction: spread,
    spreadBy: told ? 'sample' : 'assumed',
    lotFraction,
  };
};
