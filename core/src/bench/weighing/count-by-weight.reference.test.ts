import { randomFrom } from '../../../testing/line-writers';
import { countByWeight, spreadOfSample } from './count-by-weight';

const sample = (count: number, massKg: number, uKg = 0.00003) => ({ count, massKg, uKg });

describe('count by weighing', () => {
  it('is the mass over that of one, and its uncertainty by the law of propagation (JCGM 100:2008, eq. 10)', () => {
    // 10 bolts weigh 61.2 g; 226.4 g lie on the scale: 36.993. With u = 0.03 g each time and 1 % from part to part:
    // (0.03/6.12)² + (36.993·0.03/61.2)² + 36.993²·0.01²/10 + 36.993·0.01² = 0.0000240 + 0.0003288 + 0.0136848 + 0.0036993 = 0.0177369
    const counted = countByWeight({ massKg: 0.2264, uKg: 0.00003 }, sample(10, 0.0612), { spreadFraction: 0.01, lotFraction: 0 });
    expect(counted.ratio).toBeCloseTo(36.9935, 4);
    expect(counted.u).toBeCloseTo(Math.sqrt(0.0177369), 4);
    expect(counted).toMatchObject({ count: 37, isCertain: true });
  });
  it('calls the count certain by the normal distribution: half a part is 2.576 standard uncertainties at 99 %', () => {
    // quantiles of the normal distribution: R 4.2.2, qnorm(0.995) = 2.575829
    const at = (u: number) => countByWeight({ massKg: 10, uKg: u }, { count: 1, massKg: 1, uKg: 0 }, { spreadFraction: 0, lotFraction: 0 });
    expect(at(0.5 / 2.5758).isCertain).toBe(false);
    expect(at(0.5 / 2.5759).isCertain).toBe(true);
    expect(at(0.5).certainty).toBeCloseTo(0.6827, 4);
  });
  it('says when it is not certain, and which counts are possible', () => {
    const counted = countByWeight({ massKg: 2.5, uKg: 0.001 }, sample(5, 0.0306, 0.0001));
    expect(counted.isCertain).toBe(false);
    expect(counted.low).toBeLessThan(counted.count);
    expect(counted.high).toBeGreaterThan(counted.count);
  });
  it('gets more certain with a larger sample', () => {
    const u = (k: number) => countByWeight({ massKg: 0.612, uKg: 0.00003 }, sample(k, 0.00612 * k)).u;
    expect(u(50)).toBeLessThan(u(10));
    expect(u(10)).toBeLessThan(u(3));
  });
  it('counts nothing where nothing lies, and refuses a sample of nothing', () => {
    expect(countByWeight({ massKg: 0, uKg: 0.0001 }, sample(10, 0.0612))).toMatchObject({ count: 0, isCertain: true });
    expect(() => countByWeight({ massKg: 1, uKg: 0 }, sample(0, 1))).toThrow(RangeError);
    expect(() => countByWeight({ massKg: Number.NaN, uKg: 0 }, sample(1, 1))).toThrow(RangeError);
  });
});

describe('the spread of parts', () => {
  it('is assumed from one weighing, and said to be so', () =>
    expect(countByWeight({ massKg: 0.1, uKg: 0 }, sample(10, 0.0612))).toMatchObject({
      spreadBy: 'assumed',
      spreadFraction: 0.05,
      lotFraction: 0.02,
    }));
  it('is told by three small lots or more: by hand, lots of 4 that weigh 4.00, 4.04 and 4.08 g', () => {
    // mean each 1.01 g; Σ 4 (0.01² + 0² + 0.01²) / 2 = 0.0004, so s = 0.02 g of 1.01 g
    const lots = [4, 4.04, 4.08].map((g) => ({ count: 4, massKg: g / 1000 }));
    const told = spreadOfSample({ count: 12, massKg: 0.01212, uKg: 0, lots });
    expect(told?.fraction).toBeCloseTo(0.02 / 1.01, 9);
    expect(told?.freedom).toBe(2);
    expect(countByWeight({ massKg: 0.01, uKg: 0 }, { count: 12, massKg: 0.01212, uKg: 0, lots }).spreadBy).toBe('sample');
  });
});

/** Truth by simulation: parts whose masses scatter, lots that differ from the sample as a whole, a scale that errs. */
describe('of counts that are called certain', () => {
  const random = randomFrom(11);
  const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const U = 0.00002;
  const weigh = (parts: number, eachKg: number, spread: number): number =>
    Array.from({ length: parts }).reduce<number>((sum) => sum + eachKg * (1 + spread * normal()), 0) + U * normal();
  const wrongShare = (spread: number, off: number, inLots: boolean): { readonly certain: number; readonly wrong: number } => {
    let [certain, wrong] = [0, 0];
    for (let i = 0; i < 4000; i++) {
      const parts = 2 + Math.floor(random() * 30);
      const lots = Array.from({ length: inLots ? 8 : 1 }, () => ({ count: 10, massKg: weigh(10, 0.005, spread) }));
      const all = {
        count: 10 * lots.length,
        massKg: lots.reduce((sum, lot) => sum + lot.massKg, 0),
        uKg: U * Math.sqrt(lots.length),
        lots,
      };
      const counted = countByWeight({ massKg: weigh(parts, 0.005 * (1 + off), spread), uKg: U }, all);
      if (!counted.isCertain) continue;
      certain += 1;
      if (counted.count !== parts) wrong += 1;
    }
    return { certain, wrong };
  };
  it.each([
    [0.01, 0], [0.01, 0.02], [0.01, -0.02], [0.03, 0.02], [0.05, 0], [0.05, 0.02], [0.05, -0.02],
  ])('at most one in a hundred is wrong when parts scatter by %s and the lot is off by %s', (spread, off) => {
    for (const inLots of [true, false]) {
      const { certain, wrong } = wrongShare(spread, off, inLots);
      expect(certain).toBeGreaterThan(100);
      expect(wrong / certain).toBeLessThanOrEqual(0.01);
    }
  }); // prettier-ignore
});
