import { standardFastenerMass } from '../fasteners/fastener-mass';
import { massEach } from './common-matchers';
import { isCountedAsParts } from './counts';
import type { FastenerKind } from '../../record';
import type { Choice, FastenerEntry, ParsedLine, Question, Understood } from './entry';
import { ADJECTIVE, kindsNamed } from './fastener-words';
import { fastenerMatchers, type FastenerDraft } from './fastener-matchers';
import { isPlaceWord } from './matching';
import type { Candidate } from './parse-part';
import { quote, readLine, wordsAsOne, wordsOf, type Reading, type Stretch } from './reader';

/** How far the mass of a fastener may be from that of a standard one before it is asked about. Assumed. */
const UNLIKELY_TIMES = 10;
const MOST_FASTENER_KG = 2;

const massQuestion = (entry: FastenerEntry, line: string, chips: readonly Understood[]): readonly Question[] => {
  const chip = chips.find((u) => u.label === 'mass each' || u.label === 'mass in all');
  if (!entry.mass || !chip || entry.mass.typed.includes('!')) return [];
  const standard = standardFastenerMass({ ...entry, kind: entry.fastenerKind })?.kg ?? null;
  const { eachKg } = entry.mass;
  const sharedKg = eachKg / entry.count;
  // several weighed together and “total” forgotten: each would be too heavy, and a share of it is about right
  const fitsShared =
    standard !== null &&
    entry.count > 1 &&
    chip.label === 'mass each' &&
    eachKg > 2 * standard &&
    sharedKg < standard * 2 &&
    sharedKg > standard / 2;
  const off = standard === null ? eachKg > MOST_FASTENER_KG : !(eachKg < standard * UNLIKELY_TIMES && eachKg > standard / UNLIKELY_TIMES);
  if (!off && !fitsShared) return [];
  const text = line.slice(chip.start, chip.end);
  const other = /kg|kilo/i.test(text) ? text.replace(/kgs?|kilos?/i, 'g') : text.replace(/\bg\b/i, 'kg');
  const inAll = `total ${text}`;
  return [
    {
      start: chip.start,
      end: chip.end,
      code: 'mass-unlikely',
      message: `${text} for one of these?${standard === null ? '' : ` A standard one weighs about ${Number((standard * 1000).toPrecision(2))} g`}`,
      choices: [
        ...(fitsShared ? [{ label: `${text} in all`, replacement: inAll }] : []),
        ...(other === text || !off ? [] : [{ label: other, replacement: other }]),
        { label: `${text}, as it stands`, replacement: text.replace(/(\s*(?:\?|@[MCSPTRI?]))?$/i, '!$1') },
        { label: 'without a mass', replacement: '' },
      ],
    },
  ];
};

const MOST_NOTE = 400;
/** Kinds without a property class. */
const CLASSLESS: readonly FastenerKind[] = ['rivet', 'washer', 'clip', 'push pin', 'cable tie'];

/** “4x rivnut M8”: a word before the thread that names no kind is asked about; it is no bolt because it has a thread. */
const kindQuestion = (stretches: readonly Stretch<FastenerDraft>[], line: string): readonly Question[] => {
  if (stretches.some(({ match }) => match.put && 'fastenerKind' in match.put)) return [];
  const thread = stretches.findIndex(({ match }) => match.put && 'threadM' in match.put);
  const own = stretches
    .slice(0, Math.max(0, thread))
    .find(
      ({ start, match }) =>
        match.word !== undefined && match.word !== '' && line[start] !== '"' && !ADJECTIVE.test(match.word.replace(/[,;]$/, '')),
    );
  const sized = stretches[thread];
  if (!own || !sized) return [];
  const end = sized.match.end;
  const word = own.match.word ?? '';
  const rest = line.slice(own.match.end, end);
  const asKind = (kind: FastenerKind): Choice => ({ label: `${kind}, “${word}”`, replacement: `${quote(word)} ${kind}${rest}` });
  const asPart: Choice = { label: `a part, “${line.slice(own.start, end)}”`, replacement: quote(line.slice(own.start, end)) };
  const fasteners = (
    /nut|mutter|insert/i.test(word) ? (['nut', 'bolt', 'screw', 'stud'] as const) : (['bolt', 'screw', 'nut', 'stud'] as const)
  ).map(asKind);
  const isLong = sized.match.put && 'lengthM' in sized.match.put;
  return [
    {
      start: own.start,
      end,
      code: 'which-kind',
      message: `“${word}”: which kind of fastener is it, or is it a part?`,
      choices: isLong || /nut|mutter|insert/i.test(word) ? [...fasteners, asPart] : [asPart, ...fasteners],
    },
  ];
};

