import { LENGTH_UNITS, isLengthUnit, readNumber, resolutionU, toSi } from '../../shared';
import { COMPONENT_CLASSES, evidence, type ComponentClass } from '../../record';
import { CODE_END, NANOMETRES, loneMarkMatcher, orphanMatcher, otherQuantityMatcher } from './common-matchers';
import type { BoardEntry, ComponentEntry } from './entry';
import { COUNT_TEXT } from './how-known';
import { isPlaceWord, matchAt } from './matching';
import type { Candidate } from './parse-part';
import { keepAsWords, leaveOut, quote, type Match, type Matcher } from './reader';
import { readSetLine } from './set-line';

const NUMBER = String.raw`\d[\d.,]*`;
const SIDES = '(one|two|1|2)[- ]sided';
const SIZE = String.raw`(~)?(${NUMBER})\s?[x×]\s?(${NUMBER})\s*(mm|cm|m|in)?`;
const LAYERS = String.raw`(\d{1,3})[- ]layers?`;

const lengthM = (value: number, symbol: keyof typeof LENGTH_UNITS): number =>
  Math.round(toSi(value, LENGTH_UNITS[symbol]) * 10 ** NANOMETRES) / 10 ** NANOMETRES;

interface BoardDraft {
  readonly size: readonly [number, number];
  readonly sides: number;
  readonly layers: number;
}

const BOARD_LEAD = new RegExp(String.raw`board(?=\s+(?:${SIZE}${CODE_END}|${SIDES}|${LAYERS}))`, 'iy');
const SIZE_AT = new RegExp(`${SIZE}${CODE_END}`, 'iy');
const SIDES_AT = new RegExp(`${SIDES}${CODE_END}`, 'iy');
const LAYERS_AT = new RegExp(`${LAYERS}${CODE_END}`, 'iy');

const sizeMatcher: Matcher<BoardDraft> = (line, at) => {
  const match = matchAt(SIZE_AT, line, at);
  if (!match) return null;
  const [text, about, length = '', width = '', unit = 'mm'] = match;
  const end = at + text.length;
  const twoWays = [length, width].find((digits) => readNumber(digits).kind === 'ambiguous');
  if (twoWays !== undefined) {
    const read = readNumber(twoWays);
    const readings = read.kind === 'ambiguous' ? read.readings : [];
    return {
      end,
      question: {
        code: 'number-two-ways',
        message: `Is ${twoWays} a decimal comma or thousands?`,
        choices: readings.map((r) => ({ label: text.replace(twoWays, r.text), replacement: text.replace(twoWays, r.text) })),
      },
    };
  }
  const symbol = unit.toLowerCase();
  const reads = [length, width].map((digits) => readNumber(digits));
  const metres = reads.map((r) => (r.kind === 'number' && isLengthUnit(symbol) ? lengthM(r.number.value, symbol) : Number.NaN));
  if (!metres.every((m) => m > 0 && m <= 10))
    return {
      end,
      question: {
        code: 'length-limit',
        message: 'A board is more than 0 and at most 10 m each way',
        choices: [keepAsWords(text), leaveOut],
      },
    };
  const steps = reads.map((r) => (r.kind === 'number' && isLengthUnit(symbol) ? toSi(r.number.step, LENGTH_UNITS[symbol]) : 0));
  const [lengthSi = 0, widthSi = 0] = metres;
  return {
    end,
    label: 'board',
    value: `${length} × ${width} ${symbol}`,
    about: 'lengthM',
    evidence: evidence(about ? 'I' : 'M', {
      u: about ? Math.max(...metres) / 10 : resolutionU(Math.max(...steps)),
      typed: `${about ?? ''}${length}x${width} ${symbol}`.replaceAll(',', '.'),
    }),
    put: { size: [lengthSi, widthSi] },
  };
};

const sidesMatcher: Matcher<BoardDraft> = (line, at) => {
  const match = matchAt(SIDES_AT, line, at);
  if (!match) return null;
  const sides = ['two', '2'].includes((match[1] ?? '').toLowerCase()) ? 2 : 1;
  return {
    end: at + match[0].length,
    label: 'placed on',
    value: sides === 2 ? 'both sides' : 'one side',
    about: 'sides',
    put: { sides },
  };
};

const layersMatcher: Matcher<BoardDraft> = (line, at) => {
  const match = matchAt(LAYERS_AT, line, at);
  if (!match) return null;
  const layers = Number(match[1]);
  const end = at + match[0].length;
  return layers >= 1 && layers <= 100
    ? { end, label: 'layers', value: String(layers), about: 'layers', put: { layers } }
    : { end, question: { code: 'layers-limit', message: 'A board has 1 to 100 layers', choices: [leaveOut] } };
};

