import { blank, type Resource, type StudyRecord, type WorkPackage } from '../src/record';
import { STUDY, recordOf, testId } from './teardown';

const HOUR_S = 3600;

/**
 * A plan written in lines: "name | optimistic, most likely and pessimistic h | after a, b | 2 people, skill | place". What is left out is not needed.
 * Names are the ids of the tests.
 */
export const plan = (text: string, more: Partial<StudyRecord> = {}): StudyRecord => {
  const lines = text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');
  const names = lines.map((line) => line.split('|')[0]!.trim());
  const packages = lines.map((line, n): WorkPackage => {
    const [, time = '', after = '', crew = '', place = ''] = line.split('|').map((part) => part.trim());
    const [least, likely, most] = time.split(/[\s/]+/).map(Number);
    const [, people = '1', skill = ''] = /^(\d+)?\s*(?:people|person)?,?\s*(.*)$/.exec(crew) ?? [];
    const whole = likely ?? least;
    return {
      ...{ id: packageId(n), version: 1, ...blank('package', { name: names[n]!, sequence: n }) },
      ...(time !== '' && { optimisticS: least! * HOUR_S, mostLikelyS: whole! * HOUR_S, pessimisticS: (most ?? whole)! * HOUR_S }),
      after: after === '' ? [] : after.split(',').map((name) => packageId(names.indexOf(name.trim()))),
      people: crew === '' ? 1 : Number(people),
      skill,
      place: place === 'bay' || place === 'lift' ? place : 'none',
    };
  });
  return {
    ...recordOf(),
    study: { ...STUDY, calendar: { ...STUDY.calendar, startsOn: '2026-06-01' } },
    vehicles: [
      { id: testId(2), version: 1, ...blank('vehicle', { name: 'Left van', role: 'subject', sequence: 0 }), acquiredOn: '2026-05-01' },
    ],
    packages,
    resources: [person(1, 'Wenna'), person(2, 'Odo', ['high voltage']), place('bay', 1), place('lift', 1)],
    ...more,
  };
};

export const packageId = (n: number): string => testId(700 + n);

export const person = (n: number, name: string, skills: readonly string[] = []): Resource => ({
  ...{ id: testId(800 + n), version: 1, sequence: n, kind: 'person', name, personId: null, skills, daysOff: [], ratedKg: null, note: '' },
});

export const place = (kind: 'bay' | 'lift', n: number): Resource => ({
  ...person(0, `${kind} ${n}`),
  ...{ id: testId((kind === 'bay' ? 820 : 830) + n), kind, sequence: n },
});
