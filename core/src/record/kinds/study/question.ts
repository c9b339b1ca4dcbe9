import { issue } from '../../../shared';
import { anyReference, choice, date, optional, person, text } from '../field';
import { WRITTEN, kind } from '../kind';

const QUESTION_KINDS = ['question', 'promise'] as const;
const QUESTION_STATES = ['open', 'answered', 'dropped'] as const;

/** What a question is attached to: the study as a whole, or one of its records. */
const SUBJECTS = [
  'study',
  'vehicle',
  'subsystem',
  'part',
  'fasteners',
  'joints',
  'connection',
  'components',
  'fluid',
  'step',
  'candidate',
  'claim',
  'package',
  'rig',
] as const;
export type Subject = (typeof SUBJECTS)[number];

/** Something to be found out, or a figure promised to somebody. It stays on the list until it is answered or dropped. */
export const QUESTION = kind({
  list: 'questions',
  table: 'question',
  words: ['question', 'questions'],
  name: { field: 'text' },
  may: WRITTEN,
  fields: {
    kind: choice('Kind', QUESTION_KINDS, { blank: 'question' }),
    aboutKind: choice('About', SUBJECTS),
    /** it stays when what it is about is taken off */
    aboutId: anyReference('About', 'aboutKind', 'stays', { unsaid: true }),
    /** the field it is about, or null for the record as a whole */
    aboutField: text('Field', 40, optional),
    text: text('Question', 1000, { needed: true }),
    ownerId: person('Owner', optional),
    dueOn: date('Due', optional),
    /** to whom a figure is promised */
    owedTo: text('Owed to', 200),
    state: choice('State', QUESTION_STATES, { blank: 'open' }),
    answer: text('Answer', 4000),
  },
  faults: (question) => [
    ...(question.state === 'answered' && question.answer.trim() === ''
      ? [issue('answer-missing', 'Say what the answer is', 'answer', question.id)]
      : []),
    ...(question.kind === 'promise' && question.owedTo.trim() === ''
      ? [issue('owed-to-missing', 'Say to whom the figure is promised', 'owedTo', question.id)]
      : []),
  ],
});
