import { counted, dayText, fixed, issue, type Issue } from '../../shared';
import type { Resource, StudyRecord, WorkPackage } from '../../record';
import { circleIn } from './cycle';
import { criticalPath } from './critical-path';
import type { LevelProblem, Need } from './level-problem';
import { betaShape, type ThreePoint } from './three-point';
import { isWorkingDay, offStretches, slotAfterDay, slotOfDay, slotsOf, workingCalendar, type WorkingCalendar } from './working-calendar';

/** A package of the plan as the schedule sees it. */
export interface Activity {
  readonly pack: WorkPackage;
  readonly state: 'planned' | 'running' | 'done';
  /** slots from its start: of a package that runs, from the day it was started to its expected end */
  readonly slots: number;
  /** working time with the crew that is still expected, three points, seconds; null when it is done */
  readonly left: { readonly optimisticS: number; readonly mostLikelyS: number; readonly pessimisticS: number } | null;
}

/** A package that cannot be put on the schedule, and why. */
export interface LeftOut {
  readonly packageId: string;
  readonly why: string;
}

export interface PlanNetwork {
  readonly axis: WorkingCalendar;
  /** the slot that today begins with */
  readonly today: number;
  readonly activities: readonly Activity[];
  readonly problem: LevelProblem;
  /** [resource of the problem] person, bay, lift or rig */
  readonly resourceIds: readonly string[];
  readonly leftOut: readonly LeftOut[];
}

interface NetworkResult {
  readonly network: PlanNetwork | null;
  readonly issues: readonly Issue[];
}

type Plan = Pick<StudyRecord, 'study' | 'packages' | 'resources' | 'rigs' | 'vehicles'>;

const inOrder = <T extends { readonly sequence: number; readonly id: string }>(rows: readonly T[]): readonly T[] =>
  [...rows].sort((a, b) => a.sequence - b.sequence || (a.id < b.id ? -1 : 1));

export const packageState = (pack: WorkPackage): Activity['state'] =>
  pack.doneOn !== null ? 'done' : pack.startedOn !== null ? 'running' : 'planned';

const quoted = (pack: WorkPackage): string => `“${pack.name}”`;

/** What a package still takes: what is typed, or what was estimated less what was spent. */
const leftOf = (pack: WorkPackage): Activity['left'] => {
  if (pack.doneOn !== null || pack.optimisticS === null || pack.mostLikelyS === null || pack.pessimisticS === null) return null;
  if (pack.remainingS !== null) {
    const scale = pack.remainingS / pack.mostLikelyS;
    return { optimisticS: pack.optimisticS * scale, mostLikelyS: pack.remainingS, pessimisticS: pack.pessimisticS * scale };
  }
  return restAfter({ optimistic: pack.optimisticS, mostLikely: pack.mostLikelyS, pessimistic: pack.pessimisticS }, pack.workedS ?? 0);
};

/** What a package that has taken more than its pessimistic time still takes, as a share of that time (assumed): a quarter, from an eighth to a half. */
const OVERRUN = { optimistic: 1 / 8, mostLikely: 1 / 4, pessimistic: 1 / 2 } as const;

/**
 * What is left of a three-point estimate after some of it was spent. Before the optimistic time it is the estimate less what was
 * spent; after it the mean of the times that are still possible; past the pessimistic time there is no estimate left, and an overrun is
 * assumed. It is never nothing.
 *
 *   rest = E(T | T > spent) − spent
 *
 * @source conditional mean of the beta distribution of the estimate, by strips
 */
export const restAfter = ({ optimistic, mostLikely, pessimistic }: ThreePoint, spentS: number): NonNullable<Activity['left']> => {
  if (!(spentS < pessimistic))
    return {
      optimisticS: OVERRUN.optimistic * pessimistic,
      mostLikelyS: OVERRUN.mostLikely * pessimistic,
      pessimisticS: OVERRUN.pessimistic * pessimistic,
    };
  if (spentS < optimistic)
    return { optimisticS: optimistic - spentS, mostLikelyS: mostLikely - spentS, pessimisticS: pessimistic - spentS };
  const { alpha, beta } = betaShape({ optimistic, mostLikely, pessimistic });
  let [weight, moment] = [0, 0];
  for (let i = 0; i < STRIPS; i++) {
    const t = spentS + ((i + 0.5) / STRIPS) * (pessimistic - spentS);
    const x = (t - optimistic) / (pessimistic - optimistic);
    const density = x ** (alpha - 1) * (1 - x) ** (beta - 1);
    weight += density;
    moment += density * (t - spentS);
  }
  const mean = weight > 0 ? moment / weight : (pessimistic - spentS) / 2;
  return { optimisticS: 0.3 * mean, mostLikelyS: mean, pessimisticS: Math.max(pessimistic - spentS, mean) };
};
const STRIPS = 400;

