import fc from 'fast-check';
import { randomFrom } from '../../../testing/line-writers';
import { gaugeResult, rangeStudy, type Crossed, type GaugeResult } from './gauge-study';
import { meanReading, outliers } from './repeated';

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
  it('a mean needs readings, each a number', () => {
    expect(() => meanReading([], 0.1)).toThrow(/readings that are numbers/);
    expect(() => meanReading([1, Number.NaN], 0.1)).toThrow(/readings that are numbers/);
    // all alike: only the instrument is left, and 95 % is 1.96 of it
    expect(meanReading([2, 2, 2], 0.1)).toMatchObject({ s: 0, u: 0.1, half95: expect.closeTo(0.196, 4) as number });
  });
  it('an outlier is judged from four readings on, against their median', () => {
    expect(outliers([1, 1, 9])).toEqual([]);
    expect(outliers([1, 1, 9, 1])).toEqual([2]);
    expect(outliers([1, 1, 1, 1])).toEqual([]);
    // by hand: with a caliper known to 0.02 mm one step is no slip, and 3.5 × 0.02 = 0.07 mm is where one begins
    expect(outliers([2, 2, 2, 2.01], 0.02)).toEqual([]);
    expect(outliers([2, 2, 2, 2.06], 0.02)).toEqual([]);
    expect(outliers([2, 2, 2, 2.08], 0.02)).toEqual([3]);
    // by hand: median 10.05, deviations 0.05 0.05 0.15 0.15: spread 0.1; 3.5 of it lie at 0.519
    expect(outliers([10, 10.1, 9.9, 10.2])).toEqual([]);
    expect(outliers([10, 10.1, 9.9, 10.2, 10.05, 11])).toEqual([5]);
  });
  it('a slip among many readings is named by its place', () => {
    expect(outliers([2.01, 2.02, 1.99, 2, 20.1, 2.01])).toEqual([4]);
    expect(outliers([2.01, 2.02, 1.99, 2, 2.01])).toEqual([]);
  });
});

// AIAG, Measurement Systems Analysis: ten parts, three persons, three times each; the data recalled, confirmed by the results
// the book prints; the analysis of variance by R 4.2.2.
const A = [[0.29, -0.56, 1.34, 0.47, -0.8, 0.02, 0.59, -0.31, 2.26, -1.36], [0.41, -0.68, 1.17, 0.5, -0.92, -0.11, 0.75, -0.2, 1.99, -1.25], [0.64, -0.58, 1.27, 0.64, -0.84, -0.21, 0.66, -0.17, 2.01, -1.31]]; // prettier-ignore
const B = [[0.08, -0.47, 1.19, 0.01, -0.56, -0.2, 0.47, -0.63, 1.8, -1.68], [0.25, -1.22, 0.94, 1.03, -1.2, 0.22, 0.55, 0.08, 2.12, -1.62], [0.07, -0.68, 1.34, 0.2, -1.28, 0.06, 0.83, -0.34, 2.19, -1.5]]; // prettier-ignore
const C = [[0.04, -1.38, 0.88, 0.14, -1.46, -0.29, 0.02, -0.46, 1.77, -1.49], [-0.11, -1.13, 1.09, 0.2, -1.07, -0.67, 0.01, -0.56, 1.45, -1.77], [-0.15, -0.96, 0.67, 0.11, -1.45, -0.49, 0.21, -0.49, 1.87, -2.16]]; // prettier-ignore
const READINGS: Crossed = [A, B, C].map((trials) => trials[0]!.map((_, part) => trials.map((trial) => trial[part]!)));

