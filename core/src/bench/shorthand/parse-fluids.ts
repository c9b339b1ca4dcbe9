import {
  ask,
  bareNumberMatcher,
  figureAt,
  loneMarkMatcher,
  massEach,
  massMatcher,
  orphanMatcher,
  otherQuantityMatcher,
  type Figure,
  type MassDraft,
} from './common-matchers';
import type { FluidEntry, Question } from './entry';
import { matchAt } from './matching';
import type { Candidate } from './parse-part';
import { keepAsWords, readLine, tidy, wordsAsOne, wordsOf, type Matcher } from './reader';
import { MOST_NOTE, wordMatcher } from './set-line';
import { VOLUME } from './unit-words';

interface FluidDraft extends MassDraft {
  readonly volumeM3: number;
  readonly drained: boolean;
  readonly note: string;
}

const LEAD = /fluid\s*(?::\s*|\s)(?=\S)/iy;
const NOTE = /\(((?:[^()"]|"")*)\)/y;
const MOST_NAME = 60;

const FIGURE: Figure = {
  before: null,
  behind: null,
  table: VOLUME,
  usual: null,
  label: 'volume',
  inAll: null,
  field: 'volumeM3',
  most: 10,
  mostText: '10 000 l',
  spelling: (text) => text,
};
/** a gallon does not say which it is */
const GALLONS = /(~\s?)?(\d+(?:[.,]\d+)?)\s?gal(?:lons?)?(?=[\s,;)?@]|$)/iy;

const volumeMatcher: Matcher<FluidDraft> = (line, at) => {
  const gallons = matchAt(GALLONS, line, at);
  if (gallons) {
    const [text, about = '', digits = ''] = gallons;
    return ask(at + text.length, 'gallons', `“${text}”: which gallon?`, [
      { label: `${digits} US gallons`, replacement: `${about}${digits} usgal` },
      { label: `${digits} imperial gallons`, replacement: `${about}${digits} impgal` },
      keepAsWords(text),
    ]);
  }
  const found = figureAt(line, at, FIGURE);
  if (!found) return null;
  return found.read ? { ...found.match, put: { volumeM3: found.read.si } } : found.match;
};

const noteMatcher: Matcher<FluidDraft> = (line, at) => {
  const match = matchAt(NOTE, line, at);
  const note = tidy((match?.[1] ?? '').replaceAll('""', '"'));
  return match && note !== '' ? { end: at + match[0].length, label: 'remark', value: note, put: { note } } : null;
};

const MATCHERS: readonly Matcher<FluidDraft>[] = [
  massMatcher,
  volumeMatcher,
  noteMatcher,
  wordMatcher(
    { drained: true, 'let out': true, 'left in': false, 'not drained': false },
    'let out',
    'drained',
    (drained) => ({ drained }),
    (drained) => (drained ? 'drained' : 'left in'),
  ),
  otherQuantityMatcher('name'),
  loneMarkMatcher,
  orphanMatcher,
  bareNumberMatcher('name'),
];

/** Reads `fluid coolant 1.8 kg`, `fluid brake fluid 0.6 l left in (dark)`, or null when the line does not begin so. */
export const fluidCandidate = (line: string, start: number): Candidate | null => {
  const leading = matchAt(LEAD, line, start);
  if (!leading) return null;
  const reading = readLine<FluidDraft>('fluid', line, start + leading[0].length, MATCHERS, 'name');
  const name = wordsOf(reading.words);
  const { draft } = reading;
  const whole = { start, end: line.length, choices: [] };
  const limits: readonly Question[] = [
    ...(name === '' && reading.questions.length === 0 ? [{ ...whole, code: 'no-name', message: 'Which fluid? Type its name' }] : []),
    ...(name.length > MOST_NAME
      ? [{ ...whole, code: 'name-long', message: `The name of a fluid may have at most ${MOST_NAME} characters; put remarks in ( )` }]
      : []),
    ...((draft.note ?? '').length > MOST_NOTE
      ? [{ ...whole, code: 'note-long', message: `A remark may have at most ${MOST_NOTE} characters` }]
      : []),
  ];
  const questions = [...reading.questions, ...limits];
  const entry: FluidEntry = {
    kind: 'fluid',
    name,
    mass: massEach(draft.mass, 1),
    volumeM3: draft.volumeM3 ?? null,
    drained: draft.drained ?? true,
    note: draft.note ?? '',
    evidence: reading.evidence,
  };
  return {
    parsed: {
      line,
      understood: [
        { start, end: start + leading[0].trimEnd().length, label: 'of the part', value: 'fluid', mark: null },
        ...wordsAsOne(reading.understood, 'fluid', name),
      ],
      questions,
      entry: questions.length > 0 ? null : entry,
    },
    cost: 0,
  };
};
