import { randomBeta, randomLcg } from 'd3-random';
import type { Levelled, LevelProblem } from './level-problem';
import type { PlanNetwork } from './plan-network';
import { Timeline, serialSchedule } from './timeline';
import { betaShape } from './three-point';
import { endTimeOfSlot, slotsOf } from './work-axis';

/** How sure the finish of a plan is. */
export interface FinishSpread {
  readonly samples: number;
  /** local times by which the work is done with a chance of 50 and 90 % */
  readonly p50At: string;
  readonly p90At: string;
  /** finishes in slots, ascending: how many of the samples ended there */
  readonly histogram: readonly (readonly [slot: number, count: number])[];
}

/**
 * The value below which a fraction of the samples lies, between neighbours by proportion.
 * @source Hyndman & Fan 1996, definition 7
 */
export const percentile = (ascending: readonly number[], fraction: number): number => {
  const at = (ascending.length - 1) * fraction;
  const low = ascending[Math.floor(at)] ?? Number.NaN;
  const high = ascending[Math.ceil(at)] ?? low;
  return low + (high - low) * (at - Math.floor(at));
};

/**
 * The finish when every package takes a time drawn from its three-point estimate, with the order of the schedule kept
 * and people and places shared as in it.
 *
 * @source PERT: beta distribution with the mean (o + 4 m + p) / 6; sampled with a seed
 */
export const finishSpread = (
  network: PlanNetwork,
  levelled: Levelled,
  { samples, seed }: { readonly samples: number; readonly seed: number },
): FinishSpread => {
  const { axis, problem, activities, today } = network;
  const chance = randomLcg(seed);
  const beta = randomBeta.source(chance);
  const draws = activities.map(({ left }) => {
    if (!left) return null;
    const estimate = { least: left.leastS, likely: left.likelyS, most: left.mostS };
    if (!(estimate.most > estimate.least)) return () => estimate.likely;
    const shape = betaShape(estimate);
    const draw = beta(shape.alpha, shape.beta);
    return () => estimate.least + draw() * (estimate.most - estimate.least);
  });
  const order = problem.jobs.map((_, at) => at).sort((a, b) => levelled.start[a]! - levelled.start[b]! || a - b);
  const longest: LevelProblem = {
    ...problem,
    jobs: problem.jobs.map((job, at) => ({ ...job, slots: job.slots + slotsOf(activities[at]!.left?.mostS ?? 1) })),
  };
  const timeline = new Timeline(longest);
  const finishes: number[] = [];
  for (let n = 0; n < samples; n++) {
    const jobs = problem.jobs.map((job, at) => {
      const draw = draws[at];
      if (!draw) return job;
      const spent = activities[at]!.state === 'running' ? Math.max(0, today - (job.fixed ?? 0)) : 0;
      // what was pinned slips when what comes before runs late
      const slips = activities[at]!.state === 'planned' && job.fixed !== null ? { release: job.fixed, fixed: null } : {};
      return { ...job, ...slips, slots: spent + slotsOf(draw()) };
    });
    finishes.push(serialSchedule({ ...problem, jobs }, order, timeline).finish);
  }
  finishes.sort((a, b) => a - b);
  const counts = new Map<number, number>();
  for (const finish of finishes) counts.set(finish, (counts.get(finish) ?? 0) + 1);
  const at = (fraction: number): string =>
    endTimeOfSlot(axis, finishes.length === 0 ? levelled.finish : Math.ceil(percentile(finishes, fraction)));
  return { samples, p50At: at(0.5), p90At: at(0.9), histogram: [...counts] };
};
