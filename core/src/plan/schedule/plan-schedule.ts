import { dayText, issue, type Issue } from '../../shared';
import type { StudyRecord, WorkPackage } from '../../record';
import { scheduleRisk, type ScheduleRisk } from './schedule-risk';
import { level, type LevelResult } from './level';
import { lowerBound } from './lower-bound';
import type { Levelled, LevelProblem } from './level-problem';
import { planNetwork, type Activity, type LeftOut } from './plan-network';
import { criticalPath } from './critical-path';
import { SLOT_S, endTimeOfSlot, timeOfSlot, type WorkingCalendar } from './working-calendar';

/** A package on the schedule. */
export interface Scheduled {
  readonly packageId: string;
  readonly state: Activity['state'];
  /** slots of working time */
  readonly start: number;
  readonly end: number;
  /** local times, YYYY-MM-DDTHH:MM */
  readonly from: string;
  readonly to: string;
  /** resources it holds: people, place, rig */
  readonly holds: readonly string[];
  /** working slots it can slip without the finish slipping, others staying where they are */
  readonly slack: number;
  /** slack when only the order of work counts, as if there were people and places for all */
  readonly freeSlack: number;
}

export interface PlanSchedule {
  readonly axis: WorkingCalendar;
  /** the day it was made for, YYYY-MM-DD, and the slot that begins with it */
  readonly asOf: string;
  readonly today: number;
  readonly packages: readonly Scheduled[];
  readonly leftOut: readonly LeftOut[];
  /** slots */
  readonly finish: number;
  readonly finishAt: string;
  /** no order of these packages can finish earlier when each takes its most likely time, in whole slots */
  readonly bound: number;
  /** nor, whatever each takes, before this: by the optimistic times */
  readonly leastBound: number;
  readonly boundAt: string;
  readonly proved: boolean;
  readonly tried: number;
  /** finish when only the order of work held packages back */
  readonly criticalAt: string;
  readonly spread: ScheduleRisk;
}

export interface ScheduleResult {
  readonly schedule: PlanSchedule | null;
  readonly issues: readonly Issue[];
}

export interface ScheduleOptions {
  /** YYYY-MM-DD */
  readonly today: string;
  readonly tries: number;
  readonly samples: number;
  readonly progress?: (doneFraction: number) => void;
}

/** Schedules that are worth trying for so many packages: fewer of long plans, so that all are made in about the same time. */
export const triesFor = (packages: number): number => Math.max(300, Math.min(2000, Math.round(100_000 / Math.max(1, packages))));

/** The seed of everything that is left to chance in a plan, so that the same plan always gives the same schedule. */
const SEED = 0.4711;

/**
 * Latest starts when the order in which jobs use people and places stays: nobody is reassigned.
 *
 *   latest(i) = min(latest start of what waits for i or uses the same after it, or finish) − t(i), before days off of what it holds
 */
const slackOf = ({ jobs, resources }: LevelProblem, { start, taken, finish }: Levelled): readonly number[] => {
  const latest = jobs.map((job) => finish - job.slots);
  const order = jobs.map((_, at) => at).sort((a, b) => start[b]! - start[a]! || b - a);
  const firstUse = new Map<number, number[]>();
  for (const at of order) {
    for (const { resource } of taken[at]!) {
      for (const later of firstUse.get(resource) ?? [])
        if (start[later]! >= start[at]! + jobs[at]!.slots) latest[at] = Math.min(latest[at]!, latest[later]! - jobs[at]!.slots);
      firstUse.set(resource, [...(firstUse.get(resource) ?? []), at]);
    }
    if (jobs[at]!.fixed !== null) latest[at] = start[at]!;
    // a job is done in one go: it cannot slip into a day off of somebody it holds
    const off = taken[at]!.flatMap(({ resource }) => resources[resource]!.off);
    for (let moved = true; moved && latest[at]! > start[at]!;) {
      moved = false;
      for (const [from, to] of off)
        if (latest[at]! < to && latest[at]! + jobs[at]!.slots > from) {
          latest[at] = from - jobs[at]!.slots;
          moved = true;
        }
    }
    latest[at] = Math.max(latest[at]!, start[at]!);
    for (const before of jobs[at]!.after) latest[before] = Math.min(latest[before]!, latest[at] - jobs[before]!.slots);
  }
  return latest.map((l, at) => Math.max(0, l - start[at]!));
};

/** Packages that run whose people or place are held by others that run. */
const shortOf = ({ jobs }: LevelProblem, activities: readonly Activity[], { taken }: Levelled): readonly Issue[] =>
  jobs.flatMap((job, at) => {
    const { pack, state } = activities[at]!;
    if (state !== 'running') return [];
    const wanted = job.needs.reduce((sum, need) => sum + need.amount, 0);
    const got = taken[at]!.reduce((sum, t) => sum + t.amount, 0);
    return got >= wanted
      ? []
      : [
          issue(
            'running-short',
            `“${pack.name}” runs while others that run hold its people or place, or they are off: say which of them rests, or that one is done`,
            'people',
            pack.id,
          ),
        ];
  });

