import { countByWeight } from './count-by-weight';

const sample = (count: number, massKg: number, uKg = 0.00003) => ({ count, massKg, uKg });

describe('count by weighing', () => {
  it('is the mass over that of one, and its uncertainty by the law of propagation (JCGM 100:2008, eq. 10)', () => {
    // 10 bolts weigh 61.2 g; 226.4 g lie on the scale: 36.993. With u = 0.03 g each time and 1 % from piece to piece:
    // (0.03/6.12)² + (36.993·0.03/61.2)² + 36.993²·0.01²/10 + 36.993·0.01² = 0.0000240 + 0.0003288 + 0.0136848 + 0.0036993 = 0.0177369
    const counted = countByWeight({ massKg: 0.2264, uKg: 0.00003 }, sample(10, 0.0612));
    expect(counted.ratio).toBeCloseTo(36.9935, 4);
    expect(counted.u).toBeCloseTo(Math.sqrt(0.0177369), 4);
    expect(counted).toMatchObject({ count: 37, isCertain: true });
  });
  it('calls the count certain by the normal distribution: half a piece is 2.576 standard uncertainties at 99 %', () => {
    // quantiles of the normal distribution: R 4.2.2, qnorm(0.995) = 2.575829
    const at = (u: number) => countByWeight({ massKg: 10, uKg: u }, { count: 1, massKg: 1, uKg: 0 }, 0);
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
