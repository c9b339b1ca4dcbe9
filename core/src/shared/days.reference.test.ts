import fc from 'fast-check';
import { dayNumber, dayText, isDay, isoDay, weekdayOf } from './days';

describe('calendar days', () => {
  // held against the calendar of the JavaScript engine, over five centuries
  it('count like the engine’s own calendar, there and back', () => {
    fc.assert(
      fc.property(fc.integer({ min: -80_000, max: 100_000 }), (day) => {
        const iso = new Date(day * 86_400_000).toISOString().slice(0, 10);
        expect([dayNumber(iso), isoDay(day), weekdayOf(day)]).toEqual([day, iso, new Date(day * 86_400_000).getUTCDay() || 7]);
      }),
      { numRuns: 500, seed: 3 },
    );
  });
  it('know the 29th of February where there is one', () => {
    expect(isoDay(dayNumber('2028-02-28') + 1)).toBe('2028-02-29');
    expect(isoDay(dayNumber('2100-02-28') + 1)).toBe('2100-03-01');
    expect(dayText('2026-06-03')).toBe('Wed 3 Jun');
  });
  it('know what is no day', () => {
    for (const day of ['2026-06-30', '2028-02-29', '2000-02-29']) expect([day, isDay(day)]).toEqual([day, true]);
    for (const none of ['2026-06-31', '2026-02-29', '2100-02-29', '2026-13-01', '2026-00-01', '2026-01-00', '2026-1-1', '']) expect([none, isDay(none)]).toEqual([none, false]); // prettier-ignore
  });
});
