import { ESTIMATE_RELATIVE_U, LENGTH_UNITS, fixed, isLengthUnit, millimetres, readNumber, resolutionU, toSi } from '../../shared';
import { HAND_WORD, known, type Hand, type Known } from '../../record';
import {
  CODE_END,
  END,
  bareNumberMatcher,
  directionMatcher,
  lengthM,
  loneMarkMatcher,
  massEach,
  massMatcher,
  readingsOf,
  strayLengthMatcher,
  type MassDraft,
} from './common-matchers';
import type { ParsedLine, PieceEntry, Question, Understood } from './entry';
import { COUNT_TEXT, readCount } from './how-known';
import { matchAt } from './matching';
import { keepAsWords, leaveOut, quote, readLine, tidy, wordsAsOne, type Match, type Matcher } from './reader';
import { KIND } from './parse-fasteners';
import { materialNamed, processNamed, vagueMaterial, vagueProcess } from './vocabulary';

interface PieceDraft extends MassDraft {
  readonly tag: string;
  readonly envelopeM: readonly [number, number, number];
  readonly wallThicknessM: number;
  readonly runLengthM: number;
  readonly hand: Hand;
  readonly materialId: string;
  readonly processId: string;
}

const NUMBER = String.raw`\d[\d.,]*`;
const COUNT = new RegExp(String.raw`${COUNT_TEXT}\s?[x×](?=\s|$)`, 'iy');
const FASTENER_WORD = new RegExp(String.raw`${KIND}(?=\s|$)`, 'iy');
const BARE_COUNT = /(\d{1,7})(?=\s+[^\s\d])/y;
const TAG = new RegExp(String.raw`#([A-Za-z0-9-]{1,40})${END}`, 'y');
const SPREAD = String.raw`(?:\s*(?:±|\+-|\+\/-)\s*(${NUMBER})\s*(mm|cm|m|in|ft)?)?`;
const ENVELOPE = new RegExp(String.raw`(~)?(${NUMBER})\s?[x×]\s?(${NUMBER})(?:\s?[x×]\s?(${NUMBER}))?\s*(mm|cm|m|in|ft)?${CODE_END}`, 'iy');
const THICKNESS = new RegExp(String.raw`t\s?(~)?(${NUMBER})\s*(mm|cm|m|in|ft)?${SPREAD}${CODE_END}`, 'iy');
const RUN = new RegExp(String.raw`run\s+(~)?(${NUMBER})\s*(mm|cm|m|in|ft)?${SPREAD}${CODE_END}`, 'iy');
const HANDED = new RegExp(String.raw`(lh\/rh|lh|rh)${CODE_END}`, 'iy');
const CODE = /[^\s"]+?(?=(?:\?|@[MCSPTRI?])?,?(?:\s|$))/iy;

const unitOf = (word: string | undefined): keyof typeof LENGTH_UNITS => {
  const symbol = (word ?? 'mm').toLowerCase();
  return isLengthUnit(symbol) ? symbol : 'mm';
};

interface Sized {
  readonly label: string;
  readonly text: string;
  readonly end: number;
  readonly digits: readonly string[];
  readonly unit: string | undefined;
  readonly mostM: number;
}

/** Lengths in m, or the question that keeps them from being read. */
const readLengths = ({
  label,
  text,
  end,
  digits,
  unit,
  mostM,
}: Sized): { readonly lengths: readonly number[]; readonly stepM: number } | Match<PieceDraft> => {
  const read = digits.map(readNumber);
  const twoWays = digits.find((_, i) => read[i]?.kind === 'ambiguous');
  if (twoWays !== undefined)
    return {
      end,
      question: {
        code: 'number-two-ways',
        message: `Is ${twoWays} a decimal comma or thousands?`,
        choices: readingsOf(twoWays, (d) => text.replace(twoWays, d)),
      },
    };
  const lengths = read.map((r) => (r.kind === 'number' ? lengthM(r.number.value, unitOf(unit)) : Number.NaN));
  const steps = read.map((r) => (r.kind === 'number' ? toSi(r.number.step, LENGTH_UNITS[unitOf(unit)]) : Number.NaN));
  if (lengths.every((l) => l > 0 && l <= mostM)) return { lengths, stepM: Math.max(...steps) };
  return {
    end,
    question: {
      code: 'length-limit',
      message: `The ${label} must be more than 0 and at most ${mostM} m`,
      choices: [keepAsWords(text), leaveOut],
    },
  };
};

const tagMatcher: Matcher<PieceDraft> = (line, at) => {
  const match = matchAt(TAG, line, at);
  return match ? { end: at + match[0].length, label: 'tag', value: match[1] ?? '', put: { tag: match[1] ?? '' } } : null;
};

/** How a typed length is known: an estimate after `~`, with the uncertainty stated or that of its last digit. */
const lengthKnown = (typed: string, largestM: number, stepM: number, about: boolean, spreadM: number | null): Known =>
  known(about ? 'I' : 'M', {
    u: spreadM ?? (about ? Math.max(resolutionU(stepM), largestM * ESTIMATE_RELATIVE_U) : resolutionU(stepM)),
    typed: `${about ? '~' : ''}${typed}${spreadM === null ? '' : ` ±${millimetres(spreadM)} mm`}`,
  });

/** The uncertainty behind a length in m, in the length's own unit unless it names one; undefined when it cannot be read. */
const spreadOf = (digits: string | undefined, unit: string | undefined): number | null | undefined => {
  if (digits === undefined) return null;
  const read = readNumber(digits);
  const metres = read.kind === 'number' ? lengthM(read.number.value, unitOf(unit)) : Number.NaN;
  return metres > 0 && metres <= 1000 ? metres : undefined;
};

const noSpread = (end: number): Match<PieceDraft> => ({
  end,
  question: { code: 'u-zero', message: 'An uncertainty is more than 0', choices: [leaveOut] },
});

export const envelopeMatcher: Matcher<PieceDraft> = (line, at) => {
  const match = matchAt(ENVELOPE, line, at);
  if (!match) return null;
  const [text, about, length = '', width = '', height, unit] = match;
  const end = at + text.length;
  if (height === undefined)
    return {
      end,
      question: { code: 'two-dimensions', message: `${text}: an envelope has three dimensions`, choices: [keepAsWords(text), leaveOut] },
    };
  const read = readLengths({ label: 'envelope', text, end, digits: [length, width, height], unit, mostM: 100 });
  if (!('lengths' in read)) return read;
  const envelopeM = read.lengths as unknown as readonly [number, number, number];
  const typed = `${[length, width, height].join('x')} ${unitOf(unit)}`.replaceAll(',', '.');
  return {
    end,
    label: 'envelope',
    value: `${envelopeM.map((l) => fixed(millimetres(l), decimalsOf(l))).join(' × ')} mm`,
    put: { envelopeM },
    about: 'lengthM',
    known: lengthKnown(typed, Math.max(...envelopeM), read.stepM, about !== undefined, null),
  };
};

const decimalsOf = (metres: number): number => String(millimetres(metres)).split('.')[1]?.length ?? 0;

export const thicknessMatcher: Matcher<PieceDraft> = (line, at) => {
  const match = matchAt(THICKNESS, line, at);
  if (!match) return null;
  const [text, about, digits = '', unit, plusMinus, plusMinusUnit] = match;
  const end = at + text.length;
  const read = readLengths({ label: 'thickness', text, end, digits: [digits], unit, mostM: 1 });
  if (!('lengths' in read)) return read;
  const spreadM = spreadOf(plusMinus, plusMinusUnit ?? unit);
  if (spreadM === undefined) return noSpread(end);
  const wallThicknessM = read.lengths[0] ?? 0;
  const typed = `${digits.replace(',', '.')} ${unitOf(unit)}`;
  return {
    end,
    label: 'thickness',
    value: `${millimetres(wallThicknessM)} mm`,
    put: { wallThicknessM },
    about: 'wallThicknessM',
    known: lengthKnown(typed, wallThicknessM, read.stepM, about !== undefined, spreadM),
  };
};

export const runMatcher: Matcher<PieceDraft> = (line, at) => {
  const match = matchAt(RUN, line, at);
  if (!match) return null;
  const [text, about, digits = '', unit, plusMinus, plusMinusUnit] = match;
  const end = at + text.length;
  if (unit === undefined)
    return {
      end,
      question: {
        code: 'length-without-unit',
        message: `run ${digits}: m or mm?`,
        choices: ['m', 'mm'].map((u) => ({ label: `${digits} ${u}`, replacement: `run ${about ?? ''}${digits} ${u}` })),
      },
    };
  const read = readLengths({ label: 'run', text, end, digits: [digits], unit, mostM: 1000 });
  if (!('lengths' in read)) return read;
  const spreadM = spreadOf(plusMinus, plusMinusUnit ?? unit);
  if (spreadM === undefined) return noSpread(end);
  const runLengthM = read.lengths[0] ?? 0;
  const typed = `${digits.replace(',', '.')} ${unitOf(unit)}`;
  return {
    end,
    label: 'run length',
    value: `${millimetres(runLengthM)} mm`,
    put: { runLengthM },
    about: 'runLengthM',
    known: lengthKnown(typed, runLengthM, read.stepM, about !== undefined, spreadM),
  };
};

const HAND_OF: Readonly<Record<string, Hand>> = { lh: 'left', rh: 'right', 'lh/rh': 'mirrored' };

const handMatcher: Matcher<PieceDraft> = (line, at) => {
  const match = matchAt(HANDED, line, at);
  const hand = match && HAND_OF[match[0].toLowerCase()];
  return match && hand ? { end: at + match[0].length, label: 'hand', value: HAND_WORD[hand], put: { hand }, about: 'hand' } : null;
};

const strayDirection: Matcher<PieceDraft> = (line, at) => {
  const match = directionMatcher(line, at);
  if (!match) return null;
  const text = line.slice(at, match.end);
  return {
    end: match.end,
    question: {
      code: 'direction-of-what',
      message: `${text}: a direction belongs to a fastener set`,
      choices: [leaveOut, keepAsWords(text)],
    },
  };
};

const codeMatcher: Matcher<PieceDraft> = (line, at) => {
  const code = matchAt(CODE, line, at)?.[0];
  if (code === undefined) return null;
  const end = at + code.length;
  const unsure = line[end] === '?';
  const material = materialNamed(code);
  if (material) return { end, label: 'material', value: material.name, put: { materialId: material.id }, about: 'materialId' };
  const process = processNamed(code);
  if (process) return { end, label: 'made by', value: process.name, put: { processId: process.id }, about: 'processId' };
  const materials = vagueMaterial(code);
  const processes = vagueProcess(code);
  if (!materials && !processes) return null;
  const stop = unsure ? end + 1 : end;
  const choices = [...(materials ?? []), ...(processes ?? [])].map((m) => ({ label: m.name, replacement: m.id }));
  const message = materials ? `“${code}” is not a grade; which one?` : `“${code}” could be made in several ways; which one?`;
  return {
    end: stop,
    question: { code: materials ? 'material-family' : 'process-family', message, choices: [...choices, keepAsWords(line.slice(at, stop))] },
  };
};

/** Grades whose name is a number: `6082`. Any other number alone is asked about. */
const numberedGrade: Matcher<PieceDraft> = (line, at) =>
  /\d/.test(line[at] ?? '') && materialNamed(matchAt(CODE, line, at)?.[0] ?? '') ? codeMatcher(line, at) : null;

const MATCHERS: readonly Matcher<PieceDraft>[] = [
  tagMatcher,
  massMatcher,
  envelopeMatcher,
  thicknessMatcher,
  runMatcher,
  strayLengthMatcher((length) => [
    { label: `thickness ${length}`, replacement: `t${length}` },
    { label: `run length ${length}`, replacement: `run ${length}` },
  ]),
  numberedGrade,
  bareNumberMatcher,
  handMatcher,
  strayDirection,
  loneMarkMatcher,
  codeMatcher,
];

interface Lead {
  readonly from: number;
  readonly quantity: number;
  readonly known: Known | null;
  readonly understood: readonly Understood[];
  readonly questions: readonly Question[];
}

const lead = (line: string, start: number): Lead => {
  const count = matchAt(COUNT, line, start);
  const span = (text: string): { start: number; end: number } => ({ start, end: start + text.length });
  const fastener = count && matchAt(FASTENER_WORD, line, start + count[0].length + 1);
  if (count && fastener) {
    const [digits = '', word] = [count[2], fastener[0]];
    const text = line.slice(start, start + count[0].length + 1 + word.length);
    const choices = [
      { label: `a fastener set: ${digits} ${word}`, replacement: `${digits} ${word}` },
      { label: `${digits} pieces called ${word}`, replacement: `${digits}x ${quote(word)}` },
    ];
    return {
      from: start + text.length,
      quantity: 1,
      known: null,
      understood: [],
      questions: [{ ...span(text), code: 'set-or-piece', message: `Is ${text} a fastener set, or pieces?`, choices }],
    };
  }
  if (count) {
    const said = readCount(count.slice(1));
    const inside = said !== null && said.count >= 1 && said.count <= 100_000;
    const message = said === null ? 'A range goes from the lower to the higher count' : 'A count is from 1 to 100 000';
    return {
      from: start + count[0].length,
      quantity: inside ? said.count : 1,
      known: inside ? said.known : null,
      understood: inside ? [{ ...span(count[0]), label: 'count', value: said.value, evidence: said.mark }] : [],
      questions: inside ? [] : [{ ...span(count[0]), code: 'count-limit', message, choices: [leaveOut] }],
    };
  }
  const bare = massMatcher(line, start) || strayLengthMatcher(() => [])(line, start) ? null : matchAt(BARE_COUNT, line, start);
  if (!bare) return { from: start, quantity: 1, known: null, understood: [], questions: [] };
  const digits = bare[1] ?? '';
  return {
    from: start + digits.length,
    quantity: 1,
    known: null,
    understood: [],
    questions: [
      {
        ...span(digits),
        code: 'count-or-name',
        message: `Is ${digits} the count, or part of the name?`,
        choices: [
          { label: `${digits} pieces`, replacement: `${digits}x` },
          { label: 'part of the name', replacement: quote(digits) },
        ],
      },
    ],
  };
};

const MOST_NAME = 200;

const nameQuestions = (name: string, line: string, start: number): readonly Question[] => {
  const whole = { start, end: line.length };
  if (name === '') return [{ ...whole, code: 'no-name', message: 'What is it called? Type a name among the codes', choices: [] }];
  if (name.length > MOST_NAME)
    return [{ ...whole, code: 'name-long', message: `A name may have at most ${MOST_NAME} characters`, choices: [] }];
  return [];
};

/** Reads a line that records a piece. */
export const parsePiece = (line: string, start: number): ParsedLine => {
  const { from, quantity, known: counted, understood: leading, questions: asked } = lead(line, start);
  const reading = readLine<PieceDraft>('piece', line, from, MATCHERS);
  const name = tidy(reading.words.join(' ')).replace(/,+$/, '').trim();
  const open = [...asked, ...reading.questions];
  const questions = [...open, ...(open.length > 0 && name === '' ? [] : nameQuestions(name, line, start))];
  const understood = wordsAsOne([...leading, ...reading.understood], 'name', name);
  const { draft } = reading;
  const entry: PieceEntry = {
    kind: 'piece',
    quantity,
    name,
    materialId: draft.materialId ?? null,
    processId: draft.processId ?? null,
    mass: massEach(draft.mass, quantity),
    wallThicknessM: draft.wallThicknessM ?? null,
    envelopeM: draft.envelopeM ?? null,
    runLengthM: draft.runLengthM ?? null,
    hand: draft.hand ?? 'none',
    tag: draft.tag ?? '',
    together: false,
    known: counted === null ? reading.known : { quantity: counted, ...reading.known },
  };
  return { line, understood, questions, entry: questions.length > 0 ? null : entry };
};