describe('a gauge R&R study of ten parts, three persons, three times', () => {
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
    const { table, isPooled, gaugeFraction, verdict } = gaugeResult(READINGS);
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
    const { table } = gaugeResult(READINGS);
    const over = (i: number): number => table[i]!.meanSquare;
    expect(over(1) / over(3)).toBeCloseTo(34.44, 2);
    expect(over(0) / over(3)).toBeCloseTo(213.517, 2);
  });
  it('measurements far finer than the parts are good; persons who differ more than the parts are not good enough', () => {
    const fine: Crossed = [0, 1e-6].map((shift) => [1, 2, 3].map((x) => [x + shift, x + 2e-6]));
    expect(gaugeResult(fine)).toMatchObject({ verdict: 'good', doubts: [] });
    const apart: Crossed = [0, 5].map((shift) => [1, 1.1, 1.2].map((x) => [x + shift, x + shift + 0.01]));
    expect(gaugeResult(apart)).toMatchObject({ verdict: 'not good enough', distinct: 0 });
    expect(() => gaugeResult([[[1, 2]], [[1, 2]]])).toThrow(/two persons, two parts and two trials/);
    expect(() => gaugeResult([[[1, 2], [1, 2]]])).toThrow(/two persons, two parts and two trials/); // prettier-ignore
    expect(() => gaugeResult([[[1], [2]], [[1], [2]]])).toThrow(/two persons, two parts and two trials/); // prettier-ignore
    expect(() => gaugeResult([])).toThrow(/two persons/);
  });
  it('is refused where somebody left a part or a trial out, or wrote down no number', () => {
    const whole: Crossed = [[[1, 2], [3, 4]], [[1, 2], [3, 4]]]; // prettier-ignore
    expect(() => gaugeResult(whole)).not.toThrow();
    for (const broken of [
      [
        [
          [1, 2],
          [3, 4],
        ],
        [[1, 2]],
      ],
      [
        [
          [1, 2],
          [3, 4],
        ],
        [[1, 2], [3]],
      ],
      [
        [
          [1, 2],
          [3, 4],
        ],
        [
          [1, 2],
          [3, Number.NaN],
        ],
      ],
      [
        [
          [1, 2],
          [3, 4],
        ],
        [
          [1, 2],
          [3, 4],
          [5, 6],
        ],
      ],
    ])
      // prettier-ignore
      expect(() => gaugeResult(broken)).toThrow(/every part the same number of times/);
  });
  it('two persons, two parts, two trials, by hand', () => {
    // cells 10 11 | 20 21 and 12 11 | 24 25: grand mean 16.75; persons 15.5 and 18; parts 11 and 22.5; cells 10.5 20.5 11.5 24.5
    // SS: part 4 (5.75² + 5.75²) = 264.5; person 4 (1.25² + 1.25²) = 12.5; both 2 (6.25² + 3.75² + 5.25² + 7.75²) − 277 = 4.5; repeat 4 · 0.5 = 2
    const study = gaugeResult([[[10, 11], [20, 21]], [[12, 11], [24, 25]]]); // prettier-ignore
    expect(study.table.map((line) => [line.sumOfSquares, line.freedom])).toEqual([
      [expect.closeTo(264.5, 9), 1],
      [expect.closeTo(12.5, 9), 1],
      [expect.closeTo(4.5, 9), 1],
      [expect.closeTo(2, 9), 4],
    ]);
    // F of the interaction 4.5 / 0.5 = 9, p = 0.04 with 1 and 4 degrees: not pooled
    expect(study.table[2]?.f).toBeCloseTo(9, 9);
    expect(study.table[2]?.p).toBeCloseTo(0.03994, 4);
    expect(study.isPooled).toBe(false);
    // repeat² 0.5; both² (4.5 − 0.5) / 2 = 2; person² (12.5 − 4.5) / 4 = 2; part² (264.5 − 4.5) / 4 = 65
    expect(study.repeatability ** 2).toBeCloseTo(0.5, 9);
    expect(study.reproducibility ** 2).toBeCloseTo(4, 9);
    expect(study.partToPart ** 2).toBeCloseTo(65, 9);
    expect(study.gauge ** 2).toBeCloseTo(4.5, 9);
    expect(study.total ** 2).toBeCloseTo(69.5, 9);
    expect(study.gaugeFraction).toBeCloseTo(Math.sqrt(4.5 / 69.5), 9);
    // √2 · 8.062 / 2.121 = 5.37
    expect(study.distinct).toBe(5);
    expect(study.verdict).toBe('usable with care');
    // by average and range: R̄ 1, X̄diff 2.5, Rₚ 11.5
    const byRange = rangeStudy([[[10, 11], [20, 21]], [[12, 11], [24, 25]]])!; // prettier-ignore
    expect([byRange.averageRange, byRange.personRange, byRange.partRange]).toEqual([1, 2.5, 11.5]);
    expect(byRange.reproducibility).toBeCloseTo(Math.sqrt((2.5 * 0.7071) ** 2 - 0.8862 ** 2 / 4), 9);
  });
  it('has no constants by average and range for four persons, four trials or eleven parts', () => {
    const of = (k: number, n: number, r: number): Crossed =>
      Array.from({ length: k }, (_, i) =>
        Array.from({ length: n }, (__, j) => Array.from({ length: r }, (___, t) => j + 0.1 * i + 0.01 * t)),
      );
    expect(rangeStudy(of(2, 2, 2))).not.toBeNull();
    for (const [k, n, r] of [[4, 2, 2], [2, 11, 2], [2, 2, 4]] as const) expect(rangeStudy(of(k, n, r))).toBeNull(); // prettier-ignore
    // without any scatter nothing is told apart, and nothing is divided by 0
    expect(rangeStudy([[[1, 1], [2, 2]], [[1, 1], [2, 2]]])?.distinct).toBe(0); // prettier-ignore
  });
});

