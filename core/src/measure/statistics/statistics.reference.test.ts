import { gaugeStudy, rangeStudy, type Crossed } from './gauge-study';
import { meanReading, strayReadings } from './repeated';

// JCGM 100:2008 (GUM), H.2: five readings each of voltage (V), current (mA) and phase (rad); from memory, confirmed by the
// means and uncertainties it prints.
describe('the example of the GUM', () => {
  it.each([
    ['V', [5.007, 4.994, 5.005, 4.99, 4.999], 4.999, 0.0032, 4],
    ['I', [19.663, 19.639, 19.64, 19.685, 19.678], 19.661, 0.0095, 4],
    ['φ', [1.0456, 1.0438, 1.0468, 1.0428, 1.0433], 1.04446, 0.00075, 5],
  ] as const)('%s', (_, readings, mean, u, digits) => {
    const found = meanReading(readings, 0);
    expect(found.mean).toBeCloseTo(mean, 5);
    expect(Number(found.u.toFixed(digits))).toBe(u);
  });
  it('reading again does not make the instrument better', () => {
    const many = meanReading(
      Array.from({ length: 100 }, (_, i) => 10 + (i % 2) * 0.001),
      0.01,
    );
    expect(many.u).toBeGreaterThan(0.01);
    expect(meanReading([10], 0.01)).toEqual({ n: 1, mean: 10, s: null, u: 0.01, half95: null });
    expect(() => meanReading([], 0.01)).toThrow(RangeError);
  });
  it('a slip among many readings is named by its place', () => {
    expect(strayReadings([2.01, 2.02, 1.99, 2, 20.1, 2.01])).toEqual([4]);
    expect(strayReadings([2.01, 2.02, 1.99, 2, 2.01])).toEqual([]);
  });
});

// AIAG, Measurement Systems Analysis: ten parts, three persons, three times each; the data recalled, confirmed by the results
// the book prints; the analysis of variance by R 4.2.2.
const A = [[0.29, -0.56, 1.34, 0.47, -0.8, 0.02, 0.59, -0.31, 2.26, -1.36], [0.41, -0.68, 1.17, 0.5, -0.92, -0.11, 0.75, -0.2, 1.99, -1.25], [0.64, -0.58, 1.27, 0.64, -0.84, -0.21, 0.66, -0.17, 2.01, -1.31]]; // prettier-ignore
const B = [[0.08, -0.47, 1.19, 0.01, -0.56, -0.2, 0.47, -0.63, 1.8, -1.68], [0.25, -1.22, 0.94, 1.03, -1.2, 0.22, 0.55, 0.08, 2.12, -1.62], [0.07, -0.68, 1.34, 0.2, -1.28, 0.06, 0.83, -0.34, 2.19, -1.5]]; // prettier-ignore
const C = [[0.04, -1.38, 0.88, 0.14, -1.46, -0.29, 0.02, -0.46, 1.77, -1.49], [-0.11, -1.13, 1.09, 0.2, -1.07, -0.67, 0.01, -0.56, 1.45, -1.77], [-0.15, -0.96, 0.67, 0.11, -1.45, -0.49, 0.21, -0.49, 1.87, -2.16]]; // prettier-ignore
const READINGS: Crossed = [A, B, C].map((trials) => trials[0]!.map((_, part) => trials.map((trial) => trial[part]!)));

describe('a gauge study of ten parts, three persons, three times', () => {
  it('by average and range, as the book prints it', () => {
    const found = rangeStudy(READINGS)!;
    const to5 = (x: number): number => Number(x.toFixed(5));
    expect([found.averageRange, found.personRange, found.partRange].map(to5)).toEqual([0.34167, 0.44467, 3.51111]);
    expect(found.repeatability).toBeCloseTo(0.20186, 4);
    expect(found.reproducibility).toBeCloseTo(0.22967, 4);
    expect(found.gauge).toBeCloseTo(0.30577, 4);
    expect(found.partToPart).toBeCloseTo(1.1046, 4);
    expect(found.total).toBeCloseTo(1.14614, 4);
    expect(found.gauge / found.total).toBeCloseTo(0.2668, 4);
    expect(found.distinct).toBe(5);
  });
  it('by the analysis of variance', () => {
    const { table, isPooled, gaugeFraction, verdict } = gaugeStudy(READINGS);
    const [part, person, both, repeat] = table;
    expect(part!.sumOfSquares).toBeCloseTo(88.36193, 4);
    expect(person!.sumOfSquares).toBeCloseTo(3.16726, 4);
    expect(both!.sumOfSquares).toBeCloseTo(0.35898, 4);
    expect(repeat!.sumOfSquares).toBeCloseTo(2.75893, 4);
    expect([repeat!.freedom, Number(repeat!.meanSquare.toFixed(6))]).toEqual([60, 0.045982]);
    expect(both!.f).toBeCloseTo(0.4337, 3);
    expect(both!.p).toBeGreaterThan(0.9);
    // without a certain interaction it is joined with the repeats
    expect(isPooled).toBe(true);
    expect(gaugeFraction).toBeGreaterThan(0.25);
    expect(verdict).toBe('usable with care');
  });
  it('R gives F 34.44 for persons and 213.517 for parts against interaction', () => {
    const { table } = gaugeStudy(READINGS);
    const over = (i: number): number => table[i]!.meanSquare;
    expect(over(1) / over(3)).toBeCloseTo(34.44, 2);
    expect(over(0) / over(3)).toBeCloseTo(213.517, 2);
  });
  it('measurements that are all alike are good; persons who differ more than the parts are not good enough', () => {
    const exact: Crossed = [0, 0].map(() => [1, 2, 3].map((x) => [x, x + 1e-6]));
    expect(gaugeStudy(exact).verdict).toBe('good');
    const apart: Crossed = [0, 5].map((shift) => [1, 1.1, 1.2].map((x) => [x + shift, x + shift + 0.01]));
    expect(gaugeStudy(apart)).toMatchObject({ verdict: 'not good enough', distinct: 0 });
    expect(() => gaugeStudy([[[1, 2]], [[1, 2]]])).toThrow(/two persons, two parts and two trials/);
  });
});
