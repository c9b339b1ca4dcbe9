import { readNumber } from '../../shared';
import { CONNECTION_KINDS, LOCKS, RELEASES, type ConnectionKind, type Lock, type Release } from '../../record';
import { CODE_END, loneMarkMatcher, nanometre, orphanMatcher, otherQuantityMatcher } from './common-matchers';
import type { ConnectionEntry } from './entry';
import { COUNT_TEXT } from './how-known';
import { isPlaceWord, matchAt } from './matching';
import { keepAsWords, leaveOut, type Matcher } from './reader';
import { materialMatcher } from './material-matchers';
import type { Candidate } from './parse-part';
import { lengthMatcher, readSetLine, sharedLength, wordMatcher } from './set-line';

interface ConnectionDraft {
  readonly materialId: string;
  readonly poles: number;
  readonly crossSectionM2: number;
  readonly shielded: boolean;
  readonly innerM: number;
  readonly length: { readonly metres: number; readonly isTotal: boolean };
  readonly fluid: string;
  readonly lock: Lock;
  readonly release: Release;
}

const KIND = '(connector|cable|hose|pipe|wire)s?';
const NUMBER = String.raw`\d[\d.,]*`;
const CORES = String.raw`\d{1,4}[- ]?(?:p|pins?|poles?|cores?|ways?)`;
/** `2 connector 12p latch easy`, `1 hose 1.2 m`, `hose id8 1.2 m`; a kind without a count needs a figure behind it that no part has */
const LEAD = new RegExp(
  String.raw`(?:${COUNT_TEXT}(?:\s?[x×*])?\s+)?${KIND}(?=\s+(?:id\s?~?\d|~?\d[\d.,]*\s*(?:mm2|mm²)(?:\s|$|[?@,])|${CORES}(?:\s|$|[?@,])))`,
  'iy',
);
const NAMED_LEAD = new RegExp(String.raw`(?:${COUNT_TEXT}(?:\s?[x×*])?\s+)?${KIND}${CODE_END}`, 'iy');
const POLES = new RegExp(String.raw`(\d{1,4})[- ]?(?:p|pins?|poles?|cores?|ways?)${CODE_END}`, 'iy');
const SECTION = new RegExp(String.raw`(${NUMBER})\s*(?:mm2|mm²)${CODE_END}`, 'iy');

const LOCK_WORDS: Readonly<Record<string, Lock>> = {
  ...Object.fromEntries(LOCKS.map((lock) => [lock, lock])),
  lever: 'lever lock',
  secondary: 'secondary lock',
  collar: 'screw collar',
  quick: 'quick coupling',
};
const RELEASE_WORDS: Readonly<Record<string, Release>> = Object.fromEntries(RELEASES.map((release) => [release, release]));
const SHIELD_WORDS: Readonly<Record<string, boolean>> = { shielded: true, unshielded: false };
const FLUID_NAMES = [
  'coolant',
  'brake fluid',
  'refrigerant',
  'fuel',
  'oil',
  'gear oil',
  'washer fluid',
  'hydraulic fluid',
  'compressed air',
  'vacuum',
];
const FLUID_WORDS: Readonly<Record<string, string>> = Object.fromEntries(FLUID_NAMES.map((name) => [name, name]));

const polesMatcher: Matcher<ConnectionDraft> = (line, at) => {
  const match = matchAt(POLES, line, at);
  if (!match) return null;
  const poles = Number(match[1]);
  const end = at + match[0].length;
  return poles >= 1 && poles <= 1000
    ? { end, label: 'poles or cores', value: String(poles), about: 'poles', put: { poles } }
    : { end, question: { code: 'poles-limit', message: 'Poles or cores go from 1 to 1000', choices: [leaveOut, keepAsWords(match[0])] } };
};

const sectionMatcher: Matcher<ConnectionDraft> = (line, at) => {
  const match = matchAt(SECTION, line, at);
  if (!match) return null;
  const end = at + match[0].length;
  const [text, digits = ''] = match;
  const read = readNumber(digits);
  if (read.kind === 'ambiguous')
    return {
      end,
      question: {
        code: 'number-two-ways',
        message: `Is ${digits} a decimal comma or thousands?`,
        choices: read.readings.map((r) => ({ label: `${r.text} mm²`, replacement: text.replace(digits, r.text) })),
      },
    };
  const mm2 = read.kind === 'number' ? read.number.value : Number.NaN;
  if (!(mm2 > 0 && mm2 <= 10_000))
    return {
      end,
      question: { code: 'section-limit', message: 'A cross-section is more than 0 and at most 10 000 mm²', choices: [leaveOut] },
    };
  // 1 mm² = 10⁻⁶ m², divided so that 2.5 mm² prints back as 2.5
  return { end, label: 'cross-section', value: `${mm2} mm²`, about: 'crossSectionM2', put: { crossSectionM2: mm2 / 1e6 } };
};

