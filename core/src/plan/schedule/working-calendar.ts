import { dayNumber, isoDay, issue, weekdayOf, type Issue } from '../../shared';
import type { WorkCalendar } from '../../record';

/** The plan counts working time in slots of a quarter of an hour. */
const SLOT_MIN = 15;
export const SLOT_S = SLOT_MIN * 60;

/** Nothing is planned further ahead than this many calendar days. */
const MOST_DAYS = 4000;

/** Working time laid end to end: nights, weekends and days off cut out. Slot 0 is when the first day begins. */
export interface WorkingCalendar {
  readonly slotsPerDay: number;
  /** working days as day numbers, ascending */
  readonly days: readonly number[];
  readonly opensMin: number;
}

interface WorkingCalendarResult {
  readonly axis: WorkingCalendar | null;
  readonly issues: readonly Issue[];
}

const isOff = (calendar: Pick<WorkCalendar, 'daysOff'>, iso: string): boolean =>
  calendar.daysOff.some((off) => off.from <= iso && iso <= off.to);

/**
 * The working time of a calendar from its first day on.
 *
 * @returns the axis, or why there is none: no first day, no working day, a day shorter than a slot.
 */
export const workingCalendar = (calendar: WorkCalendar): WorkingCalendarResult => {
  const fault = (code: string, message: string, field: string): WorkingCalendarResult => ({
    axis: null,
    issues: [issue(code, message, field, null)],
  });
  if (calendar.startsOn === null) return fault('no-start', 'The plan has no first day yet; set it in the working calendar', 'startsOn');
  if (calendar.weekdays.length === 0)
    return fault('no-working-days', 'The calendar has no working day: choose at least one day of the week', 'weekdays');
  const slotsPerDay = Math.floor(calendar.dayMin / SLOT_MIN);
  if (!(slotsPerDay >= 1)) return fault('short-day', 'A working day must be at least a quarter of an hour long', 'dayMin');
  const first = dayNumber(calendar.startsOn);
  const days: number[] = [];
  for (let day = first; day < first + MOST_DAYS; day++)
    if (calendar.weekdays.includes(weekdayOf(day)) && !isOff(calendar, isoDay(day))) days.push(day);
  if (days.length === 0)
    return fault('no-working-days', 'The calendar has no working day: its days off cover every one; shorten them', 'daysOff');
  return { axis: { slotsPerDay, days, opensMin: calendar.opensMin }, issues: [] };
};

/** Place of the first working day on or after a date. */
const placeOfDay = ({ days }: WorkingCalendar, iso: string): number => {
  const day = dayNumber(iso);
  let [low, high] = [0, days.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (days[middle]! < day) low = middle + 1;
    else high = middle;
  }
  return low;
};

/** The slot at which the first working day on or after a date begins. */
export const slotOfDay = (axis: WorkingCalendar, iso: string): number => placeOfDay(axis, iso) * axis.slotsPerDay;

/** The slot right after the last working day on or before a date. */
export const slotAfterDay = (axis: WorkingCalendar, iso: string): number => slotOfDay(axis, isoDay(dayNumber(iso) + 1));

export const isWorkingDay = (axis: WorkingCalendar, iso: string): boolean => axis.days[placeOfDay(axis, iso)] === dayNumber(iso);

const clock = (min: number): string => {
  const whole = Math.round(min);
  return `${String(Math.floor(whole / 60)).padStart(2, '0')}:${String(whole % 60).padStart(2, '0')}`;
};

/** Local time at which a slot begins, YYYY-MM-DDTHH:MM; past the end of the axis, the end. */
export const timeOfSlot = (axis: WorkingCalendar, slot: number): string => {
  const place = Math.min(Math.floor(slot / axis.slotsPerDay), axis.days.length - 1);
  return `${isoDay(axis.days[place]!)}T${clock(axis.opensMin + (slot % axis.slotsPerDay) * SLOT_MIN)}`;
};

/** Local time at which the slot before `slot` ends: a job that fills a day ends in the evening, not next morning. */
export const endTimeOfSlot = (axis: WorkingCalendar, slot: number): string => {
  if (slot <= 0) return timeOfSlot(axis, 0);
  // what fills a day ends in its evening; parts of a slot are told to the minute
  const place = Math.min(Math.ceil(slot / axis.slotsPerDay - 1e-9) - 1, axis.days.length - 1);
  return `${isoDay(axis.days[place]!)}T${clock(axis.opensMin + (slot - place * axis.slotsPerDay) * SLOT_MIN)}`;
};

/** Slots that working time in seconds fills, at least one. */
export const slotsOf = (workS: number): number => Math.max(1, Math.ceil(workS / SLOT_S - 1e-9));

/** Stretches of the axis that fall on days off of one person, as [from, to) slots, ascending. */
export const offStretches = (axis: WorkingCalendar, daysOff: WorkCalendar['daysOff']): readonly (readonly [number, number])[] =>
  daysOff
    .map((off): readonly [number, number] => [slotOfDay(axis, off.from), slotAfterDay(axis, off.to)])
    .filter(([from, to]) => to > from)
    .sort(([a], [b]) => a - b);
