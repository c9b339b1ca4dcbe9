import { readNumber } from '../../shared';
import { known } from '../../record';
import { CODE_END, bareNumberMatcher, loneMarkMatcher, massEach, massMatcher, type MassDraft } from './common-matchers';
import type { FluidEntry, ParsedLine, Question } from './entry';
import { matchAt } from './matching';
import { leaveOut, readLine, tidy, wordsAsOne, type Matcher } from './reader';
import { MOST_NOTE, wordMatcher } from './set-line';

interface FluidDraft extends MassDraft {
  readonly volumeM3: number;
  readonly drained: boolean;
  readonly note: string;
}

const LEAD = /fluid\s+(?=\S)/iy;
const VOLUME = new RegExp(String.raw`(~)?(\d[\d.,]*)\s*(ml|l)${CODE_END}`, 'iy');
const NOTE = /\(((?:[^()"]|"")*)\)/y;
/** litres in a cubic metre, and millilitres */
const PER_M3: Readonly<Record<string, number>> = { l: 1000, ml: 1_000_000 };
const MOST_NAME = 60;

const volumeMatcher: Matcher<FluidDraft> = (line, at) => {
  const match = matchAt(VOLUME, line, at);
  if (!match) return null;
  const [text, about = '', digits = '', unit = 'l'] = match;
  const end = at + text.length;
  const read = readNumber(digits);
  if (read.kind === 'ambiguous')
    return {
      end,
      question: {
        code: 'number-two-ways',
        message: `Is ${digits} a decimal comma or thousands?`,
        choices: read.readings.map((r) => ({ label: `${r.text} ${unit}`, replacement: text.replace(digits, r.text) })),
      },
    };
  const symbol = unit.toLowerCase();
  const volumeM3 = read.kind === 'number' ? read.number.value / (PER_M3[symbol] ?? Number.NaN) : Number.NaN;
  if (!(volumeM3 > 0 && volumeM3 <= 10))
    return { end, question: { code: 'volume-limit', message: 'A volume is more than 0 and at most 10 000 l', choices: [leaveOut] } };
  const number = read.kind === 'number' ? read.number.text : digits;
  return {
    end,
    label: 'volume',
    value: `${number} ${symbol}`,
    about: 'volumeM3',
    known: known(about ? 'I' : 'M', { typed: `${about}${number} ${symbol}` }),
    put: { volumeM3 },
  };
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
  loneMarkMatcher,
  bareNumberMatcher,
];

/** Reads `fluid coolant 1.8 kg`, `fluid brake fluid 0.6 l left in (dark)`, or null when the line does not begin so. */
export const parseFluids = (line: string, start: number): ParsedLine | null => {
  const leading = matchAt(LEAD, line, start);
  if (!leading) return null;
  const reading = readLine<FluidDraft>('fluid', line, start + leading[0].length, MATCHERS);
  const name = tidy(reading.words.join(' ')).replace(/,+$/, '').trim();
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
    known: reading.known,
  };
  return {
    line,
    understood: [
      { start, end: start + leading[0].trimEnd().length, label: 'of the piece', value: 'fluid', evidence: null },
      ...wordsAsOne(reading.understood, 'fluid', name),
    ],
    questions,
    entry: questions.length > 0 ? null : entry,
  };
};
