import fc from 'fast-check';
import { basisDifferences, type CostBasis, type Money } from './money';
import { readQuantity } from './typed-quantity';
import { resolutionU } from './uncertainty';
import { LENGTH_UNITS, MASS_UNITS, fromSi, toSi } from './units';

const read = (text: string): ReturnType<typeof readQuantity> => readQuantity(text, MASS_UNITS);

describe('a quantity as it is typed', () => {
  it.each([
    ['41 g', 0.041, 0.001, '41 g'],
    ['1.84kg', 1.84, 0.01, '1.84 kg'],
    ['1,84 kg', 1.84, 0.01, '1.84 kg'],
    ['250 MG', 0.00025, 1e-6, '250 mg'],
    ['2 lb', 0.90718474, 0.45359237, '2 lb'],
    ['  0.5 t ', 500, 100, '0.5 t'],
  ])('%s is %s kg, known to %s kg', (text, si, stepSi, typed) => {
    const quantity = read(text);
    expect(quantity).toMatchObject({ kind: 'quantity', quantity: { typed } });
    if (quantity.kind === 'quantity') {
      expect(quantity.quantity.si).toBeCloseTo(si, 12);
      expect(quantity.quantity.stepSi).toBeCloseTo(stepSi, 12);
    }
  });
  it('41 g is exactly 0.041 kg: no rounding creeps in by the unit', () => expect(toSi(41, MASS_UNITS.g)).toBe(0.041));
  it('without a unit says so rather than guess, and 1,840 may be two things', () => {
    expect(read('41')).toEqual({ kind: 'no-unit', text: '41' });
    expect(read('1,840 g')).toEqual({ kind: 'ambiguous', readings: ['1.840 g', '1840 g'] });
  });
  it.each(['', 'g', '-3 g', '3 g g', '3 stone', '1e g', 'constructor', '3 toString', '٣ g', '0x10 g'])('“%s” is none', (text) =>
    expect(read(text).kind).toBe('none'),
  );
  it('goes to SI and back without change, in every unit', () =>
    fc.assert(
      fc.property(
        fc.constantFrom(...Object.values(MASS_UNITS), ...Object.values(LENGTH_UNITS)),
        fc.double({ min: 1e-6, max: 1e6, noNaN: true }),
        (unit, value) => expect(Math.abs(fromSi(toSi(value, unit), unit) / value - 1)).toBeLessThan(1e-14),
      ),
    ));
  it('of any words throws nothing', () => fc.assert(fc.property(fc.string(), (text) => void read(text))));
});

describe('a reading known to its last digit', () => {
  /** @source JCGM 100:2008 (GUM), F.2.2.1: a digital step δ has the standard uncertainty 0.29 δ */
  it('has 0.29 of its step as standard uncertainty', () => expect(resolutionU(1)).toBeCloseTo(0.29, 2));
  it('that is stated ten times as finely is ten times as certain', () => expect(resolutionU(1) / resolutionU(0.1)).toBeCloseTo(10, 12));
});

describe('a price against the basis of a study', () => {
  const BASIS: CostBasis = { currency: 'EUR', priceYear: 2026, volumePerYear: 60_000, productionYears: 7, region: 'Central Europe' };
  const price: Money = { amount: '4.20', currency: 'EUR', priceYear: 2026, volumePerYear: 60_000, region: 'Central Europe' };
  it('of the same basis counts', () => expect(basisDifferences(price, BASIS)).toEqual([]));
  it('of another names everything that keeps it from being counted', () =>
    expect(basisDifferences({ ...price, currency: 'USD', priceYear: 2024, volumePerYear: 5000, region: 'North America' }, BASIS)).toEqual([
      'USD, not EUR',
      'prices of 2024, not 2026',
      '5000 vehicles a year, not 60000',
      'North America, not Central Europe',
    ]));
});
