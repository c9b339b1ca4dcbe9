/**
 * Day number of a calendar date: days since 1970-01-01 in the proleptic Gregorian calendar.
 *
 * @param iso date as YYYY-MM-DD
 * @source Gregorian calendar rules (ISO 8601); a year is counted from March so that the leap day comes last
 * @example
 * dayNumber('1970-01-02'); // => 1
 */
export const dayNumber = (iso: string): number => {
  const [y = 0, m = 1, d = 1] = iso.split('-').map(Number);
  const year = m <= 2 ? y - 1 : y;
  const era = Math.floor(year / 400);
  const yearOfEra = year - era * 400;
  const dayOfYear = Math.floor((153 * (m > 2 ? m - 3 : m + 9) + 2) / 5) + d - 1;
  return era * 146_097 + yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear - 719_468;
};

const two = (n: number): string => String(n).padStart(2, '0');

/** The calendar date of a day number, YYYY-MM-DD: the way back from `dayNumber`. */
export const isoDay = (day: number): string => {
  const shifted = day + 719_468;
  const era = Math.floor(shifted / 146_097);
  const dayOfEra = shifted - era * 146_097;
  const yearOfEra = Math.floor(
    (dayOfEra - Math.floor(dayOfEra / 1460) + Math.floor(dayOfEra / 36_524) - Math.floor(dayOfEra / 146_096)) / 365,
  );
  const dayOfYear = dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100));
  const month = Math.floor((5 * dayOfYear + 2) / 153);
  const d = dayOfYear - Math.floor((153 * month + 2) / 5) + 1;
  const m = month < 10 ? month + 3 : month - 9;
  return `${yearOfEra + era * 400 + (m <= 2 ? 1 : 0)}-${two(m)}-${two(d)}`;
};

/** Is this a day of the calendar, YYYY-MM-DD? There is no 31st of February. */
export const isDay = (iso: string): boolean => /^\d{4}-\d{2}-\d{2}$/.test(iso) && isoDay(dayNumber(iso)) === iso;

/** Day of the week: 1 Monday … 7 Sunday. @source ISO 8601; 1970-01-01 was a Thursday */
export const weekdayOf = (day: number): number => ((((day + 3) % 7) + 7) % 7) + 1;

const WEEKDAY_SHORT = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;

/** "Wed 3 Jun": a date as the plan shows it. */
export const dayText = (iso: string): string => {
  const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
  const [, m = '1', d = '1'] = iso.split('-');
  return `${WEEKDAY_SHORT[weekdayOf(dayNumber(iso)) - 1] ?? ''} ${Number(d)} ${months[Number(m) - 1] ?? ''}`;
};
