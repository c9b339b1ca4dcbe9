import fc from 'fast-check';
import type { StudyRecord } from '../../record';
import { packageId, plan } from '../../../testing/plan';
import { planSchedule, type PlanSchedule, type Scheduled } from './plan-schedule';
import { offStretches } from './working-calendar';

const MONDAY = '2026-06-01';

/**
 * Does the finish hold when one package begins so many slots later? Everything keeps its people and its order and is pushed
 * no further than it must: behind what it waits for, behind who used its people before, and not into a day off of any of them.
 */
const finishHolds = (record: StudyRecord, schedule: PlanSchedule, slipped: Scheduled, by: number): boolean => {
  const off = new Map(record.resources.map((r) => [r.id, offStretches(schedule.axis, r.daysOff)]));
  const order = [...schedule.packages].sort((a, b) => a.start - b.start || a.end - b.end);
  const start = new Map<string, number>();
  for (const [n, pack] of order.entries()) {
    const slots = pack.end - pack.start;
    const before = order.slice(0, n).filter((other) => {
      const waits = record.packages.find((p) => p.id === pack.packageId)!.after.includes(other.packageId);
      return waits || (other.end <= pack.start && other.holds.some((id) => pack.holds.includes(id)));
    });
    const ends = before.map((other) => start.get(other.packageId)! + other.end - other.start);
    let at = Math.max(pack.start, ...ends);
    if (pack === slipped) {
      at = Math.max(at, pack.start + by);
      // it is asked whether exactly this slip can be: it may not itself be pushed on
      if (at !== pack.start + by) return false;
    }
    const away = pack.holds.flatMap((id) => off.get(id) ?? []);
    for (let moved = true; moved;) {
      moved = false;
      for (const [from, to] of away)
        if (at < to && at + slots > from) {
          if (pack === slipped) return false;
          [at, moved] = [to, true];
        }
    }
    start.set(pack.packageId, at);
    if (at + slots > schedule.finish) return false;
  }
  return true;
};

const plans = fc
  .record({
    hours: fc.array(fc.integer({ min: 1, max: 14 }), { minLength: 3, maxLength: 6 }),
    waits: fc.array(fc.option(fc.nat(5), { nil: null }), { minLength: 6, maxLength: 6 }),
    crews: fc.array(fc.constantFrom('1 person', '2 people', '1 person, high voltage'), { minLength: 6, maxLength: 6 }),
    places: fc.array(fc.constantFrom('', 'lift', 'bay'), { minLength: 6, maxLength: 6 }),
    away: fc.option(fc.tuple(fc.integer({ min: 1, max: 5 }), fc.integer({ min: 0, max: 2 }), fc.boolean()), { nil: null }),
  })
  .map(({ hours, waits, crews, places, away }) => {
    const record = plan(
      hours
        .map((h, n) => {
          const before = waits[n];
          return `p${n} | ${h} | ${n > 0 && before !== null ? `p${before! % n}` : ''} | ${crews[n]!} | ${places[n]!}`;
        })
        .join('\n'),
    );
    if (!away) return record;
    const [first, more, isOdo] = away;
    const daysOff = [{ from: `2026-06-0${first}`, to: `2026-06-0${first + more}`, why: 'leave' }];
    return { ...record, resources: record.resources.map((r) => (r.name === (isOdo ? 'Odo' : 'Wenna') ? { ...r, daysOff } : r)) };
  });

describe('the slack of a package', () => {
  it('is as far as it can slip, and no slot further, by pushing the whole schedule slot by slot', () =>
    fc.assert(
      fc.property(plans, (record) => {
        const schedule = planSchedule(record, { today: MONDAY, tries: 30, samples: 5 }).schedule!;
        for (const pack of schedule.packages) {
          expect([pack.packageId, pack.slack, finishHolds(record, schedule, pack, pack.slack)]).toEqual([pack.packageId, pack.slack, true]);
          for (let by = pack.slack + 1; pack.start + by + (pack.end - pack.start) <= schedule.finish; by++)
            expect([pack.packageId, by, finishHolds(record, schedule, pack, by)]).toEqual([pack.packageId, by, false]);
        }
      }),
      { numRuns: 60, seed: 12 },
    ));
  it('is none of what is done or runs', () => {
    const record = plan('a | 4 | | 1 person\nb | 4 | | 1 person\nc | 40 | | 1 person, high voltage');
    const begun = {
      ...record,
      packages: record.packages.map((p, n) => ({ ...p, ...(n < 2 && { startedOn: MONDAY }), ...(n === 0 && { doneOn: MONDAY }) })),
    };
    const { packages } = planSchedule(begun, { today: '2026-06-02', tries: 30, samples: 5 }).schedule!;
    expect(packages.filter((p) => p.packageId !== packageId(2)).map((p) => [p.state, p.slack, p.freeSlack])).toEqual([
      ['done', 0, 0],
      ['running', 0, 0],
    ]);
  });
});
