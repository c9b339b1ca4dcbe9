import { NUMBER_TEXT, millimetres, readNumber } from '../../shared';
import { evidence, type Access, type FastenerKind } from '../../record';
import { METRIC_THREADS_MM, coarsePitchMm } from '../fasteners/metric-threads';
import {
  CODE_END,
  ask,
  bareNumberMatcher,
  directionMatcher,
  figureAt,
  loneMarkMatcher,
  massMatcher,
  nanometre,
  orphanMatcher,
  otherQuantityMatcher,
  strayLengthMatcher,
  type DirectionDraft,
  type Figure,
  type MassDraft,
} from './common-matchers';
import { bareCountMatcher, countMatcher, tallyMatcher, type CountDraft } from './counts';
import { FASTENER_AT, FASTENER_PATTERN, fastenerKind } from './fastener-words';
import { matchAt } from './matching';
import { statedAt } from './quantity';
import { keepAsWords, leaveOut, tidy, type Match, type Matcher } from './reader';
import { LENGTH, TORQUE } from './unit-words';
import { wordMatcher } from './set-line';

/** What a line says of a fastener set. */
export interface FastenerDraft extends MassDraft, DirectionDraft, CountDraft {
  readonly fastenerKind: FastenerKind;
  readonly threadM: number;
  readonly pitchM: number | null;
  readonly lengthM: number;
  readonly drive: string;
  readonly grade: string;
  readonly tighteningNm: number;
  readonly breakawayNm: number;
  readonly access: Access;
  readonly tool: string;
  readonly removed: boolean;
}

const MOST = 100_000;
const BY = String.raw`\s?[x×*]\s?`;
const NUMBER = String.raw`\d+(?:[.,]\d+)?`;
const GRADE_TEXT = String.raw`(?:[4-9]\.[689]|1[02]\.9|A[24](?:-[5-8]0)?)`;
const METRIC = String.raw`M(${NUMBER})(?:${BY}(${NUMBER}))?(?:${BY}(${NUMBER}))?(?:mm)?`;
const THREAD = new RegExp(String.raw`${METRIC}(?:-(?=${GRADE_TEXT}))?(?:${CODE_END}|(?<=-))`, 'iy');
const THREAD_TWO = new RegExp(String.raw`M(${NUMBER})(?:${BY}(${NUMBER}))?(?=\s)`, 'iy');
const INCH = String.raw`(?:"|″|”|\s?in(?:ch)?)?`;
/** 1/4", 1/4-20, #10-32, 5/16-18 x 1 1/2, with UNC or UNF behind it */
const IMPERIAL = new RegExp(
  String.raw`(?:#(\d{1,2})|((?:\d[- ])?\d{1,2}\/\d{1,2}|[¼½⅜⅝¾⅞])${INCH})(?:\s?-\s?(\d{1,2}))?(?:\s?(?:UNC|UNF|UNEF))?(?:${BY}(${NUMBER_TEXT})${INCH})?(?:\s(?:UNC|UNF|UNEF))?${CODE_END}`,
  'iy',
);
const TAPPING = new RegExp(String.raw`(?:ST|ø|Ø|⌀)?\s?(${NUMBER})${BY}(${NUMBER})(?:\s?mm)?${CODE_END}`, 'iy');
const ACROSS = new RegExp(String.raw`(?:ST|ø|Ø|⌀)\s?(${NUMBER})(?:\s?mm)?${CODE_END}`, 'iy');
const PITCH = new RegExp(String.raw`pitch\s?(${NUMBER})(?:\s?mm)?${CODE_END}`, 'iy');
const DRIVE = new RegExp(
  String.raw`(?:T\d{1,3}|TX\s?\d{1,3}|IP\d{1,2}|H\d{1,2}|SW\s?\d{1,2}|AF\s?\d{1,2}|E\d{1,2}|PH\s?\d|PZ\s?\d|SL\d|hex)${CODE_END}|\d{1,2}\s?AF${CODE_END}`,
  'iy',
);
const CLASS_WORD = String.raw`(?:(?:(?:property\s+)?class|grade|cl\.|gr\.)\s*:?\s*|(?:cl|f?kl|fk)\.?\s+)`;
const GRADE = new RegExp(`(?:${CLASS_WORD})?${GRADE_TEXT}${CODE_END}`, 'iy');
const NUT_GRADE = new RegExp(`(?:${CLASS_WORD})?(?:4|5|6|8|9|10|12)${CODE_END}`, 'iy');
const gradeText = (text: string): string => text.replace(new RegExp(`^${CLASS_WORD}`, 'i'), '').toUpperCase();
const TOOL = /tool\s+(?:"((?:[^"]|"")*)"|([^\s",;]+))/iy;