/** Pinned packages whose people or place are taken, or that something before them does not leave time for. */
const brokenPins = (
  { jobs }: LevelProblem,
  activities: readonly Activity[],
  { start, taken }: Levelled,
): readonly { readonly at: number }[] =>
  jobs.flatMap((job, at) => {
    if (job.fixed === null || activities[at]!.state !== 'planned') return [];
    const wanted = job.needs.reduce((sum, need) => sum + need.amount, 0);
    const got = taken[at]!.reduce((sum, t) => sum + t.amount, 0);
    const late = job.after.some((before) => start[before]! + jobs[before]!.slots > start[at]!);
    return got < wanted || late ? [{ at }] : [];
  });

const pinIssue = (pack: WorkPackage): Issue =>
  issue(
    'impossible-pin',
    `“${pack.name}” is pinned on ${dayText(pack.pinnedOn ?? '')}, when its people or place are taken or off, or what comes before is not done. Move the pin or free them`,
    'pinnedOn',
    pack.id,
  );

/** The same jobs when each takes its optimistic time, in slots that need not be whole. */
const withLeastTimes = (problem: LevelProblem, activities: readonly Activity[], today: number): LevelProblem => ({
  ...problem,
  jobs: problem.jobs.map((job, at) => {
    const { left, state } = activities[at]!;
    if (!left) return job;
    const spent = state === 'running' ? Math.max(0, today - (job.fixed ?? 0)) : 0;
    // a pin may slip, and does not hold back what a optimistic time lets be done before it
    return { ...job, slots: spent + left.optimisticS / SLOT_S };
  }),
});

/** The plan of a study as of a day: every package with its times and people, slack, bounds, and how sure the finish is. */
export const planSchedule = (
  record: Pick<StudyRecord, 'study' | 'packages' | 'resources' | 'rigs' | 'vehicles'>,
  { today, tries, samples, progress }: ScheduleOptions,
): ScheduleResult => {
  const { network, issues } = planNetwork(record, today);
  if (!network) return { schedule: null, issues };
  const { axis, activities, resourceIds, leftOut } = network;
  const run = (problem: LevelProblem): LevelResult =>
    level(problem, { tries, seed: SEED, ...(progress && { progress: (tried: number) => progress((0.8 * tried) / tries) }) });
  let { problem } = network;
  let levelled = run(problem);
  // a pin that people and places do not allow is named, and its package goes as early after it as it can
  const impossible: Issue[] = [];
  for (let broken = brokenPins(problem, activities, levelled); broken.length > 0; broken = brokenPins(problem, activities, levelled)) {
    impossible.push(...broken.map(({ at }) => pinIssue(activities[at]!.pack)));
    const off = new Set(broken.map(({ at }) => at));
    problem = { ...problem, jobs: problem.jobs.map((job, at) => (off.has(at) ? { ...job, release: job.fixed ?? 0, fixed: null } : job)) };
    levelled = run(problem);
  }
  const spread = scheduleRisk({ ...network, problem }, levelled, { samples, seed: SEED });
  progress?.(1);
  const leastBound = Math.min(levelled.bound, lowerBound(withLeastTimes(problem, activities, network.today)));
  const slack = slackOf(problem, levelled);
  const free = criticalPath(problem.jobs.map((job) => ({ time: job.slots, after: job.after, release: job.release, fixed: job.fixed })));
  const packages = activities.map(({ pack, state }, at): Scheduled => {
    const [start, slots] = [levelled.start[at]!, problem.jobs[at]!.slots];
    return {
      packageId: pack.id,
      state,
      start,
      end: start + slots,
      from: timeOfSlot(axis, start),
      to: endTimeOfSlot(axis, start + slots),
      holds: levelled.taken[at]!.map(({ resource }) => resourceIds[resource]!),
      slack: state === 'planned' ? slack[at]! : 0,
      freeSlack: state === 'planned' ? free.slack[at]! : 0,
    };
  });
  return {
    schedule: {
      axis,
      asOf: today,
      today: network.today,
      packages,
      leftOut,
      finish: levelled.finish,
      finishAt: endTimeOfSlot(axis, levelled.finish),
      bound: levelled.bound,
      boundAt: endTimeOfSlot(axis, leastBound),
      leastBound,
      proved: levelled.proved,
      tried: levelled.tried,
      criticalAt: endTimeOfSlot(axis, free.finish),
      spread,
    },
    issues: [...issues, ...impossible, ...shortOf(problem, activities, levelled)],
  };
};
