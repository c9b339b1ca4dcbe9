import {
  chanceText,
  counted,
  decimalsFor,
  fixed,
  millimetres,
  riskText,
  signed,
  threeDigits,
  percentWithU,
  plusMinus,
  withU,
} from './format';

describe('figures as people read them', () => {
  it('part thousands by a narrow space and use a true minus', () => {
    expect(fixed(50000, 0)).toBe('50\u202f000');
    expect(fixed(-1234.5, 1)).toBe('−1\u202f234.5');
    expect(fixed(-0.0001, 2)).toBe('0.00');
  });
  it('sign differences, but not nothing', () => {
    expect([signed(1.5, 1), signed(-1.5, 1), signed(0.01, 1)]).toEqual(['+1.5', '−1.5', '0.0']);
  });
  /** @source JCGM 100:2008 (GUM), 7.2.6 and the way H.1 states a result: two significant digits of the uncertainty */
  it('state a value at the decimals its uncertainty deserves', () => {
    expect(withU(1.8362, 0.0023)).toBe('1.8362 ± 0.0046');
    expect([plusMinus(0.0042), plusMinus(0.5), plusMinus(0), plusMinus(null)]).toEqual(['± 0.0084', '± 1.0', '', '']);
    expect(percentWithU(0.041, 0.0012)).toBe('4.10 ± 0.24 %');
    expect(withU(29.0612, 0.19)).toBe('29.06 ± 0.38');
    expect(decimalsFor(12)).toBe(0);
  });
  it('show three digits of a ratio', () => {
    expect([threeDigits(2.3181), threeDigits(163.4), threeDigits(0.08271), threeDigits(0)]).toEqual(['2.32', '163', '0.0827', '0']);
  });
  it('count one part and several parts', () => expect([counted(1, 'part'), counted(3, 'part')]).toEqual(['1 part', '3 parts']));
  it('turn metres into millimetres without float noise', () => expect(millimetres(0.0063)).toBe(6.3));
});

describe('a chance', () => {
  it.each([
    [0.995, '99.5 %'],
    [0.9949, '99.4 %'],
    [0.99999, '99.99 %'],
    [0.9999999, '99.99 %'],
    [1, '100 %'],
    [0.876, '87 %'],
    [0.29, '29 %'],
    [0, '0 %'],
  ])('that something holds, %s, is rounded towards doubt: %s', (p, text) => expect(chanceText(p)).toBe(text));
  it.each([
    [0.0001, '0.01 %'],
    [0.00001, '< 0.01 %'],
    [0.0101, '1.1 %'],
    [0.231, '24 %'],
    [0, '0 %'],
  ])('of harm, %s, is rounded up: %s', (p, text) => expect(riskText(p)).toBe(text));
});
