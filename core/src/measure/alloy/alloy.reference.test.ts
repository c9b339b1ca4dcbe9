import { readDesignation } from './designation';
import { GRADES, type Grade } from './grades';
import { matchGrades, UNSEEN_BY_X_RAYS, type Fractions } from './match-grades';

/**
 * A composition in the middle of every range of a grade; where only a most is given, 30 % of it; the base is what is left.
 * The limits are from memory of EN 573-3, EN 1706, AA, ASTM B94, EN 12844 and EN 10130, not checked against the standards.
 */
const middleOf = ({ base, limits }: Grade, u = 0.00002): Fractions => {
  const parts = Object.entries(limits).filter(([symbol]) => symbol !== base);
  const of = (low: number, high: number): number => (low === 0 ? 0.3 * high : (low + high) / 2);
  const others = parts.map(([symbol, { low, high }]) => [symbol, { fraction: of(low, high), u: Math.min(u, high / 20) }] as const);
  const rest = 1 - others.reduce((sum, [, { fraction }]) => sum + fraction, 0);
  return Object.fromEntries([...others, [base, { fraction: rest, u: 0.002 }]]);
};
const gradeOf = (name: string): Grade => GRADES.find((g) => g.name === name)!;
const fitting = (reading: Fractions, unseen: readonly string[] = []): readonly string[] =>
  matchGrades(reading, unseen)
    .matches.filter((m) => m.fits)
    .map((m) => m.grade.name);

// two standards that overlap in truth: a composition in the middle of the first lies within the second as well
const OVERLAPS: Readonly<Record<string, readonly string[]>> = {
  'EN AW-6060': ['EN AW-6060', 'EN AW-6063'],
  'EN AC-42100': ['AA A356.0', 'EN AC-42100'],
};

describe('a composition in the middle of a grade', () => {
  it.each(GRADES.filter((g) => g.base !== 'Fe').map((g) => g.name))(
    '%s is that grade, and another only where the standards overlap',
    (name) => {
      const found = fitting(middleOf(gradeOf(name)));
      expect([...found].sort()).toEqual(OVERLAPS[name] ?? [name]);
    },
  );
  it('of 6060 cannot be told from 6063, and it is said what would', () => {
    const { separate } = matchGrades(middleOf(gradeOf('EN AW-6060')), []);
    expect(separate.join()).toMatch(/EN AW-606[03] and EN AW-606[03] overlap: a composition may be both\. Only a value outside/);
  });
  it('of 42100 cannot be told from A356 but by more copper than 0.05 %', () => {
    const { separate } = matchGrades(middleOf(gradeOf('EN AC-42100')), []);
    expect(separate.join()).toMatch(/Cu \(up to 0\.0?5 % against up to 0\.2 %\)|Cu \(up to 0\.2 % against up to 0\.05 %\)/);
  });
});

describe('an analyser that cannot see carbon and boron', () => {
  it('takes DC04 for DC04, and says that carbon was not looked at', () => {
    const { C: _c, ...seen } = middleOf(gradeOf('DC04')) as Record<string, { fraction: number; u: number }>;
    const { matches } = matchGrades(seen, UNSEEN_BY_X_RAYS);
    const dc04 = matches.find((m) => m.grade.name === 'DC04');
    expect([dc04?.fits, dc04?.unseen]).toEqual([true, ['C']]);
  });
  it('takes 22MnB5 for the likeliest by its manganese and chromium, and says that only carbon or boron would rule a dual-phase steel out', () => {
    const { C: _c, B: _b, ...seen } = middleOf(gradeOf('22MnB5')) as Record<string, { fraction: number; u: number }>;
    expect(fitting(seen, UNSEEN_BY_X_RAYS)).toEqual(['22MnB5', 'HCT600X']);
    expect(matchGrades(seen, UNSEEN_BY_X_RAYS).separate.join()).toMatch(/told apart by C \(.*which this instrument does not see\)/);
  });
  it('with carbon read tells the two apart', () => expect(fitting(middleOf(gradeOf('22MnB5')))).toEqual(['22MnB5']));
});

