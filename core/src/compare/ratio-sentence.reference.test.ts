import fc from 'fast-check';
import { changeFraction, percentText, ratioPhrase } from './ratio-sentence';

const HEAVY = { asMuch: 'as heavy', more: 'more', less: 'less' };

/** @source common practice, no source */
describe('ratios worded rightly', () => {
  it('4.81, 8.23 and 11.15 kg', () => {
    expect(ratioPhrase(8.23, 4.81, HEAVY)).toBe('1.71 times as heavy, 71 % more');
    expect(ratioPhrase(11.15, 4.81, HEAVY)).toBe('2.32 times as heavy, 132 % more');
  });
  it('a cost from 810.54 to 522 is 35.6 % less', () => {
    expect((changeFraction(810.54, 522) ?? 0) * 100).toBeCloseTo(-35.6, 1);
    expect(ratioPhrase(522, 810.54, { ...HEAVY, asMuch: 'as costly' })).toBe('0.644 times as costly, 36 % less');
  });
  it('89 to 120 is 35 % more, 265 to 348 is 31 %, not “about 30”', () => {
    expect(ratioPhrase(120, 89, { ...HEAVY, asMuch: 'as much' })).toBe('1.35 times as much, 35 % more');
    expect(percentText(changeFraction(265, 348) ?? 0)).toBe('31 %');
  });
  it('18.42 m in 35 runs against 6.35 m in 10: 2.90 times', () =>
    expect(ratioPhrase(18.42, 6.35, { ...HEAVY, asMuch: 'as long' })).toBe('2.90 times as long, 190 % more'));
  it('100 cm against 67 cm of cable: 49 % more', () =>
    expect(ratioPhrase(100, 67, { ...HEAVY, asMuch: 'as long' })).toBe('1.49 times as long, 49 % more'));
  it('four bolts become three: 25 % fewer', () =>
    expect(ratioPhrase(3, 4, { asMuch: 'as many', more: 'more', less: 'fewer' })).toBe('0.750 times as many, 25 % fewer'));
});

describe('what a ratio never says', () => {
  it('is never “N % heavier” for a thing that is N % of the other: the percent is the difference', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 1e4, noNaN: true }), fc.double({ min: 0.01, max: 1e4, noNaN: true }), (value, against) => {
        const phrase = ratioPhrase(value, against, HEAVY);
        const [, percent, word] = /, ([\d.\u202f]+) % (more|less)$/.exec(phrase ?? '') ?? [];
        if (percent === undefined) return;
        const said = Number(percent.replaceAll('\u202f', ''));
        expect(word).toBe(value > against ? 'more' : 'less');
        expect(Math.abs(said - Math.abs(value / against - 1) * 100)).toBeLessThanOrEqual(0.5);
      }),
    );
  });
  it('says nothing where a ratio means nothing', () => {
    expect([ratioPhrase(null, 1, HEAVY), ratioPhrase(1, 0, HEAVY), ratioPhrase(0, 1, HEAVY), ratioPhrase(Number.NaN, 1, HEAVY)]).toEqual([
      null,
      null,
      null,
      null,
    ]);
    expect(changeFraction(0, 5)).toBeNull();
  });
  it('does not call a rounding a difference', () => {
    expect(ratioPhrase(1, 1, HEAVY)).toBe('exactly as heavy');
    expect(ratioPhrase(1.0001, 1, HEAVY)).toBe('as heavy to within 0.1 %');
  });
});
