import type { StudyRecord, WorkPackage } from '../../record';
import { packageId, person, place, plan } from '../../../testing/plan';
import { testId } from '../../../testing/teardown';
import { planNetwork, restAfter, type PlanNetwork } from './plan-network';

const MONDAY = '2026-06-01';
const HOUR_S = 3600;
/** Slots of a day of eight hours in quarters of an hour. */
const DAY = 32;
const edit = (record: StudyRecord, n: number, fields: Partial<WorkPackage>): StudyRecord => ({
  ...record,
  packages: record.packages.map((p, at) => (at === n ? { ...p, ...fields } : p)),
});
const networkOf = (record: StudyRecord, today = MONDAY): PlanNetwork => planNetwork(record, today).network!;
const issuesOf = (record: StudyRecord, today = MONDAY) => planNetwork(record, today).issues;
const ONE = plan('a | 2/4/8 |');

describe('a package as a job', () => {
  it('that is planned takes its most likely time in quarters of an hour, begun ones counted whole', () => {
    expect(networkOf(ONE).activities[0]).toMatchObject({
      state: 'planned',
      slots: 16,
      left: { optimisticS: 2 * HOUR_S, mostLikelyS: 4 * HOUR_S, pessimisticS: 8 * HOUR_S },
    });
    expect(networkOf(plan('a | 0.1 |')).activities[0]?.slots).toBe(1);
    expect(networkOf(plan('a | 0.3 |')).activities[0]?.slots).toBe(2);
  });
  it('that is done fills the days it took, and holds nobody', () => {
    const done = edit(ONE, 0, { startedOn: MONDAY, doneOn: '2026-06-02' });
    const { activities, problem } = networkOf(done, '2026-06-04');
    expect(activities[0]).toMatchObject({ state: 'done', slots: 2 * DAY, left: null });
    expect(problem.jobs[0]).toMatchObject({ fixed: 0, needs: [], after: [], release: 0 });
    // begun and done on a Saturday: no working time, but never nothing
    expect(networkOf(edit(ONE, 0, { startedOn: '2026-06-06', doneOn: '2026-06-06' }), '2026-06-08').activities[0]?.slots).toBe(1);
  });
  it('that runs lasts from the day it was begun to its rest from today on, with its crew', () => {
    const running = edit(ONE, 0, { startedOn: '2026-06-02', remainingS: 2 * HOUR_S });
    const { activities, problem, today } = networkOf(running, '2026-06-04');
    expect(today).toBe(3 * DAY);
    // Tuesday to Thursday morning are two days; then two hours of eight quarters
    expect(activities[0]).toMatchObject({ state: 'running', slots: 2 * DAY + 8 });
    // the spread of the rest is that of the estimate: half and twice the likely one
    expect(activities[0]?.left).toEqual({ optimisticS: HOUR_S, mostLikelyS: 2 * HOUR_S, pessimisticS: 4 * HOUR_S });
    expect(problem.jobs[0]).toMatchObject({ fixed: DAY, release: 0 });
    expect(problem.jobs[0]?.needs).toHaveLength(1);
    // said to have begun next week: its time counts from there
    expect(networkOf(edit(running, 0, { startedOn: '2026-06-08' }), MONDAY).activities[0]?.slots).toBe(8);
  });
  it('that runs without a word on its rest has the estimate less what was spent', () => {
    const left = (fields: Partial<WorkPackage>) => networkOf(edit(ONE, 0, { startedOn: MONDAY, ...fields })).activities[0]?.left;
    expect(left({})).toEqual({ optimisticS: 2 * HOUR_S, mostLikelyS: 4 * HOUR_S, pessimisticS: 8 * HOUR_S });
    expect(left({ workedS: HOUR_S })).toEqual({ optimisticS: HOUR_S, mostLikelyS: 3 * HOUR_S, pessimisticS: 7 * HOUR_S });
    // past its most of 8 h: an eighth, a quarter and half of it
    expect(left({ workedS: 8 * HOUR_S })).toEqual({ optimisticS: HOUR_S, mostLikelyS: 2 * HOUR_S, pessimisticS: 4 * HOUR_S });
    const past = restAfter({ optimistic: 2, mostLikely: 4, pessimistic: 8 }, 7);
    expect([past.optimisticS / past.mostLikelyS, past.pessimisticS]).toEqual([expect.closeTo(0.3, 12), 1]);
    expect(past.mostLikelyS).toBeLessThan(1);
  });
  it('cannot begin before today, its day, or its vehicle', () => {
    const release = (record: StudyRecord, today = MONDAY) => networkOf(record, today).problem.jobs[0]?.release;
    expect(release(ONE)).toBe(0);
    expect(release(ONE, '2026-06-03')).toBe(2 * DAY);
    expect(release(edit(ONE, 0, { notBefore: '2026-06-04' }))).toBe(3 * DAY);
    expect(release(edit(ONE, 0, { notBefore: '2026-06-02' }), '2026-06-03')).toBe(2 * DAY);
    const coming = (fields: object) =>
      edit({ ...ONE, vehicles: ONE.vehicles.map((v) => ({ ...v, acquiredOn: null, expectedOn: '2026-06-05', ...fields })) }, 0, {
        vehicleId: testId(2),
      });
    expect(release(coming({}))).toBe(4 * DAY);
    expect(release(coming({ acquiredOn: '2026-05-02' }))).toBe(0);
    expect(release(coming({ expectedOn: null }))).toBe(0);
  });
});

