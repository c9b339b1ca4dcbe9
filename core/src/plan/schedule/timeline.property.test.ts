import fc from 'fast-check';
import type { LevelJob, LevelProblem, Need } from './level-problem';
import { Timeline, serialSchedule } from './timeline';

/** Three people one by one, a pair of bays as one resource of two, a rig of three copies, each at times not there. */
const OFF = fc.array(fc.tuple(fc.integer({ min: 0, max: 25 }), fc.integer({ min: 1, max: 6 })), { maxLength: 2 });
const PEOPLE: fc.Arbitrary<Need> = fc.oneof(
  fc.record({ options: fc.constantFrom([0], [1, 2], [0, 1, 2]), amount: fc.constant(1) }),
  fc.constant<Need>({ options: [0, 1, 2], amount: 2 }),
);
const BAYS: fc.Arbitrary<Need> = fc.record({ options: fc.constant([3]), amount: fc.integer({ min: 1, max: 2 }) });
const RIGS: fc.Arbitrary<Need> = fc.record({ options: fc.constant([4]), amount: fc.integer({ min: 1, max: 3 }) });
const NEEDS = fc.tuple(fc.option(PEOPLE), fc.option(BAYS), fc.option(RIGS)).map((needs) => needs.filter((n): n is Need => n !== null));
const JOB: fc.Arbitrary<LevelJob> = fc.record({
  slots: fc.integer({ min: 1, max: 7 }),
  after: fc.constant([]),
  needs: NEEDS,
  release: fc.integer({ min: 0, max: 10 }),
  fixed: fc.constant(null),
});
const PROBLEM: fc.Arbitrary<LevelProblem> = fc
  .tuple(fc.array(JOB, { minLength: 1, maxLength: 8 }), fc.array(OFF, { minLength: 5, maxLength: 5 }))
  .map(([jobs, off]) => ({
    // the last begins far out, so that the answers below lie within what is looked at
    jobs: [...jobs, { slots: 1, after: [], needs: [], release: 60, fixed: null }],
    resources: [1, 1, 1, 2, 3].map((capacity, r) => ({
      capacity,
      off: off[r]!.map(([from, length]) => [from, from + length] as const).sort(([a], [b]) => a - b),
    })),
  }));

/** The same in the slowest and plainest way: what is taken, slot by slot, from the answers themselves. */
class Slots {
  private readonly taken: number[][];
  constructor(
    private readonly problem: LevelProblem,
    private readonly length: number,
  ) {
    this.taken = problem.resources.map(({ capacity, off }) =>
      Array.from({ length }, (_, s) => (off.some(([from, to]) => from <= s && s < to) ? capacity : 0)),
    );
  }
  put(start: number, slots: number, taken: readonly { readonly resource: number; readonly amount: number }[]): void {
    for (const { resource, amount } of taken) for (let s = start; s < start + slots; s++) this.taken[resource]![s]! += amount;
  }
  private free(resource: number, start: number, slots: number): number {
    const most = Math.max(...this.taken[resource]!.slice(start, start + slots));
    return Math.max(0, this.problem.resources[resource]!.capacity - most);
  }
  fits(job: LevelJob, start: number): boolean {
    return job.needs.every(({ options, amount }) => options.reduce((sum, r) => sum + this.free(r, start, job.slots), 0) >= amount);
  }
  first(job: LevelJob, from: number): number | null {
    for (let s = from; s + job.slots <= this.length; s++) if (this.fits(job, s)) return s;
    return null;
  }
  last(job: LevelJob, from: number, until: number): number | null {
    for (let s = Math.min(from, this.length - job.slots); s >= until; s--) if (this.fits(job, s)) return s;
    return null;
  }
  get mostTaken(): readonly number[] {
    return this.taken.map((slots) => Math.max(...slots));
  }
}
const LENGTH = 160;

describe('what is taken of people, bays and rigs, slot by slot', () => {
  it('the first slot a job fits at is the one that looking at every slot finds', () =>
    fc.assert(
      fc.property(PROBLEM, JOB, fc.nat(30), (problem, asked, from) => {
        const [timeline, slots] = [new Timeline(problem), new Slots(problem, LENGTH)];
        for (const job of problem.jobs) {
          const at = timeline.first(job, job.release);
          if (at === null) continue;
          expect(at).toBe(slots.first(job, job.release));
          slots.put(at, job.slots, timeline.put(job, at));
        }
        const found = timeline.first(asked, from);
        expect(found).toBe(slots.first(asked, from));
      }),
      { numRuns: 400 },
    ));
  it('and so is the last one, looking back', () =>
    fc.assert(
      fc.property(PROBLEM, fc.nat(40), fc.nat(10), (problem, from, until) => {
        const [timeline, slots] = [new Timeline(problem), new Slots(problem, LENGTH)];
        const [asked, ...others] = problem.jobs as [LevelJob, ...LevelJob[]];
        for (const job of others) {
          const at = timeline.first(job, job.release);
          if (at !== null) slots.put(at, job.slots, timeline.put(job, at));
        }
        const found = timeline.last(asked, from, until);
        expect(found).toBe(slots.last(asked, from, until));
      }),
      { numRuns: 400 },
    ));
  it('is never more than there is, and all of it is free again once it is cleared', () =>
    fc.assert(
      fc.property(PROBLEM, (problem) => {
        const timeline = new Timeline(problem);
        const order = problem.jobs.map((_, at) => at);
        const once = serialSchedule(problem, order, timeline);
        const slots = new Slots(problem, LENGTH);
        problem.jobs.forEach((job, at) => slots.put(once.start[at]!, job.slots, once.taken[at]!));
        problem.resources.forEach(({ capacity }, r) => expect(slots.mostTaken[r]!).toBeLessThanOrEqual(capacity));
        expect(serialSchedule(problem, order, timeline)).toEqual(once);
      }),
      { numRuns: 200 },
    ));
});
