import { isSameDay, lightFormat } from 'date-fns';

/** A moment as people read it: the time today, the day and time otherwise. */
export const whenText = (iso: string | null, now = new Date()): string => {
  if (iso === null || iso === '') return '';
  const at = new Date(iso);
  return lightFormat(at, isSameDay(at, now) ? 'HH:mm' : 'yyyy-MM-dd HH:mm');
};

/** The calendar date here and now, YYYY-MM-DD. */
export const todayHere = (now = new Date()): string => lightFormat(now, 'yyyy-MM-dd');