/** Words before the kind that do not say which fastener it is make a part of it rather: “nut plate”, “hose clip holder”. */
const headCost = (stretches: readonly Stretch<FastenerDraft>[], line: string): number => {
  const has = (field: string): boolean => stretches.some(({ match }) => match.put && field in match.put);
  const isSure = has('threadM') && has('fastenerKind') && has('count');
  let cost = 0;
  let isHeadSeen = false;
  for (const { start, match } of stretches) {
    const isWord = match.word !== undefined && match.label === undefined && line[start] !== '"';
    if (match.put && ('fastenerKind' in match.put || 'threadM' in match.put)) {
      const next = stretches.find((s) => s.start > start);
      const isCompound =
        'fastenerKind' in match.put &&
        next?.match.word !== undefined &&
        line[next.start] !== '"' &&
        /^,?\s+$/.test(line.slice(match.end, next.start));
      if (isCompound && !isPlaceWord(next.match.word ?? '')) cost += 3;
      isHeadSeen = true;
    } else if (isWord && !isHeadSeen && !ADJECTIVE.test((match.word ?? '').replace(/[,;]$/, ''))) cost += isSure ? 1 : 5;
  }
  return cost;
};

/** How many there are is not said. */
const countQuestion = (start: number): Question => ({
  start,
  end: start,
  code: 'no-count',
  message: 'How many? Put the count first',
  choices: [1, 2, 4].map((n) => ({ label: String(n), replacement: `${n} ` })),
});

/** What was read as a fastener set; what is not said is null, and a set without a kind is of bolts. */
const entryOf = ({ draft, evidence }: Reading<FastenerDraft>, note: string): FastenerEntry => {
  const counted = draft.count ?? null;
  const count = counted?.count ?? 1;
  return {
    kind: 'fasteners',
    count,
    fastenerKind: draft.fastenerKind ?? 'bolt',
    threadM: draft.threadM ?? null,
    pitchM: draft.pitchM ?? null,
    lengthM: draft.lengthM ?? null,
    drive: draft.drive ?? '',
    grade: draft.grade ?? '',
    direction: draft.direction ?? null,
    tighteningNm: draft.tighteningNm ?? null,
    breakawayNm: draft.breakawayNm ?? null,
    access: draft.access ?? null,
    tool: draft.tool ?? '',
    removed: draft.removed ?? null,
    mass: massEach(draft.mass, count),
    note,
    evidence: counted?.evidence ? { count: counted.evidence, ...evidence } : evidence,
  };
};

/** Reads a line as a fastener set; null when nothing in it is one. */
export const fastenerCandidate = (line: string, start: number): Candidate | null => {
  const kinds = kindsNamed(line);
  const isNut = kinds.has('nut');
  const isFlat = isNut || kinds.has('washer');
  const isClassless = !isNut && CLASSLESS.some((kind) => kinds.has(kind));
  const reading = readLine<FastenerDraft>('fasteners', line, start, fastenerMatchers(start, { isNut, isFlat, isClassless }), 'remark');
  const { draft, stretches } = reading;
  const isHead = stretches.some(({ match }) => match.put && ('fastenerKind' in match.put || 'threadM' in match.put));
  const isThreadAsked = stretches.some(({ match }) => match.question?.code === 'no-such-thread' || match.question?.code === 'thread-size');
  // a size in mm alone is no fastener: “8x8” is anything
  const isSizeAlone =
    draft.fastenerKind === undefined && draft.drive === undefined && stretches.some(({ match }) => match.label === 'size');
  if ((!isHead || isSizeAlone) && !isThreadAsked) return null;
  const countStretch =
    stretches.find(({ match }) => match.put && 'count' in match.put) ??
    stretches.find(({ match }) => match.question?.code.startsWith('count'));
  const asParts = countStretch ? isCountedAsParts(line, countStretch.start, countStretch.match.end) : false;
  const asked = countStretch || reading.questions.some((q) => q.code === 'mass-without-unit') ? [] : [countQuestion(start)];
  const note = wordsOf(reading.words);
  const tooLong: readonly Question[] =
    note.length > MOST_NOTE
      ? [{ start, end: line.length, code: 'note-long', message: `A remark may have at most ${MOST_NOTE} characters`, choices: [] }]
      : [];
  const entry = entryOf(reading, note);
  const understood = wordsAsOne(reading.understood, 'remark', note);
  const open = [...kindQuestion(stretches, line), ...asked, ...reading.questions, ...tooLong];
  const questions = open.length > 0 ? open : massQuestion(entry, line, understood);
  const hasOwnCode = ['threadM', 'drive', 'grade', 'tighteningNm', 'breakawayNm'].some((field) => field in draft);
  return {
    parsed: { line, understood, questions, entry: questions.length > 0 ? null : entry },
    cost:
      reading.cost +
      headCost(stretches, line) +
      (countStretch ? 0 : 4) +
      (asParts && !hasOwnCode ? 1.5 : 0) +
      0.5 * (note === '' ? 0 : note.split(' ').length),
  };
};

/** Reads a line as a fastener set, whatever else it could be; null when nothing in it is one. */
export const parseFasteners = (line: string, start: number): ParsedLine | null => fastenerCandidate(line, start)?.parsed ?? null;
