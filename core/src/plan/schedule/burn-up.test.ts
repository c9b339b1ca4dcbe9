import type { StudyRecord, WorkPackage } from '../../record';
import { packageId, plan } from '../../../testing/plan';
import { burnUp, progressFraction } from './burn-up';
import { planSchedule } from './plan-schedule';

const HOUR_S = 3600;
const [TUESDAY, WEDNESDAY] = ['2026-06-02', '2026-06-03'];
const edit = (record: StudyRecord, n: number, fields: Partial<WorkPackage>): StudyRecord => ({
  ...record,
  packages: record.packages.map((p, at) => (at === n ? { ...p, ...fields } : p)),
});

describe('how far a package is', () => {
  const [pack] = plan('a | 2/4/8 |').packages as [WorkPackage];
  const far = (fields: Partial<WorkPackage>): number => progressFraction({ ...pack, ...fields });
  it('is all of it once done, and nothing before it is begun', () => {
    expect(far({ startedOn: TUESDAY, doneOn: TUESDAY })).toBe(1);
    expect(far({})).toBe(0);
    expect(far({ workedS: HOUR_S })).toBe(0);
  });
  it('is what its rest leaves of the most likely time', () => {
    expect(far({ startedOn: TUESDAY, remainingS: HOUR_S })).toBe(0.75);
    // more is left than was thought at first: nothing is done, not less than nothing
    expect(far({ startedOn: TUESDAY, remainingS: 6 * HOUR_S })).toBe(0);
  });
  it('is what was spent where no rest is said, and never done by that alone', () => {
    expect(far({ startedOn: TUESDAY, workedS: HOUR_S })).toBe(0.25);
    expect(far({ startedOn: TUESDAY, workedS: null })).toBe(0);
    expect(far({ startedOn: TUESDAY, workedS: 9 * HOUR_S })).toBe(0.95);
    expect(far({ startedOn: TUESDAY, mostLikelyS: null, workedS: HOUR_S })).toBe(0);
  });
});

describe('the burn-up of a plan', () => {
  // people-hours: a 8, b 8, c 4; a was done on Monday, b runs and is half done, c is to come
  const base = plan('a | 8 | |\nb | 4 | a | 2 people\nc | 4 | b |');
  let record = edit(base, 0, {
    startedOn: '2026-06-01',
    doneOn: '2026-06-01',
    agreedFrom: '2026-06-01T08:00',
    agreedTo: '2026-06-01T16:00',
  });
  record = edit(record, 1, { startedOn: TUESDAY, remainingS: 2 * HOUR_S, agreedFrom: '2026-06-02T08:00', agreedTo: '2026-06-02T12:00' });
  const { schedule } = planSchedule(record, { today: TUESDAY, tries: 20, samples: 20 });
  const burn = burnUp(record, schedule!, TUESDAY);
  const on = (day: string) => burn.days.find((d) => d.day === day);
  const hours = (s: number | null | undefined): number | null => (s === null || s === undefined ? null : s / HOUR_S);
  it('counts people-hours, done in whole and by half of what runs', () => {
    expect([hours(burn.wholeS), hours(burn.doneS)]).toEqual([20, 12]);
  });
  it('tells up to today what is done, and from today what will be', () => {
    expect(burn.days.map((d) => d.day)).toEqual(['2026-06-01', TUESDAY]);
    expect([hours(on('2026-06-01')?.doneS), on('2026-06-01')?.forecastS]).toEqual([8, null]);
    // b ends on Tuesday at ten and c in the afternoon: the forecast of the evening is all of it
    expect([hours(on(TUESDAY)?.doneS), hours(on(TUESDAY)?.forecastS)]).toEqual([12, 20]);
    const later = burnUp(record, planSchedule(edit(record, 2, { notBefore: WEDNESDAY }), { today: TUESDAY, tries: 20, samples: 20 }).schedule!, TUESDAY); // prettier-ignore
    expect(later.days.map((d) => [d.day, hours(d.doneS), hours(d.forecastS)])).toEqual([
      ['2026-06-01', 8, null],
      [TUESDAY, 12, 16],
      [WEDNESDAY, null, 20],
    ]);
  });
  it('holds against it what was agreed, where something was', () => {
    expect(burn.days.map((d) => hours(d.agreedS))).toEqual([8, 16]);
    expect(burn.behind).toEqual([]);
    const none = burnUp(base, schedule!, TUESDAY);
    expect(none.days.every((d) => d.agreedS === null)).toBe(true);
  });
  it('is behind with what was agreed for a day before today and is not done', () => {
    expect(burnUp(record, schedule!, WEDNESDAY).behind).toEqual([packageId(1)]);
    expect(burnUp(record, schedule!, TUESDAY).behind).toEqual([]);
    expect(burnUp(edit(record, 1, { doneOn: TUESDAY }), schedule!, WEDNESDAY).behind).toEqual([]);
  });
  it('counts a package without an estimate as nothing known, and a crew of none as one', () => {
    const odd = edit(edit(base, 1, { mostLikelyS: null }), 2, { people: 0 });
    expect(hours(burnUp(odd, schedule!, TUESDAY).wholeS)).toBe(12);
  });
});
