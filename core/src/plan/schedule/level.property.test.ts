import fc from 'fast-check';
import { level } from './level';
import type { LevelProblem } from './level-problem';
import { lowerBound } from './lower-bound';
import { serialSchedule } from './timeline';

/** Plans of up to 14 jobs, four people with two skills, two bays, days off, releases. */
const PROBLEM: fc.Arbitrary<LevelProblem> = fc
  .tuple(
    fc.array(
      fc.record({
        slots: fc.integer({ min: 1, max: 9 }),
        before: fc.array(fc.nat(13), { maxLength: 3 }),
        people: fc.integer({ min: 0, max: 2 }),
        skilled: fc.boolean(),
        bay: fc.boolean(),
        release: fc.integer({ min: 0, max: 6 }),
      }),
      { minLength: 1, maxLength: 14 },
    ),
    fc.array(fc.tuple(fc.nat(5), fc.integer({ min: 0, max: 20 }), fc.integer({ min: 1, max: 8 })), { maxLength: 4 }),
  )
  .map(([jobs, off]) => ({
    resources: Array.from({ length: 6 }, (_, r) => ({
      capacity: 1,
      off: off.flatMap(([of, from, length]) => (of === r ? [[from, from + length] as const] : [])).sort(([a], [b]) => a - b),
    })),
    jobs: jobs.map(({ slots, before, people, skilled, bay, release }, at) => ({
      slots,
      release,
      fixed: null,
      after: [...new Set(before.filter((b) => b < at))],
      needs: [
        ...(people > 0 ? [{ options: skilled ? [2, 3] : [0, 1, 2, 3], amount: people }] : []),
        ...(bay ? [{ options: [4, 5], amount: 1 }] : []),
      ],
    })),
  }));

describe('a levelled schedule', () => {
  const found = fc.property(PROBLEM, (problem) => {
    const { jobs, resources } = problem;
    const { start, taken, finish, bound } = level(problem, { tries: 120, seed: 0.3 });
    const end = (at: number): number => start[at]! + jobs[at]!.slots;
    jobs.forEach((job, at) => {
      // what comes before is done, and nothing begins before it may
      for (const before of job.after) expect(start[at]!).toBeGreaterThanOrEqual(end(before));
      expect(start[at]!).toBeGreaterThanOrEqual(job.release);
      // each need is met by those who can
      for (const need of job.needs) {
        const of = taken[at]!.filter(({ resource }) => need.options.includes(resource));
        expect(of.reduce((sum, t) => sum + t.amount, 0)).toBeGreaterThanOrEqual(need.amount);
      }
    });
    // nobody is at two jobs at once, nor at one on a day off
    resources.forEach(({ capacity, off }, resource) => {
      for (let slot = 0; slot < finish; slot++) {
        const used = jobs.reduce((sum, _, at) => {
          const there = start[at]! <= slot && slot < end(at);
          return there ? sum + (taken[at]!.find((t) => t.resource === resource)?.amount ?? 0) : sum;
        }, 0);
        const away = off.some(([from, to]) => from <= slot && slot < to);
        expect(used).toBeLessThanOrEqual(away ? 0 : capacity);
      }
    });
    // never later than one after another in the order they stand, never earlier than can be
    const serial = serialSchedule(
      problem,
      jobs.map((_, at) => at),
    );
    expect(finish).toBeLessThanOrEqual(serial.finish);
    expect(finish).toBeGreaterThanOrEqual(bound);
    expect(bound).toBe(lowerBound(problem));
    expect(finish).toBe(Math.max(...jobs.map((_, at) => end(at))));
  });
  it('keeps order, people, places and days off, and is never later than the serial one', () => fc.assert(found, { numRuns: 200, seed: 7 }));
  it('is the same for the same seed', () => {
    fc.assert(
      fc.property(PROBLEM, (problem) => {
        const options = { tries: 60, seed: 0.5 };
        expect(level(problem, options)).toEqual(level(problem, options));
      }),
      { numRuns: 30, seed: 7 },
    );
  });
});
