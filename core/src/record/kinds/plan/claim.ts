import { SEQUENCE, choice, optional, reference, text } from '../field';
import { WRITTEN, kind } from '../kind';

const CLAIM_SOURCES = ['the maker', 'a supplier', 'a press report', 'an owner', 'an authority', 'an earlier study'] as const;
const CLAIM_STATES = ['to test', 'borne out', 'partly borne out', 'refuted', 'cannot be tested'] as const;

/** Something said in public about a vehicle that the study will test. */
export const CLAIM = kind({
  list: 'claims',
  table: 'claim',
  words: ['claim', 'claims'],
  name: { field: 'statement' },
  may: WRITTEN,
  fields: {
    sequence: SEQUENCE,
    vehicleId: reference('Vehicle', 'vehicle', 'clear', { ...optional, unsaid: true }),
    statement: text('Claim', 1000, { needed: true }),
    sourceKind: choice('Said by', CLAIM_SOURCES),
    /** where and when it was said */
    source: text('Where and when', 400, { lines: true }),
    /** how it will be tested */
    test: text('How it will be tested', 1000),
    state: choice('State', CLAIM_STATES, { blank: 'to test' }),
    /** what the test showed */
    outcome: text('What the test showed', 4000),
  },
});
