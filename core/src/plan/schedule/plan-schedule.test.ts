import type { StudyRecord, WorkPackage } from '../../record';
import { packageId, person, plan } from '../../../testing/plan';
import { testId } from '../../../testing/teardown';
import { randomBeta, randomLcg } from 'd3-random';
import { burnUp } from './burn-up';
import { restAfter } from './plan-network';
import { betaShape } from './three-point';
import { planSchedule, triesFor, type Scheduled } from './plan-schedule';

const MONDAY = '2026-06-01';
const run = (record: StudyRecord, today = MONDAY) => planSchedule(record, { today, tries: 200, samples: 200 });
const edit = (record: StudyRecord, n: number, fields: Partial<WorkPackage>): StudyRecord => ({
  ...record,
  packages: record.packages.map((p, at) => (at === n ? { ...p, ...fields } : p)),
});
const times = (record: StudyRecord, today?: string): Readonly<Record<string, string>> => {
  const { schedule } = run(record, today);
  const nameOf = new Map(record.packages.map((p) => [p.id, p.name]));
  return Object.fromEntries(schedule!.packages.map((s: Scheduled) => [nameOf.get(s.packageId)!, `${s.from} – ${s.to}`]));
};
const messages = (record: StudyRecord, today?: string): readonly string[] => run(record, today).issues.map((i) => i.message);

const VAN = plan(`
  door off     | 4  |          | 2 people | lift
  door apart   | 12 | door off | 1 person | bay
  battery off  | 6  | door off | 2 people, | lift
  prove dead   | 2  |          | 1 person, high voltage |
`);

