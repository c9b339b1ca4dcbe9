import { clockText, labourOf, readClock } from './labour';

describe('hours of people', () => {
  it('are the most likely time of each package times its crew, of one at least', () =>
    // by hand: 2 h × 3 + 4 h × 1 + nothing known
    expect(
      labourOf([
        { mostLikelyS: 7200, people: 3 },
        { mostLikelyS: 14_400, people: 0 },
        { mostLikelyS: null, people: 2 },
      ]),
    ).toEqual({ peopleS: 36_000, withoutEstimate: 1 }));
});

describe('the time at which the day begins', () => {
  it('is typed and shown as a clock shows it', () => {
    expect([clockText(450), clockText(0), clockText(1439)]).toEqual(['07:30', '00:00', '23:59']);
    for (const min of [0, 59, 60, 450, 1439]) expect(readClock(clockText(min))).toBe(min);
    expect([readClock('7:05'), readClock('24:00'), readClock('')]).toEqual([425, null, null]);
  });
});
