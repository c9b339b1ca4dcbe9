import { countLeftOut, isPaused, shownS, startClock, tickClock } from './work-clock';

const MIN = 60_000;

describe('the clock of a removal', () => {
  it('counts the time between signs of work', () => {
    const clock = [1, 3, 4].reduce((c, min) => tickClock(c, min * MIN, 600), startClock(0));
    expect(clock).toMatchObject({ workedS: 240, leftOutS: 0 });
  });
  it('stands when nothing happens for ten minutes, and tells what it left out', () => {
    const clock = tickClock(startClock(0), 45 * MIN, 600);
    expect(clock).toMatchObject({ workedS: 600, leftOutS: 2100 });
    expect([isPaused(startClock(0), 9 * MIN, 600), isPaused(startClock(0), 10 * MIN, 600)]).toEqual([false, true]);
    expect(shownS(startClock(0), 45 * MIN, 600)).toBe(600);
  });
  it('counts what was left out after all when somebody says it was work', () =>
    expect(countLeftOut(tickClock(startClock(0), 45 * MIN, 600))).toMatchObject({ workedS: 2700, leftOutS: 0 }));
  it('never runs backwards when the clock of the device is set back', () =>
    expect(tickClock(tickClock(startClock(0), 5 * MIN, 600), 2 * MIN, 600)).toMatchObject({ workedS: 300, lastMs: 5 * MIN }));
});
