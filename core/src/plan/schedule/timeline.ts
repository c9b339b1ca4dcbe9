import type { LevelJob, LevelProblem, Levelled, Need, Taken } from './level-problem';

/** Longest time the jobs could need: all one after the other, after the last release, past all that is off. */
const horizonOf = ({ jobs, resources }: LevelProblem): number =>
  jobs.reduce((sum, job) => sum + job.slots, 0) +
  jobs.reduce((last, job) => Math.max(last, job.release, (job.fixed ?? 0) + job.slots), 0) +
  resources.reduce((sum, { off }) => sum + off.reduce((s, [from, to]) => s + (to - from) + 1, 0), 0) +
  1;

/** What is taken of every resource, slot by slot; jobs are put on it and asked where they fit. */
export class Timeline {
  private readonly taken: readonly Int16Array[];
  private readonly length: number;

  constructor(private readonly problem: LevelProblem) {
    this.length = horizonOf(problem);
    this.taken = problem.resources.map(({ capacity, off }) => {
      const slots = new Int16Array(this.length);
      for (const [from, to] of off) slots.fill(capacity, from, Math.min(to, this.length));
      return slots;
    });
  }

  /** An empty copy, quicker than making a new one. */
  clear(): void {
    this.problem.resources.forEach(({ capacity, off }, r) => {
      const slots = this.taken[r]!;
      slots.fill(0);
      for (const [from, to] of off) slots.fill(capacity, from, Math.min(to, this.length));
    });
  }

  /** First start at or after `from` at which a job finds all it needs, or null when there is none before `until`. */
  first(job: LevelJob, from: number, until = this.length - job.slots): number | null {
    let at = from;
    while (at <= until) {
      const blocked = this.blockedUntil(job, at);
      if (blocked === null) return at;
      at = blocked;
    }
    return null;
  }

  /** Last start at or before `from` and not before `until` at which a job finds all it needs, or null. */
  last(job: LevelJob, from: number, until: number): number | null {
    let at = Math.min(from, this.length - job.slots);
    while (at >= until) {
      const blocked = this.blockedBack(job, at);
      if (blocked === null) return at;
      at = blocked;
    }
    return null;
  }

  put(job: LevelJob, start: number): readonly Taken[] {
    const taken = job.needs.flatMap((need) => this.take(need, start, job.slots));
    for (const { resource, amount } of taken) {
      const slots = this.taken[resource]!;
      for (let s = start; s < start + job.slots; s++) slots[s] = slots[s]! + amount;
    }
    return taken;
  }

  /** How much of a resource is free all through a stretch. */
  private free(resource: number, start: number, length: number): number {
    const slots = this.taken[resource]!;
    const { capacity } = this.problem.resources[resource]!;
    let most = 0;
    for (let s = start; s < start + length; s++) if (slots[s]! > most) most = slots[s]!;
    return capacity - most;
  }

  /** Which of the options fill a need, in their order; there must be enough. */
  private take({ options, amount }: Need, start: number, length: number): Taken[] {
    const taken: Taken[] = [];
    let left = amount;
    for (const resource of options) {
      const share = Math.min(left, this.free(resource, start, length));
      if (share > 0) taken.push({ resource, amount: share });
      left -= Math.max(share, 0);
      if (left === 0) break;
    }
    return taken;
  }

  /** Null when the job fits at `start`; otherwise the next start worth trying. */
  private blockedUntil(job: LevelJob, start: number): number | null {
    let next: number | null = null;
    for (const { options, amount } of job.needs) {
      const [enough, retry] = this.lookBack(options, amount, start, job.slots);
      if (!enough && (next === null || retry > next)) next = retry;
    }
    return next;
  }

  /** Looks from the end of the stretch for the last slot that stands in the way of each option. */
  private lookBack(options: readonly number[], amount: number, start: number, length: number): readonly [boolean, number] {
    let free = 0;
    let retry = Number.POSITIVE_INFINITY;
    const wanted = options.length === 1 ? amount : 1;
    for (const resource of options) {
      const slots = this.taken[resource]!;
      const { capacity } = this.problem.resources[resource]!;
      const room = capacity - wanted;
      let s = start + length - 1;
      while (s >= start && slots[s]! <= room) s -= 1;
      if (s < start) free += options.length === 1 ? amount : this.free(resource, start, length);
      else if (s + 1 < retry) retry = s + 1;
      if (free >= amount) return [true, 0];
    }
    // free in part everywhere, but never enough together: a slot on is all that is certain
    return [false, Number.isFinite(retry) ? retry : start + 1];
  }

  private blockedBack(job: LevelJob, start: number): number | null {
    let next: number | null = null;
    for (const { options, amount } of job.needs) {
      const [enough, retry] = this.lookOn(options, amount, start, job.slots);
      if (!enough && (next === null || retry < next)) next = retry;
    }
    return next;
  }

  private lookOn(options: readonly number[], amount: number, start: number, length: number): readonly [boolean, number] {
    let free = 0;
    let retry = Number.NEGATIVE_INFINITY;
    const wanted = options.length === 1 ? amount : 1;
    for (const resource of options) {
      const slots = this.taken[resource]!;
      const room = this.problem.resources[resource]!.capacity - wanted;
      let s = start;
      while (s < start + length && slots[s]! <= room) s += 1;
      if (s === start + length) free += options.length === 1 ? amount : this.free(resource, start, length);
      else if (s - length > retry) retry = s - length;
      if (free >= amount) return [true, 0];
    }
    return [false, Number.isFinite(retry) ? retry : start - 1];
  }
}

/** What a list of jobs gives when each is put, in order, as early as it fits. Jobs with a fixed start come first. */
export const serialSchedule = (problem: LevelProblem, order: readonly number[], timeline = new Timeline(problem)): Levelled => {
  const { jobs } = problem;
  timeline.clear();
  const start = new Array<number>(jobs.length).fill(0);
  const taken = new Array<readonly Taken[]>(jobs.length).fill([]);
  let finish = 0;
  const put = (at: number, slot: number): void => {
    start[at] = slot;
    taken[at] = timeline.put(jobs[at]!, slot);
    finish = Math.max(finish, slot + jobs[at]!.slots);
  };
  for (const at of order) if (jobs[at]!.fixed !== null) put(at, jobs[at]!.fixed!);
  for (const at of order) {
    const job = jobs[at]!;
    if (job.fixed !== null) continue;
    let from = job.release;
    for (const before of job.after) from = Math.max(from, start[before]! + jobs[before]!.slots);
    put(at, timeline.first(job, from) ?? from);
  }
  return { start, taken, finish };
};