describe('the schedule of a plan', () => {
  it('lays packages on working time, nights and weekends apart, one lift and two people shared', () => {
    const two = { ...VAN, packages: VAN.packages.slice(0, 2) };
    expect(times(two)).toEqual({ 'door off': '2026-06-01T08:00 – 2026-06-01T12:00', 'door apart': '2026-06-01T12:00 – 2026-06-02T16:00' });
    expect(times(edit(two, 1, { mostLikelyS: 40 * 3600, pessimisticS: 40 * 3600 }))['door apart']).toBe(
      '2026-06-01T12:00 – 2026-06-08T12:00',
    );
  });
  it('gives a job to somebody who can do it, and nobody two jobs at once', () => {
    const { schedule } = run(VAN);
    const dead = schedule!.packages.find((s) => s.packageId === packageId(3))!;
    expect(dead.holds).toEqual([testId(802)]);
    for (const a of schedule!.packages)
      for (const b of schedule!.packages)
        if (a !== b && a.holds.some((id) => b.holds.includes(id))) expect(a.start >= b.end || b.start >= a.end).toBe(true);
  });
  it('proves that it is the best when it meets the bound', () => {
    const { schedule } = run({ ...VAN, packages: VAN.packages.slice(0, 2) });
    expect([schedule!.proved, schedule!.finishAt, schedule!.boundAt]).toEqual([true, '2026-06-02T16:00', '2026-06-02T16:00']);
  });
  it('leaves out holidays of the organisation and of a person', () => {
    const off = { from: '2026-06-01', to: '2026-06-02', why: 'Whitsun' };
    const closed = { ...VAN, study: { ...VAN.study, calendar: { ...VAN.study.calendar, daysOff: [off] } } };
    expect(times(closed)['door off']).toBe('2026-06-03T08:00 – 2026-06-03T12:00');
    const away = { ...VAN, resources: VAN.resources.map((r) => (r.name === 'Odo' ? { ...r, daysOff: [off] } : r)) };
    expect(times(away)['door off']).toBe('2026-06-03T08:00 – 2026-06-03T12:00');
  });
  it('waits for a vehicle that is still to come, for a day it may not begin before, and keeps a pin', () => {
    const coming = { ...VAN, vehicles: VAN.vehicles.map((v) => ({ ...v, acquiredOn: null, expectedOn: '2026-06-09' })) };
    expect(times(edit(coming, 0, { vehicleId: testId(2) }))['door off']).toBe('2026-06-09T08:00 – 2026-06-09T12:00');
    expect(times(edit(VAN, 0, { notBefore: '2026-06-06' }))['door off']).toBe('2026-06-08T08:00 – 2026-06-08T12:00');
    expect(times(edit(VAN, 0, { pinnedOn: '2026-06-04' }))['door off']).toBe('2026-06-04T08:00 – 2026-06-04T12:00');
  });
  it('is planned anew from what was done: what is done stays, what runs goes on from today, the rest is not in the past', () => {
    let going = edit(VAN, 0, { startedOn: '2026-06-01', doneOn: '2026-06-02', workedS: 9 * 3600 });
    going = edit(going, 1, { startedOn: '2026-06-03', workedS: 4 * 3600, remainingS: 10 * 3600 });
    const found = times(going, '2026-06-04');
    expect(found['door off']).toBe('2026-06-01T08:00 – 2026-06-02T16:00');
    expect(found['door apart']).toBe('2026-06-03T08:00 – 2026-06-05T10:00');
    // the two people: one is on the door until Friday at ten
    expect(found['battery off']! >= '2026-06-05T10:00').toBe(true);
    expect(found['prove dead']! >= '2026-06-04T08:00').toBe(true);
  });
  it('says how sure the finish is: P50 before P90, both after the likely one of a lopsided estimate', () => {
    const { schedule } = run(edit({ ...VAN, packages: VAN.packages.slice(0, 2) }, 1, { optimisticS: 10 * 3600, pessimisticS: 40 * 3600 }));
    const { p50At, p90At, histogram } = schedule!.spread;
    expect(p50At > schedule!.finishAt && p90At > p50At).toBe(true);
    expect(histogram.reduce((sum, [, n]) => sum + n, 0)).toBe(200);
  });
  it('says when it would be done if only the order of work held it back, and tells how far it is', () => {
    const told: number[] = [];
    const { schedule } = planSchedule(VAN, { today: MONDAY, tries: 50, samples: 20, progress: (done) => told.push(done) });
    // by hand: 4 + 12 h, two days; with two people and one lift all of it is 34 people-hours, 17 h
    expect(schedule!.criticalAt).toBe('2026-06-02T16:00');
    expect([schedule!.finishAt >= '2026-06-03T09:00', schedule!.finish >= schedule!.bound, schedule!.leastBound <= schedule!.bound]).toEqual([true, true, true]); // prettier-ignore
    expect([told.at(-1), Math.min(...told) >= 0, told.every((d, n) => n === 0 || d >= told[n - 1]!)]).toEqual([1, true, true]);
    expect([schedule!.asOf, schedule!.today]).toEqual([MONDAY, 0]);
  });
  it('is tried less often the longer the plan is', () => expect([0, 20, 100, 1000].map(triesFor)).toEqual([2000, 2000, 1000, 300]));
  it('gives slack to what can slip', () => {
    const { schedule } = run(plan('long | 16 | | 1 person |\nshort | 4 | | 1 person |'));
    expect(schedule!.packages.map((s) => [s.slack, s.freeSlack])).toEqual([[0, 0], [48, 48]]); // prettier-ignore
  });
});

