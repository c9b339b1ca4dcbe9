import type { Finding, Rule, Suspect } from './finding';

/**
 * How often each rule is the cause before anything is looked at, as shares. Assumed, from the list of usual slips; the chances
 * that follow rank causes, they do not bet.
 */
export const PRIOR: Readonly<Record<Rule, number>> = {
  unit: 0.2,
  'decimal point': 0.12,
  'weighed together': 0.1,
  'not recorded': 0.12,
  'counted wrong': 0.14,
  'typed wrong': 0.1,
  'other material': 0.05,
  'other process': 0.05,
  'wrong tag': 0.03,
  hollow: 0.06,
  twice: 0.1,
  'not said': 0.2,
  instrument: 0.05,
  'as it is': 0.03,
};

/** A cause explains a finding that it does not speak of by chance only, in so many cases. Assumed. */
export const BY_CHANCE = 0.02;
/** What is recorded may be so after all: it then leaves each finding as a coincidence of this size. Assumed. */
const COINCIDENCE = 0.05;

/** One possible cause of some findings, with its chance among all that were considered. */
export interface Ranked {
  readonly suspect: Suspect;
  /** 0 … 1 */
  readonly chanceFraction: number;
  /** keys of the findings it explains */
  readonly explains: readonly string[];
}

/** The cause that is always considered: nothing is wrong. */
const asItIs = (fit: number): Suspect => ({
  key: 'as it is',
  rule: 'as it is',
  says: 'It is as it is recorded',
  short: 'it is so',
  fit,
  mend: null,
});

/**
 * Causes of findings that belong together, the likeliest first. Findings are taken as independent given the cause.
 *
 *   P(cause) ∝ prior(rule) · Π fit(finding, cause)
 *
 * with fit = 0.02 for a finding the cause does not speak of, and “it is so” beside all of them at 0.05 each.
 *
 * @source Bayes; the priors are assumed and stated in PRIOR
 */
export const ranked = (findings: readonly Pick<Finding, 'key' | 'suspects'>[]): readonly Ranked[] => {
  const suspects = new Map<string, { readonly first: Suspect; readonly fits: Map<string, number> }>();
  for (const { key, suspects: own } of findings)
    for (const suspect of own) {
      const known = suspects.get(suspect.key);
      if (known) known.fits.set(key, Math.max(known.fits.get(key) ?? 0, suspect.fit));
      else suspects.set(suspect.key, { first: suspect, fits: new Map([[key, suspect.fit]]) });
    }
  // in logarithms: a cause may explain thousands of findings, and their product is none any more
  const weighed = [...suspects.values()].map(({ first, fits }) => ({
    suspect: first,
    lnWeight: findings.reduce((ln, { key }) => ln + Math.log(Math.max(fits.get(key) ?? 0, BY_CHANCE)), Math.log(PRIOR[first.rule])),
    explains: [...fits].flatMap(([key, fit]) => (fit > BY_CHANCE ? [key] : [])),
  }));
  const so = {
    suspect: asItIs(COINCIDENCE),
    lnWeight: Math.log(PRIOR['as it is']) + findings.length * Math.log(COINCIDENCE),
    explains: [],
  };
  const all = [...weighed, so];
  const most = all.reduce((high, { lnWeight }) => Math.max(high, lnWeight), -Infinity);
  const sum = all.reduce((total, { lnWeight }) => total + Math.exp(lnWeight - most), 0);
  return all
    .map(({ suspect, lnWeight, explains }) => ({ suspect, explains, chanceFraction: Math.exp(lnWeight - most) / sum }))
    .sort((a, b) => b.chanceFraction - a.chanceFraction || (a.suspect.key < b.suspect.key ? -1 : 1));
};