const put = (end: number, label: string, value: string, about: string, fields: Partial<FastenerDraft>, cost = 1): Match<FastenerDraft> => ({
  end,
  label,
  value,
  about,
  put: fields,
  cost,
});

const mm = (value: number): number => nanometre(value / 1000);
const valueOf = (digits: string | undefined): number | null => {
  if (digits === undefined) return null;
  const read = readNumber(digits);
  return read.kind === 'number' ? read.number.value : Number.NaN;
};

const near = (diameter: number): number =>
  METRIC_THREADS_MM.reduce((best, d) => (Math.abs(d - diameter) < Math.abs(best - diameter) ? d : best));

/** The thread of as many of its numbers as are taken: M8x25 x4 is four of M8x25, not M8 with a pitch of 25. */
const threadOf = (match: RegExpExecArray, at: number): Match<FastenerDraft> => {
  const text = match[0].replace(/-$/, '');
  const end = at + match[0].length;
  const diameter = valueOf(match[1]) ?? Number.NaN;
  const second = valueOf(match[2]);
  const third = valueOf(match[3]);
  const coarse = coarsePitchMm(diameter);
  const words = { ...keepAsWords(text), label: 'part of the remark' };
  if (coarse === null) {
    const nearest = near(Number.isFinite(diameter) ? diameter : 6);
    const replacement = text.replace(match[1] ?? '', String(nearest));
    return ask(end, 'no-such-thread', `There is no metric thread M${match[1]}`, [{ label: replacement, replacement }, words], 1.5);
  }
  const secondIsPitch = second !== null && (third !== null || second <= coarse);
  const pitch = secondIsPitch ? second : null;
  const length = third ?? (secondIsPitch ? null : second);
  const inside = (pitch === null || (pitch > 0 && pitch <= coarse)) && (length === null || (length > 0 && length <= 2000));
  if (!inside)
    return ask(
      end,
      'thread-size',
      `${text}: the pitch is at most ${coarse} mm for M${diameter}, the length at most 2000 mm`,
      [{ label: `M${diameter}`, replacement: `M${diameter}` }, words],
      2.5,
    );
  const fine = pitch !== null && pitch !== coarse ? pitch : null;
  const value = `M${diameter}${fine === null ? '' : ` × ${fine} pitch`}${length === null ? '' : `, ${length} mm long`}`;
  return put(end, 'thread', value, 'threadM', {
    threadM: mm(diameter),
    pitchM: fine === null ? null : mm(fine),
    ...(length === null ? {} : { lengthM: mm(length) }),
  });
};

/** Thread, pitch and length. What would be shorter than it is thick, or the length of a nut, is likelier a count: `M8 x 4`. */
const threadMatcher =
  (isFlat: boolean): Matcher<FastenerDraft> =>
  (line, at) => {
    const whole = matchAt(THREAD, line, at);
    const two = matchAt(THREAD_TWO, line, at);
    return [whole, two && two[0] !== whole?.[0] ? two : null].flatMap((match) => {
      if (!match) return [];
      const thread = threadOf(match, at);
      const { threadM = 0, lengthM } = thread.put ?? {};
      return [lengthM !== undefined && (isFlat || lengthM < threadM) ? { ...thread, cost: 3.2 } : thread];
    });
  };

/** A dash between two codes, as in “M8x25 - 10.9”. */
const dashMatcher: Matcher<FastenerDraft> = (line, at) => {
  const match = matchAt(/[-–](?=\s)/y, line, at);
  return match ? { end: at + 1, word: '' } : null;
};