describe('a reading that fits nothing', () => {
  it('names the nearest grade and the elements that lie outside, the worst first', () => {
    const reading = { ...middleOf(gradeOf('EN AW-6082')), Cu: { fraction: 0.006, u: 0.0002 } };
    const [nearest] = matchGrades(reading, []).matches;
    expect(nearest?.fits).toBe(false);
    expect(nearest?.outside[0]?.symbol).toBe('Cu');
  });
  it('of a base that is not known has no candidates', () =>
    expect(matchGrades({ Ti: { fraction: 0.9, u: 0.01 }, Al: { fraction: 0.06, u: 0.01 } }, [])).toEqual({
      base: null,
      matches: [],
      separate: [],
    }));
});

describe('a designation', () => {
  it.each([
    ['6082', 'wrought aluminium, four digits', 'wrought'],
    ['EN AW-6082', 'wrought aluminium, four digits', 'wrought'],
    ['EN AC-46000', 'cast aluminium, EN AC- and five digits', 'cast'],
    ['A356.0', 'cast aluminium, three digits and a point', 'cast'],
    ['1.0338', 'steel number, 1. and four digits', null],
  ])('%s is of the system %s', (text, system, form) => {
    const read = readDesignation(text, null);
    expect([read.system, read.form]).toEqual([system, form]);
    expect(read.grade).not.toBeNull();
  });
  it('a four-digit wrought number is no casting alloy', () => {
    expect(readDesignation('6082', true).fault).toMatch(/number of a wrought alloy, and the part is a casting/);
    expect(readDesignation('6082', false).fault).toBeNull();
    expect(readDesignation('EN AC-46000', false).fault).toMatch(/number of a casting alloy/);
  });
  it('that is none is not made into one', () =>
    expect(readDesignation('blue', true)).toMatchObject({ system: '', grade: null, fault: null }));
});

describe('an element that was not reported', () => {
  it('is not 0: a reading without copper still fits a grade that must have copper, and says that it was not looked at', () => {
    const { Cu: _cu, ...seen } = middleOf(gradeOf('EN AC-46000')) as Record<string, { fraction: number; u: number }>;
    const match = matchGrades(seen, []).matches.find((m) => m.grade.name === 'EN AC-46000');
    expect(match).toMatchObject({ fits: true, unseen: ['Cu'] });
    // read as nothing it does not fit
    const read = { ...seen, Cu: { fraction: 0, u: 0.0001 } };
    expect(matchGrades(read, []).matches.find((m) => m.grade.name === 'EN AC-46000')?.fits).toBe(false);
  });
  it('of a sum breaks only its most, never its least', () => {
    const { Cr: _cr, ...seen } = middleOf(gradeOf('EN AW-5754')) as Record<string, { fraction: number; u: number }>;
    const little = { ...seen, Mn: { fraction: 0.0001, u: 0.00005 } };
    expect(matchGrades(little, []).matches.find((m) => m.grade.name === 'EN AW-5754')?.fits).toBe(true);
  });
});

describe('designations as they are often written wrong', () => {
  it.each([
    ['EN AC-6082', 'EN AW-6082', /EN AC- is for casting alloys, and 6082 is the number of a wrought one: EN AW-6082 is probably meant/],
    ['EN AW-46000', 'EN AC-46000', /EN AW- is for wrought alloys, and 46000 is the number of a casting one/],
  ])('%s is understood as %s, and the slip is named', (text, grade, fault) => {
    const read = readDesignation(text, null);
    expect([read.grade?.name, read.fault]).toEqual([grade, expect.stringMatching(fault) as string]);
  });
  it.each([
    ['AlSi9Cu3', 'EN AC-46000'],
    ['AlSi9Cu3(Fe)', 'EN AC-46000'],
    ['alsi10mnmg', 'EN AC-43500'],
    ['A380', 'AA A380.0'],
    ['A356', 'AA A356.0'],
    ['6082', 'EN AW-6082'],
    ['AlMg3', 'EN AW-5754'],
  ])('%s alone is %s', (text, grade) => expect(readDesignation(text, null).grade?.name).toBe(grade));
  it('a casting number on a wrought part is named', () =>
    expect(readDesignation('AC-46000', false).fault).toMatch(/is the number of a casting alloy, and the part is rolled/));
});
