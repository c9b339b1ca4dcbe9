import { betaQuantile, lnGamma } from '../../shared';

/** What a recount is to show: so sure, that fewer than this share of counts are wrong. */
export interface Assurance {
  readonly assuranceFraction: number;
  readonly wrongFraction: number;
}

const lnChoose = (n: number, k: number): number => lnGamma(n + 1) - lnGamma(k + 1) - lnGamma(n - k + 1);

/** Chance of at most c wrong among n drawn without putting back from `lot` of which `wrong` are: term by term, each from the one before. */
export const hypergeometricAtMost = (c: number, n: number, lot: number, wrong: number): number => {
  const right = lot - wrong;
  // of so many drawn at least these are wrong: all right ones are among them
  const least = Math.max(0, n - right);
  if (c < least) return 0;
  let ln = 0;
  if (least === 0) for (let i = 0; i < n; i++) ln += Math.log1p(-wrong / (lot - i));
  else ln = lnChoose(wrong, least) - lnChoose(lot, n);
  let chance = 0;
  for (let k = least; k <= Math.min(c, n, wrong); k++) {
    chance += Math.exp(ln);
    ln += Math.log(((wrong - k) * (n - k)) / ((k + 1) * (right - n + k + 1)));
  }
  return Math.min(1, chance);
};

const checked = ({ assuranceFraction, wrongFraction }: Assurance, allowed: number): void => {
  if (!(assuranceFraction > 0 && assuranceFraction < 1 && wrongFraction > 0 && wrongFraction < 1 && allowed >= 0))
    throw new RangeError('assurance and share wrong lie between 0 and 1');
};

/**
 * How many of a lot to count again, so that with at most so many wrong found the share of wrong ones is sure to be below a limit; never more
 * than the lot. The share is reached by ⌈share · lot⌉ wrong ones.
 *
 * @returns the least n with P(at most `allowed` wrong | n) ≤ 1 − assurance
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