describe('how sure the finish is', () => {
  // by simulation: sums of 40 beta draws of the same estimates, in continuous time
  it('is that of a simulation for a chain of 40 short packages, not of quarter hours rounded up', () => {
    const chain = plan(
      Array.from({ length: 40 }, (_, n) => `p${n} | 0.1 0.15 0.3 |${n === 0 ? '' : ` p${n - 1}`} | 1 person |`).join('\n'),
    );
    const { schedule } = planSchedule(chain, { today: MONDAY, tries: 20, samples: 4000 });
    const { alpha, beta } = betaShape({ optimistic: 0.1, mostLikely: 0.15, pessimistic: 0.3 });
    const draw = randomBeta.source(randomLcg(0.77))(alpha, beta);
    const sums = Array.from({ length: 20_000 }, () => {
      let hours = 0;
      for (let n = 0; n < 40; n++) hours += 0.1 + 0.2 * draw();
      return hours;
    }).sort((a, b) => a - b);
    // four slots to the hour
    expect(schedule!.spread.p50 / 4 / sums[10_000]!).toBeCloseTo(1, 2);
    expect(schedule!.spread.p90 / 4 / sums[18_000]!).toBeCloseTo(1, 2);
    // the best possible is never after it
    expect(schedule!.leastBound / 4).toBeLessThanOrEqual(sums[0]!);
    expect(schedule!.boundAt <= schedule!.spread.p50At).toBe(true);
  });
  it('leaves a package that is past its optimistic time the mean of what is still possible', () => {
    const estimate = { optimistic: 3600, mostLikely: 7200, pessimistic: 14_400 };
    const { alpha, beta } = betaShape(estimate);
    const draw = randomBeta.source(randomLcg(0.5))(alpha, beta);
    const times = Array.from({ length: 200_000 }, () => 3600 + 10_800 * draw());
    for (const spent of [4000, 7200, 10_000]) {
      const longer = times.filter((t) => t > spent);
      const mean = longer.reduce((sum, t) => sum + t - spent, 0) / longer.length;
      expect(restAfter(estimate, spent).mostLikelyS / mean).toBeCloseTo(1, 2);
    }
    expect(restAfter(estimate, 1800)).toEqual({ optimisticS: 1800, mostLikelyS: 5400, pessimisticS: 12_600 });
  });
  it('never says that nothing is left of what runs', () => {
    for (const spent of [14_400, 20_000])
      expect(restAfter({ optimistic: 3600, mostLikely: 7200, pessimistic: 14_400 }, spent).mostLikelyS).toBe(3600);
    expect(restAfter({ optimistic: 3600, mostLikely: 3600, pessimistic: 3600 }, 3600).mostLikelyS).toBeGreaterThan(0);
  });
});

describe('packages that run', () => {
  const two = plan('a | 4 | | 1 person |\nb | 4 | a | 1 person |');
  it('are named when they were begun before what they wait for, or in the future', () => {
    expect(messages(edit(two, 1, { startedOn: MONDAY }), '2026-06-02').join()).toContain('“b” was begun on');
    expect(messages(edit(two, 0, { startedOn: '2026-06-10' })).join()).toContain('which is still to come');
    const sound = edit(edit(two, 0, { startedOn: MONDAY, doneOn: MONDAY, workedS: 14_400 }), 1, { startedOn: MONDAY });
    expect(messages(sound, '2026-06-02')).toEqual([]);
  });
  it('are named when they have taken more than their most', () =>
    expect(messages(edit(two, 0, { startedOn: MONDAY, workedS: 5 * 3600 }), '2026-06-02').join()).toContain(
      'has taken 5.0 h of at most 4.0 h',
    ));
  it('share people and lifts like all others', () => {
    const lifts = plan('a | 8 | | 1 person | lift\nb | 8 | | 1 person | lift');
    const running = edit(edit(lifts, 0, { startedOn: MONDAY }), 1, { startedOn: MONDAY });
    const { issues } = run(running, MONDAY);
    expect(issues).toMatchObject([{ code: 'running-short', field: 'people', recordId: packageId(1) }]);
    expect(issues[0]?.message).toContain('“b” runs while others that run hold its people or place');
    expect(messages(edit(lifts, 0, { startedOn: MONDAY }), MONDAY)).toEqual([]);
  });
});

describe('slack', () => {
  it('does not reach into a day off: what is done in one go must be done before it', () => {
    // two people; Odo, who alone can do it, is off from Wednesday on
    const off = { from: '2026-06-03', to: '2026-06-05', why: 'leave' };
    const record = plan('long | 80 | | 1 person |\nshort | 4 | | 1 person, high voltage |');
    const away = { ...record, resources: record.resources.map((r) => (r.name === 'Odo' ? { ...r, daysOff: [off] } : r)) };
    const slackOf = (of: StudyRecord) => run(of).schedule!.packages.find((s) => s.packageId === packageId(1))!.slack;
    // 8 h days: ten days of 32 slots less its 16; with Odo away after Tuesday two days less 16, or after his leave
    expect(slackOf(record)).toBe(320 - 16);
    const slack = slackOf(away);
    const start = run(away).schedule!.packages.find((s) => s.packageId === packageId(1))!.start;
    const isFree = (at: number): boolean => at + 16 <= 64 || at >= 160;
    expect(isFree(start + slack)).toBe(true);
  });
});

