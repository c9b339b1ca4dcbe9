import { millimetres, resolutionU } from '../../shared';
import { HAND_WORD, evidence, type Hand, type Evidence } from '../../record';
import {
  CODE_END,
  END,
  ask,
  directionMatcher,
  loneMarkMatcher,
  massEach,
  massMatcher,
  orphanMatcher,
  otherQuantityMatcher,
  spacedThousands,
  strayLengthMatcher,
  type MassDraft,
} from './common-matchers';
import { countMatcher, wordCountMatcher, type CountDraft } from './counts';
import type { Choice, ParsedLine, PartEntry, Question, Understood } from './entry';
import { materialMatcher, processMatcher, type MaterialDraft, type ProcessDraft } from './material-matchers';
import { matchAt } from './matching';
import {
  envelopeMatcher,
  gaugeMatcher,
  longMatcher,
  profileMatcher,
  roundMatcher,
  runDiameterMatcher,
  runMatcher,
  sidesMatcher,
  thicknessMatcher,
  tubeMatcher,
  type SizeDraft,
} from './part-sizes';
import { bareNumber, innerDiameter, massOfSeveral, splitMass, sumMatcher } from './part-numbers';
import { keepAsWords, labelled, leaveOut, quote, readLine, wordsAsOne, wordsOf, type Match, type Matcher, type Reading } from './reader';
import { JOINT_CODE } from './joint-words';
import { FASTENER_WORD, headFastener } from './fastener-words';

interface PartDraft extends MassDraft, MaterialDraft, ProcessDraft, CountDraft, SizeDraft {
  readonly tag: string;
  readonly hand: Hand;
}

const MOST_COUNT = 100_000;
const TAG = new RegExp(String.raw`#([A-Za-z0-9-]{1,40})${END}`, 'y');
const HANDED = new RegExp(
  String.raw`(lh\s?[/+&]\s?rh|rh\s?[/+&]\s?lh|l\s?[/+]\s?r|left\s?(?:[/+&]|and)\s?right|right\s?(?:[/+&]|and)\s?left|lh|rh|left|right)${CODE_END}`,
  'iy',
);
/** “right angle”, “left-hand thread”: no side of the vehicle */
const NO_SIDE = /\s+(?:angle|angled|way|up|side up|hand(?:ed)?|over)\b/iy;

const tagMatcher: Matcher<PartDraft> = (line, at) => {
  const match = matchAt(TAG, line, at);
  if (!match) return null;
  const tag = match[1] ?? '';
  // #10-32 is a thread as often as a tag
  const isThread = /^\d{1,2}-\d{1,3}$/.test(tag);
  return { end: at + match[0].length, label: 'tag', value: tag, put: { tag }, ...(isThread ? { cost: 4 } : {}) };
};

const handOf = (text: string): Hand => {
  const both = /l.*r|r.*l/i.test(text.replace(/right|left|lh|rh/gi, (word) => word.charAt(0)));
  return both ? 'mirrored' : /^l/i.test(text) ? 'left' : 'right';
};

