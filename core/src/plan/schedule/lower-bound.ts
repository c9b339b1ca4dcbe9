import { criticalPath } from './critical-path';
import type { LevelProblem } from './level-problem';

interface Demand {
  readonly head: number;
  readonly tail: number;
  readonly work: number;
}

/** Sets of resources that some job draws on, each with all the work that can only be done there. */
const demandsBySet = (
  { jobs }: LevelProblem,
  heads: readonly number[],
  tails: readonly number[],
): ReadonlyMap<string, readonly Demand[]> => {
  const sets = new Map<string, readonly number[]>();
  for (const job of jobs) for (const { options } of job.needs) sets.set([...options].sort((a, b) => a - b).join(), options);
  return new Map(
    [...sets].map(([key, set]) => {
      const inside = new Set(set);
      const demands = jobs.flatMap((job, at): readonly Demand[] => {
        const amount = job.needs
          .filter((need) => need.options.every((option) => inside.has(option)))
          .reduce((sum, need) => sum + need.amount, 0);
        return amount === 0 ? [] : [{ head: heads[at]!, tail: tails[at]!, work: amount * job.slots }];
      });
      return [key, demands];
    }),
  );
};

/** Work that begins no earlier than `head` and leaves `tail` after it, over what can do it: for every head and tail that occur. */
const energyBound = (demands: readonly Demand[], capacity: number): number => {
  let best = 0;
  const byTail = [...demands].sort((a, b) => b.tail - a.tail);
  for (const head of new Set(demands.map((d) => d.head))) {
    let work = 0;
    for (const demand of byTail) {
      if (demand.head < head) continue;
      work += demand.work;
      best = Math.max(best, head + Math.ceil(work / capacity) + demand.tail);
    }
  }
  return best;
};

/**
 * A finish that no schedule can beat, slots: the longest chain of jobs, or the work that only some can do over how many
 * they are, whichever is later.
 *
 * @source critical path and energy (work over capacity) bounds of the resource-constrained project scheduling problem
 */
export const lowerBound = (problem: LevelProblem): number => {
  const { jobs, resources } = problem;
  const { finish, earliest, latest } = criticalPath(
    jobs.map((job) => ({ time: job.slots, after: job.after, release: job.release, fixed: job.fixed })),
  );
  const tails = jobs.map((job, at) => finish - latest[at]! - job.slots);
  let bound = finish;
  for (const [key, demands] of demandsBySet(problem, earliest, tails)) {
    const capacity = key.split(',').reduce((sum, resource) => sum + (resources[Number(resource)]?.capacity ?? 0), 0);
    if (capacity > 0) bound = Math.max(bound, energyBound(demands, capacity));
  }
  return bound;
};