interface Crew {
  readonly needs: readonly Need[];
  readonly lacking: string | null;
}

const can = (person: Resource, skill: string): boolean =>
  skill === '' || person.skills.some((has) => has.toLowerCase() === skill.toLowerCase());

/** People, place and rig of a package as needs, or what there is not enough of, in words. */
const crewOf = (pack: WorkPackage, plan: Plan, placeOf: ReadonlyMap<string, number>): Crew => {
  const at = (id: string): number => placeOf.get(id) ?? -1;
  const people = inOrder(plan.resources.filter((r) => r.kind === 'person'));
  const named = pack.who.filter((id) => placeOf.has(id));
  const needs: Need[] = named.map((id) => ({ options: [at(id)], amount: 1 }));
  const more = pack.people - named.length;
  // those who can do less go first, so that those who can do much stay free
  const others = people
    .filter((p) => can(p, pack.skill) && !named.includes(p.id))
    .sort((a, b) => a.skills.length - b.skills.length || a.sequence - b.sequence);
  if (more > 0) {
    if (others.length < more) {
      const skill = pack.skill === '' ? '' : ` who can “${pack.skill}”`;
      const there = named.length + others.length;
      return {
        needs: [],
        lacking: `${quoted(pack)} needs ${counted(pack.people, 'person', 'people')}${skill}; the plan has ${there === 0 ? 'none' : fixed(there, 0)}. Add people or a skill, or make the crew smaller`,
      };
    }
    needs.push({ options: others.map((p) => at(p.id)), amount: more });
  }
  if (pack.place !== 'none') {
    const places = inOrder(plan.resources.filter((r) => r.kind === pack.place));
    if (places.length === 0)
      return { needs: [], lacking: `${quoted(pack)} needs a ${pack.place}; the plan has none. Add one, or let it be done elsewhere` };
    needs.push({ options: places.map((p) => at(p.id)), amount: 1 });
  }
  if (pack.rigId !== null) {
    const rig = plan.rigs.find((r) => r.id === pack.rigId);
    if (!rig || rig.copies === 0 || rig.state === 'scrapped')
      return {
        needs: [],
        lacking: `${quoted(pack)} needs the rig “${rig?.name ?? ''}”, of which there is none. Make one, or choose another`,
      };
    needs.push({ options: [at(rig.id)], amount: 1 });
  }
  return { needs, lacking: null };
};

/** Packages that cannot be scheduled for a reason of their own. */
const faultOf = (pack: WorkPackage, crew: Crew): string | null => {
  if (pack.doneOn !== null) return null;
  if (pack.mostLikelyS === null) return `${quoted(pack)} has no estimate: give its optimistic, most likely and pessimistic time`;
  return crew.lacking;
};

const circleIssue = (packs: readonly WorkPackage[], circle: readonly number[]): Issue => {
  const names = circle.map((at) => quoted(packs[at]!));
  return issue(
    'cycle',
    `${names.join(' waits for ')} waits for ${names[0] ?? ''}: none of them can ever begin. Take one of these predecessors out`,
    'after',
    packs[circle[0]!]!.id,
  );
};

/** The packages of circles that wait for each other, each with the reason, and an issue for every circle. */
const inCircles = (packs: readonly WorkPackage[], waits: readonly (readonly number[])[]): Left => {
  const issues: Issue[] = [];
  const left = new Map<number, string>();
  const open = (): readonly (readonly number[])[] => waits.map((w, at) => (left.has(at) ? [] : w));
  for (let circle = circleIn(open()); circle; circle = circleIn(open())) {
    issues.push(circleIssue(packs, circle));
    for (const at of circle) left.set(at, `${quoted(packs[at]!)} is in a circle of packages that wait for each other`);
  }
  return { left, issues };
};