const material = materialMatcher('remark') as Matcher<ConnectionDraft>;

const INNER = lengthMatcher<ConnectionDraft>({
  before: String.raw`id\s?`,
  label: 'inner diameter',
  inAll: null,
  field: 'innerM',
  mostM: 1,
  usual: 'mm',
  put: (innerM) => ({ innerM }),
});
const LENGTH = lengthMatcher<ConnectionDraft>({
  before: '',
  label: 'length each',
  inAll: 'length in all',
  field: 'lengthEachM',
  mostM: 1000,
  usual: null,
  put: (metres, isTotal) => ({ length: { metres, isTotal } }),
});

const common: readonly Matcher<ConnectionDraft>[] = [
  wordMatcher(LOCK_WORDS, 'lock', 'lock', (lock) => ({ lock })),
  wordMatcher(RELEASE_WORDS, 'released', 'release', (release) => ({ release })),
];
const OF_KIND: Readonly<Record<ConnectionKind, readonly Matcher<ConnectionDraft>[]>> = {
  connector: [polesMatcher, ...common, LENGTH, otherQuantityMatcher('remark'), loneMarkMatcher, orphanMatcher],
  cable: [
    sectionMatcher,
    polesMatcher,
    wordMatcher(
      SHIELD_WORDS,
      'shield',
      'shielded',
      (shielded) => ({ shielded }),
      (s) => (s ? 'shielded' : 'not shielded'),
    ),
    ...common,
    LENGTH,
    otherQuantityMatcher('remark'),
    loneMarkMatcher,
    orphanMatcher,
    material,
  ],
  hose: [
    INNER,
    wordMatcher(FLUID_WORDS, 'carries', 'fluid', (fluid) => ({ fluid })),
    ...common,
    LENGTH,
    otherQuantityMatcher('remark'),
    loneMarkMatcher,
    orphanMatcher,
    material,
  ],
  pipe: [
    INNER,
    wordMatcher(FLUID_WORDS, 'carries', 'fluid', (fluid) => ({ fluid })),
    ...common,
    LENGTH,
    otherQuantityMatcher('remark'),
    loneMarkMatcher,
    orphanMatcher,
    material,
  ],
};

/** Reads a line that records a connector, cable, hose or pipe, or null when the line does not begin as one. */
export const connectionCandidate = (line: string, start: number): Candidate | null => {
  const leading = matchAt(NAMED_LEAD, line, start);
  const word = leading?.[7]?.toLowerCase();
  const isWire = word === 'wire';
  const kind = isWire ? 'cable' : CONNECTION_KINDS.find((k) => k === word);
  // a wire is a cable where its cross-section or its cores are told; else it may be a part
  if (!leading || !kind || (isWire && !matchAt(LEAD, line, start))) return null;
  const read = readSetLine<ConnectionDraft>({
    entity: 'connection',
    line,
    start,
    leading,
    matchers: OF_KIND[kind],
    most: 100_000,
    kind: { label: 'connection', value: kind },
  });
  const { draft, count, note, evidence, questions } = read;
  const { length } = draft;
  const isBare = leading[2] === undefined;
  if (!read.isCounted && !matchAt(LEAD, line, start)) return null;
  const entry: ConnectionEntry = {
    kind: 'connection',
    count,
    connectionKind: kind,
    materialId: draft.materialId ?? null,
    poles: draft.poles ?? null,
    crossSectionM2: draft.crossSectionM2 ?? null,
    shielded: draft.shielded ?? null,
    innerM: draft.innerM ?? null,
    lengthEachM: length ? nanometre(length.isTotal ? length.metres / count : length.metres) : null,
    fluid: draft.fluid ?? '',
    lock: draft.lock ?? null,
    release: draft.release ?? null,
    note,
    evidence: length?.isTotal ? sharedLength(evidence, 'lengthEachM', count) : evidence,
  };
  const first = read.stretches[0];
  const isCompound =
    first?.match.word !== undefined && !isPlaceWord(first.match.word) && /^\s+$/.test(line.slice(start + leading[0].length, first.start));
  return {
    parsed: { line, understood: read.understood, questions, entry: questions.length > 0 ? null : entry },
    cost:
      read.cost +
      (isCompound ? (isBare || /[x×*]/i.test(leading[0].replace(/[a-z]{2,}/gi, '')) ? 10 : 2) : 0) -
      (draft.poles !== undefined || draft.crossSectionM2 !== undefined || draft.innerM !== undefined ? 1.5 : 0),
  };
};
