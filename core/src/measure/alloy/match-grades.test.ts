import { normalCdf } from '../../shared';
import { readDesignation } from './designation';
import type { Grade, Limit } from './grades';
import { limitText, matchGrades, type Fractions } from './match-grades';

/** A made-up grade with limits in percent. */
const made = (name: string, percents: Readonly<Record<string, readonly [number, number]>>, more: Partial<Grade> = {}): Grade => ({
  ...{ name, base: 'Al', form: 'wrought', sums: [], materialId: null, alsoNamed: [] },
  limits: Object.fromEntries(Object.entries(percents).map(([symbol, [low, high]]) => [symbol, { low: low / 100, high: high / 100 }])),
  ...more,
});
/** A reading in percent, each with the same uncertainty. */
const read = (percents: Readonly<Record<string, number>>, uPercent = 0.01): Fractions =>
  Object.fromEntries(Object.entries({ Al: 97, ...percents }).map(([symbol, p]) => [symbol, { fraction: p / 100, u: uPercent / 100 }]));
const fits = (reading: Fractions, grade: Grade, unseen: readonly string[] = []): boolean | undefined =>
  matchGrades(reading, unseen, [grade]).matches[0]?.fits;

describe('a reading against the limits of a grade', () => {
  const plain = made('plain', { Mg: [1, 2] });
  it('fits within them, on them, and outside by no more than two uncertainties', () => {
    for (const mg of [1, 1.5, 2, 2.019, 0.981]) expect([mg, fits(read({ Mg: mg }), plain)]).toEqual([mg, true]);
    for (const mg of [2.0201, 0.9799]) expect([mg, fits(read({ Mg: mg }), plain)]).toEqual([mg, false]);
  });
  it('says by how many uncertainties each element lies outside, the worst first, and nothing of what lies inside', () => {
    const both = made('both', { Mg: [1, 2], Si: [0, 0.5], Mn: [0, 1] });
    const [match] = matchGrades(read({ Mg: 2.03, Si: 0.6, Mn: 0.5 }), [], [both]).matches;
    expect(match?.outside.map((e) => [e.symbol, e.outside])).toEqual([['Si', expect.closeTo(10, 6)], ['Mg', expect.closeTo(3, 6)]]); // prettier-ignore
    expect(match?.outside[0]).toMatchObject({ fraction: 0.006, u: 0.0001, limit: { low: 0, high: 0.005 } });
  });
  it('holds what a grade does not name to a trace of 0.05 %', () => {
    expect(fits(read({ Mg: 1.5, Zn: 0.05 }), plain)).toBe(true);
    expect(fits(read({ Mg: 1.5, Zn: 0.08 }), plain)).toBe(false);
  });
  it('takes a reading without an uncertainty as exact to 0.002 %', () => {
    const exact = (mg: number): Fractions => ({ Al: { fraction: 0.97, u: 0 }, Mg: { fraction: mg / 100, u: 0 } });
    expect(fits(exact(2.003), plain)).toBe(true);
    expect(fits(exact(2.005), plain)).toBe(false);
  });
  it('leaves out what the instrument does not see, though it says a figure for it', () => {
    const match = matchGrades(read({ Mg: 9 }), ['Mg'], [plain]).matches[0];
    expect(match).toMatchObject({ fits: true, unseen: ['Mg'], outside: [] });
  });
  it('holds the base to limits only where the grade gives some', () => {
    expect(fits(read({ Mg: 1.5, Al: 60 }), plain)).toBe(true);
    expect(fits(read({ Mg: 1.5, Al: 60 }), made('pure', { Mg: [1, 2], Al: [95, 100] }))).toBe(false);
  });
  it('knows the grades of the base alone', () => {
    const steel = made('steel', { Mg: [1, 2] }, { base: 'Fe' });
    expect(matchGrades(read({ Mg: 1.5 }), [], [steel, plain]).matches.map((m) => m.grade.name)).toEqual(['plain']);
    expect(matchGrades({}, [], [plain])).toEqual({ base: null, matches: [], separate: [] });
  });
});

