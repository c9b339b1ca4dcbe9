import { UTCDateMini } from '@date-fns/utc';
import { format, getISODay, lightFormat } from 'date-fns';

const DAY_MS = 86_400_000;

/** A day of the calendar without a place: its midnight in universal time. */
const atMidnight = (day: number): Date => new UTCDateMini(day * DAY_MS);

/**
 * Day number of a calendar date: days since 1970-01-01 in the proleptic Gregorian calendar.
 *
 * @param iso date as YYYY-MM-DD
 * @returns NaN for what is no date at all
 * @source Gregorian calendar (ISO 8601), as the platform's own dates hold it
 * @example
 * dayNumber('1970-01-02'); // => 1
 */
export const dayNumber = (iso: string): number => {
  const [y = Number.NaN, m = Number.NaN, d = Number.NaN] = iso.split('-').map(Number);
  return Date.UTC(y, m - 1, d) / DAY_MS;
};

/** The calendar date of a day number, YYYY-MM-DD: the way back from `dayNumber`. */
export const isoDay = (day: number): string => lightFormat(atMidnight(day), 'yyyy-MM-dd');

/** Is this a day of the calendar, YYYY-MM-DD? There is no 31st of February. */
export const isDay = (iso: string): boolean => /^\d{4}-\d{2}-\d{2}$/.test(iso) && isoDay(dayNumber(iso)) === iso;

/** Day of the week: 1 Monday … 7 Sunday. @source ISO 8601; 1970-01-01 was a Thursday */
export const weekdayOf = (day: number): number => getISODay(atMidnight(day));

/** "Wed 3 Jun": a date as the plan shows it. */
export const dayText = (iso: string): string => format(atMidnight(dayNumber(iso)), 'EEE d MMM');
