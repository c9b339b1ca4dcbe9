import { planSchedule, triesFor } from '@each-bolt/core/plan';
import { blank, USUAL_STUDY, emptyRecord, type Resource, type StudyRecord, type WorkPackage } from '@each-bolt/core/record';
import { atMost, type Result } from './harness';

const PACKAGES = 200;
const id = (kind: number, n: number): string => `0000000${kind}-0000-4000-8000-${String(n).padStart(12, '0')}`;

/** Numbers that look like chance and are the same each time. @source linear congruential generator of Numerical Recipes */
const chances = (): (() => number) => {
  let state = 12_345;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
};

const SKILLS = ['', '', '', 'high voltage', 'electronics'];

/** A plan of many packages: eight people with skills, three bays, two lifts, up to three predecessors each. */
const bigPlan = (): StudyRecord => {
  const chance = chances();
  const resource = (n: number, kind: Resource['kind'], skills: readonly string[]): Resource => ({
    ...{ id: id(1, n), version: 1, sequence: n, kind, name: `${kind} ${n}`, personId: null, skills, daysOff: [], ratedKg: null, note: '' },
  });
  const resources = [
    ...Array.from({ length: 8 }, (_, n) =>
      resource(n, 'person', [...(n < 3 ? ['high voltage'] : []), ...(n % 3 === 0 ? ['electronics'] : [])]),
    ),
    ...Array.from({ length: 3 }, (_, n) => resource(10 + n, 'bay', [])),
    ...Array.from({ length: 2 }, (_, n) => resource(20 + n, 'lift', [])),
  ];
  const packages = Array.from({ length: PACKAGES }, (_, n): WorkPackage => {
    const hours = 1 + Math.floor(chance() * 30) / 2;
    const after = Array.from({ length: Math.min(n, Math.floor(chance() * 4)) }, () =>
      id(2, Math.max(0, n - 1 - Math.floor(chance() * 25))),
    );
    return {
      ...{ id: id(2, n), version: 1, ...blank('package', { name: `package ${n}`, sequence: n }), people: 1 + Math.floor(chance() * 2) },
      ...{ optimisticS: hours * 2700, mostLikelyS: hours * 3600, pessimisticS: hours * 6000, after: [...new Set(after)] },
      skill: SKILLS[Math.floor(chance() * SKILLS.length)] ?? '',
      place: chance() < 0.35 ? 'bay' : chance() < 0.3 ? 'lift' : 'none',
    };
  });
  const study = {
    ...{
      id: id(0, 1),
      version: 1,
      title: 'Plan',
      questions: '',
      lead: '',
      currency: 'EUR',
      priceYear: 2026,
      volumePerYear: 1,
      productionYears: 1,
    },
    ...{ region: '', fastenersIn: true, assembliesAs: 'parts' as const, ...USUAL_STUDY },
    calendar: { ...USUAL_STUDY.calendar, startsOn: '2026-06-01' },
  };
  const vehicle = { id: id(3, 1), version: 1, ...blank('vehicle', { name: 'van', role: 'subject', sequence: 0 }) };
  return { ...emptyRecord(study), vehicles: [vehicle], packages, resources };
};

/** A levelled schedule of many packages with its spread, and how far its finish is from the bound no schedule can beat. */
export const scheduleBench = (): readonly Result[] => {
  const plan = bigPlan();
  const run = () => planSchedule(plan, { today: '2026-06-01', tries: triesFor(PACKAGES), samples: 1000 }).schedule;
  run();
  const since = performance.now();
  const schedule = run();
  const ms = performance.now() - since;
  if (!schedule || schedule.leftOut.length > 0) throw new RangeError('the big plan cannot be scheduled');
  const gapPercent = (schedule.finish / schedule.bound - 1) * 100;
  return [
    atMost(`levelled schedule of ${PACKAGES} packages, with its spread`, ms, 'ms', 3000),
    atMost('  its finish above the lower bound', gapPercent, '%', 15),
  ];
};