/**
 * Diameter and pitch of a thread in inch sizes, in m; a number size n is 0.060 + 0.013 n in. Null when it is none.
 * @source ASME B1.1 unified threads, number sizes, from memory; checked by #10 = 0.190 in and #6 = 0.138 in
 */
export const imperialThread = (text: string): { readonly threadM: number; readonly pitchM: number | null } | null => {
  const match = matchAt(IMPERIAL, text, 0);
  if (match?.[0].length !== text.length) return null;
  const [, number, fraction, perInch] = match;
  const inches = number === undefined ? (valueOf(fraction) ?? Number.NaN) : 0.06 + 0.013 * Number(number);
  const turns = perInch === undefined ? null : Number(perInch);
  if (!(inches > 0 && inches <= 4) || (turns !== null && !(turns >= 4 && turns <= 80))) return null;
  return { threadM: nanometre(inches * 0.0254), pitchM: turns === null ? null : nanometre(0.0254 / turns) };
};

const imperialMatcher: Matcher<FastenerDraft> = (line, at) => {
  const match = matchAt(IMPERIAL, line, at);
  if (!match) return null;
  const [text, number, fraction, perInch, length] = match;
  const end = at + text.length;
  const size = `${number === undefined ? (fraction ?? '').trim() : `#${number}`}${perInch === undefined ? (number === undefined ? '"' : '') : `-${perInch}`}`;
  const thread = imperialThread(size);
  const inches = valueOf(length?.trim());
  if (!thread || (inches !== null && !(inches > 0 && inches <= 80)))
    return ask(
      end,
      'no-such-thread',
      `“${text}” is no thread in inches`,
      [{ ...keepAsWords(text), label: 'part of the remark' }, leaveOut],
      5,
    );
  return {
    ...put(end, 'thread', `${size}${inches === null ? '' : `, ${Number((inches * 25.4).toFixed(3))} mm long`}`, 'threadM', {
      ...thread,
      ...(inches === null ? {} : { lengthM: nanometre(inches * 0.0254) }),
    }),
    evidence: evidence('S', { typed: size }),
  };
};

const tappingMatcher: Matcher<FastenerDraft> = (line, at) => {
  const both = matchAt(TAPPING, line, at);
  const one = both ? null : matchAt(ACROSS, line, at);
  const match = both ?? one;
  if (!match) return null;
  const end = at + match[0].length;
  const isTapping = /^ST/i.test(match[0]);
  const diameter = valueOf(match[1]) ?? Number.NaN;
  const length = both ? (valueOf(match[2]) ?? Number.NaN) : null;
  if (diameter > 0 && diameter <= 200 && (length === null || (length > 0 && length <= 2000)))
    return put(
      end,
      'size',
      `${isTapping ? 'tapping screw ' : ''}${diameter} mm${length === null ? '' : `, ${length} mm long`}`,
      'threadM',
      {
        threadM: mm(diameter),
        ...(isTapping ? { fastenerKind: 'screw' as const } : {}),
        ...(length === null ? {} : { lengthM: mm(length) }),
      },
    );
  return ask(end, 'thread-size', `${match[0]} is no size of a fastener in mm`, [
    { ...keepAsWords(match[0]), label: 'part of the remark' },
    leaveOut,
  ]);
};

const pitchMatcher: Matcher<FastenerDraft> = (line, at) => {
  const match = matchAt(PITCH, line, at);
  const pitch = valueOf(match?.[1]);
  return match && pitch !== null && pitch > 0 && pitch <= 20
    ? put(at + match[0].length, 'pitch', `${pitch} mm`, 'pitchM', { pitchM: mm(pitch) })
    : null;
};

