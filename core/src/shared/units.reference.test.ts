import fc from 'fast-check';
import { unit } from 'mathjs';
import { LENGTH_UNITS, MASS_UNITS, fromSi, toSi } from './units';

const MATHJS_NAME: Readonly<Record<string, string>> = { t: 'tonne', lb: 'lbm' };

/** @source mathjs 15.2.0, an independent unit library */
describe('units against mathjs', () => {
  it.each(Object.values(MASS_UNITS))('one $symbol in kg', (u) => {
    expect(toSi(1, u)).toBeCloseTo(unit(1, MATHJS_NAME[u.symbol] ?? u.symbol).toNumber('kg'), 14);
  });
  it.each(Object.values(LENGTH_UNITS))('one $symbol in m', (u) => {
    expect(toSi(1, u)).toBeCloseTo(unit(1, MATHJS_NAME[u.symbol] ?? u.symbol).toNumber('m'), 14);
  });
  it('converts any mass to the same relative 1e-12', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-6, max: 1e6, noNaN: true }), fc.constantFrom(...Object.values(MASS_UNITS)), (value, u) => {
        const reference = unit(value, MATHJS_NAME[u.symbol] ?? u.symbol).toNumber('kg');
        expect(Math.abs(toSi(value, u) / reference - 1)).toBeLessThan(1e-12);
        expect(Math.abs(fromSi(toSi(value, u), u) / value - 1)).toBeLessThan(1e-12);
      }),
    );
  });
});

/** @source international yard and pound agreement of 1959, exact */
describe('exact definitions', () => {
  it('25.4 mm to the inch, 0.45359237 kg to the pound', () => {
    expect(toSi(1, LENGTH_UNITS.in)).toBe(0.0254);
    expect(toSi(1, MASS_UNITS.lb)).toBe(0.45359237);
  });
  it('keeps decimal fractions decimal: 41 g is 0.041 kg, not 0.041000000000000002', () => {
    expect(String(toSi(41, MASS_UNITS.g))).toBe('0.041');
    expect(String(toSi(1.1, MASS_UNITS.g))).toBe('0.0011');
  });
});

/** @source common practice, no source */
describe('facts of the trade', () => {
  it.each([
    [15, 'kg', 33.07],
    [1.2, 'kg', 2.65],
  ] as const)('%d %s is %d lb', (value, symbol, lb) => {
    expect(fromSi(toSi(value, MASS_UNITS[symbol]), MASS_UNITS.lb)).toBeCloseTo(lb, 2);
  });
  it('200 lb is 90.7 kg', () => expect(toSi(200, MASS_UNITS.lb)).toBeCloseTo(90.7, 1));
  it('3/8 in is 9.525 mm; 100 mm is 3.94 in; 25 mm is 0.98 in', () => {
    expect(fromSi(toSi(3 / 8, LENGTH_UNITS.in), LENGTH_UNITS.mm)).toBeCloseTo(9.525, 9);
    expect(fromSi(toSi(100, LENGTH_UNITS.mm), LENGTH_UNITS.in)).toBeCloseTo(3.94, 2);
    expect(fromSi(toSi(25, LENGTH_UNITS.mm), LENGTH_UNITS.in)).toBeCloseTo(0.98, 2);
  });
  it('turning circles of 38, 39.8 and 33 ft are 11.58, 12.13 and 10.06 m', () => {
    expect([38, 39.8, 33].map((ft) => Number(toSi(ft, LENGTH_UNITS.ft).toFixed(2)))).toEqual([11.58, 12.13, 10.06]);
  });
  it('5 a pound is 11.02 a kilogram, 600 a pound 1323', () => {
    expect([5, 600].map((perLb) => Number((perLb / toSi(1, MASS_UNITS.lb)).toPrecision(4)))).toEqual([11.02, 1323]);
  });
});