/** What cannot be scheduled, by its place among the packages, and what is to be done about it. */
interface Left {
  readonly left: Map<number, string>;
  readonly issues: Issue[];
}

/** All packages that cannot be scheduled: in a circle, without an estimate or a crew, or behind one of these. */
const leftOutOf = (packs: readonly WorkPackage[], waits: readonly (readonly number[])[], crews: readonly Crew[]): Left => {
  const { left, issues } = inCircles(packs, waits);
  packs.forEach((pack, at) => {
    const fault = left.has(at) ? null : faultOf(pack, crews[at]!);
    if (fault === null) return;
    left.set(at, fault);
    const [code, field] = pack.mostLikelyS === null ? (['no-estimate', 'mostLikelyS'] as const) : (['no-capacity', 'people'] as const);
    issues.push(issue(code, fault, field, pack.id));
  });
  for (let grown = true; grown;) {
    grown = false;
    packs.forEach((pack, at) => {
      const blocker = left.has(at) ? undefined : waits[at]!.find((before) => left.has(before));
      if (blocker === undefined) return;
      left.set(at, `${quoted(pack)} waits for ${quoted(packs[blocker]!)}, which cannot be scheduled`);
      grown = true;
    });
  }
  return { left, issues };
};

const activityOf = (pack: WorkPackage, axis: WorkingCalendar, now: number): Activity => {
  const state = packageState(pack);
  const rest = leftOf(pack);
  if (state === 'done')
    return { pack, state, left: null, slots: Math.max(1, slotAfterDay(axis, pack.doneOn!) - slotOfDay(axis, pack.startedOn!)) };
  const slots = slotsOf(rest?.mostLikelyS ?? 1);
  if (state === 'planned') return { pack, state, left: rest, slots };
  const from = slotOfDay(axis, pack.startedOn!);
  return { pack, state, left: rest, slots: Math.max(now, from) - from + slots };
};

/** The slot before which each vehicle is not there. */
const arrivals = (plan: Plan, axis: WorkingCalendar): ReadonlyMap<string, number> =>
  new Map(plan.vehicles.map((v) => [v.id, v.acquiredOn === null && v.expectedOn !== null ? slotOfDay(axis, v.expectedOn) : 0]));

/** The packages of a study as jobs on one axis of working time, as of today; what cannot be scheduled is named, with the reason. */
export const planNetwork = (plan: Plan, today: string): NetworkResult => {
  const { axis, issues: axisIssues } = workingCalendar(plan.study.calendar);
  if (!axis) return { network: null, issues: axisIssues };
  const packs = inOrder(plan.packages);
  const resources = inOrder(plan.resources);
  const rigs = inOrder(plan.rigs);
  const resourceIds = [...resources, ...rigs].map((r) => r.id);
  const placeOf = new Map(resourceIds.map((id, at) => [id, at]));
  const placeOfPack = new Map(packs.map((pack, at) => [pack.id, at]));
  const waits = packs.map((pack) => (pack.doneOn !== null ? [] : pack.after.flatMap((id) => placeOfPack.get(id) ?? [])));
  const crews = packs.map((pack) => crewOf(pack, plan, placeOf));
  const { left, issues } = leftOutOf(packs, waits, crews);

  const kept = packs.flatMap((_, at) => (left.has(at) ? [] : [at]));
  const placeKept = new Map(kept.map((at, place) => [at, place]));
  const now = slotOfDay(axis, today);
  const activities = kept.map((at) => activityOf(packs[at]!, axis, now));
  const arrival = arrivals(plan, axis);
  const jobs = activities.map(({ pack, state, slots }, place) => {
    const at = kept[place]!;
    const after = waits[at]!.flatMap((before) => placeKept.get(before) ?? []);
    if (state !== 'planned')
      // what is done holds nothing any more; what runs holds its crew until it ends
      return { slots, after: [], needs: state === 'done' ? [] : crews[at]!.needs, release: 0, fixed: slotOfDay(axis, pack.startedOn!) };
    const release = Math.max(
      now,
      pack.notBefore === null ? 0 : slotOfDay(axis, pack.notBefore),
      pack.vehicleId === null ? 0 : (arrival.get(pack.vehicleId) ?? 0),
    );
    return { slots, after, needs: crews[at]!.needs, release, fixed: null };
  });
  issues.push(...runningIssues(activities, packs, placeOfPack, today));
  const pinned = withPins(jobs, activities, axis, now, issues);
  const capacity = [
    ...resources.map((r) => ({ capacity: 1, off: offStretches(axis, r.daysOff) })),
    ...rigs.map((rig) => ({ capacity: rig.state === 'scrapped' ? 0 : rig.copies, off: [] })),
  ];
  const leftOut = [...left].map(([at, why]): LeftOut => ({ packageId: packs[at]!.id, why }));
  return {
    network: { axis, today: now, activities, problem: { jobs: pinned, resources: capacity }, resourceIds, leftOut },
    issues,
  };
};

