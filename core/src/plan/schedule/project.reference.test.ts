import { criticalPath } from './critical-path';
import { level } from './level';
import type { LevelProblem } from './level-problem';
import { lowerBound } from './lower-bound';
import { chanceBy, threePoint } from './three-point';

describe('the textbook project of fourteen jobs', () => {
  // Hillier & Lieberman, Introduction to Operations Research, the construction project of the PERT chapter;
  // times and results recalled and worked through again: least, likely, most weeks, and the jobs before
  const JOBS: Readonly<Record<string, readonly [number, number, number, string]>> = {
    A: [1, 2, 3, ''],
    B: [2, 3.5, 8, 'A'],
    C: [6, 9, 18, 'B'],
    D: [4, 5.5, 10, 'C'],
    E: [1, 4.5, 5, 'C'],
    F: [4, 4, 10, 'E'],
    G: [5, 6.5, 11, 'D'],
    H: [5, 8, 17, 'EG'],
    I: [3, 7.5, 9, 'C'],
    J: [3, 9, 9, 'FI'],
    K: [4, 4, 4, 'J'],
    L: [1, 5.5, 7, 'J'],
    M: [1, 2, 3, 'H'],
    N: [5, 5.5, 9, 'KL'],
  };
  const names = Object.keys(JOBS);
  const estimates = names.map((name) =>
    threePoint({ optimistic: JOBS[name]![0], mostLikely: JOBS[name]![1], pessimistic: JOBS[name]![2] }),
  );
  const path = criticalPath(
    names.map((name, at) => ({ time: estimates[at]!.mean, after: Array.from(JOBS[name]![3], (before) => names.indexOf(before)) })),
  );
  const slackOf = (name: string): number => Number(path.slack[names.indexOf(name)]!.toFixed(6));

  it('takes 44 weeks along A B C E F J L N', () => {
    expect(path.finish).toBeCloseTo(44, 9);
    expect(path.critical.map((at) => names[at]).join('')).toBe('ABCEFJLN');
  });
  it('leaves slack of 4 weeks to D, G, H and M, 2 to I and 1 to K', () =>
    expect(['D', 'G', 'H', 'M', 'I', 'K'].map(slackOf)).toEqual([4, 4, 4, 4, 2, 1]));
  it('is done by week 47 with a chance of 0.8413: variance 9 along the path', () => {
    const variance = path.critical.reduce((sum, at) => sum + estimates[at]!.variance, 0);
    expect(variance).toBeCloseTo(9, 9);
    expect(chanceBy(44, 9, 47)).toBeCloseTo(0.8413, 4);
  });
});

describe('j301_1 of the project scheduling problem library', () => {
  // Kolisch & Sprecher 1997, instance j301_1, recalled in full; the shortest schedule of 43 was proven with a
  // time-indexed integer programme. Jobs 1 and 32 are the begin and the end.
  const FOLLOW = [
    [2, 3, 4], [6, 11, 15], [7, 8, 13], [5, 9, 10], [20], [30], [27], [12, 19, 27], [14], [16, 25], [20, 26], [14], [17, 18], [17], [25],
    [21, 22], [22], [20, 22], [24, 29], [23, 25], [28], [23], [24], [30], [30], [31], [28], [31], [32], [32], [32], [],
  ]; // prettier-ignore
  const TIME = [0, 8, 4, 6, 3, 8, 5, 9, 2, 7, 9, 2, 6, 3, 9, 10, 6, 5, 3, 7, 2, 7, 2, 3, 3, 7, 8, 3, 7, 2, 2, 0];
  const CAPACITY = [12, 13, 4, 12];
  // which of the four each job needs, and how much
  const NEED: readonly (readonly [number, number])[] = [
    [0, 0], [0, 4], [0, 10], [3, 3], [0, 3], [3, 8], [0, 4], [1, 1], [0, 6], [3, 1], [1, 5], [1, 7], [0, 4], [1, 8], [0, 3], [3, 5],
    [3, 8], [3, 7], [1, 1], [1, 10], [3, 6], [0, 2], [0, 3], [1, 9], [0, 4], [2, 4], [3, 7], [1, 8], [1, 7], [1, 7], [2, 2], [0, 0],
  ]; // prettier-ignore
  const inner = Array.from({ length: 30 }, (_, i) => i + 1);
  const problem: LevelProblem = {
    resources: CAPACITY.map((capacity) => ({ capacity, off: [] })),
    jobs: inner.map((job) => ({
      slots: TIME[job]!,
      after: FOLLOW.flatMap((next, before) => (before > 0 && next.includes(job + 1) ? [before - 1] : [])),
      needs: [{ options: [NEED[job]![0]], amount: NEED[job]![1] }],
      release: 0,
      fixed: null,
    })),
  };
  it('has a critical path of 38', () =>
    expect(criticalPath(problem.jobs.map((job) => ({ time: job.slots, after: job.after }))).finish).toBe(38));
  it('is levelled to within 2 of the proven 43, and no bound goes above that', () => {
    const found = level(problem, { tries: 4000, seed: 1 });
    expect(found.finish).toBeGreaterThanOrEqual(43);
    expect(found.finish).toBeLessThanOrEqual(45);
    expect(lowerBound(problem)).toBeLessThanOrEqual(43);
  });
});
