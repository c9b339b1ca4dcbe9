import type { Role } from '@each-bolt/core/record';

/** What each role may do, in a sentence. */
export const ROLE_TEXT: Readonly<Record<Role, string>> = {
  lead: 'does everything in the study, says who is of it, archives it',
  recorder: 'records vehicles, parts, fasteners, pictures and questions',
  cost: 'edits prices, suppliers, materials, processes and the cost basis',
  reader: 'reads everything, writes nothing',
};
