import { SEQUENCE, reference, text, whole } from '../field';
import { READERS, WRITERS, kind } from '../kind';

/** A reader asks for a vehicle. Whoever reads the results may. */
export const REQUEST = kind({
  list: 'requests',
  table: 'request',
  words: ['request', 'requests'],
  name: { field: 'who' },
  may: { add: READERS, edit: WRITERS, remove: WRITERS },
  fields: {
    candidateId: reference('Candidate', 'candidate', 'remove too', { unsaid: true }),
    sequence: SEQUENCE,
    who: text('Requested by', 200, { needed: true }),
    /** 1 would be nice … 5 cannot do without */
    strength: whole('How strongly', 1, 5),
    asks: text('What is asked', 1000),
  },
});
