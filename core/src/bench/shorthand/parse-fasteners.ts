import { millimetres, readNumber } from '../../shared';
import type { FastenerKind } from '../../record';
import { METRIC_THREADS_MM, coarsePitchMm } from '../fasteners/metric-threads';
import {
  CODE_END,
  END,
  bareNumberMatcher,
  directionMatcher,
  lengthM,
  loneMarkMatcher,
  massEach,
  massMatcher,
  strayLengthMatcher,
  type DirectionDraft,
  type MassDraft,
} from './common-matchers';
import type { FastenerEntry, ParsedLine, Question, Understood } from './entry';
import { COUNT_TEXT, readCount, type CountSaid } from './how-known';
import { matchAt } from './matching';
import { keepAsWords, leaveOut, readLine, tidy, wordsAsOne, type Match, type Matcher } from './reader';

interface FastenerDraft extends MassDraft, DirectionDraft {
  readonly fastenerKind: FastenerKind;
  readonly threadM: number;
  readonly pitchM: number | null;
  readonly lengthM: number | null;
  readonly drive: string;
  readonly grade: string;
}

const KIND_WORDS: Readonly<Record<string, FastenerKind>> = {
  bolt: 'bolt',
  bolts: 'bolt',
  nut: 'nut',
  nuts: 'nut',
  washer: 'washer',
  washers: 'washer',
  stud: 'stud',
  studs: 'stud',
  screw: 'screw',
  screws: 'screw',
  rivet: 'rivet',
  rivets: 'rivet',
  clip: 'clip',
  clips: 'clip',
  'push pin': 'push pin',
  'push pins': 'push pin',
  'cable tie': 'cable tie',
  'cable ties': 'cable tie',
};
/** Words that name a kind of fastener, as a pattern. */
export const KIND = String.raw`(?:bolts?|nuts?|washers?|studs?|screws?|rivets?|clips?|push pins?|cable ties?)`;
const NUMBER = String.raw`\d[\d.,]*`;
const METRIC = String.raw`M(${NUMBER})(?:\s?[x×]\s?(${NUMBER}))?(?:\s?[x×]\s?(${NUMBER}))?`;

/** Does the line begin as a fastener set does? `12 M6x16 …`, `9 clip`, `M6x16` */
const LEAD = new RegExp(String.raw`(?:${COUNT_TEXT}(?:(?:\s?[x×])?\s+(?=M\d)|\s+(?=${KIND}${END}))|(?=M\d[\d.,]*\s?[x×]\s?\d))`, 'iy');
const COUNT_AT = new RegExp(`^${COUNT_TEXT}`, 'i');
const THREAD = new RegExp(METRIC + CODE_END, 'iy');
const TAPPING = new RegExp(String.raw`(?:ST)?(${NUMBER})\s?[x×]\s?(${NUMBER})${CODE_END}`, 'iy');
const KIND_HERE = new RegExp(KIND + CODE_END, 'iy');
const DRIVE = new RegExp(String.raw`(?:T\d{1,2}|H\d{1,2}|SW\d{1,2}|E\d{1,2}|PH\d|PZ\d|hex)${CODE_END}`, 'iy');
const GRADE = new RegExp(String.raw`(?:[4-9]\.[689]|1[02]\.9|A[24](?:-[5-8]0)?)${CODE_END}`, 'iy');
const NUT_GRADE = new RegExp(String.raw`(?:8|10|12)${CODE_END}`, 'y');

const put = (end: number, label: string, value: string, about: string, fields: Partial<FastenerDraft>): Match<FastenerDraft> => ({
  end,
  label,
  value,
  about,
  put: fields,
});

const millimetresRead = (digits: string | undefined): number | null => {
  if (digits === undefined) return null;
  const read = readNumber(digits);
  return read.kind === 'number' ? read.number.value : Number.NaN;
};