describe('a sum with limits of its own', () => {
  const limit: Limit = { low: 0.001, high: 0.006 };
  const summed = made('summed', { Mn: [0, 0.5], Cr: [0, 0.5] }, { sums: [{ of: ['Mn', 'Cr'], limit }] });
  it('may be broken though each part is within its own, below as above', () => {
    // u of the sum: √2 · 0.01 %; 0.64 % lies 2.83 u above 0.6 %
    expect(fits(read({ Mn: 0.3, Cr: 0.3 }), summed)).toBe(true);
    expect(fits(read({ Mn: 0.32, Cr: 0.32 }), summed)).toBe(false);
    expect(fits(read({ Mn: 0.31, Cr: 0.31 }), summed)).toBe(true);
    expect(fits(read({ Mn: 0.01, Cr: 0.01 }), summed)).toBe(false);
    const [match] = matchGrades(read({ Mn: 0.35, Cr: 0.35 }), [], [summed]).matches;
    expect(match?.outside).toEqual([
      { symbol: 'Mn + Cr', fraction: expect.closeTo(0.007, 9) as number, u: expect.closeTo(Math.SQRT2 * 1e-4, 9) as number, limit, outside: expect.closeTo(0.001 / (Math.SQRT2 * 1e-4), 6) as number }, // prettier-ignore
    ]);
  });
  it('makes the grade the less likely the farther it is broken', () => {
    const whole = made('whole', { Mn: [0, 0.5], Cr: [0, 0.5] });
    const chance = matchGrades(read({ Mn: 0.31, Cr: 0.31 }), [], [whole, summed]).matches.find((m) => m.grade === summed);
    // 0.02 % over, u √2 · 0.01 %: exp(−½ · 2)
    expect(chance?.likelihoodFraction).toBeCloseTo(Math.exp(-1), 6);
  });
});

describe('which of two grades is likelier', () => {
  it('goes by how narrow the limits are that hold the reading', () => {
    // the same reading in limits half as wide is twice as likely
    const [first, second] = matchGrades(
      read({ Mg: 1.5 }, 0.001),
      [],
      [made('wide', { Mg: [1, 3] }), made('narrow', { Mg: [1, 2] })],
    ).matches;
    expect([first?.grade.name, second?.grade.name]).toEqual(['narrow', 'wide']);
    expect(second?.likelihoodFraction).toBeCloseTo(0.5, 9);
    expect(first?.likelihoodFraction).toBe(1);
  });
  it('takes what only has a most as wanted in half the melts and a trace in the other half', () => {
    const [most, none] = [made('most', { Mg: [1, 2], Cu: [0, 0.5] }), made('none', { Mg: [1, 2] })];
    const at = (cu: number): number => {
      const { matches } = matchGrades(read({ Mg: 1.5, Cu: cu }, 0.001), [], [most, none]);
      const of = (g: Grade): number => matches.find((m) => m.grade === g)!.likelihoodFraction;
      return of(most) / of(none);
    };
    // by hand, per fraction: as a trace 1/0.0005 each; with a most of 0.5 %: (1/0.005 + 1/0.0005) / 2
    const inside = (high: number, x: number): number => (normalCdf(high, x, 1e-5) - normalCdf(0, x, 1e-5)) / high;
    expect(at(0.02)).toBeCloseTo((inside(0.005, 2e-4) + inside(0.0005, 2e-4)) / 2 / inside(0.0005, 2e-4), 6);
    expect(at(0.02)).toBeCloseTo(0.55, 6);
  });
  it('still ranks by distance what lies far outside of both', () => {
    const [near, far] = [made('near', { Mg: [1, 2] }), made('far', { Mg: [2.2, 3.2] })];
    const { matches } = matchGrades(read({ Mg: 2.08 }), [], [far, near]);
    expect(matches.map((m) => [m.grade.name, m.fits])).toEqual([['near', false], ['far', false]]); // prettier-ignore
    // 8 u against 12 u outside limits of one width: exp(½ (8² − 12²))
    expect(Math.log(matches[1]!.likelihoodFraction)).toBeCloseTo((8 ** 2 - 12 ** 2) / 2, 3);
  });
  it('puts what fits before what does not, however likely', () => {
    const fit = made('fit', { Mg: [1, 40], Si: [0, 40] });
    const narrow = made('narrow', { Mg: [1.499, 1.501], Si: [0, 0.001] });
    const { matches } = matchGrades(read({ Mg: 1.5, Si: 0.022 }), [], [narrow, fit]);
    expect(matches.map((m) => m.grade.name)).toEqual(['fit', 'narrow']);
  });
});

