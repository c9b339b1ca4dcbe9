import { anyReference, choice, instant, list, group, text, whole, type ValueOf } from '../field';
import { LEADS, RECORDED, kind } from '../kind';
import { OF_PART } from '../study/of-part';

const RECOUNT_STATES = ['agrees', 'differs', 'settled'] as const;

const RECOUNTED = group('Set counted', {
  kind: choice('Kind of set', ['fasteners', 'joints']),
  setId: anyReference('Set', 'kind', 'stays'),
  /** count of the record at that moment, kept from the person who counted */
  first: whole('First count', 0, 1_000_000),
  second: whole('Second count', 0, 1_000_000),
});
/** A set counted once more by somebody who did not see the first count. */
export type Recounted = ValueOf<typeof RECOUNTED>;

/** A blind recount of the fasteners and joints of one part. */
export const RECOUNT = kind({
  list: 'recounts',
  table: 'recount',
  words: ['blind recount', 'blind recounts'],
  name: { of: 'partId', otherwise: 'a part' },
  may: { ...RECORDED, remove: LEADS },
  fields: {
    partId: OF_PART.partId,
    by: text('Counted by', 200, { needed: true }),
    countedAt: instant('Counted'),
    counts: list('Counts', RECOUNTED, 500),
    /** what was found that the record does not hold, in words */
    others: text('Found besides', 1000),
    state: choice('State', RECOUNT_STATES),
    /** how a difference was settled */
    settled: text('Settled', 1000),
  },
});
