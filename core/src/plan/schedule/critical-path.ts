import { waitingOrder } from './cycle';

/** A job of a network: its time, any unit, and the places of the jobs before it. */
export interface Job {
  readonly time: number;
  readonly after: readonly number[];
  /** it cannot start earlier than this */
  readonly release?: number;
  /** it starts exactly then; null or absent for a job that goes as early as it can */
  readonly fixed?: number | null;
}

interface CriticalPath {
  readonly finish: number;
  /** [job] */
  readonly earliest: readonly number[];
  readonly latest: readonly number[];
  /** latest − earliest start: how much a job can slip without the finish slipping */
  readonly slack: readonly number[];
  /** the jobs without slack, in order of start */
  readonly critical: readonly number[];
}

const EPSILON = 1e-9;

/**
 * Earliest and latest starts when only the order of jobs holds them back.
 *
 *   ES(j) = max(release(j), max ES(i) + t(i) over i before j)      LS(i) = min(LS(j) over j after i, or finish) − t(i)
 *
 * @param jobs without circles; one with a fixed start holds to it, so that what comes before has slack up to it, which is
 * negative when it cannot be done by then
 * @source Hillier & Lieberman, Introduction to Operations Research, critical path method
 */
export const criticalPath = (jobs: readonly Job[]): CriticalPath => {
  const order = waitingOrder(jobs.map((job) => job.after));
  const earliest = jobs.map((job) => job.fixed ?? job.release ?? 0);
  for (const at of order)
    if ((jobs[at]!.fixed ?? null) === null)
      for (const before of jobs[at]!.after) earliest[at] = Math.max(earliest[at]!, earliest[before]! + jobs[before]!.time);
  const finish = jobs.reduce((end, job, at) => Math.max(end, earliest[at]! + job.time), 0);
  const latest = jobs.map((job) => finish - job.time);
  for (const at of [...order].reverse()) {
    latest[at] = jobs[at]!.fixed ?? latest[at]!;
    for (const before of jobs[at]!.after) latest[before] = Math.min(latest[before]!, latest[at] - jobs[before]!.time);
  }
  const slack = earliest.map((start, at) => latest[at]! - start);
  const critical = slack.flatMap((s, at) => (s <= EPSILON ? [at] : [])).sort((a, b) => earliest[a]! - earliest[b]! || a - b);
  return { finish, earliest, latest, slack, critical };
};
