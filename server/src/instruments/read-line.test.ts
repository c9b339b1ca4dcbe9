import fc from 'fast-check';
import { readReading } from './read-line';
import { readingLine } from './stand-ins/reading-line';

describe('a line an instrument tells unasked', () => {
  it('is read in SI, with its uncertainty, its tare and whether it stands still', () =>
    expect(readReading('READ 3219,MASS,1.873000e-1,KG,1.041002e-4,0.000000e+0,STAB')).toEqual({
      seq: 3219,
      quantity: 'mass',
      value: 0.1873,
      u: 0.0001041002,
      tare: 0,
      stable: true,
      overload: false,
      elements: null,
      raw: 'READ 3219,MASS,1.873000e-1,KG,1.041002e-4,0.000000e+0,STAB',
    }));
  it('of an overloaded scale has no value: absent is not zero', () =>
    expect(readReading('READ 1,MASS,,KG,1e-4,0,OVER')).toMatchObject({ value: null, overload: true, stable: false }));
  it('of an analyser has fractions of elements, each with its own uncertainty', () =>
    expect(readReading('READ 4,ELEM,,,,,STAB,Al=0.8862:0.003,Si=0.104:0.0025')).toMatchObject({
      quantity: 'element fractions',
      value: null,
      elements: { Al: { fraction: 0.8862, u: 0.003 }, Si: { fraction: 0.104, u: 0.0025 } },
    }));
  it.each([
    ['nothing', ''],
    ['another word', 'MEAS 1,MASS,1,KG,1,0,STAB'],
    ['no number of its own', 'READ ,MASS,1,KG,1,0,STAB'],
    ['an unknown quantity', 'READ 1,COLOUR,1,KG,1,0,STAB'],
    ['a name every object has', 'READ 1,constructor,1,KG,1,0,STAB'],
    ['a unit of another quantity', 'READ 1,MASS,1,M,1,0,STAB'],
    ['grams', 'READ 1,MASS,1,G,1,0,STAB'],
    ['a value that is none', 'READ 1,MASS,1.2.3,KG,1,0,STAB'],
    ['infinity', 'READ 1,MASS,1e999,KG,1,0,STAB'],
    ['a hexadecimal number', 'READ 1,MASS,0x10,KG,1,0,STAB'],
    ['no uncertainty above zero', 'READ 1,MASS,1,KG,0,0,STAB'],
    ['no status', 'READ 1,MASS,1,KG,1,0'],
    ['an unknown status', 'READ 1,MASS,1,KG,1,0,FINE'],
    ['a fraction above one', 'READ 1,ELEM,,,,,STAB,Al=1.2:0.1'],
    ['an element without uncertainty', 'READ 1,ELEM,,,,,STAB,Al=0.9'],
    ['an element that is none', 'READ 1,ELEM,,,,,STAB,aluminium=0.9:0.1'],
  ])('with %s is left aside whole', (_, line) => expect(readReading(line)).toBeNull());

  it('of the stand-ins comes back as it was told, whatever they read', () => {
    const value = fc.double({ min: 1e-7, max: 1e4, noNaN: true });
    fc.assert(
      fc.property(
        fc.nat(1e9),
        value,
        fc.double({ min: 1e-9, max: 10, noNaN: true }),
        fc.constantFrom('STAB', 'UNST', 'OVER'),
        (seq, v, u, status) => {
          const line = readingLine({ seq, quantity: 'MASS', value: status === 'OVER' ? null : v, unit: 'KG', u, tare: 0, status });
          const read = readReading(line.trim());
          expect(read).toMatchObject({ seq, stable: status === 'STAB', overload: status === 'OVER' });
          if (status === 'OVER') expect(read?.value).toBeNull();
          else expect(Math.abs((read?.value ?? 0) / v - 1)).toBeLessThan(1e-6);
        },
      ),
    );
  });
  it('of any bytes throws nothing, and gives no reading without a quantity', () =>
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.array(fc.constantFrom('READ ', '1', ',', 'MASS', 'KG', 'STAB', 'ELEM', 'Al=', ':', 'e9', '-', '.')).map((p) => p.join('')),
        ),
        (line) => {
          const read = readReading(line);
          if (read !== null) expect(['mass', 'length', 'torque', 'count', 'element fractions']).toContain(read.quantity);
        },
      ),
      { numRuns: 2000 },
    ));
});