describe('a gauge R&R study that says nothing', () => {
  const finite = (study: GaugeResult): boolean => !JSON.stringify(study, (_, v: unknown) => (typeof v === 'number' && !Number.isFinite(v) ? 'NaN' : v)).includes('"NaN"'); // prettier-ignore
  it.each([
    ['all readings alike', [0, 0].map(() => [1, 1, 1].map((x) => [x, x])), /All readings are the same/],
    ['repeats that differ nowhere', [0, 0].map(() => [1, 2, 3].map((x) => [x, x])), /Repeats differ nowhere/],
    [
      'steps too coarse',
      [0, 0].map((_, p) => [1, 1.1, 1.2, 1.3, 1.1].map((x, i) => [x, i === p ? x + 0.1 : x])),
      /steps of 0\.1 are too coarse/,
    ],
  ] as const)('for %s says why, is never good and never NaN', (_, readings, why) => {
    const study = gaugeResult(readings);
    expect(study.verdict).toBe('not known');
    expect(study.doubts.join()).toMatch(why);
    expect(finite(study)).toBe(true);
  });
  it('is never good with fewer than two kinds of part told apart', () => {
    fc.assert(
      fc.property(fc.array(fc.array(fc.array(fc.integer({ min: 0, max: 30 }), { minLength: 3, maxLength: 3 }), { minLength: 5, maxLength: 5 }), { minLength: 2, maxLength: 2 }), (readings) => {
        const study = gaugeResult(readings);
        if (study.distinct < 2) expect(study.verdict).not.toBe('good');
        expect(finite(study)).toBe(true);
      }),
    ); // prettier-ignore
  });
});

describe('the 95 % of repeated readings', () => {
  /** Truth by simulation: the true value lies inside in 95 of 100, whichever of instrument and scatter is larger. */
  it.each([
    [3, 1, 0], [3, 1, 0.3], [4, 1, 1], [5, 0.3, 1], [10, 1, 0.2],
  ])('of %d readings that scatter by %d with an instrument of u = %d cover the truth', (n, s, uInstrument) => {
    const random = randomFrom(5 + n);
    const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    let covered = 0;
    const TRIES = 8000;
    for (let i = 0; i < TRIES; i++) {
      const off = uInstrument * normal();
      const found = meanReading(Array.from({ length: n }, () => 10 + off + s * normal()), uInstrument);
      if (Math.abs(found.mean - 10) <= found.half95!) covered += 1;
    }
    // the approximation is known to fall a little short for very few readings beside a good instrument
    expect(covered / TRIES).toBeGreaterThan(0.925);
    expect(covered / TRIES).toBeLessThan(0.985);
  }); // prettier-ignore
  it('by the GUM: s²/n alone has n − 1 degrees of freedom, an instrument far worse has as many as one likes', () => {
    // Student's t at 97.5 %: 4 degrees 2.776445, normal 1.959964 (R 4.2.2, qt and qnorm)
    const scattered = meanReading([1, 2, 3, 4, 5], 0);
    expect(scattered.half95! / scattered.u).toBeCloseTo(2.776445, 5);
    const steady = meanReading([10, 10.001, 9.999], 5);
    expect(steady.half95! / steady.u).toBeCloseTo(1.959964, 4);
  });
});