describe('the rows of a plan', () => {
  it('stand in the order of their sequence, of the same one by their id, however they came', () => {
    const three = plan('a | 1 |\nb | 1 |\nc | 1 |');
    const mixed = { ...three, packages: [2, 0, 1].map((n) => three.packages[n]!), resources: [...three.resources].reverse() };
    expect(networkOf(mixed).activities.map(({ pack }) => pack.name)).toEqual(['a', 'b', 'c']);
    const same = { ...mixed, packages: mixed.packages.map((p) => ({ ...p, sequence: 0 })) };
    expect(networkOf(same).activities.map(({ pack }) => pack.name)).toEqual(['a', 'b', 'c']);
    const ids = networkOf(mixed).resourceIds;
    expect(ids).toHaveLength(4);
    expect(ids.indexOf(testId(801))).toBeLessThan(ids.indexOf(testId(802)));
  });
  it('give what there is: one of each person and place, and as many rigs as there are copies', () => {
    const rig = (id: string, fields: object) => ({
      ...{ id, version: 1, sequence: 0, name: 'stand', copies: 3, state: 'ready' },
      ...fields,
    });
    const off = { from: '2026-06-02', to: '2026-06-03', why: 'leave' };
    const record = {
      ...ONE,
      resources: [{ ...person(1, 'Wenna'), daysOff: [off] }],
      rigs: [rig(testId(841), {}), rig(testId(842), { state: 'scrapped', sequence: 1 })],
    } as unknown as StudyRecord;
    expect(networkOf(record).problem.resources).toEqual([
      { capacity: 1, off: [[DAY, 3 * DAY]] },
      { capacity: 3, off: [] },
      { capacity: 0, off: [] },
    ]);
  });
});

