import { issue } from '../../../shared';
import { SEQUENCE, choice, instant, number, optional, reference, text } from '../field';
import { LEADS, RECORDED, kind } from '../kind';

const HOLD_POINT_KINDS = ['number', 'text', 'yes'] as const;

/** A hold point that nobody has read or answered yet. */
export const UNANSWERED: {
  readonly value: number | null;
  readonly said: string;
  readonly answeredBy: string;
  readonly answeredAt: string | null;
} = { value: null, said: '', answeredBy: '', answeredAt: null };

/** A reading or answer that the bench asks for before a package begins. */
export const HOLD_POINT = kind({
  list: 'holdPoints',
  table: 'hold_point',
  words: ['hold point', 'hold points'],
  name: { field: 'asks' },
  may: { ...RECORDED, remove: LEADS },
  fields: {
    packageId: reference('Package', 'package', 'remove too', { unsaid: true }),
    sequence: SEQUENCE,
    /** the hazard it belongs to, or empty */
    hazard: text('Hazard', 40),
    asks: text('What is asked', 200, { needed: true }),
    kind: choice('Kind of answer', HOLD_POINT_KINDS),
    unit: text('Unit', 20),
    low: number('Lowest', '', optional),
    high: number('Highest', '', optional),
    /** the answer: a number in the unit above, or words; both empty until it is given */
    value: number('Reading', '', optional),
    said: text('Answer', 400),
    answeredBy: text('Answered by', 200, { later: true }),
    answeredAt: instant('Answered', { ...optional, later: true }),
  },
  faults: (holdPoint) => [
    ...(holdPoint.kind === 'number' || (holdPoint.value === null && holdPoint.low === null && holdPoint.high === null)
      ? []
      : [issue('hold-point-kind', 'Only a reading has a number and limits', 'value', holdPoint.id)]),
    ...(holdPoint.low !== null && holdPoint.high !== null && holdPoint.low > holdPoint.high
      ? [issue('hold-point-limits', 'The lowest must not be above the highest', 'low', holdPoint.id)]
      : []),
  ],
});
