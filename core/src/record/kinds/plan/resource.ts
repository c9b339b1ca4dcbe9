import { READ_IN } from '../../../shared';
import { SEQUENCE, choice, list, optional, person, positive, text } from '../field';
import { LED, kind } from '../kind';
import { DAYS_OFF } from '../study/of-study';

const RESOURCE_KINDS = ['person', 'bay', 'lift'] as const;
export type ResourceKind = (typeof RESOURCE_KINDS)[number];

/** Somebody or something that packages need: a person, a bay, a lift. */
export const RESOURCE = kind({
  list: 'resources',
  table: 'resource',
  words: ['person or place', 'people and places'],
  name: { field: 'name' },
  may: LED,
  fields: {
    sequence: SEQUENCE,
    kind: choice('Kind', RESOURCE_KINDS),
    name: text('Name', 100, { needed: true, unsaid: true }),
    /** the account of a person who has one */
    personId: person('Account', { ...optional, unsaid: true }),
    skills: list('Skills', text('Skill', 60, { needed: true }), 40),
    daysOff: DAYS_OFF,
    /** what a lift may carry */
    ratedKg: positive('Rated load', 'kg', 100_000, { ...optional, readIn: READ_IN.kg }),
    note: text('Note', 1000),
  },
});
