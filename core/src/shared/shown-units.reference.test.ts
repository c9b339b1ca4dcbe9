import { setForm, setFormFields } from '../bench';
import { blank, fieldInput } from '../record';
import { readField, printField } from './field-text';
import {
  expandedIn,
  gramsText,
  inMetric,
  inUnit,
  lengthText,
  massText,
  massWithU,
  readAs,
  READ_IN,
  showUnits,
  unitWord,
} from './shown-units';

/** What is shown in inches and pounds, the units put back afterwards. */
const inInchPound = <T>(show: () => T): T => {
  showUnits('inch-pound');
  try {
    return show();
  } finally {
    showUnits('metric');
  }
};

describe('units of a person’s choice', () => {
  // international yard and pound agreement of 1959: 1 lb = 0.45359237 kg, 1 in = 25.4 mm; 1 oz = lb/16; all exact
  it('show a mass of 4.5359237 kg as 10 lb, an ounce as an ounce, a length of 25.4 mm as one inch', () =>
    expect(inInchPound(() => [massText(4.5359237, 3), gramsText(0.028349523125, 1), lengthText(0.0254), lengthText(0.0008)])).toEqual([
      '10.000 lb',
      '1.00 oz',
      '1 in',
      '0.0315 in',
    ]));
  it('are metric unless chosen otherwise', () =>
    expect([massText(4.5, 3), gramsText(0.0412, 1), lengthText(0.0254), unitWord('kg')]).toEqual(['4.500 kg', '41.2 g', '25.4 mm', 'kg']));
  it('carry the expanded uncertainty with the figure: 1.836 ± 0.0046 kg is 4.048 ± 0.010 lb', () => {
    expect(massWithU(1.836, 0.0023)).toBe('1.8360 ± 0.0046 kg');
    expect(inInchPound(() => massWithU(1.836, 0.0023))).toBe('4.048 ± 0.010 lb');
  });
  // US gallon of 231 in³; standard acceleration 9.80665 m/s² (CGPM 1901); mile 1609.344 m
  it('turn volumes, forces, torques, distances and consumption', () =>
    inInchPound(() => {
      expect(readAs(READ_IN.l, 3.785411784e-3)).toBeCloseTo(1, 12);
      expect(readAs(READ_IN.kN, 4.4482216152605)).toBeCloseTo(1, 12);
      expect(readAs({ per: 1, unit: 'Nm', digits: 1 }, 1.35581794833)).toBeCloseTo(1, 10);
      expect(inUnit(READ_IN.km, 1_609_344)).toBe('1\u202f000 mi');
      // 20 kWh/100 km over 100 miles of 160.9344 km
      expect(inUnit(READ_IN['kWh/100 km'], 20 * 36)).toBe('32.2 kWh/100 mi');
    }));
  it('turn the figures of a section: 25.4⁶ mm⁶ is one in⁶; 1 kN m² is 2 420 lbf·ft²', () =>
    inInchPound(() => {
      expect(readAs({ per: 1e-12, unit: 'cm⁶', digits: 3 }, 0.0254 ** 6)).toBeCloseTo(1, 10);
      // 1 lbf = 4.4482216152605 N and 1 ft = 0.3048 m, both exact
      expect(readAs({ per: 1000, unit: 'kN m²', digits: 2 }, 1000)).toBeCloseTo(1000 / (4.4482216152605 * 0.09290304), 6);
    }));
  it('leave what has no other unit as it is', () =>
    expect(inInchPound(() => [inUnit(READ_IN.kWh, 3.6e6 * 60), inUnit(READ_IN.h, 3600)])).toEqual(['60 kWh', '1 h']));

  it('stay in proportion where a reading is kept in its own unit: a hold point of 25.4 mm is one inch, not a thousandth', () =>
    inInchPound(() => {
      const gap = { kind: 'number', per: 1, unit: 'mm', digits: 3 } as const;
      expect(printField(gap, 25.4)).toBe('1');
      expect(readField(gap, '2')).toEqual({ ok: true, value: 50.8 });
      expect(readField(gap, '10 mm')).toEqual({ ok: true, value: 10 });
    }));
  it('leave the form of a fastener set metric: an M6 is 6 mm by name, and comes back as it was', () =>
    inInchPound(() => {
      const fields = {
        ...blank('fasteners', { partId: '' }),
        sequence: 0,
        count: 4,
        kind: 'bolt' as const,
        threadM: 0.006,
        lengthM: 0.016,
      };
      expect(setFormFields('fasteners').find(({ field }) => field === 'threadM')?.unit).toBe('mm');
      expect(setForm('fasteners', fields)).toMatchObject({ threadM: '6', lengthM: '16' });
    }));
  it('do not reach into files: what is made for one is metric, and the choice stands afterwards', () =>
    inInchPound(() => expect([inMetric(() => massText(4.5, 1)), massText(4.5359237, 1)]).toEqual(['4.5 kg', '10.0 lb'])));

  describe('in a field', () => {
    const mass = fieldInput('liftStep.massKg').shape;
    it('a bare number is in the unit shown beside it, and any other may be typed', () =>
      inInchPound(() => {
        expect(readField(mass, '10')).toEqual({ ok: true, value: 4.5359237 });
        expect(readField(mass, '10 kg')).toEqual({ ok: true, value: 10 });
        expect(printField(mass, 4.5359237)).toBe('10');
      }));
    it('an uncertainty is typed and shown expanded in that unit, k = 2', () =>
      inInchPound(() => {
        const shape = { kind: 'number', ...expandedIn(READ_IN.kg) } as const;
        expect(readField(shape, '2')).toEqual({ ok: true, value: 0.45359237 });
        expect(printField(shape, 0.45359237)).toBe('2');
      }));
    it('a unit of something else is refused by the name of the one that is meant', () =>
      inInchPound(() => {
        const read = readField(mass, '10 mm');
        expect(read.ok ? '' : read.message).toMatch(/write it in lb, or with its unit/);
      }));
  });
});
