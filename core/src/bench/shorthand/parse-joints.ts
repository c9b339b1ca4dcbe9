import { RUNNING_JOINTS, type JointKind } from '../../record';
import { CODE_END, loneMarkMatcher, strayLengthMatcher } from './common-matchers';
import type { JointEntry, ParsedLine } from './entry';
import { COUNT_TEXT } from './how-known';
import { matchAt } from './matching';
import type { Matcher } from './reader';
import { lengthMatcher, nanometre, readSetLine, sharedLength } from './set-line';

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

/** `34 spot`, `2 bead 0.7 m`, `bead 1.4 m` */
const LEAD = new RegExp(String.raw`(?:${COUNT_TEXT}\s+(${WORDS})${CODE_END}|(${RUNNING_WORDS})(?=\s+(?:total\s+)?~?\d))`, 'iy');

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
    const match = strayLengthMatcher(() => [])(line, at) ?? LENGTH(line, at);
    const text = match && line.slice(at, match.end);
    return match && text
      ? {
          end: match.end,
          question: {
            code: 'joint-length',
            message: `A ${kind} is counted; it has no length`,
            choices: [
              { label: 'leave it out', replacement: '' },
              { label: 'keep it as words', replacement: `"${text.trim()}"` },
            ],
          },
        }
      : null;
  };

/** Reads a line that records a joint set, or null when the line does not begin as one. */
export const parseJoints = (line: string, start: number): ParsedLine | null => {
  const leading = matchAt(LEAD, line, start);
  const jointKind = leading && KIND_OF.get((leading[7] ?? leading[8] ?? '').toLowerCase());
  if (!leading || !jointKind) return null;
  const read = readSetLine<JointDraft>({
    entity: 'joints',
    line,
    start,
    leading,
    matchers: [RUNNING_JOINTS.includes(jointKind) ? LENGTH : counted(jointKind), loneMarkMatcher],
    most: 1_000_000,
    kind: { label: 'joint', value: jointKind },
  });
  const { draft, count, note, known, questions } = read;
  const { length } = draft;
  const entry: JointEntry = {
    kind: 'joints',
    count,
    jointKind,
    lengthEachM: length ? nanometre(length.isTotal ? length.metres / count : length.metres) : null,
    note,
    known: length?.isTotal ? sharedLength(known, 'lengthEachM', count) : known,
  };
  return { line, understood: read.understood, questions, entry: questions.length > 0 ? null : entry };
};
