import { anyReference, choice, instant, list, parts, text, whole, type ValueOf } from '../field';
import { LEADS, RECORDED, kind } from '../kind';
import { OF_PIECE } from '../study/of-piece';

export const RECOUNT_STATES = ['agrees', 'differs', 'settled'] as const;

const RECOUNTED = parts('Set counted', {
  kind: choice('Kind of set', ['fasteners', 'joints']),
  setId: anyReference('Set', 'kind', 'stays'),
  /** count of the record at that moment, kept from the person who counted */
  first: whole('First count', 0, 1_000_000),
  second: whole('Second count', 0, 1_000_000),
});
/** A set counted once more by somebody who did not see the first count. */
export type Recounted = ValueOf<typeof RECOUNTED>;

/** A blind second count of the fasteners and joints of one piece. */
export const RECOUNT = kind({
  list: 'recounts',
  table: 'recount',
  words: ['second count', 'second counts'],
  name: { of: 'pieceId', otherwise: 'a piece' },
  may: { ...RECORDED, remove: LEADS },
  fields: {
    pieceId: OF_PIECE.pieceId,
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
