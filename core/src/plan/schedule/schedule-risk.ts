import { quantileSorted } from 'd3-array';
import { randomBeta, randomLcg } from 'd3-random';
import type { Levelled } from './level-problem';
import type { PlanNetwork } from './plan-network';
import { betaShape } from './three-point';
import { SLOT_S, endTimeOfSlot } from './working-calendar';

/** How sure the finish of a plan is. */
export interface ScheduleRisk {
  readonly samples: number;
  /** the same in slots of working time, parts of a slot too */
  readonly p50: number;
  readonly p90: number;
  /** local times by which the work is done with a chance of 50 and 90 % */
  readonly p50At: string;
  readonly p90At: string;
  /** finishes in slots, ascending: how many of the samples ended there */
  readonly histogram: readonly (readonly [slot: number, count: number])[];
}

/** When a stretch of work of `length` fits from `from` on, past what is off; in slots that need not be whole. */
const pastOff = (from: number, length: number, off: readonly (readonly [number, number])[]): number => {
  let at = from;
  for (let moved = true; moved;) {
    moved = false;
    for (const [begins, ends] of off)
      if (at < ends && at + length > begins) {
        at = ends;
        moved = true;
      }
  }
  return at;
};

/**
 * The finish when every package takes a time drawn from its three-point estimate, in continuous time: the order of the
 * schedule is kept, and so is who does what where; a package begins when all that it waits for and all that it holds is
 * free, and is done in one go.
 *
 * @source PERT: beta distribution with the mean (o + 4 m + p) / 6; sampled with a seed
 */
export const scheduleRisk = (
  network: PlanNetwork,
  levelled: Levelled,
  { samples, seed }: { readonly samples: number; readonly seed: number },
): ScheduleRisk => {
  const { axis, problem, activities, today } = network;
  const chance = randomLcg(seed);
  const beta = randomBeta.source(chance);
  const draws = activities.map(({ left }) => {
    if (!left) return null;
    const estimate = { optimistic: left.optimisticS, mostLikely: left.mostLikelyS, pessimistic: left.pessimisticS };
    if (!(estimate.pessimistic > estimate.optimistic)) return () => estimate.mostLikely;
    const shape = betaShape(estimate);
    const draw = beta(shape.alpha, shape.beta);
    return () => estimate.optimistic + draw() * (estimate.pessimistic - estimate.optimistic);
  });
  const order = problem.jobs.map((_, at) => at).sort((a, b) => levelled.start[a]! - levelled.start[b]! || a - b);
  const holds = levelled.taken.map((taken) => taken.map((t) => t.resource));
  const offOf = holds.map((resources) => resources.flatMap((r) => problem.resources[r]!.off));
  const ends = new Float64Array(problem.jobs.length);
  const finishes: number[] = [];
  for (let n = 0; n < samples; n++) {
    // [resource] when each of its copies is free again
    const free = problem.resources.map((resource) => new Array<number>(Math.max(1, resource.capacity)).fill(0));
    let finish = 0;
    for (const at of order) {
      const job = problem.jobs[at]!;
      const draw = draws[at];
      const isPlanned = activities[at]!.state === 'planned';
      const spent = activities[at]!.state === 'running' ? Math.max(0, today - (job.fixed ?? 0)) : 0;
      const slots = draw ? spent + draw() / SLOT_S : job.slots;
      // what was pinned slips when what comes before runs late; what runs or is done began when it did
      let from = job.fixed ?? job.release;
      if (isPlanned) {
        for (const before of job.after) from = Math.max(from, ends[before]!);
        for (const resource of holds[at]!) from = Math.max(from, Math.min(...free[resource]!));
        from = pastOff(from, slots, offOf[at]!);
      }
      ends[at] = from + slots;
      for (const resource of holds[at]!) {
        const copies = free[resource]!;
        copies[copies.indexOf(Math.min(...copies))] = ends[at]!;
      }
      finish = Math.max(finish, ends[at]);
    }
    finishes.push(finish);
  }
  finishes.sort((a, b) => a - b);
  const counts = new Map<number, number>();
  for (const finish of finishes) counts.set(Math.ceil(finish), (counts.get(Math.ceil(finish)) ?? 0) + 1);
  const at = (fraction: number): number => (finishes.length === 0 ? levelled.finish : quantileSorted(finishes, fraction)!);
  return {
    samples,
    p50: at(0.5),
    p90: at(0.9),
    p50At: endTimeOfSlot(axis, at(0.5)),
    p90At: endTimeOfSlot(axis, at(0.9)),
    histogram: [...counts],
  };
};