const near = (diameter: number): number =>
  METRIC_THREADS_MM.reduce((best, d) => (Math.abs(d - diameter) < Math.abs(best - diameter) ? d : best));

const threadMatcher: Matcher<FastenerDraft> = (line, at) => {
  const match = matchAt(THREAD, line, at);
  if (!match) return null;
  const end = at + match[0].length;
  const diameter = millimetresRead(match[1]) ?? Number.NaN;
  const second = millimetresRead(match[2]);
  const third = millimetresRead(match[3]);
  const coarse = coarsePitchMm(diameter);
  if (coarse === null) {
    const nearest = near(Number.isFinite(diameter) ? diameter : 6);
    const replacement = match[0].replace(match[1] ?? '', String(nearest));
    return {
      end,
      question: {
        code: 'no-such-thread',
        message: `There is no metric thread M${match[1]}`,
        choices: [{ label: replacement, replacement }, keepAsWords(match[0])],
      },
    };
  }
  const secondIsPitch = second !== null && (third !== null || second <= coarse);
  const pitch = secondIsPitch ? second : null;
  const length = third ?? (secondIsPitch ? null : second);
  const inside = (pitch === null || (pitch > 0 && pitch <= coarse)) && (length === null || (length > 0 && length <= 2000));
  if (!inside)
    return {
      end,
      question: {
        code: 'thread-size',
        message: `${match[0]}: the pitch is at most ${coarse} mm for M${diameter}, the length at most 2000 mm`,
        choices: [{ label: `M${diameter}`, replacement: `M${diameter}` }, keepAsWords(match[0])],
      },
    };
  const fine = pitch !== null && pitch !== coarse ? pitch : null;
  const value = `M${diameter}${fine === null ? '' : ` × ${fine} pitch`}${length === null ? '' : `, ${length} mm long`}`;
  return put(end, 'thread', value, 'threadM', {
    threadM: lengthM(diameter, 'mm'),
    pitchM: fine === null ? null : lengthM(fine, 'mm'),
    lengthM: length === null ? null : lengthM(length, 'mm'),
  });
};

const tappingMatcher: Matcher<FastenerDraft> = (line, at) => {
  const match = matchAt(TAPPING, line, at);
  if (!match) return null;
  const end = at + match[0].length;
  const diameter = millimetresRead(match[1]) ?? Number.NaN;
  const length = millimetresRead(match[2]) ?? Number.NaN;
  if (diameter > 0 && diameter <= 200 && length > 0 && length <= 2000)
    return put(end, 'size', `${diameter} mm, ${length} mm long`, 'threadM', {
      threadM: lengthM(diameter, 'mm'),
      pitchM: null,
      lengthM: lengthM(length, 'mm'),
    });
  return {
    end,
    question: { code: 'thread-size', message: `${match[0]} is no size of a fastener in mm`, choices: [keepAsWords(match[0]), leaveOut] },
  };
};

const kindMatcher: Matcher<FastenerDraft> = (line, at) => {
  const text = matchAt(KIND_HERE, line, at)?.[0];
  const fastenerKind = text && KIND_WORDS[text.toLowerCase()];
  return text && fastenerKind ? put(at + text.length, 'kind', fastenerKind, 'kind', { fastenerKind }) : null;
};

const codeMatcher =
  (pattern: RegExp, field: 'drive' | 'grade', canonical: (text: string) => string): Matcher<FastenerDraft> =>
  (line, at) => {
    const text = matchAt(pattern, line, at)?.[0];
    return text === undefined ? null : put(at + text.length, field, canonical(text), field, { [field]: canonical(text) });
  };

const upper = (text: string): string => (text.toLowerCase() === 'hex' ? 'hex' : text.toUpperCase());