/** `lh`, `left`, `lh/rh`. “left” within the name stays there as well. */
const handMatcher: Matcher<PartDraft> = (line, at) => {
  const match = matchAt(HANDED, line, at);
  const before = line[at - 1];
  if (!match || (before !== undefined && !/[\s,;([]/.test(before))) return null;
  const [text] = match;
  const end = at + text.length;
  const hand = handOf(text);
  const isWord = /^(?:left|right)$/i.test(text);
  if (isWord && matchAt(NO_SIDE, line, end)) return null;
  const said: Match<PartDraft> = { end, label: 'hand', value: HAND_WORD[hand], put: { hand }, about: 'hand', cost: 0.9 };
  if (!isWord) return said;
  return [
    { ...said, isBehind: 'code' },
    { ...said, word: text, isBehind: 'word' },
  ];
};

const strayDirection: Matcher<PartDraft> = (line, at) => {
  const match = directionMatcher(line, at);
  if (!match) return null;
  const text = line.slice(at, match.end);
  return ask(
    match.end,
    'direction-of-what',
    `${text}: a direction belongs to a fastener set, or behind “>” to the removal`,
    [{ label: 'how it came off', replacement: `> ${text}` }, leaveOut, keepAsWords(text)],
    1.5,
  );
};

const BARE_COUNT = /(\d{1,7})(?=\s+[^\s\d])/y;
const leadingNumber =
  (start: number): Matcher<PartDraft> =>
  (line, at) => {
    const digits = at === start ? matchAt(BARE_COUNT, line, at)?.[1] : undefined;
    if (digits === undefined) return null;
    return ask(
      at + digits.length,
      'count-or-name',
      `Is ${digits} the count, or part of the name?`,
      [
        { label: `${digits} parts`, replacement: `${digits}x` },
        { label: 'part of the name', replacement: quote(digits) },
      ],
      3,
    );
  };

/** Words that say what the next figure or code is. Words of the languages engineers write in, no source. */
const MASS_LABEL =
  /(?:(?:mass|weight|gewicht|masse|poids|peso|vikt|wt|wgt|m)\s*[=:]\s*|(?:wt\.?|weighs?|weighed|weighing|wgt\.?|wiegt|pèse|pesa|väger)\s+)/iy;
/** a weight and a mass may be what the part is: a balance weight, a damper mass */
const MASS_WORD = /(?:mass|weight|gewicht|masse|poids|peso|vikt)\s+(?=[~≈\d.,])/iy;
const MATERIAL_LABEL =
  /(?:(?:material|matl?\.?|werkstoff|matière|matériau|materiale)(?:\s*[=:]\s*|\s+)|(?:made\s+)?(?:of|from|in|aus)\s+)/iy;
const PROCESS_LABEL = /(?:process\s*[=:]?\s+|made\s+by\s+|by\s+)/iy;

/** A length above this is likelier a run than a wall, m (assumed). */
const MOST_LIKELY_WALL_M = 0.05;

const matchersFrom = (start: number): readonly Matcher<PartDraft>[] => [
  leadingNumber(start),
  sumMatcher,
  splitMass,
  wordCountMatcher(start),
  countMatcher(MOST_COUNT),
  tagMatcher,
  massMatcher,
  massOfSeveral,
  labelled(MASS_LABEL, massMatcher),
  labelled(MASS_WORD, massMatcher, 2),
  spacedThousands,
  envelopeMatcher,
  sidesMatcher,
  profileMatcher,
  roundMatcher,
  tubeMatcher,
  thicknessMatcher,
  gaugeMatcher,
  runMatcher,
  runDiameterMatcher,
  longMatcher,
  strayLengthMatcher((length, metres) => {
    const wall: Choice = { label: `thickness ${length}`, replacement: `t${length}` };
    const run: Choice = { label: `run length ${length}`, replacement: `run ${length}` };
    // no wall is as thick as that
    return (metres ?? 0) > MOST_LIKELY_WALL_M ? [run, wall] : [wall, run];
  }, 'name'),
  otherQuantityMatcher('name'),
  bareNumber,
  innerDiameter,
  handMatcher,
  strayDirection,
  loneMarkMatcher,
  orphanMatcher,
  materialMatcher('name'),
  labelled(MATERIAL_LABEL, materialMatcher('name')),
  processMatcher,
  labelled(PROCESS_LABEL, processMatcher),
];

const MOST_NAME = 200;
/** A fastener heavier than this is asked about, kg. Assumed: the largest wheel stud of a van weighs a quarter of it. */
const MOST_FASTENER_KG = 2;

const nameQuestions = (name: string, line: string, start: number): readonly Question[] => {
  const whole = { start, end: line.length };
  if (name === '') return [{ ...whole, code: 'no-name', message: 'What is it called? Type a name among the codes', choices: [] }];
  if (name.length > MOST_NAME)
    return [{ ...whole, code: 'name-long', message: `A name may have at most ${MOST_NAME} characters`, choices: [] }];
  return [];
};

export interface Candidate {
  readonly parsed: ParsedLine;
  /** how unlikely it is that the line is of this kind */
  readonly cost: number;
}

/** A fastener by its name, of a mass no fastener has: probably grams. */
const massQuestion = (name: string, line: string, mass: PartEntry['mass'], spans: readonly Understood[]): readonly Question[] => {
  const chip = spans.find((u) => u.label === 'mass each');
  if (!mass || !chip || mass.typed.includes('!') || !(mass.eachKg > MOST_FASTENER_KG) || !headFastener(name)) return [];
  const text = line.slice(chip.start, chip.end);
  const inGrams = text.replace(/kgs?|kilos?|tonnes?|t\b|lbs?|pounds?/i, 'g');
  return [
    {
      start: chip.start,
      end: chip.end,
      code: 'mass-unlikely',
      message: `${text} for one ${name}?`,
      choices: [
        ...(inGrams === text ? [] : [{ label: inGrams, replacement: inGrams }]),
        { label: `${text}, as it stands`, replacement: text.replace(/(\s*(?:\?|@[MCSPTRI?]))?$/i, '!$1') },
        { label: 'without a mass', replacement: '' },
      ],
    },
  ];
};

const NO_MARK = evidence('M');

/** Left and right in pairs come in even numbers. */
const oddPair = (quantity: number, { start, end }: Understood): readonly Question[] =>
  quantity % 2 === 0
    ? []
    : [
        {
          start,
          end,
          code: 'pair-count',
          message: `${quantity} in all cannot be left and right in pairs`,
          choices: [leaveOut, { label: 'left', replacement: 'lh' }, { label: 'right', replacement: 'rh' }],
        },
      ];

/** What was read as a part; what is not said is null. */
const entryOf = (
  { draft, evidence: read }: Reading<PartDraft>,
  name: string,
  { quantity, hand, mass }: Pick<PartEntry, 'quantity' | 'hand' | 'mass'>,
): PartEntry => {
  const counted = draft.count ?? null;
  const evidence: Record<string, Evidence> = { ...read };
  // one stretch that says both how long and how wide a run is
  if (
    draft.runDiameterM !== undefined &&
    evidence.runDiameterM === undefined &&
    draft.runLengthM !== undefined &&
    evidence.runLengthM === undefined
  ) {
    evidence.runLengthM = { ...NO_MARK, typed: `${millimetres(draft.runLengthM)} mm`, u: resolutionU(1e-3) };
    evidence.runDiameterM = { ...NO_MARK, typed: `${millimetres(draft.runDiameterM)} mm`, u: resolutionU(1e-3) };
  }
  return {
    kind: 'part',
    quantity,
    name,
    materialId: draft.materialId ?? null,
    materialDetail: draft.materialDetail ?? '',
    processId: draft.processId ?? null,
    mass,
    wallThicknessM: draft.wallThicknessM ?? null,
    envelopeM: draft.envelopeM ?? null,
    runLengthM: draft.runLengthM ?? null,
    runDiameterM: draft.runDiameterM ?? null,
    hand,
    tag: draft.tag ?? '',
    together: false,
    evidence: counted?.evidence ? { quantity: counted.evidence, ...evidence } : evidence,
  };
};

/** Reads a line that records a part. */
export const partCandidate = (line: string, start: number): Candidate => {
  const reading = readLine<PartDraft>('part', line, start, matchersFrom(start), 'name');
  const { draft } = reading;
  const name = wordsOf(reading.words);
  const hand = draft.hand ?? 'none';
  const counted = draft.count ?? null;
  const isPair = hand === 'mirrored';
  const quantity = counted?.count ?? (isPair ? 2 : 1);
  const mass = massEach(draft.mass, quantity);
  const handChip = reading.understood.find((u) => u.label === 'hand');
  const pairQuestions = isPair && counted !== null && counted.evidence === null && handChip ? oddPair(quantity, handChip) : [];
  const open = [...reading.questions, ...pairQuestions];
  const unlikely = open.length === 0 ? massQuestion(name, line, mass, reading.understood) : [];
  const questions = [...open, ...unlikely, ...(open.length > 0 && name === '' ? [] : nameQuestions(name, line, start))];
  const pairChip: readonly Understood[] =
    isPair && counted === null && handChip ? [{ ...handChip, label: 'count', value: '2: one of each hand', mark: 'C' }] : [];
  const chips = reading.understood.map((u) =>
    u.label === 'hand' && isPair && counted !== null ? { ...u, value: `${u.value}: ${quantity / 2} of each` } : u,
  );
  const entry = entryOf(reading, name, { quantity, hand, mass });
  // words that are codes elsewhere are less likely in the name of a part
  const codeWords = reading.stretches.filter(({ match }) => {
    const word = match.word?.replace(/[,;]$/, '') ?? '';
    return FASTENER_WORD.test(word) || JOINT_CODE.test(word);
  }).length;
  return {
    parsed: {
      line,
      understood: wordsAsOne([...pairChip, ...chips], 'name', name),
      questions,
      entry: questions.length > 0 ? null : entry,
    },
    cost: reading.cost + (name === '' ? 6 : 0) + 1.5 * codeWords,
  };
};
