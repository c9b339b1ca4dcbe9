/** A moment as people read it: the time today, the day and time otherwise. */
export const whenText = (iso: string | null, now = new Date()): string => {
  if (iso === null || iso === '') return '';
  const at = new Date(iso);
  const time = `${String(at.getHours()).padStart(2, '0')}:${String(at.getMinutes()).padStart(2, '0')}`;
  if (at.toDateString() === now.toDateString()) return time;
  const day = `${at.getFullYear()}-${String(at.getMonth() + 1).padStart(2, '0')}-${String(at.getDate()).padStart(2, '0')}`;
  return `${day} ${time}`;
};

/** The calendar date here and now, YYYY-MM-DD. */
export const todayHere = (now = new Date()): string =>
  `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`;