describe('what would tell two fitting grades apart', () => {
  const separate = (a: Grade, b: Grade, reading = read({ Mg: 1.5 }), unseen: readonly string[] = []): readonly string[] =>
    matchGrades(reading, unseen, [a, b]).separate;
  const a = made('A', { Mg: [1, 2], Si: [0, 0.3] });
  it('is an element whose limits lie apart, and whether this instrument sees it', () => {
    const b = made('B', { Mg: [1, 2], Si: [0.5, 1] });
    expect(separate(a, b)).toEqual(['A and B are told apart by Si (up to 0.3 % against 0.5 % to 1 %)']);
    expect(separate(a, b, read({ Mg: 1.5 }), ['Si'])).toEqual([
      'A and B are told apart by Si (up to 0.3 % against 0.5 % to 1 %, which this instrument does not see)',
    ]);
    // limits that meet do not lie apart
    expect(separate(a, made('B', { Mg: [1, 2], Si: [0.3, 1] }))[0]).toContain('A and B overlap');
    expect(separate(made('B', { Mg: [1, 2], Si: [0.3, 1] }), a)[0]).toContain('overlap');
    expect(separate(b, a)[0]).toMatch(/told apart by Si \(0\.5 % to 1 % against up to 0\.3 %\)/);
  });
  it('is nothing where the limits are the same, and the first three where they overlap', () => {
    expect(separate(a, made('B', { Mg: [1, 2], Si: [0, 0.3] }))).toEqual(['A and B have the same limits']);
    const wide = made('B', { Mg: [1, 2.5], Si: [0, 0.4], Mn: [0, 0.1], Cr: [0, 0.2] });
    expect(separate(a, wide)).toEqual([
      'A and B overlap: a composition may be both. Only a value outside one of them tells: Mg (1 % to 2 % against 1 % to 2.5 %), Si (up to 0.3 % against up to 0.4 %), Mn (up to 0.05 % against up to 0.1 %)',
    ]);
    // the least alone may differ
    expect(separate(a, made('B', { Mg: [1.2, 2], Si: [0, 0.3] }))[0]).toContain('Mg (1.2 % to 2 % against 1 % to 2 %)');
  });
  it('is said of each pair of the first four', () => {
    const five = [1, 2, 3, 4, 5].map((n) => made(`G${n}`, { Mg: [1, 2 + n / 10] }));
    expect(matchGrades(read({ Mg: 1.5 }), [], five).separate).toHaveLength(6);
    expect(matchGrades(read({ Mg: 1.5 }), [], five.slice(0, 1)).separate).toEqual([]);
  });
  it('prints limits as a standard does', () => {
    expect(limitText({ low: 0, high: 0.004 })).toBe('up to 0.4 %');
    expect(limitText({ low: 0.0045, high: 0.1 })).toBe('0.45 % to 10 %');
  });
});

describe('what a designation says', () => {
  it.each([
    ['1.4301', 'stainless or heat-resisting steel'],
    ['1.4000', 'stainless or heat-resisting steel'],
    ['1.5528', 'alloy steel'],
    ['1.0338', 'unalloyed steel'],
    ['1.2000', 'alloy steel'],
    ['6060', 'aluminium with magnesium and silicon'],
    ['EN AC-46000', 'casting aluminium with silicon'],
    ['A356', 'casting aluminium with silicon and copper or magnesium'],
    ['AA 713.0', 'casting aluminium with zinc'],
  ])('%s is %s', (text, says) => expect(readDesignation(text, null).says).toBe(says));
  it.each(['X6082', 'EN AW-60825X', '16082', '1.43012', 'x1.4301', 'A3566', '413.05', 'EN AC-460001'])(
    '%s is no number of an alloy',
    (text) => expect([readDesignation(text, null).says, readDesignation(text, true).fault]).toEqual(['', null]),
  );
  it('goes with a part of its form, or with one whose form is not known', () => {
    expect(readDesignation('6082', null).fault).toBeNull();
    expect(readDesignation('EN AC-46000', true).fault).toBeNull();
    expect(readDesignation('1.0338', true).fault).toBeNull();
    expect(readDesignation(' 6082 ', true).fault).toMatch(/^6082 is the number of a wrought alloy/);
    expect(readDesignation(' AC-46000 ', false).fault).toMatch(/^AC-46000 is the number of a casting alloy/);
  });
  it.each([
    ['AC-6082', '6082'],
    ['AW-46000', '46000'],
  ])('%s with the letters of the other system is said to be so', (text, number) =>
    // prettier-ignore
    expect(readDesignation(text, null).fault).toContain(`${number} is the number of`),
  );
});