describe('a plan that cannot be', () => {
  it('names a circle of packages, and schedules the rest', () => {
    const circle = edit(VAN, 0, { after: [packageId(1)] });
    expect(messages(circle)).toEqual([
      '“door off” waits for “door apart” waits for “door off”: none of them can ever begin. Take one of these predecessors out',
    ]);
    const { schedule } = run(circle);
    expect(schedule!.packages.map((s) => s.packageId)).toEqual([packageId(3)]);
    expect(schedule!.leftOut.map((l) => l.packageId)).toEqual([packageId(0), packageId(1), packageId(2)]);
    expect(schedule!.leftOut[2]!.why).toBe('“battery off” waits for “door off”, which cannot be scheduled');
  });
  it('names what there is not enough of', () => {
    expect(messages(edit(VAN, 3, { people: 2 }))[0]).toBe(
      '“prove dead” needs 2 people who can “high voltage”; the plan has 1. Add people or a skill, or make the crew smaller',
    );
    expect(messages({ ...VAN, resources: VAN.resources.filter((r) => r.kind !== 'lift') })[0]).toContain(
      '“door off” needs a lift; the plan has none',
    );
  });
  it('names an impossible pin and why', () => {
    expect(messages(edit(VAN, 0, { pinnedOn: '2026-06-06' }))).toEqual([
      '“door off” is pinned on Sat 6 Jun, which is not a working day. Move the pin or take it off',
    ]);
    expect(messages(edit(VAN, 1, { pinnedOn: MONDAY }))[0]).toContain('but “door off”, which comes before, cannot be done by then');
    expect(messages(edit(VAN, 0, { pinnedOn: MONDAY }), '2026-06-03')[0]).toContain('which is past, and it was not started');
    const both = edit(edit(VAN, 0, { pinnedOn: MONDAY }), 3, { pinnedOn: MONDAY });
    expect(messages(both)[0]).toContain('“prove dead” is pinned on Mon 1 Jun, when its people or place are taken or off');
    // it goes as early after its pin as it can: when Odo is free again
    const { schedule } = run(both);
    expect(schedule!.packages.find((s) => s.packageId === packageId(3))!.from >= '2026-06-01T12:00').toBe(true);
    expect(run(both).issues[0]).toMatchObject({ code: 'impossible-pin', field: 'pinnedOn', recordId: packageId(3) });
  });
  it('names a calendar without working days, and one without a first day', () => {
    const calendar = (fields: object): StudyRecord => ({ ...VAN, study: { ...VAN.study, calendar: { ...VAN.study.calendar, ...fields } } });
    expect(messages(calendar({ weekdays: [] }))).toEqual(['The calendar has no working day: choose at least one day of the week']);
    expect(messages(calendar({ startsOn: null }))[0]).toContain('no first day yet');
    expect(messages(calendar({ daysOff: [{ from: '2026-01-01', to: '2099-12-31', why: '' }] }))[0]).toContain(
      'its days off cover every one',
    );
  });
  it('names what has no estimate', () =>
    expect(messages(edit(VAN, 1, { optimisticS: null, mostLikelyS: null, pessimisticS: null }))[0]).toContain(
      '“door apart” has no estimate',
    ));
});

describe('burn-up', () => {
  it('counts what is done with its people, and forecasts the rest to the whole', () => {
    const going = edit(VAN, 0, { startedOn: MONDAY, doneOn: MONDAY, agreedFrom: '2026-06-01T08:00', agreedTo: '2026-06-01T12:00' });
    const { schedule } = run(going, '2026-06-02');
    const burn = burnUp(going, schedule!, '2026-06-02');
    // 2 people × 4 h done of 2·4 + 1·12 + 2·6 + 1·2
    expect([burn.doneS / 3600, burn.wholeS / 3600]).toEqual([8, 34]);
    expect(burn.days.at(-1)!.forecastS! / 3600).toBeCloseTo(34, 9);
    expect(burn.behind).toEqual([]);
    const late = edit(going, 2, { agreedFrom: '2026-06-01T12:00', agreedTo: '2026-06-01T16:00' });
    expect(burnUp(late, schedule!, '2026-06-02').behind).toEqual([packageId(2)]);
  });
});

it('lets somebody with fewer skills go first, so that the rare one stays free', () => {
  const record = plan('lift seats | 8 | | 1 person |', { resources: [person(1, 'Odo', ['high voltage', 'welding']), person(2, 'Wenna')] });
  expect(run(record).schedule!.packages[0]!.holds).toEqual([testId(802)]);
});
