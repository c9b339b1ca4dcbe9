import { USUAL_CALENDAR } from '../../record';
import { betaShape, threePoint } from './three-point';
import {
  endTimeOfSlot,
  isWorkingDay,
  offStretches,
  slotAfterDay,
  slotOfDay,
  slotsOf,
  timeOfSlot,
  workingCalendar,
} from './working-calendar';

describe('working time', () => {
  const calendar = { ...USUAL_CALENDAR, startsOn: '2026-06-01', daysOff: [{ from: '2026-06-04', to: '2026-06-05', why: '' }] };
  const axis = workingCalendar(calendar).axis!;
  it('leaves out nights, weekends and days off: 32 quarters a day', () => {
    expect(axis.slotsPerDay).toBe(32);
    expect([0, 31, 32, 95, 96].map((slot) => timeOfSlot(axis, slot))).toEqual([
      '2026-06-01T08:00',
      '2026-06-01T15:45',
      '2026-06-02T08:00',
      '2026-06-03T15:45',
      '2026-06-08T08:00',
    ]);
  });
  it('ends a day in the evening, not next morning', () =>
    expect([endTimeOfSlot(axis, 32), endTimeOfSlot(axis, 33)]).toEqual(['2026-06-01T16:00', '2026-06-02T08:15']));
  it('finds the first working day on or after a date', () => {
    expect([slotOfDay(axis, '2026-06-04'), slotOfDay(axis, '2026-06-08'), slotAfterDay(axis, '2026-06-03')]).toEqual([96, 96, 96]);
    expect([isWorkingDay(axis, '2026-06-03'), isWorkingDay(axis, '2026-06-04'), isWorkingDay(axis, '2026-06-06')]).toEqual([
      true,
      false,
      false,
    ]);
  });
  it('rounds a time up to a whole quarter of an hour, at least one', () => expect([0, 900, 901, 3600].map(slotsOf)).toEqual([1, 1, 2, 4]));
  it('takes a person’s days off out of working days only', () =>
    expect(offStretches(axis, [{ from: '2026-06-06', to: '2026-06-08', why: '' }])).toEqual([[96, 128]]));
});

describe('estimates', () => {
  it('are drawn from a beta distribution whose mean is the three-point mean', () => {
    const estimate = { optimistic: 2, mostLikely: 3.5, pessimistic: 8 };
    const { alpha, beta } = betaShape(estimate);
    // mean of a beta distribution: α / (α + β)
    expect(estimate.optimistic + (alpha / (alpha + beta)) * (estimate.pessimistic - estimate.optimistic)).toBeCloseTo(
      threePoint(estimate).mean,
      12,
    );
  });
});
