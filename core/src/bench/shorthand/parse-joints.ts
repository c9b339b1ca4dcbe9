import { ESTIMATE_RELATIVE_U, LENGTH_UNITS, isLengthUnit, readNumber, resolutionU, toSi } from '../../shared';
import { RUNNING_JOINTS, known, type JointKind, type KnownOf } from '../../record';
import { CODE_END, lengthM, loneMarkMatcher } from './common-matchers';
import type { JointEntry, ParsedLine, Question, Understood } from './entry';
import { COUNT_TEXT, readCount } from './how-known';
import { matchAt } from './matching';
import { keepAsWords, leaveOut, readLine, tidy, type Matcher } from './reader';

interface JointDraft {
  readonly length: { readonly metres: number; readonly isTotal: boolean };
}

/** The word typed for each kind of joint. */
export const JOINT_WORD: Readonly<Record<JointKind, string>> = {
  'spot weld': 'spot',
  'self-piercing rivet': 'spr',
  'flow-drill screw': 'fds',
  clinch: 'clinch',
  'press fit': 'press',
  'snap fit': 'snap',
  'adhesive bead': 'bead',
  'seam weld': 'seam',
  'laser weld': 'laser',
  'friction-stir weld': 'fsw',
  braze: 'braze',
  solder: 'solder',
  hem: 'hem',
};
const KIND_OF: ReadonlyMap<string, JointKind> = new Map(Object.entries(JOINT_WORD).map(([kind, word]) => [word, kind as JointKind]));
const WORDS = [...KIND_OF.keys()].join('|');
const RUNNING_WORDS = RUNNING_JOINTS.map((kind) => JOINT_WORD[kind]).join('|');
const NUMBER = String.raw`\d[\d.,]*`;

/** `34 spot`, `2 bead 0.7 m`, `bead 1.4 m` */
const LEAD = new RegExp(String.raw`(?:${COUNT_TEXT}\s+(${WORDS})${CODE_END}|(${RUNNING_WORDS})(?=\s+(?:total\s+)?~?\d))`, 'iy');
const COUNT_AT = new RegExp(`^${COUNT_TEXT}`, 'i');
const LENGTH = new RegExp(String.raw`(total\s+)?(~)?(${NUMBER})\s*(mm|cm|m|in|ft)?${CODE_END}`, 'iy');

const lengthMatcher =
  (kind: JointKind): Matcher<JointDraft> =>
  (line, at) => {
    const match = matchAt(LENGTH, line, at);
    if (!match) return null;
    const [text, total = '', about = '', digits = '', unit = ''] = match;
    const end = at + text.length;
    const ask = (
      code: string,
      message: string,
      choices: readonly { label: string; replacement: string }[],
    ): ReturnType<Matcher<JointDraft>> => ({ end, question: { code, message, choices } });
    if (!RUNNING_JOINTS.includes(kind)) return ask('joint-length', `A ${kind} is counted; it has no length`, [leaveOut, keepAsWords(text)]);
    const read = readNumber(digits);
    if (read.kind === 'ambiguous')
      return ask(
        'number-two-ways',
        `Is ${digits} a decimal comma or thousands?`,
        read.readings.map((r) => ({ label: `${r.text} ${unit}`, replacement: `${total}${about}${r.text} ${unit}` })),
      );
    if (read.kind === 'none') return ask('number', `“${digits}” is not a number`, [keepAsWords(text)]);
    const symbol = unit.toLowerCase();
    if (!isLengthUnit(symbol))
      return ask(
        'length-without-unit',
        `${digits}: m or mm?`,
        ['m', 'mm'].map((u) => ({ label: `${digits} ${u}`, replacement: `${total}${about}${digits} ${u}` })),
      );
    const metres = lengthM(read.number.value, symbol);
    if (!(metres > 0 && metres <= 1000)) return ask('length-limit', 'A length is more than 0 and at most 1000 m', [leaveOut]);
    const stepM = resolutionU(toSi(read.number.step, LENGTH_UNITS[symbol]));
    return {
      end,
      about: 'lengthEachM',
      known: known(about ? 'I' : 'M', {
        u: about ? Math.max(stepM, metres * ESTIMATE_RELATIVE_U) : stepM,
        typed: `${total ? 'total ' : ''}${about}${read.number.text} ${symbol}`,
      }),
      label: total ? 'length in all' : 'length each',
      value: `${read.number.text} ${symbol}`,
      put: { length: { metres, isTotal: total !== '' } },
    };
  };

/** Reads a line that records a joint set, or null when the line does not begin as one. */
export const parseJoints = (line: string, start: number): ParsedLine | null => {
  const leading = matchAt(LEAD, line, start);
  const jointKind = leading && KIND_OF.get((leading[7] ?? leading[8] ?? '').toLowerCase());
  if (!leading || !jointKind) return null;
  const said = leading[2] === undefined ? null : readCount(leading.slice(1, 7));
  const digits = leading[2] === undefined ? '' : (COUNT_AT.exec(leading[0])?.[0] ?? '');
  const count = said?.count ?? (leading[2] === undefined ? 1 : 0);
  const reading = readLine<JointDraft>('joints', line, start + leading[0].length, [lengthMatcher(jointKind), loneMarkMatcher]);
  const note = tidy(reading.words.join(' ')).replace(/,+$/, '').trim();
  const limits: readonly Question[] = [
    ...(count >= 1 && count <= 1_000_000
      ? []
      : [
          {
            start,
            end: start + digits.length,
            code: 'count-limit',
            message:
              leading[2] !== undefined && said === null
                ? 'A range goes from the lower to the higher count'
                : 'A count is from 1 to 1 000 000',
            choices: [{ label: '1', replacement: '1' }],
          },
        ]),
    ...(note.length > 400
      ? [{ start, end: line.length, code: 'note-long', message: 'A remark may have at most 400 characters', choices: [] }]
      : []),
  ];
  const questions = [...limits, ...reading.questions];
  const kindChip: Understood = { start, end: start + leading[0].length, label: 'joint', value: jointKind, evidence: null };
  const countChip: Understood = {
    start,
    end: start + digits.length,
    label: 'count',
    value: said?.value ?? String(count),
    evidence: said?.mark ?? 'C',
  };
  const { length } = reading.draft;
  const entry: JointEntry = {
    kind: 'joints',
    count,
    jointKind,
    lengthEachM: length ? nanometre(length.isTotal ? length.metres / count : length.metres) : null,
    note,
    known: said?.known
      ? { count: said.known, ...lengthKnown(reading.known, length?.isTotal ? count : 1) }
      : lengthKnown(reading.known, length?.isTotal ? count : 1),
  };
  const understood = [countChip, kindChip, ...reading.understood.map((u) => (u.label === '' ? { ...u, label: 'remark' } : u))];
  return { line, understood, questions, entry: questions.length > 0 ? null : entry };
};

/** A length stated in all is shared among the joints, and so is its uncertainty. */
const lengthKnown = (said: KnownOf, among: number): KnownOf => {
  const length = said.lengthEachM;
  return length && among > 1 ? { ...said, lengthEachM: { ...length, u: length.u === null ? null : length.u / among } } : said;
};

const nanometre = (metres: number): number => Math.round(metres * 1e9) / 1e9;