describe('who and what a package needs', () => {
  const crew = (fields: Partial<WorkPackage>, record = ONE) => networkOf(edit(record, 0, fields)).problem.jobs[0]?.needs;
  const at = (id: string): number => networkOf(ONE).resourceIds.indexOf(id);
  it('is somebody of those who can, the ones with fewer skills first', () => {
    expect(crew({})).toEqual([{ options: [at(testId(801)), at(testId(802))], amount: 1 }]);
    expect(crew({ people: 2 })).toEqual([{ options: [at(testId(801)), at(testId(802))], amount: 2 }]);
    expect(crew({ skill: 'High Voltage' })).toEqual([{ options: [at(testId(802))], amount: 1 }]);
  });
  it('is those who are named, each, and others for the rest of the crew', () => {
    expect(crew({ who: [testId(802)] })).toEqual([{ options: [at(testId(802))], amount: 1 }]);
    expect(crew({ who: [testId(802)], people: 2 })).toEqual([
      { options: [at(testId(802))], amount: 1 },
      { options: [at(testId(801))], amount: 1 },
    ]);
    // somebody who is no longer of the plan is not waited for
    expect(crew({ who: [testId(899)] })).toEqual([{ options: [at(testId(801)), at(testId(802))], amount: 1 }]);
  });
  it('is one of the places of its kind, and its rig', () => {
    const lifts = { ...ONE, resources: [...ONE.resources, place('lift', 2)] };
    const ids = networkOf(lifts).resourceIds;
    expect(crew({ place: 'lift' }, lifts)?.[1]).toEqual({ options: [ids.indexOf(testId(831)), ids.indexOf(testId(832))], amount: 1 });
    const rig = { ...{ id: testId(840), version: 1 }, sequence: 0, name: 'door stand', copies: 1, state: 'ready' };
    const withRig = { ...ONE, rigs: [rig] } as unknown as StudyRecord;
    const rigged = networkOf(withRig);
    expect(crew({ rigId: rig.id }, withRig)?.[1]).toEqual({ options: [rigged.resourceIds.indexOf(rig.id)], amount: 1 });
    const scrapped = edit({ ...ONE, rigs: [{ ...rig, state: 'scrapped' }] } as unknown as StudyRecord, 0, { rigId: rig.id });
    expect(issuesOf(scrapped)[0]).toMatchObject({ code: 'no-capacity', field: 'people', recordId: packageId(0) });
    expect(issuesOf(scrapped)[0]?.message).toBe('“a” needs the rig “door stand”, of which there is none. Make one, or choose another');
    const none = edit({ ...ONE, rigs: [{ ...rig, copies: 0 }] } as unknown as StudyRecord, 0, { rigId: rig.id });
    expect(issuesOf(none)[0]?.message).toContain('of which there is none');
  });
  it('is said to be too much where the plan has fewer', () => {
    expect(issuesOf(edit(ONE, 0, { people: 3 }))[0]?.message).toBe(
      '“a” needs 3 people; the plan has 2. Add people or a skill, or make the crew smaller',
    );
    expect(issuesOf(edit(ONE, 0, { skill: 'welding' }))[0]?.message).toBe(
      '“a” needs 1 person who can “welding”; the plan has none. Add people or a skill, or make the crew smaller',
    );
    expect(issuesOf(edit(ONE, 0, { who: [testId(801)], people: 3 }))[0]?.message).toContain('needs 3 people; the plan has 2');
    expect(issuesOf({ ...edit(ONE, 0, { place: 'lift' }), resources: [person(1, 'Wenna')] })[0]?.message).toBe(
      '“a” needs a lift; the plan has none. Add one, or let it be done elsewhere',
    );
  });
});

describe('what cannot be scheduled', () => {
  it('is left out with what waits for it, and each circle is named once', () => {
    const record = plan('a | 1 | b |\nb | 1 | a |\nc | 1 | b |\nd | 1 | c |\ne | 1 | |\nf | 1 | g |\ng | 1 | f |');
    const { network, issues } = planNetwork(record, MONDAY);
    expect(network?.activities.map(({ pack }) => pack.name)).toEqual(['e']);
    expect(issues.map(({ code }) => code)).toEqual(['cycle', 'cycle']);
    expect(network?.leftOut.map(({ packageId: id, why }) => [record.packages.find((p) => p.id === id)?.name, why])).toEqual([
      ['a', '“a” is in a circle of packages that wait for each other'],
      ['b', '“b” is in a circle of packages that wait for each other'],
      ['f', '“f” is in a circle of packages that wait for each other'],
      ['g', '“g” is in a circle of packages that wait for each other'],
      ['c', '“c” waits for “b”, which cannot be scheduled'],
      ['d', '“d” waits for “c”, which cannot be scheduled'],
    ]);
  });
  it('has no estimate, and says where it goes', () => {
    const none = edit(ONE, 0, { optimisticS: null, mostLikelyS: null, pessimisticS: null });
    expect(issuesOf(none)).toMatchObject([{ code: 'no-estimate', field: 'mostLikelyS', recordId: packageId(0) }]);
    expect(networkOf(none).leftOut[0]?.why).toBe('“a” has no estimate: give its optimistic, most likely and pessimistic time');
    // what is done needs none
    expect(issuesOf(edit(none, 0, { startedOn: MONDAY, doneOn: MONDAY }))).toEqual([]);
  });
  it('does not wait for what is not of the plan any more', () =>
    expect(networkOf(edit(ONE, 0, { after: [testId(799)] })).problem.jobs[0]?.after).toEqual([]));
});

