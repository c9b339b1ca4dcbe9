import { RUNNING_JOINTS, type JointKind } from '../../record';
import { CODE_END, ask, loneMarkMatcher, nanometre, orphanMatcher, otherQuantityMatcher } from './common-matchers';
import type { JointEntry, ParsedLine, Question } from './entry';
import { JOINT_PATTERN, jointKind as kindNamed, wordsOfJoints } from './joint-words';
import { COUNT_TEXT } from './how-known';
import { isPlaceWord, matchAt } from './matching';
import type { Candidate } from './parse-part';
import { statedAt } from './quantity';
import { keepAsWords, leaveOut, type Matcher } from './reader';
import { LENGTH as LENGTHS } from './unit-words';
import { lengthMatcher, readSetLine, sharedLength } from './set-line';

interface JointDraft {
  readonly length: { readonly metres: number; readonly isTotal: boolean };
}

/** `34 spot`, `24x SPR`, `spot weld x18`, `2 bead 0.7 m`, `bead 1.4 m` */
const LEAD = new RegExp(String.raw`(?:${COUNT_TEXT}(?:\s?[x×*])?\s+)?(${JOINT_PATTERN}|welds?)(?:${CODE_END}|(?=\s?[:=]))`, 'iy');
/** “welds” alone: counted as points or told by their length */
const WELD = /^welds?$/i;

/** what runs needs no count where a figure stands right behind it */
const RUN = new RegExp(String.raw`^(?:${wordsOfJoints(RUNNING_JOINTS)}|welds?)\s+(?:total\s+)?~?\d`, 'i');

const LENGTH = lengthMatcher<JointDraft>({
  before: '',
  label: 'length each',
  inAll: 'length in all',
  field: 'lengthEachM',
  mostM: 1000,
  usual: null,
  put: (metres, isTotal) => ({ length: { metres, isTotal } }),
});

/** A length behind a joint that is only counted is asked about. */
const counted =
  (kind: JointKind): Matcher<JointDraft> =>
  (line, at) => {
    const stated = statedAt(line, at, { table: LENGTHS, usual: null });
    if (!stated) return null;
    const text = line.slice(at, stated.end);
    return ask(stated.end, 'joint-length', `A ${kind} is counted; it has no length`, [
      { ...keepAsWords(text), label: 'part of the remark' },
      leaveOut,
    ]);
  };

const whichWeld = (line: string, start: number, leading: RegExpExecArray): Question => {
  const word = leading[7] ?? '';
  const end = start + leading[0].length;
  return {
    start: end - word.length,
    end,
    code: 'which-weld',
    message: `“${word}”: spots that are counted, or seams with a length?`,
    choices: [
      { label: 'spot weld', replacement: 'spot weld' },
      { label: 'seam weld', replacement: 'seam weld' },
      keepAsWords(line.slice(end - word.length, end)),
    ],
  };
};

/** Reads a line that records a joint set, or null when the line does not begin as one. */
export const jointCandidate = (line: string, start: number): Candidate | null => {
  const leading = matchAt(LEAD, line, start);
  const isWeld = WELD.test(leading?.[7] ?? '');
  const jointKind = leading && (isWeld ? 'seam weld' : kindNamed(leading[7] ?? ''));
  if (!leading || !jointKind) return null;
  const read = readSetLine<JointDraft>({
    entity: 'joints',
    line,
    start,
    leading,
    matchers: [
      RUNNING_JOINTS.includes(jointKind) ? LENGTH : counted(jointKind),
      otherQuantityMatcher('remark'),
      loneMarkMatcher,
      orphanMatcher,
    ],
    most: 1_000_000,
    kind: { label: 'joint', value: jointKind },
  });
  const { draft, count, note, evidence, questions } = read;
  const { length } = draft;
  const isRun = !read.isCounted && (length !== undefined || questions.length > 0) && RUN.test(line.slice(start));
  if (!read.isCounted && !isRun) return null;
  const which: readonly Question[] = isWeld && length === undefined && questions.length === 0 ? [whichWeld(line, start, leading)] : [];
  const entry: JointEntry = {
    kind: 'joints',
    count,
    jointKind,
    lengthEachM: length ? nanometre(length.isTotal ? length.metres / count : length.metres) : null,
    note,
    evidence: length?.isTotal ? sharedLength(evidence, 'lengthEachM', count) : evidence,
  };
  const first = read.stretches[0];
  const isBare = leading[2] === undefined;
  const isCompound = first?.match.word !== undefined && !isPlaceWord(first.match.word) && (isBare || /x|×|\*/i.test(leading[0]));
  return {
    parsed: {
      line,
      understood: read.understood,
      questions: [...which, ...questions],
      entry: which.length + questions.length > 0 ? null : entry,
    },
    // a running joint with a figure behind it needs no count
    cost:
      read.cost -
      (isRun ? 1.5 : 0) -
      (/^(?:spr|fds|fsw|rsw|spot)s?$/i.test(leading[7] ?? '') || (leading[7] ?? '').includes(' ') ? 1 : 0) +
      (isCompound ? (isBare ? 6 : 2) : 0),
  };
};

/** Reads a line as a joint set, whatever else it could be; null when it does not begin as one. */
export const parseJoints = (line: string, start: number): ParsedLine | null => jointCandidate(line, start)?.parsed ?? null;
