import { plan } from '../../../testing/plan';
import { benchSays } from './bench-says';

const [pack] = plan('door apart | 20').packages as [ReturnType<typeof plan>['packages'][number]];
const DAY = '2026-06-02';

describe('what the bench says of a package', () => {
  it('is when it was begun, and the time that the missing parts still take', () => {
    // 60 of 80 parts: a quarter of 20 h is left
    expect(benchSays(pack, { recorded: 60, expected: 80, firstDay: DAY })).toMatchObject({ startedOn: DAY, remainingS: 5 * 3600 });
  });
  it('is never that nothing is left: more parts than expected are not the end', () =>
    expect(benchSays(pack, { recorded: 90, expected: 80, firstDay: DAY })?.remainingS).toBe(3600));
  it('is nothing without a part, once it is done, or when it is said already', () => {
    expect(benchSays(pack, { recorded: 0, expected: 80, firstDay: null })).toBeNull();
    expect(benchSays({ ...pack, startedOn: DAY, doneOn: DAY }, { recorded: 60, expected: 80, firstDay: DAY })).toBeNull();
    expect(benchSays({ ...pack, startedOn: DAY, remainingS: 5 * 3600 }, { recorded: 60, expected: 80, firstDay: DAY })).toBeNull();
  });
  it('is the day alone when nobody knows how many parts to expect', () =>
    expect(benchSays(pack, { recorded: 3, expected: null, firstDay: DAY })).toMatchObject({ startedOn: DAY, remainingS: null }));
});
