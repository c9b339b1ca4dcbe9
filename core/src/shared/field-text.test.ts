import { printField, readField, unitShape, type FieldShape } from './field-text';
import { READ_IN, expandedIn } from './shown-units';

const value = (shape: FieldShape, text: string): unknown => {
  const read = readField(shape, text);
  return read.ok ? read.value : read.message;
};

describe('what is typed into a field', () => {
  it('becomes SI: hours, kWh, km, kWh per 100 km', () => {
    expect(value(unitShape(READ_IN.h), '2,5')).toBe(9000);
    expect(value(unitShape(READ_IN.kWh), '75')).toBe(270_000_000);
    expect(value(unitShape(READ_IN.km), '348')).toBe(348_000);
    // 20 kWh / 100 km = 72 MJ / 100 km = 720 J/m
    expect(value(unitShape(READ_IN['kWh/100 km']), '20')).toBe(720);
  });
  // BIPM SI Brochure; 1 lb = 0.45359237 kg, 1 in = 25.4 mm, 1 PS = 735.49875 W
  it('takes the unit that is typed after it, of the same kind only', () => {
    expect(value(unitShape(READ_IN.kg), '1185 kg')).toBe(1185);
    expect(value(unitShape(READ_IN.kg), '1.2t')).toBe(1200);
    expect(value(unitShape(READ_IN.kg), '2612 lb')).toBeCloseTo(1184.783, 3);
    expect(value(unitShape(READ_IN.mm), '2.42 m')).toBe(2.42);
    expect(value(unitShape(READ_IN.mm), '2420 mm')).toBe(2.42);
    expect(value(unitShape(READ_IN.mm), '95.3 in')).toBeCloseTo(2.42062, 6);
    expect(value(unitShape(READ_IN.mm), '2420')).toBe(2.42);
    expect(value(unitShape(READ_IN.kW), '136 PS')).toBeCloseTo(100_027.83, 2);
    expect(value(unitShape(READ_IN['kWh/100 km']), '200 Wh/km')).toBe(720);
    expect(value(unitShape(READ_IN.h), '90 min')).toBe(5400);
    expect(value(unitShape(READ_IN.kg), '1185 mm')).toContain('not in a unit of this field; write it in kg');
    expect(value(unitShape(READ_IN.kW), '100 mW')).toContain('not in a unit of this field');
    expect(value(unitShape(READ_IN.kW), '0.1 MW')).toBe(100_000);
    expect(value(unitShape(READ_IN.kg), '1,185 kg')).toContain('can be 1.185 or 1185');
    expect(value(unitShape(READ_IN.kg), '1185 or so')).toContain('not in a unit of this field');
  });
  // JCGM 100:2008 (GUM), 6.2.1: U = 2 u
  it('that is an uncertainty is typed and shown expanded, in any unit of its kind, and kept standard', () => {
    const shape = unitShape(expandedIn(READ_IN.kg));
    expect([value(shape, '4'), value(shape, '4 kg'), value(shape, '400 g')]).toEqual([2, 2, 0.2]);
    expect(printField(shape, 2)).toBe('4');
  });
  it('is asked about when it can be read two ways, and refused when it is no number', () => {
    expect(value({ kind: 'whole' }, '1,840')).toContain('can be 1.840 or 1840');
    expect(value({ kind: 'whole' }, '2.5')).toContain('whole number');
    expect(value(unitShape(READ_IN.h), 'long')).toContain('is not a number');
    expect(value({ kind: 'date' }, '3.6.26')).toContain('is not a date');
    expect(value({ kind: 'money' }, '48 990')).toContain('is not a price');
  });
  it('is an estimate of three times, or of one that stands for three', () => {
    expect(value({ kind: 'effort' }, '2 / 3 / 6')).toEqual({ optimisticS: 7200, mostLikelyS: 10_800, pessimisticS: 21_600 });
    expect(value({ kind: 'effort' }, '4')).toEqual({ optimisticS: 10_800, mostLikelyS: 14_400, pessimisticS: 21_600 });
    expect(value({ kind: 'effort' }, '3 / 2 / 6')).toContain('must not decrease');
    expect(value({ kind: 'effort' }, '2 / 3')).toContain('optimistic, most likely and pessimistic');
  });
  it('takes hours with their unit, equal ones, and none of nothing', () => {
    expect(value({ kind: 'effort' }, '2 h / 3 h / 6 h')).toEqual({ optimisticS: 7200, mostLikelyS: 10_800, pessimisticS: 21_600 });
    expect(value({ kind: 'effort' }, '4h')).toEqual({ optimisticS: 10_800, mostLikelyS: 14_400, pessimisticS: 21_600 });
    expect(value({ kind: 'effort' }, '3/3/3')).toEqual({ optimisticS: 10_800, mostLikelyS: 10_800, pessimisticS: 10_800 });
    expect(value({ kind: 'effort' }, '2;3–6')).toEqual({ optimisticS: 7200, mostLikelyS: 10_800, pessimisticS: 21_600 });
    expect(value({ kind: 'effort' }, '0')).toBe('Hours must be more than 0');
    expect(value({ kind: 'effort' }, '0 / 1 / 2')).toBe('Hours must be more than 0');
    expect(value({ kind: 'effort' }, '2 / 3 / x')).toBe('“x” is not a number; write for instance 2.5');
    expect(value({ kind: 'effort' }, '2 / 6 / 3')).toContain('must not decrease');
  });
  it('is a day of the calendar, year first', () => {
    expect(value({ kind: 'date' }, '2026-06-03')).toBe('2026-06-03');
    expect(value({ kind: 'date' }, '2028-02-29')).toBe('2028-02-29');
    for (const none of ['2026-02-29', '2026-02-31', '2026-13-01', '2026-00-10']) expect(value({ kind: 'date' }, none)).toBe(`There is no ${none} in the calendar`); // prettier-ignore
    for (const other of ['26-06-03', '2026-6-3', '2026-06-03x', 'x2026-06-03', '20x6-06-03', '03-06-2026'])
      expect(value({ kind: 'date' }, other)).toContain('is not a date');
  });
  it('is nothing when nothing is typed, and text stays text', () => {
    expect(value({ kind: 'whole' }, ' ')).toBeNull();
    expect(value({ kind: 'text' }, ' ')).toBe('');
    expect(value({ kind: 'words' }, 'welding, high voltage, welding,')).toEqual(['welding', 'high voltage']);
  });
  it('is shown as text, as digits, or not at all', () => {
    expect(printField({ kind: 'text' }, 'as it is')).toBe('as it is');
    expect(printField({ kind: 'text' }, null)).toBe('');
    expect(printField({ kind: 'text' }, undefined)).toBe('');
    expect(printField({ kind: 'whole' }, 12)).toBe('12');
    expect(printField(unitShape(READ_IN.mm), 2.4205)).toBe('2420.5');
  });
  it('can be typed back as it is shown', () => {
    for (const [shape, text] of [
      [unitShape(READ_IN.kWh), '75.2'],
      [unitShape(READ_IN.mm), '3275'],
      [{ kind: 'effort' }, '2/3.25/6'],
      [{ kind: 'words' }, 'a, b'],
    ] as const) {
      const read = readField(shape, text);
      expect(printField(shape, read.ok ? read.value : null)).toBe(text);
    }
  });
});
