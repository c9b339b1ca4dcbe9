import { normalCdf } from '../../shared';

/** Fasteners weighed together to learn what one weighs. */
export interface CountSample {
  readonly count: number;
  readonly massKg: number;
  /** standard uncertainty of massKg */
  readonly uKg: number;
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
}

/** One piece differs from the next by so much of its mass, when nothing better is known: turned and plated parts of one lot. */
export const PIECE_SPREAD_FRACTION = 0.01;
/** A count is certain when it is wrong at most once in a hundred. */
export const CERTAIN = 0.99;
const TWO_SIGMA = 2;

/**
 * How many alike pieces lie on a scale, and how certain that is.
 *
 *   r = M / (m/k)     u² = (u(M)/m₁)² + r² (u(m)/m)² + r² s²/k + r s²     m₁ = m/k
 *   certainty = Φ((½ − |r − n|)/u) + Φ((½ + |r − n|)/u) − 1,  n the nearest whole number
 *
 * s is the spread of single pieces as a fraction: r pieces on the scale spread as √r, the k of the sample make the mean
 * uncertain by s/√k.
 *
 * @param massKg mass on the scale, tare taken off, with its standard uncertainty uKg
 * @param sample pieces counted by hand and weighed together
 * @param spreadFraction standard deviation of one piece as a fraction of its mass
 * @throws RangeError when the sample is empty or weighs nothing, or a mass is not finite
 * @source JCGM 100:2008 (GUM), eq. 10, uncorrelated inputs
 * @example
 * countByWeight({ massKg: 0.5, uKg: 0.0001 }, { count: 10, massKg: 0.05, uKg: 0.0001 }).count; // => 100
 */
export const countByWeight = (
  { massKg, uKg }: { readonly massKg: number; readonly uKg: number },
  sample: CountSample,
  spreadFraction: number = PIECE_SPREAD_FRACTION,
): WeighedCount => {
  if (!(sample.count >= 1 && sample.massKg > 0)) throw new RangeError('a sample holds at least one piece and weighs something');
  if (!(Number.isFinite(massKg) && uKg >= 0 && sample.uKg >= 0)) throw new RangeError('a mass is a finite number with its uncertainty');
  const eachKg = sample.massKg / sample.count;
  const ratio = Math.max(0, massKg) / eachKg;
  const u = Math.sqrt(
    (uKg / eachKg) ** 2 +
      (ratio * (sample.uKg / sample.massKg)) ** 2 +
      (ratio * spreadFraction) ** 2 / sample.count +
      ratio * spreadFraction ** 2,
  );
  const count = Math.round(ratio);
  const off = Math.abs(ratio - count);
  const certainty = u === 0 ? (off < 0.5 ? 1 : 0) : Math.max(0, normalCdf(0.5, off, u) + normalCdf(0.5, -off, u) - 1);
  return {
    count,
    ratio,
    u,
    certainty,
    isCertain: certainty >= CERTAIN,
    low: Math.max(0, Math.floor(ratio - TWO_SIGMA * u + 0.5)),
    high: Math.ceil(ratio + TWO_SIGMA * u - 0.5),
  };
};
