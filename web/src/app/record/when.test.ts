import { todayHere, whenText } from './when';

describe('a moment as people read it', () => {
  // local times, wherever the test runs
  const now = new Date(2026, 4, 19, 14, 30);
  const iso = (...parts: readonly [number, number, number, number, number]): string => new Date(...parts).toISOString();
  it('is a time today, and the day with it otherwise', () => {
    expect(whenText(iso(2026, 4, 19, 9, 5), now)).toBe('09:05');
    expect(whenText(iso(2026, 4, 18, 23, 59), now)).toBe('2026-05-18 23:59');
    // the same day of another year is not today
    expect(whenText(iso(2025, 4, 19, 9, 5), now)).toBe('2025-05-19 09:05');
  });
  it('of nothing is nothing', () => expect([whenText(null), whenText('')]).toEqual(['', '']));
  it('the date here is that of the clock on the wall, also shortly after midnight', () => {
    expect(todayHere(new Date(2026, 0, 1, 0, 5))).toBe('2026-01-01');
    expect(todayHere(new Date(2026, 11, 31, 23, 55))).toBe('2026-12-31');
  });
});