const LENGTH_OF: Figure = {
  before: /(?:L|length|lg\.?|len\.?)(?:\s*[=:]\s*|\s+|(?<=L)(?=\d))/iy,
  behind: /\s*(?:long|lg\.?)(?=[\s,;)]|$)/iy,
  table: LENGTH,
  usual: 'mm',
  label: 'length',
  inAll: null,
  field: 'lengthM',
  most: 2,
  mostText: '2 m',
  spelling: (text) => `L${text}`,
  shown: (si) => `${millimetres(si)} mm`,
};
const lengthMatcher: Matcher<FastenerDraft> = (line, at) => {
  const found = figureAt(line, at, LENGTH_OF);
  if (!found) return null;
  return found.read ? { ...found.match, put: { lengthM: found.read.si } } : found.match;
};

const torque = (before: RegExp, behind: RegExp, word: 'tightening' | 'breakaway'): Figure => ({
  before,
  behind,
  table: TORQUE,
  usual: null,
  label: `${word} torque`,
  inAll: null,
  field: word === 'tightening' ? 'tighteningNm' : 'breakawayNm',
  most: 10_000,
  mostText: '10 000 N m',
  spelling: (text) => `${word} ${text}`,
  unitAsked: ['Nm', 'lbfft'],
});
const TIGHTENING = torque(
  /(?:tighten(?:ed|ing)?|torqued|tq)(?:\s+torque)?(?:\s+(?:to|with|at))?(?:\s*[=:]\s*|\s+)/iy,
  /\s*(?:tighten(?:ed|ing)?(?:\s+torque)?)(?=[\s,;)]|$)/iy,
  'tightening',
);
const BREAKAWAY = torque(
  /(?:break(?:away|s|ing|loose)?|broke(?:\s+loose)?|loosen(?:ed|ing)?|let go|released|undone)(?:\s+torque)?(?:\s+(?:at|with))?(?:\s*[=:]\s*|\s+)/iy,
  /\s*(?:break(?:away)?(?:\s+torque)?|loosened|undone|to (?:break|loosen|undo))(?=[\s,;)]|$)/iy,
  'breakaway',
);
const torqueMatcher: Matcher<FastenerDraft> = (line, at) => {
  const found: Match<FastenerDraft>[] = [];
  for (const [figure, field] of [
    [TIGHTENING, 'tighteningNm'],
    [BREAKAWAY, 'breakawayNm'],
  ] as const) {
    const said = figureAt(line, at, figure);
    if (said) found.push(said.read ? { ...said.match, put: { [field]: said.read.si } } : said.match);
  }
  if (found.length > 0) return found;
  const lone = /torque\s*[=:]?\s*/iy;
  const word = matchAt(lone, line, at)?.[0] ?? '';
  const stated = statedAt(line, at + word.length, { table: TORQUE, usual: null });
  if (!stated) return null;
  return ask(
    stated.end,
    'torque-of-what',
    `${line.slice(at, stated.end)}: tightened with, or let go at?`,
    [
      { label: `let go at ${stated.plain}`, replacement: `breakaway ${stated.isAbout ? '~' : ''}${stated.plain}` },
      { label: `tightened with ${stated.plain}`, replacement: `tightening ${stated.isAbout ? '~' : ''}${stated.plain}` },
      { ...keepAsWords(line.slice(at, stated.end)), label: 'part of the remark' },
    ],
    1.5,
  );
};

const kindMatcher: Matcher<FastenerDraft> = (line, at) => {
  const text = matchAt(FASTENER_AT, line, at)?.[0];
  const kind = text === undefined ? undefined : fastenerKind(text);
  return text !== undefined && kind ? put(at + text.length, 'kind', kind, 'kind', { fastenerKind: kind }) : null;
};

const driveText = (text: string): string => {
  const spelling = text.toUpperCase().replace(/\s+/g, '');
  if (spelling === 'HEX') return 'hex';
  return spelling.replace(/^TX/, 'T').replace(/^AF(\d+)$|^(\d+)AF$/, 'SW$1$2');
};
const codeMatcher =
  (pattern: RegExp, field: 'drive' | 'grade', canonical: (text: string) => string, cost = 1): Matcher<FastenerDraft> =>
  (line, at) => {
    const text = matchAt(pattern, line, at)?.[0];
    return text === undefined ? null : put(at + text.length, field, canonical(text), field, { [field]: canonical(text) }, cost);
  };

