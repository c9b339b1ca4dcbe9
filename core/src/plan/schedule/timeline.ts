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
  private readonly capacity: readonly number[];
  private readonly allSingle: boolean;
  /** needs that ask for the same share a number */
  private readonly numberOf = new Map<Need, number>();
  /** [number of a need] before this slot there is never enough for it; it only moves on while jobs are put */
  private readonly openFrom: Int32Array;
  /** nothing is taken from here on but what is off */
  private used = 0;

  constructor(private readonly problem: LevelProblem) {
    this.length = horizonOf(problem);
    this.capacity = problem.resources.map((resource) => resource.capacity);
    this.allSingle = this.capacity.every((capacity) => capacity === 1);
    const numbers = new Map<string, number>();
    for (const job of problem.jobs)
      for (const need of job.needs) {
        const key = `${need.amount} of ${need.options.join()}`;
        if (!numbers.has(key)) numbers.set(key, numbers.size);
        this.numberOf.set(need, numbers.get(key)!);
      }
    this.openFrom = new Int32Array(numbers.size);
    this.taken = problem.resources.map(({ capacity, off }) => {
      const slots = new Int16Array(this.length);
      for (const [from, to] of off) slots.fill(capacity, from, Math.min(to, this.length));
      return slots;
    });
  }

  /** Takes all jobs off again. */
  clear(): void {
    this.openFrom.fill(0);
    this.problem.resources.forEach(({ capacity, off }, r) => {
      const slots = this.taken[r]!;
      slots.fill(0, 0, this.used);
      for (const [from, to] of off) slots.fill(capacity, from, Math.min(to, this.length));
    });
    this.used = 0;
  }

  /** First start at or after `from` at which a job finds all it needs, or null when there is none before `until`. */
  first(job: LevelJob, from: number, until = this.length - job.slots): number | null {
    let at = from;
    for (const need of job.needs) {
      const number = this.numberOf.get(need);
      if (number !== undefined) at = Math.max(at, this.firstOpen(need, number));
    }
    while (at <= until) {
      const blocked = this.blockedUntil(job, at);
      if (blocked === null) return at;
      at = blocked;
    }
    return null;
  }

  /** The first slot at which there is enough for a need, be it for one slot alone. */
  private firstOpen({ options, amount }: Need, number: number): number {
    let slot = this.openFrom[number]!;
    for (; slot < this.length; slot++) {
      let free = 0;
      for (const resource of options) free += Math.max(0, this.capacity[resource]! - this.taken[resource]![slot]!);
      if (free >= amount) break;
    }
    this.openFrom[number] = slot;
    return slot;
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
    const end = start + job.slots;
    const taken: Taken[] = [];
    for (const need of job.needs) this.take(need, start, job.slots, taken);
    for (const { resource, amount } of taken) {
      const slots = this.taken[resource]!;
      for (let s = start; s < end; s++) slots[s] = slots[s]! + amount;
    }
    if (end > this.used) this.used = end;
    return taken;
  }

  /** How much of a resource is free all through a stretch. */
  private free(resource: number, start: number, length: number): number {
    const slots = this.taken[resource]!;
    const capacity = this.capacity[resource]!;
    let most = 0;
    for (let s = start + length - 1; s >= start; s--)
      if (slots[s]! > most) {
        most = slots[s]!;
        if (most >= capacity) return 0;
      }
    return capacity - most;
  }

  /** Which of the options fill a need, in their order; there must be enough. */
  private take({ options, amount }: Need, start: number, length: number, taken: Taken[]): void {
    let left = amount;
    for (const resource of options) {
      const share = Math.min(left, this.free(resource, start, length));
      if (share <= 0) continue;
      taken.push({ resource, amount: share });
      left -= share;
      if (left === 0) return;
    }
  }

  /** Null when the job fits at `start`; otherwise the next start worth trying. */
  private blockedUntil(job: LevelJob, start: number): number | null {
    let next: number | null = null;
    for (const need of job.needs) {
      const retry = this.lookBack(need, start, job.slots);
      if (retry !== null && (next === null || retry > next)) next = retry;
    }
    return next;
  }

  /**
   * Whether enough is free all through a stretch, and if not, the next start worth trying: each blocked option is free
   * after the last slot that stands in its way at the soonest; when two are missing, two of them must have come.
   */
  private lookBack({ options, amount }: Need, start: number, length: number): number | null {
    const isOne = options.length === 1;
    let free = 0;
    let [soonest, second] = [Number.MAX_SAFE_INTEGER, Number.MAX_SAFE_INTEGER];
    for (const resource of options) {
      const slots = this.taken[resource]!;
      const capacity = this.capacity[resource]!;
      const room = isOne ? capacity - amount : capacity - 1;
      let s = start + length - 1;
      while (s >= start && slots[s]! <= room) s -= 1;
      if (s < start) {
        free += isOne ? amount : capacity === 1 ? 1 : this.free(resource, start, length);
        if (free >= amount) return null;
      } else if (s < soonest) [soonest, second] = [s, soonest];
      else if (s < second) second = s;
    }
    const last = this.allSingle && amount - free > 1 && second < Number.MAX_SAFE_INTEGER ? second : soonest;
    return last === Number.MAX_SAFE_INTEGER ? start + 1 : last + 1;
  }

  private blockedBack(job: LevelJob, start: number): number | null {
    let next: number | null = null;
    for (const need of job.needs) {
      const retry = this.lookOn(need, start, job.slots);
      if (retry !== null && (next === null || retry < next)) next = retry;
    }
    return next;
  }

  /** The same looking the other way: the last start before this one that is worth trying, or null when it fits. */
  private lookOn({ options, amount }: Need, start: number, length: number): number | null {
    const isOne = options.length === 1;
    let free = 0;
    let latest = -1;
    for (const resource of options) {
      const slots = this.taken[resource]!;
      const capacity = this.capacity[resource]!;
      const room = isOne ? capacity - amount : capacity - 1;
      let s = start;
      while (s < start + length && slots[s]! <= room) s += 1;
      if (s === start + length) {
        free += isOne ? amount : capacity === 1 ? 1 : this.free(resource, start, length);
        if (free >= amount) return null;
      } else if (s > latest) latest = s;
    }
    return latest < 0 ? start - 1 : latest - length;
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
  for (const at of order) if (jobs[at]!.fixed !== null) put(at, jobs[at]!.fixed);
  for (const at of order) {
    const job = jobs[at]!;
    if (job.fixed !== null) continue;
    let from = job.release;
    for (const before of job.after) from = Math.max(from, start[before]! + jobs[before]!.slots);
    put(at, timeline.first(job, from) ?? from);
  }
  return { start, taken, finish };
};
