import { betaQuantile, lnGamma } from '../../shared';

/** What a recount is to show: so sure, that fewer than this share of counts are wrong. */
export interface Assurance {
  readonly assuranceFraction: number;
  readonly wrongFraction: number;
}

const lnChoose = (n: number, k: number): number => lnGamma(n + 1) - lnGamma(k + 1) - lnGamma(n - k + 1);

/** Chance of at most c wrong among n drawn where a share is wrong. */
export const binomialAtMost = (c: number, n: number, share: number): number => {
  if (share <= 0) return 1;
  if (share >= 1) return c >= n ? 1 : 0;
  let chance = 0;
  for (let k = 0; k <= Math.min(c, n); k++) chance += Math.exp(lnChoose(n, k) + k * Math.log(share) + (n - k) * Math.log1p(-share));
  return Math.min(1, chance);
};

/** Chance of at most c wrong among n drawn without putting back from `lot` of which `wrong` are. */
export const hypergeometricAtMost = (c: number, n: number, lot: number, wrong: number): number => {
  let chance = 0;
  for (let k = Math.max(0, n - (lot - wrong)); k <= Math.min(c, n, wrong); k++)
    chance += Math.exp(lnChoose(wrong, k) + lnChoose(lot - wrong, n - k) - lnChoose(lot, n));
  return Math.min(1, chance);
};

const checked = ({ assuranceFraction, wrongFraction }: Assurance, allowed: number): void => {
  if (!(assuranceFraction > 0 && assuranceFraction < 1 && wrongFraction > 0 && wrongFraction < 1 && allowed >= 0))
    throw new RangeError('assurance and share wrong lie between 0 and 1');
};

/**
 * How many of very many to count again, so that with at most so many wrong found the share of wrong ones is sure to be below a limit.
 *
 * @returns the least n with P(at most `allowed` wrong | n, share) ≤ 1 − assurance
 * @throws RangeError when assurance or share is not between 0 and 1
 * @source binomial acceptance sampling
 * @example
 * sampleSize({ assuranceFraction: 0.95, wrongFraction: 0.02 }, 0) // => 149
 */
export const sampleSize = (wanted: Assurance, allowed: number): number => {
  checked(wanted, allowed);
  let n = allowed + 1;
  // doubled until it is enough, then halved in between
  while (binomialAtMost(allowed, n, wanted.wrongFraction) > 1 - wanted.assuranceFraction) n *= 2;
  let [low, high] = [Math.floor(n / 2), n];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (binomialAtMost(allowed, middle, wanted.wrongFraction) > 1 - wanted.assuranceFraction) low = middle;
    else high = middle;
  }
  return high;
};

/**
 * The same out of a lot: never more than the lot. The wrong share is reached by ⌈share · lot⌉ wrong ones.
 *
 * @throws RangeError when assurance or share is not between 0 and 1
 * @source hypergeometric acceptance sampling
 * @example
 * sampleSizeOf(500, { assuranceFraction: 0.95, wrongFraction: 0.02 }, 0) // => 129
 */
export const sampleSizeOf = (lot: number, wanted: Assurance, allowed: number): number => {
  checked(wanted, allowed);
  // a hair of float noise must not make one wrong more of it: 0.02 · 150 is 3
  const wrong = Math.ceil(wanted.wrongFraction * lot - 1e-9);
  if (wrong <= allowed) return lot;
  let [low, high] = [allowed, lot];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (hypergeometricAtMost(allowed, middle, lot, wrong) > 1 - wanted.assuranceFraction) low = middle;
    else high = middle;
  }
  return high;
};

/**
 * A share seen in a sample, with the exact interval around it.
 *
 * @returns low and high of a two-sided interval
 * @source Clopper and Pearson 1934
 */
export const shareWithin = (wrong: number, n: number, assurance: number): readonly [low: number, high: number] => {
  const alpha = (1 - assurance) / 2;
  return [wrong === 0 ? 0 : betaQuantile(alpha, wrong, n - wrong + 1), wrong === n ? 1 : betaQuantile(1 - alpha, wrong + 1, n - wrong)];
};

/** The most a share may be with so much assurance, one-sided. */
export const shareAtMost = (wrong: number, n: number, assurance: number): number =>
  wrong >= n ? 1 : betaQuantile(assurance, wrong + 1, n - wrong);
