import type { PadPoint } from '../kinds/plan/hoist';
import { CHOICE_CRITERIA, type ChoiceWeights, type UsualHazards, type WorkCalendar } from '../kinds/study/of-study';

const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
const two = (n: number): string => String(n).padStart(2, '0');

const calendarText = ({ startsOn, weekdays, opensMin, dayMin, daysOff }: WorkCalendar): string =>
  [
    startsOn === null ? 'no first day yet' : `from ${startsOn}`,
    weekdays.length === 0 ? 'no working day' : weekdays.map((day) => WEEKDAYS[day - 1] ?? '').join(' '),
    `${two(Math.floor(opensMin / 60))}:${two(opensMin % 60)}, ${Number((dayMin / 60).toFixed(2))} h a day`,
    daysOff.length === 0
      ? 'no days off'
      : `off ${daysOff.map((off) => (off.from === off.to ? off.from : `${off.from} to ${off.to}`)).join(', ')}`,
  ].join('; ');

const weightsText = (weights: ChoiceWeights): string => CHOICE_CRITERIA.map((criterion) => `${criterion} ${weights[criterion]}`).join(', ');

/** A value that has parts of its own, as people read it; null for any other. */
export const partsText = (field: string, value: object): string | null => {
  if (field === 'calendar') return calendarText(value as WorkCalendar);
  if (field === 'choiceWeights') return weightsText(value as ChoiceWeights);
  if (field === 'usualHazards')
    return (value as readonly UsualHazards[])
      .map(({ words, hazards }) => `${words.join(', ')}: ${hazards.join(', ') || 'none'}`)
      .join('; ');
  if (field === 'pads') return (value as readonly PadPoint[]).map(({ xM, yM }) => `(${xM}, ${yM})`).join(' ');
  if (field === 'daysOff')
    return (value as WorkCalendar['daysOff']).map(({ from, to }) => (from === to ? from : `${from} to ${to}`)).join(', ') || 'none';
  return null;
};