const MATCHERS: readonly Matcher<FastenerDraft>[] = [
  massMatcher,
  threadMatcher,
  tappingMatcher,
  kindMatcher,
  codeMatcher(DRIVE, 'drive', upper),
  codeMatcher(GRADE, 'grade', upper),
  directionMatcher,
  strayLengthMatcher(() => []),
];
const NUT_MATCHERS: readonly Matcher<FastenerDraft>[] = [...MATCHERS, codeMatcher(NUT_GRADE, 'grade', upper)];
const LAST: readonly Matcher<FastenerDraft>[] = [bareNumberMatcher, loneMarkMatcher];

const kindOf = (draft: Partial<FastenerDraft>): FastenerKind => draft.fastenerKind ?? 'bolt';

const countQuestion = (start: number, text: string, counted: CountSaid | null, isGiven: boolean): readonly Question[] => {
  if (!isGiven)
    return [
      { start, end: start, code: 'no-count', message: 'How many? Put the count first', choices: [{ label: 'one', replacement: '1 ' }] },
    ];
  return counted && counted.count >= 1 && counted.count <= 100_000
    ? []
    : [
        {
          start,
          end: start + text.length,
          code: 'count-limit',
          message: counted ? 'A count is from 1 to 100 000' : 'A range goes from the lower to the higher count',
          choices: [{ label: '1', replacement: '1' }],
        },
      ];
};

const MOST_NOTE = 400;

/** Reads a line that records a fastener set, or null when the line does not begin as one. */
export const parseFasteners = (line: string, start: number): ParsedLine | null => {
  const leading = matchAt(LEAD, line, start);
  if (!leading) return null;
  const isGiven = leading[2] !== undefined;
  const said = isGiven ? readCount(leading.slice(1)) : null;
  const digits = COUNT_AT.exec(leading[0])?.[0] ?? '';
  const asked = countQuestion(start, digits, said, isGiven);
  const count = asked.length === 0 && said ? said.count : 1;
  const isNut = /\bnuts?\b/i.test(line);
  const reading = readLine<FastenerDraft>('fasteners', line, start + leading[0].length, [...(isNut ? NUT_MATCHERS : MATCHERS), ...LAST]);
  const { draft } = reading;
  const note = tidy(reading.words.join(' ')).replace(/,+$/, '').trim();
  const tooLong: readonly Question[] =
    note.length > MOST_NOTE
      ? [{ start, end: line.length, code: 'note-long', message: `A remark may have at most ${MOST_NOTE} characters`, choices: [] }]
      : [];
  const questions = [...asked, ...reading.questions, ...tooLong];
  const counted: readonly Understood[] =
    asked.length === 0 && said ? [{ start, end: start + digits.length, label: 'count', value: said.value, evidence: said.mark }] : [];
  const understood = [...counted, ...wordsAsOne(reading.understood, 'remark', note)];
  const entry: FastenerEntry = {
    kind: 'fasteners',
    count,
    fastenerKind: kindOf(draft),
    threadM: draft.threadM ?? null,
    pitchM: draft.pitchM ?? null,
    lengthM: draft.lengthM ?? null,
    drive: draft.drive ?? '',
    grade: draft.grade ?? '',
    direction: draft.direction ?? null,
    mass: massEach(draft.mass, count),
    note,
    known: said?.known ? { count: said.known, ...reading.known } : reading.known,
  };
  return { line, understood, questions, entry: questions.length > 0 ? null : entry };
};

/** "M6x16", "M8x1x30", "4.8x16": thread, pitch and length as people write them; empty when nothing is known. */
export const threadText = (
  set: Pick<FastenerEntry, 'threadM' | 'pitchM' | 'lengthM'> & { readonly fastenerKind: FastenerKind },
): string => {
  if (set.threadM === null) return '';
  const metric = set.fastenerKind !== 'screw' && set.fastenerKind !== 'rivet' && coarsePitchMm(millimetres(set.threadM)) !== null;
  const parts = [set.threadM, set.pitchM, set.lengthM].filter((part): part is number => part !== null).map(millimetres);
  return `${metric ? 'M' : ''}${parts.join('x')}`;
};