describe('packages that run as they cannot', () => {
  const two = plan('a | 4 | |\nb | 4 | a |');
  it('say the record and the field to mend', () => {
    const early = edit(edit(two, 0, { startedOn: MONDAY, doneOn: '2026-06-03' }), 1, { startedOn: '2026-06-02' });
    expect(issuesOf(early, '2026-06-03')).toMatchObject([{ code: 'begun-early', field: 'startedOn', recordId: packageId(1) }]);
    // begun on the day the other was done: that may be
    expect(issuesOf(edit(early, 1, { startedOn: '2026-06-03' }), '2026-06-03')).toEqual([]);
    expect(issuesOf(edit(two, 0, { startedOn: '2026-06-02' }), MONDAY)).toMatchObject([
      { code: 'begun-in-future', field: 'startedOn', recordId: packageId(0) },
    ]);
    expect(issuesOf(edit(two, 0, { startedOn: MONDAY }), MONDAY)).toEqual([]);
  });
  it('are past their estimate from its most on, unless their rest is said', () => {
    const run = (fields: Partial<WorkPackage>) => issuesOf(edit(two, 0, { startedOn: MONDAY, ...fields }));
    expect(run({ workedS: 4 * HOUR_S - 1 })).toEqual([]);
    expect(run({ workedS: 4 * HOUR_S })).toMatchObject([{ code: 'past-estimate', field: 'remainingS', recordId: packageId(0) }]);
    expect(run({ workedS: 5 * HOUR_S, remainingS: HOUR_S })).toEqual([]);
    expect(run({ workedS: 5 * HOUR_S, doneOn: MONDAY })).toEqual([]);
  });
});

describe('a pin', () => {
  const two = plan('a | 8 | |\nb | 4 | a |');
  const jobOf = (record: StudyRecord, n: number, today = MONDAY) => networkOf(record, today).problem.jobs[n];
  it('holds a package to the morning of its day', () => {
    expect(jobOf(edit(two, 1, { pinnedOn: '2026-06-02' }), 1)?.fixed).toBe(DAY);
    expect(issuesOf(edit(two, 1, { pinnedOn: '2026-06-02' }))).toEqual([]);
    expect(jobOf(edit(two, 0, { pinnedOn: MONDAY }), 0)?.fixed).toBe(0);
  });
  it('that cannot be kept is named, and the package goes as early after it as it can', () => {
    const weekend = edit(two, 0, { pinnedOn: '2026-06-06' });
    expect(jobOf(weekend, 0)).toMatchObject({ fixed: null, release: 5 * DAY });
    const early = edit(two, 0, { pinnedOn: '2026-06-02', notBefore: '2026-06-03' });
    expect(issuesOf(early)[0]?.message).toContain('but it cannot begin so early: its vehicle is not there');
    expect(jobOf(early, 0)).toMatchObject({ fixed: null, release: 2 * DAY });
    expect(issuesOf(edit(two, 1, { pinnedOn: MONDAY }))[0]).toMatchObject({ code: 'impossible-pin', field: 'pinnedOn' });
  });
  it('says nothing of what runs or is done', () =>
    expect(jobOf(edit(two, 0, { pinnedOn: '2026-06-06', startedOn: MONDAY }), 0)?.fixed).toBe(0));
});
