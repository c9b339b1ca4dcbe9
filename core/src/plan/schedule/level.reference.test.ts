import { level } from './level';
import type { LevelProblem, Need } from './level-problem';
import { serialSchedule } from './timeline';

const people = (amount: number): Need => ({ options: [0, 1], amount });
const lift: Need = { options: [2], amount: 1 };
const bay: Need = { options: [3], amount: 1 };

/** Six jobs, two people, a lift and a bay: small enough to try every order there is. */
const small = (times: readonly number[]): LevelProblem => ({
  resources: [0, 1, 2, 3].map((n) => ({ capacity: 1, off: n === 1 ? [[3, 5] as const] : [] })),
  jobs: [
    { needs: [people(2), lift], after: [] },
    { needs: [people(1), bay], after: [0] },
    { needs: [people(1), lift], after: [0] },
    { needs: [people(1), bay], after: [] },
    { needs: [people(2)], after: [1, 2] },
    { needs: [people(1), lift], after: [3] },
  ].map((job, at) => ({ ...job, slots: times[at]!, release: 0, fixed: null })),
});

const ordersOf = (left: readonly number[], problem: LevelProblem, done: readonly number[] = []): readonly (readonly number[])[] =>
  left.length === 0
    ? [done]
    : left.flatMap((at) =>
        problem.jobs[at]!.after.every((before) => done.includes(before))
          ? ordersOf(
              left.filter((other) => other !== at),
              problem,
              [...done, at],
            )
          : [],
      );

describe('a levelled schedule of six jobs', () => {
  // held against every order in which the jobs can be listed
  it.each([[[4, 3, 2, 5, 2, 3]], [[2, 6, 6, 1, 3, 4]], [[1, 1, 7, 7, 2, 2]], [[5, 2, 2, 2, 5, 5]]])(
    'of %p quarters is as short as any order gives',
    (times) => {
      const problem = small(times);
      const best = Math.min(...ordersOf([0, 1, 2, 3, 4, 5], problem).map((order) => serialSchedule(problem, order).finish));
      const found = level(problem, { tries: 400, seed: 0.7 });
      expect(found.finish).toBe(best);
      expect(found.bound).toBeLessThanOrEqual(best);
    },
  );
});
