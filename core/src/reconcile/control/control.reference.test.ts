import { testId } from '../../../testing/teardown';
import type { CheckReading, Reading } from '../../record';
import { doubtfulReadings, instrumentCharts } from './instruments';

const check = (day: number, value: number): CheckReading => ({
  ...{ id: testId(day), version: 1, instrument: 'Floor scale', serial: 'FS-03', quantity: 'mass', nominal: 20, nominalU: 1e-4, value },
  ...{ takenAt: `2026-11-${String(day).padStart(2, '0')}T08:00:00.000Z`, takenBy: 'Odo', note: '' },
});
const reading = (day: number, n: number, serial = 'FS-03'): Reading => ({
  ...{
    id: testId(100 + n),
    version: 1,
    aboutKind: 'part',
    aboutId: testId(200 + n),
    aboutField: 'massEachKg',
    quantity: 'mass',
    value: 12,
  },
  ...{ u: 0.01, tare: 0, elements: null, raw: '12 kg', instrument: 'Floor scale', serial, stable: true },
  ...{ takenAt: `2026-11-${String(day).padStart(2, '0')}T12:00:00.000Z`, takenBy: 'Odo', note: '' },
});
const GOOD = [20.001, 19.999, 20.002, 20, 19.998, 20.001];

describe('an instrument', () => {
  it('in control is on everywhere', () => {
    const [chart] = instrumentCharts(GOOD.map((value, i) => check(10 + i, value)));
    expect(chart!.off).toEqual([]);
    expect(chart!.sFrom).toBe('moving ranges');
  });
  it('that jumps by 0.4 % is off from the last good check on, and so are the readings since', () => {
    const checks = [...GOOD.map((value, i) => check(10 + i, value)), check(17, 20.08), check(19, 20.081)];
    const [chart] = instrumentCharts(checks);
    expect(chart!.off).toEqual([
      { from: checks[5]!.takenAt, to: null, firstSeen: checks[6]!.takenAt, errorFraction: expect.closeTo(0.00402, 4) as number },
    ]);
    const doubtful = doubtfulReadings([reading(14, 1), reading(16, 2), reading(18, 3), reading(18, 4, 'BS-02')], [chart!]);
    expect(doubtful.map((one) => one.reading.id)).toEqual([testId(102), testId(103)]);
  });
  it('put right again is off until the check that found it right', () => {
    const checks = [...GOOD.map((value, i) => check(10 + i, value)), check(17, 20.08), check(18, 20.001)];
    const [chart] = instrumentCharts(checks);
    expect(chart!.off[0]).toMatchObject({ from: checks[5]!.takenAt, to: checks[7]!.takenAt });
    expect(doubtfulReadings([reading(16, 1), reading(18, 2)], [chart!]).map((one) => one.reading.id)).toEqual([testId(101)]);
  });
  it('of few checks is held against an assumed scatter, and says so', () =>
    expect(instrumentCharts([check(10, 20.0001)])[0]).toMatchObject({ sFrom: 'assumed', off: [] }));
  it('a reading that was repeated after it was put right stands in the place of the doubtful one', () => {
    const checks = [...GOOD.map((value, i) => check(10 + i, value)), check(17, 20.08), check(18, 20.001)];
    const again = { ...reading(19, 1), id: testId(150) };
    expect(doubtfulReadings([reading(16, 1), again], instrumentCharts(checks))).toEqual([]);
  });
});
