import { anyReference, group, instant, list, text, type ValueOf } from '../field';
import { WRITTEN, kind } from '../kind';

const EXPLAINED = group('Finding explained', {
  check: text('Check', 40, { needed: true }),
  aboutId: anyReference('About', null, 'stays'),
  field: text('Field', 60),
  /** tells two findings of one check about one field apart; empty mostly */
  beside: text('Beside', 60),
  /** the figures that were explained; when they become others, it is open again */
  saw: text('Figures then', 200),
});
/** A finding that was explained, and the figures it had. */
export type Explained = ValueOf<typeof EXPLAINED>;

/** Why something that does not close may stay so. It is shown in the report. */
export const EXPLANATION = kind({
  list: 'explanations',
  table: 'explanation',
  words: ['explanation', 'explanations'],
  name: { field: 'says' },
  may: WRITTEN,
  fields: {
    /** what did not close, in words */
    says: text('What does not close', 400, { needed: true }),
    reason: text('Reason', 1000, { needed: true }),
    by: text('Explained by', 200, { needed: true }),
    at: instant('Explained'),
    findings: list('Findings', EXPLAINED, 200),
  },
});
