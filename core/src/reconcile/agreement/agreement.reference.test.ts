import { differencesOf } from './differences';
import { intraclass } from './intraclass';
import { kappa } from './kappa';
import { hypergeometricAtMost, sampleSizeOf, shareAtMost, shareWithin } from './sample-size';

describe('kappa', () => {
  // values of the R package psych 2.2.9, run on these tables
  it('of two observers and two classes', () => expect(kappa([[20, 5], [10, 15]], 'none').kappa).toBeCloseTo(0.4, 12)); // prettier-ignore
  const THREE = [[44, 5, 1], [7, 20, 3], [9, 5, 6]]; // prettier-ignore
  it('of three classes, without weights, linear and quadratic', () => {
    expect(kappa(THREE, 'none').kappa).toBeCloseTo(0.4915254, 7);
    expect(kappa(THREE, 'linear').kappa).toBeCloseTo(0.4736842, 7);
    expect(kappa(THREE, 'quadratic').kappa).toBeCloseTo(0.4545455, 7);
    expect(kappa(THREE, 'none').standardError).toBeCloseTo(0.0721275, 6);
  });
  const FOUR = [[11, 3, 1, 0], [1, 9, 0, 1], [0, 1, 10, 0], [1, 2, 0, 10]]; // prettier-ignore
  it('of four classes', () => {
    expect(kappa(FOUR, 'none').kappa).toBeCloseTo(0.7334755, 7);
    expect(kappa(FOUR, 'linear').kappa).toBeCloseTo(0.7474747, 7);
    expect(kappa(FOUR, 'quadratic').kappa).toBeCloseTo(0.7663551, 7);
    expect(kappa(FOUR, 'none').standardError).toBeCloseTo(0.0752402, 6);
  });
  it('is below 0 at 90 % agreement where chance alone agrees more', () => {
    const rare = kappa([[90, 5], [5, 0]], 'none'); // prettier-ignore
    expect([rare.observed, rare.kappa]).toEqual([0.9, expect.closeTo(-0.0526316, 7)]);
  });
  it('says nothing where everything is of one class', () => expect(kappa([[7, 0], [0, 0]], 'none').kappa).toBeNull()); // prettier-ignore
  it('refuses what is no table', () => expect(() => kappa([[1, 2]], 'none')).toThrow(RangeError));
});

describe('intraclass correlation', () => {
  // Shrout and Fleiss 1979, table 2: published 0.17 0.29 0.71 0.44 0.62 0.91
  it('of the published table', () => {
    const found = intraclass([[9, 2, 5, 8], [6, 1, 3, 2], [8, 4, 6, 8], [7, 1, 2, 6], [10, 5, 6, 9], [6, 2, 4, 7]])!; // prettier-ignore
    expect(Object.values(found)).toEqual([0.16574, 0.28976, 0.71484, 0.4428, 0.62005, 0.90932].map((v): unknown => expect.closeTo(v, 5)));
  });
  const PAIRS = [[12.1, 12.3], [15, 15.4], [9.8, 9.9], [20.2, 20.1], [14.7, 15.2], [11.1, 11]] as const; // prettier-ignore
  it('of pairs (R package psych)', () => {
    const { oneWay, agreement, consistency } = intraclass(PAIRS)!;
    expect([oneWay, agreement, consistency]).toEqual([0.9971169, 0.9971178, 0.9977409].map((v): unknown => expect.closeTo(v, 7)));
  });
  it('limits of agreement of the same pairs', () => {
    const d = differencesOf(PAIRS.map(([a, b]) => [b, a] as const))!;
    expect([d.bias, d.s, d.low, d.high]).toEqual([-0.1666667, 0.2503331, -0.6573196, 0.3239862].map((v): unknown => expect.closeTo(v, 6)));
    expect([d.biasWithin, d.limitWithin]).toEqual([expect.closeTo(0.2627085, 6), expect.closeTo(0.4775922, 4)]);
  });
  it('is none where nothing scatters, and refuses a table with gaps', () => {
    expect(intraclass([[4, 4], [4, 4]])).toBeNull(); // prettier-ignore
    expect(() => intraclass([[4, 4], [4]])).toThrow(RangeError); // prettier-ignore
    expect(differencesOf([[1, 2]])).toBeNull();
  });
});

describe('sample size', () => {
  const at = (assuranceFraction: number, wrongFraction: number) => ({ assuranceFraction, wrongFraction });
  // hypergeometric acceptance, worked out by R 4.2.2: fewer than 2 % of the lot wrong, none in the sample
  it('out of a lot', () =>
    expect([100, 200, 500, 1000, 5000].map((lot) => sampleSizeOf(lot, at(0.95, 0.02), 0))).toEqual([78, 105, 129, 138, 147]));
  it('is the whole of a lot too small to say it otherwise', () => expect(sampleSizeOf(12, at(0.95, 0.02), 1)).toBe(12));
  it('chances of acceptance', () => {
    expect(hypergeometricAtMost(0, 78, 100, 2)).toBeLessThanOrEqual(0.05);
    expect(hypergeometricAtMost(0, 77, 100, 2)).toBeGreaterThan(0.05);
  });
  // Clopper-Pearson by R 4.2.2
  it('what a share may be', () => {
    expect(shareWithin(0, 149, 0.95)[1]).toBeCloseTo(0.024454, 6);
    expect(shareAtMost(0, 149, 0.95)).toBeCloseTo(0.019905, 6);
    expect(shareWithin(1, 50, 0.95)).toEqual([expect.closeTo(0.000506, 6), expect.closeTo(0.10647, 6)]);
    expect(shareWithin(2, 100, 0.95)).toEqual([expect.closeTo(0.002431, 6), expect.closeTo(0.070384, 6)]);
    expect(shareWithin(5, 5, 0.95)[1]).toBe(1);
  });
  // binomial acceptance, which a very large lot comes to, by R 4.2.2
  it('out of very many', () => {
    expect([0, 1, 2, 3].map((c) => sampleSizeOf(2_000_000, at(0.95, 0.02), c))).toEqual([149, 236, 313, 386]);
  });
  it('refuses an assurance that is none', () => expect(() => sampleSizeOf(100, at(1, 0.02), 0)).toThrow(RangeError));
});
