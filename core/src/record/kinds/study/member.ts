import { choice, person } from '../field';
import { LED, ROLES, kind } from '../kind';

/** A person of the study. Taken off, the person's changes stay in the history. */
export const MEMBER = kind({
  list: 'members',
  table: 'member',
  words: ['person', 'people'],
  name: { of: 'personId', otherwise: 'somebody' },
  may: LED,
  fields: { personId: person('Person', { unsaid: true }), role: choice('Role', ROLES) },
});