/** Packages that run in a way that cannot be: begun in the future, or before what they wait for; and those past their estimate. */
const runningIssues = (
  activities: readonly Activity[],
  packs: readonly WorkPackage[],
  placeOfPack: ReadonlyMap<string, number>,
  today: string,
): readonly Issue[] =>
  activities.flatMap(({ pack, state }): readonly Issue[] => {
    if (state === 'planned' || pack.startedOn === null) return [];
    const begun = pack.startedOn;
    const early = pack.after
      .flatMap((id) => packs[placeOfPack.get(id) ?? -1] ?? [])
      .filter((before) => before.doneOn === null || before.doneOn > begun);
    const isPast =
      state === 'running' && pack.remainingS === null && pack.pessimisticS !== null && (pack.workedS ?? 0) >= pack.pessimisticS;
    return [
      ...(begun > today
        ? [
            issue(
              'begun-in-future',
              `${quoted(pack)} is said to have begun on ${dayText(begun)}, which is still to come. Mend the date`,
              'startedOn',
              pack.id,
            ),
          ]
        : []),
      ...early.map((before) =>
        issue(
          'begun-early',
          `${quoted(pack)} was begun on ${dayText(begun)}, before ${quoted(before)}, which it waits for, was done. Mend a date, or take the predecessor out`,
          'startedOn',
          pack.id,
        ),
      ),
      ...(isPast
        ? [
            issue(
              'past-estimate',
              `${quoted(pack)} has taken ${fixed((pack.workedS ?? 0) / 3600, 1)} h of at most ${fixed(pack.pessimisticS / 3600, 1)} h estimated: a quarter of that is taken as its rest (assumed). Say what is left`,
              'remainingS',
              pack.id,
            ),
          ]
        : []),
    ];
  });

type PlanJob = LevelProblem['jobs'][number];

/** Pins kept where they can be; an impossible one is named, and the package goes as early after it as it can. */
const withPins = (
  jobs: readonly PlanJob[],
  activities: readonly Activity[],
  axis: WorkingCalendar,
  now: number,
  issues: Issue[],
): readonly PlanJob[] => {
  const { earliest } = criticalPath(jobs.map((job) => ({ time: job.slots, after: job.after, release: job.release, fixed: job.fixed })));
  return jobs.map((job, at) => {
    const { pack, state } = activities[at]!;
    if (pack.pinnedOn === null || state !== 'planned') return job;
    const pin = slotOfDay(axis, pack.pinnedOn);
    const impossible = (why: string): PlanJob => {
      issues.push(
        issue(
          'impossible-pin',
          `${quoted(pack)} is pinned on ${dayText(pack.pinnedOn!)}, ${why}. Move the pin or take it off`,
          'pinnedOn',
          pack.id,
        ),
      );
      return { ...job, release: Math.max(job.release, pin) };
    };
    if (!isWorkingDay(axis, pack.pinnedOn)) return impossible('which is not a working day');
    if (pin < now) return impossible('which is past, and it was not started');
    if (pin < job.release)
      return impossible('but it cannot begin so early: its vehicle is not there or it is not to begin before a later day');
    const last = job.after.find((before) => earliest[before]! + jobs[before]!.slots > pin);
    if (last !== undefined) return impossible(`but ${quoted(activities[last]!.pack)}, which comes before, cannot be done by then`);
    return { ...job, fixed: pin };
  });
};
