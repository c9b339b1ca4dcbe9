import { BLANK, testId } from '../../../testing/teardown';
import { blank, type Op, type Part } from '../../record';
import { countByWeight } from './count-by-weight';
import type { InstrumentNow, InstrumentReading } from './instrument-reading';
import { readingFault } from './instrument-reading';
import { readingText, takeCount, takeLength, takeReading } from './take-reading';

const NOW = '2026-06-01T08:00:00.000Z';
const READING: InstrumentReading = {
  ...{ instrumentId: 'i', seq: 7, at: NOW, quantity: 'mass', value: 0.492, u: 0.0001, tare: 0, stable: true, overload: false },
  ...{ elements: null, raw: 'READ 7,MASS,4.920000e-1,KG,1.000000e-4,0.000000e+0,STAB' },
};
const SCALE: InstrumentNow = {
  ...{ id: 'i', name: 'Bench scale', kind: 'scale', address: '127.0.0.1:1', simulated: true, state: 'ready', fault: '' },
  ...{ maker: 'm', model: 'b', serial: 'BP6-0142', most: 6, last: READING },
};

describe('a reading', () => {
  it.each([
    [
      'of an instrument that is away',
      { ...SCALE, state: 'away' as const, fault: 'it closed the connection' },
      READING,
      /is not there: it closed/,
    ],
    ['that has not come', SCALE, null, /has not read anything/],
    ['overloaded', SCALE, { ...READING, overload: true, value: null }, /overloaded/],
    ['that moves', SCALE, { ...READING, stable: false }, /has not settled/],
    ['of an empty pan', SCALE, { ...READING, value: 0 }, /nothing on it/],
    ['below its own uncertainty', SCALE, { ...READING, value: 0.00015 }, /its own uncertainty/],
    ['that is old', SCALE, { ...READING, at: '2026-06-01T07:59:50.000Z' }, /has said nothing for 3 s/],
  ])('%s is not kept', (_, instrument, reading, words) => expect(readingFault(instrument, reading, NOW)).toMatch(words));
  it('that stands still is', () => expect(readingFault(SCALE, READING, NOW)).toBeNull());
  it('of several together is shared among them, and kept as it was read', () => {
    const part = { id: testId(1), version: 1, ...BLANK, quantity: 12 };
    const [reading, edit] = takeReading({ instrument: SCALE, reading: READING, by: 'Odo' }, part, 'massEachKg', 12, () => testId(2));
    expect(reading).toMatchObject({
      kind: 'reading.add',
      fields: { raw: READING.raw, serial: 'BP6-0142', value: 0.492, note: '12 together', stable: true },
    });
    expect(edit).toMatchObject({
      kind: 'part.edit',
      fields: { massEachKg: 0.041, evidence: { massEachKg: { mark: 'M', typed: 'total 492.0 g', instrument: 'Bench scale' } } },
    });
    expect((edit as unknown as { fields: Part }).fields.evidence.massEachKg?.u).toBeCloseTo(0.0001 / 12, 12);
  });
  it('of another quantity never becomes a mass, such as the bytes of a picture', () => {
    const part = { id: testId(1), version: 1, ...BLANK };
    const bytes = { ...READING, quantity: 'count' as const, value: 3983 };
    expect(() => takeReading({ instrument: SCALE, reading: bytes, by: 'Odo' }, part, 'massEachKg', 1, () => testId(2))).toThrow(RangeError);
  });
  it('of a length is kept with the part its line was about', () =>
    expect(
      takeLength({ instrument: SCALE, reading: { ...READING, quantity: 'length' }, by: 'Odo' }, testId(1), () => testId(2)),
    ).toMatchObject({
      fields: { aboutId: testId(1), aboutField: null, note: 'written into the line', raw: READING.raw },
    }));
  describe('of a lot whose sample was counted', () => {
    const sample = { count: 10, massKg: 0.0612, uKg: 0.0001 };
    const set = { id: testId(3), version: 1, ...blank('fasteners', { partId: testId(1) }), count: 30 };
    const taken = (massKg: number): readonly Op[] => {
      const reading = { ...READING, value: massKg };
      const counted = countByWeight({ massKg, uKg: 0.0001 }, sample, { spreadFraction: 0.01, lotFraction: 0.002 });
      return takeCount({ sample, taken: { instrument: SCALE, reading, by: 'Odo' }, counted }, set, () => testId(2));
    };
    it('becomes the count of its set, with the weighing it came from', () =>
      expect(taken(0.22644)).toMatchObject([
        { kind: 'reading.add', fields: { aboutKind: 'fasteners', aboutField: 'count', note: 'counted by weighing: 10 weigh 61.2 g' } },
        { kind: 'fasteners.edit', was: { count: 30 }, fields: { count: 37, evidence: { count: { mark: 'C', low: null, high: null } } } },
      ]));
    it('keeps the range that is possible when it is not certain', () => {
      const [, edit] = taken(1.9);
      const { count, evidence } = (edit as unknown as { fields: { count: number; evidence: { count: { low: number; high: number } } } })
        .fields;
      expect(evidence.count.low).toBeLessThan(count);
      expect(evidence.count.high).toBeGreaterThan(count);
    });
  });
  it('told once, of a shot or a screw, does not grow old', () =>
    expect(readingFault(SCALE, { ...READING, quantity: 'torque', at: '2026-06-01T07:00:00.000Z' }, NOW)).toBeNull());
  it('is written in the unit its instrument speaks', () => {
    expect(readingText({ quantity: 'mass', value: 0.0412, elements: null }, 6)).toBe('41.2 g');
    expect(readingText({ quantity: 'mass', value: 0, elements: null }, 600)).toBe('0.00 kg');
    expect(readingText({ quantity: 'length', value: 0.00198, elements: null })).toBe('1.98 mm');
    expect(readingText({ quantity: 'torque', value: 9.04, elements: null })).toBe('9.0 N m');
    expect(
      readingText({
        quantity: 'element fractions',
        value: null,
        elements: { Si: { fraction: 0.1, u: 0.001 }, Al: { fraction: 0.87, u: 0.004 } },
      }),
    ).toBe('Al 87.00 ± 0.80 %, Si 10.00 ± 0.20 %');
  });
});
