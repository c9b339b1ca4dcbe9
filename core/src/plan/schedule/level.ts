import { randomLcg } from 'd3-random';
import { criticalPath } from './critical-path';
import { waitingOrder } from './cycle';
import { lowerBound } from './lower-bound';
import type { LevelProblem, Levelled } from './level-problem';
import { Timeline, serialSchedule } from './timeline';

interface LevelOptions {
  /** schedules that are tried at most */
  readonly tries: number;
  /** chance is seeded, so that the same plan always gives the same schedule */
  readonly seed: number;
  readonly progress?: (tried: number, best: number) => void;
}

export interface LevelResult extends Levelled {
  /** no schedule can finish earlier than this */
  readonly bound: number;
  /** the finish is the bound, so that no schedule is better */
  readonly proved: boolean;
  readonly tried: number;
}

/** Orders to begin with, each by a rule of thumb: the smaller key goes first among the jobs that may go. */
const rulesOf = ({ jobs }: LevelProblem): readonly (readonly number[])[] => {
  const { latest, slack } = criticalPath(
    jobs.map((job) => ({ time: job.slots, after: job.after, release: job.release, fixed: job.fixed })),
  );
  const following = jobs.map(() => 0);
  for (const at of [...waitingOrder(jobs.map((job) => job.after))].reverse())
    for (const before of jobs[at]!.after) following[before] = following[before]! + following[at]! + jobs[at]!.slots;
  return [
    jobs.map((job, at) => latest[at]! + job.slots),
    latest,
    slack,
    following.map((f, at) => -f - jobs[at]!.slots),
    jobs.map((job) => -job.slots * job.needs.reduce((sum, need) => sum + need.amount, 0)),
    // as the plan lists them, so that the result is never later than that
    jobs.map((_, at) => at),
  ];
};

/** Jobs in an order in which none comes before one it waits for, the smaller key first. */
const orderBy = ({ jobs }: LevelProblem, keys: readonly number[]): number[] => {
  const left = jobs.map((job) => job.after.length);
  const follow: number[][] = jobs.map(() => []);
  jobs.forEach((job, at) => job.after.forEach((before) => follow[before]!.push(at)));
  const ready = left.flatMap((n, at) => (n === 0 ? [at] : []));
  const order: number[] = [];
  while (ready.length > 0) {
    let pick = 0;
    for (let i = 1; i < ready.length; i++) {
      const [a, b] = [keys[ready[i]!]!, keys[ready[pick]!]!];
      if (a < b || (a === b && ready[i]! < ready[pick]!)) pick = i;
    }
    const [at] = ready.splice(pick, 1) as [number];
    order.push(at);
    for (const next of follow[at]!) {
      left[next] = left[next]! - 1;
      if (left[next] === 0) ready.push(next);
    }
  }
  return order;
};

/** Starts when every job goes as late as it can without the finish moving; null when the crews cannot be shuffled so. */
const pushedBack = (problem: LevelProblem, schedule: Levelled, timeline: Timeline): readonly number[] | null => {
  const { jobs } = problem;
  timeline.clear();
  const follow: number[][] = jobs.map(() => []);
  jobs.forEach((job, at) => job.after.forEach((before) => follow[before]!.push(at)));
  const start = [...schedule.start];
  const order = jobs.map((_, at) => at).sort((a, b) => schedule.start[b]! + jobs[b]!.slots - schedule.start[a]! - jobs[a]!.slots || b - a);
  jobs.forEach((job, at) => {
    if (job.fixed !== null) timeline.put(job, schedule.start[at]!);
  });
  for (const at of order) {
    const job = jobs[at]!;
    if (job.fixed !== null) continue;
    let latest = schedule.finish;
    for (const next of follow[at]!) latest = Math.min(latest, start[next]!);
    const found = timeline.last(job, latest - job.slots, schedule.start[at]!);
    if (found === null) return null;
    start[at] = found;
    timeline.put(job, found);
  }
  return start;
};

/** Jobs by start, none before one it waits for. */
const orderByStart = (problem: LevelProblem, start: readonly number[]): number[] => orderBy(problem, start);

/** Moves one job of an order somewhere else between those it waits for and those that wait for it. */
const shifted = ({ jobs }: LevelProblem, order: readonly number[], chance: () => number): number[] => {
  const place = Math.floor(chance() * order.length);
  const at = order[place]!;
  let [low, high] = [place, place];
  while (low > 0 && !jobs[at]!.after.includes(order[low - 1]!)) low -= 1;
  while (high < order.length - 1 && !jobs[order[high + 1]!]!.after.includes(at)) high += 1;
  const to = low + Math.floor(chance() * (high - low + 1));
  const next = [...order];
  next.splice(place, 1);
  next.splice(to, 0, at);
  return next;
};

/**
 * A schedule with the earliest finish that was found when jobs share people, places and rigs.
 *
 * Rules of thumb give the first orders; each schedule is pushed to the right and back to the left as long as that
 * shortens it; then orders are shaken, one job at a time, and kept when they are no worse.
 *
 * @param problem jobs without circles whose needs can be met
 * @source serial schedule generation, forward–backward improvement: Kolisch & Hartmann, survey of heuristics for the
 * resource-constrained project scheduling problem
 */
export const level = (problem: LevelProblem, { tries, seed, progress }: LevelOptions): LevelResult => {
  const bound = lowerBound(problem);
  const timeline = new Timeline(problem);
  const chance = randomLcg(seed);
  let tried = 0;
  const schedule = (order: readonly number[]): Levelled => {
    tried += 1;
    return serialSchedule(problem, order, timeline);
  };
  const justified = (first: Levelled): Levelled => {
    let best = first;
    while (tried < tries && best.finish > bound) {
      const back = pushedBack(problem, best, timeline);
      tried += 1;
      if (!back) return best;
      const again = schedule(orderByStart(problem, back));
      if (again.finish >= best.finish) return again.finish === best.finish ? again : best;
      best = again;
    }
    return best;
  };
  let best: Levelled | null = null;
  const keys = rulesOf(problem);
  const consider = (found: Levelled): void => {
    if (!best || found.finish < best.finish) best = found;
    progress?.(tried, best.finish);
  };
  const isDone = (): boolean => best !== null && (best.finish <= bound || tried >= tries);
  for (const key of keys) {
    if (isDone()) break;
    consider(justified(schedule(orderBy(problem, key))));
  }
  const spread = Math.max(1, bound / 10);
  for (let n = 0; n < 60 && !isDone(); n++) {
    const key = keys[n % 2]!;
    consider(
      justified(
        schedule(
          orderBy(
            problem,
            key.map((k) => k + (chance() - 0.5) * spread),
          ),
        ),
      ),
    );
  }
  let now = best!;
  let order = orderByStart(problem, now.start);
  while (!isDone()) {
    const next = shifted(problem, order, chance);
    const found = schedule(next);
    if (found.finish > now.finish) continue;
    now = found.finish < now.finish ? justified(found) : found;
    order = now === found ? next : orderByStart(problem, now.start);
    consider(now);
  }
  return { ...best!, bound, proved: best!.finish <= bound, tried };
};