const ACCESS_WORDS: Readonly<Record<string, Access>> = {
  free: 'free',
  'free access': 'free',
  'from below': 'from below',
  'from underneath': 'from below',
  blind: 'blind',
  'through a hole': 'through a hole',
  'through hole': 'through a hole',
  'behind a cover': 'behind a cover',
  'behind trim': 'behind a cover',
  'with an extension': 'with an extension',
  'with extension': 'with an extension',
};
const REMOVED_WORDS: Readonly<Record<string, boolean>> = {
  removed: true,
  'taken out': true,
  'left in': false,
  'not removed': false,
  'stays in': false,
};
const toolMatcher: Matcher<FastenerDraft> = (line, at) => {
  const match = matchAt(TOOL, line, at);
  const tool = tidy((match?.[1] ?? match?.[2] ?? '').replaceAll('""', '"'));
  if (!match || tool === '') return null;
  const end = at + match[0].length;
  if (tool.length > 60) return ask(end, 'tool-long', 'A tool may have at most 60 characters', [leaveOut]);
  return put(end, 'tool', tool, 'tool', { tool });
};

const accessWord = wordMatcher<FastenerDraft, Access>(ACCESS_WORDS, 'access', 'access', (access) => ({ access }));
/** A blind rivet is a kind of rivet: the word says nothing of how it is reached. */
const accessMatcher: Matcher<FastenerDraft> = (line, at) =>
  matchAt(/blind[\s-]+(?:rivet|nut|pop)/iy, line, at) ? null : accessWord(line, at);

const TALLY = tallyMatcher(FASTENER_PATTERN, MOST);

/** What the words of a line say its fasteners are, as far as its figures are read by it. */
interface FastenerWords {
  readonly isNut: boolean;
  /** without a length of its own: nuts and washers */
  readonly isFlat: boolean;
  /** with no property class: rivets, washers, clips, pins and ties */
  readonly isClassless: boolean;
}

/** The matchers of a fastener line that begins at `start`. */
export const fastenerMatchers = (start: number, { isNut, isFlat, isClassless }: FastenerWords): readonly Matcher<FastenerDraft>[] => [
  bareCountMatcher(start, MOST),
  countMatcher(MOST),
  TALLY,
  massMatcher,
  threadMatcher(isFlat),
  dashMatcher,
  imperialMatcher,
  tappingMatcher,
  pitchMatcher,
  lengthMatcher,
  kindMatcher,
  torqueMatcher,
  codeMatcher(DRIVE, 'drive', driveText),
  ...(isClassless ? [] : [codeMatcher(GRADE, 'grade', gradeText)]),
  ...(isNut ? [codeMatcher(NUT_GRADE, 'grade', gradeText, 1)] : []),
  directionMatcher,
  accessMatcher,
  wordMatcher(
    REMOVED_WORDS,
    'taken out',
    'removed',
    (removed) => ({ removed }),
    (removed) => (removed ? 'yes' : 'no, left in'),
  ),
  toolMatcher,
  strayLengthMatcher((length) => [{ label: `${length} long`, replacement: `L${length}` }], 'remark'),
  otherQuantityMatcher('remark'),
  bareNumber,
  loneMarkMatcher,
  orphanMatcher,
];

/** A number alone in a set: its count where none was given, its length, its mass, or words. */
const bareNumber: Matcher<FastenerDraft> = (line, at) => {
  const found = bareNumberMatcher('remark')(line, at) as Match<FastenerDraft> | null;
  if (!found?.question) return found;
  const digits = line.slice(at, found.end);
  const whole = /^\d+$/.test(digits);
  const across = { label: `${digits} mm across`, replacement: `ø${digits}` };
  const own = whole
    ? [
        { label: `${digits} mm long`, replacement: `L${digits} mm` },
        { label: `${digits} of them`, replacement: `${digits}x` },
      ]
    : /^\d{1,2}[.,]\d{1,2}$/.test(digits)
      ? [across]
      : [];
  return { ...found, question: { ...found.question, choices: [...own, ...found.question.choices] } };
};