/** Reads `board 240x195 2-sided 6-layer`, or null when the line does not begin so. */
export const boardCandidate = (line: string, start: number): Candidate | null => {
  const leading = matchAt(BOARD_LEAD, line, start);
  if (!leading) return null;
  const from = new RegExp(`(?:${COUNT_TEXT})?board`, 'iy');
  const plain = matchAt(from, line, start) ?? leading;
  const read = readSetLine<BoardDraft>({
    entity: 'board',
    line,
    start,
    leading: plain,
    matchers: [sizeMatcher, sidesMatcher, layersMatcher, otherQuantityMatcher('remark'), loneMarkMatcher, orphanMatcher],
    most: 1,
    kind: { label: 'of the part', value: 'circuit board' },
  });
  const { draft, note, evidence: said, questions } = read;
  const entry: BoardEntry = {
    kind: 'board',
    lengthM: draft.size?.[0] ?? null,
    widthM: draft.size?.[1] ?? null,
    sides: draft.sides ?? null,
    layers: draft.layers ?? null,
    note,
    evidence: said,
  };
  return { parsed: { line, understood: read.understood, questions, entry: questions.length > 0 ? null : entry }, cost: read.cost - 2 };
};

/** Words for classes of components beside their names. */
const CLASS_WORDS: Readonly<Record<string, ComponentClass>> = {
  ...Object.fromEntries(
    COMPONENT_CLASSES.flatMap((c) => [c, c === 'memory' ? c : `${c.replace(/switch$/, 'switche')}s`].map((word) => [word, c])),
  ),
  ic: 'integrated circuit',
  ics: 'integrated circuit',
  mosfet: 'power switch',
  mosfets: 'power switch',
  igbt: 'power switch',
  igbts: 'power switch',
  cap: 'capacitor',
  caps: 'capacitor',
  choke: 'inductor',
  chokes: 'inductor',
  crystal: 'oscillator',
  crystals: 'oscillator',
  led: 'lamp',
  leds: 'lamp',
  header: 'board connector',
  headers: 'board connector',
};
const CLASS = Object.keys(CLASS_WORDS)
  .sort((a, b) => b.length - a.length)
  .map((word) => word.replaceAll(' ', String.raw`\s+`))
  .join('|');
const COMPONENT_LEAD = new RegExp(String.raw`(?:${COUNT_TEXT}(?:\s?[x×*])?\s+)?(empty\s+)?(${CLASS})${CODE_END}`, 'iy');
const MARKED = /marked\s+(?:"((?:[^"]|"")*)"|([^\s"]+?))(?=(?:\?|@[MCSPTRI?])?,?(?:\s|$))/iy;

interface ComponentDraft {
  readonly marking: string;
}

const markingMatcher: Matcher<ComponentDraft> = (line, at) => {
  const match = matchAt(MARKED, line, at);
  if (!match) return null;
  const marking = (match[1] ?? match[2] ?? '').replaceAll('""', '"').replace(/\s+/g, ' ').trim();
  const end = at + match[0].length;
  if (marking === '' || marking.length > 200)
    return { end, question: { code: 'marking', message: 'A marking has 1 to 200 characters', choices: [leaveOut] } };
  return { end, label: 'marked', value: marking, about: 'marking', put: { marking } };
};

/** What a component is rated for, as `640 µF`: its marking, or a remark. */
const valueMatcher: Matcher<ComponentDraft> = (line, at) => {
  const other = otherQuantityMatcher('remark')(line, at) as Match<ComponentDraft> | null;
  if (!other?.question) return null;
  const text = line.slice(at, other.end);
  return {
    ...other,
    cost: 2,
    question: {
      ...other.question,
      choices: [{ label: `marked ${text}`, replacement: `marked ${quote(text)}` }, ...other.question.choices],
    },
  };
};

/** Reads `24 capacitors`, `2 empty switches`, `1 controller marked "AB 7"`, or null when the line does not begin so. */
export const componentCandidate = (line: string, start: number): Candidate | null => {
  const leading = matchAt(COMPONENT_LEAD, line, start);
  const componentClass = leading && CLASS_WORDS[(leading[8] ?? '').toLowerCase().replace(/\s+/g, ' ')];
  if (!leading || !componentClass) return null;
  const fitted = leading[7] === undefined;
  const read = readSetLine<ComponentDraft>({
    entity: 'components',
    line,
    start,
    leading,
    matchers: [markingMatcher, valueMatcher, loneMarkMatcher, orphanMatcher],
    most: 100_000,
    kind: { label: fitted ? 'on the board' : 'empty places for', value: componentClass },
  });
  if (!read.isCounted) return null;
  const { draft, count, note, evidence: said, questions } = read;
  const entry: ComponentEntry = { kind: 'components', count, componentClass, fitted, marking: draft.marking ?? '', note, evidence: said };
  const first = read.stretches[0];
  const isCompound =
    first?.match.word !== undefined && !isPlaceWord(first.match.word) && /^\s+$/.test(line.slice(start + leading[0].length, first.start));
  return {
    parsed: { line, understood: read.understood, questions, entry: questions.length > 0 ? null : entry },
    cost: read.cost + (isCompound ? (leading[2] === undefined ? 6 : 2) : 0),
  };
};
