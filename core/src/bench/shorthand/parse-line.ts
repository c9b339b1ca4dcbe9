import { UNPRINTABLE } from '../../shared';
import { usualCharacters } from './characters';
import type { Choice, Entry, ParsedLine, Question } from './entry';
import { matchAt } from './matching';
import { boardCandidate, componentCandidate } from './parse-boards';
import { connectionCandidate } from './parse-connections';
import { fastenerCandidate } from './parse-fasteners';
import { fluidCandidate } from './parse-fluids';
import { jointCandidate } from './parse-joints';
import { partCandidate, type Candidate } from './parse-part';
import { STEP_FIGURE, parseStep } from './parse-step';
import { printQuoted } from './print-entry';

/** Longest line that is read. */
const MOST_CHARACTERS = 1000;
/** Kinds of record whose costs are this near to each other are both likely. */
const NEAR_TIE = 1.5;

/** `+ bracket …`: it comes off together with the part before */
const TOGETHER = /\+\s+(?=\S)/y;
/** ` > `: what follows says how it came off; `>5 kg` and `>= 12x` do not begin so */
const REMOVAL = new RegExp(String.raw`\s>(?=\s+[^\d\s=]|[A-Za-z]|\s+(?:${STEP_FIGURE})|\s*$)`, 'i');

const refused = (line: string, code: string, message: string): ParsedLine => ({
  line,
  understood: [],
  questions: [{ start: 0, end: line.length, code, message, choices: [] }],
  entry: null,
});

const KIND_WORD: Readonly<Record<Entry['kind'], string>> = {
  part: 'a part',
  fasteners: 'a fastener set',
  joints: 'joints',
  connection: 'a connection',
  components: 'components of a board',
  board: 'a circuit board',
  fluid: 'a fluid',
  step: 'a removal',
};

/** What a line would be kept as if its questions were settled by their first choices; null when that leads nowhere. */
const settledEntry = (parsed: ParsedLine, read: (line: string) => ParsedLine | null): Entry | null => {
  let now: ParsedLine | null = parsed;
  for (let i = 0; i < 4 && now !== null; i++) {
    if (now.entry) return now.entry;
    const question: Question | undefined = now.questions[0];
    const choice: Choice | undefined = question?.choices[0];
    now = question && choice ? read(settle(now.line, question, choice.replacement)) : null;
  }
  return now?.entry ?? null;
};

const describe = (entry: Entry): string => {
  if (entry.kind === 'part') return `${entry.quantity === 1 ? 'a part' : `${entry.quantity} parts`} called ${entry.name}`;
  const count = 'count' in entry ? `${entry.count} ` : '';
  const what =
    entry.kind === 'fasteners'
      ? entry.fastenerKind
      : entry.kind === 'joints'
        ? entry.jointKind
        : entry.kind === 'connection'
          ? entry.connectionKind
          : '';
  return `${KIND_WORD[entry.kind]}${what === '' ? '' : `: ${count}${what}`}`;
};

type Reader = (line: string, start: number) => Candidate | null;
const READERS: readonly Reader[] = [
  partCandidate,
  fastenerCandidate,
  jointCandidate,
  connectionCandidate,
  boardCandidate,
  componentCandidate,
];

/** What a line records: of all kinds of record it could be, the likeliest; which it is, is asked where two are. */
const recordOf = (line: string, start: number): ParsedLine => {
  const fluid = fluidCandidate(line, start);
  if (fluid) return fluid.parsed;
  const candidates = READERS.map((read) => ({ read, found: read(line, start) }))
    .flatMap(({ read, found }) => (found ? [{ read, ...found }] : []))
    .sort((a, b) => a.cost - b.cost);
  const [best, ...others] = candidates;
  if (!best) return partCandidate(line, start).parsed;
  const near = others.filter((other) => other.cost - best.cost < NEAR_TIE);
  if (near.length === 0) return best.parsed;
  const choices = [best, ...near].flatMap(({ parsed, read }): readonly Choice[] => {
    const entry = settledEntry(parsed, (text) => read(text, 0)?.parsed ?? null);
    return entry ? [{ label: describe(entry), replacement: printQuoted(entry) }] : [];
  });
  if (choices.length < 2 || choices.some(({ replacement }) => replacement === line.slice(start))) return best.parsed;
  return {
    line,
    understood: best.parsed.understood.filter((u) => u.label === 'count'),
    questions: [{ start, end: line.length, code: 'set-or-part', message: `What is “${line.slice(start).trim()}”?`, choices }],
    entry: null,
  };
};

const withTogether = (parsed: ParsedLine, at: number): ParsedLine => ({
  ...parsed,
  understood: [{ start: at, end: at + 1, label: 'removal', value: 'together with the part before', mark: null }, ...parsed.understood],
  entry: parsed.entry?.kind === 'part' ? { ...parsed.entry, together: true } : parsed.entry,
});

/** The line up to how it came off, and what is said of that. */
const withRemoval = (parsed: ParsedLine, removal: ParsedLine, line: string): ParsedLine => {
  const questions = [...parsed.questions, ...removal.questions];
  const entry =
    parsed.entry && parsed.entry.kind !== 'step' && removal.entry?.kind === 'step' ? { ...parsed.entry, removal: removal.entry } : null;
  return { line, understood: [...parsed.understood, ...removal.understood], questions, entry: questions.length > 0 ? null : entry };
};

/** Text in quotation marks is skipped when “>” is looked for. */
const removalAt = (line: string): number => {
  const bare = line.replace(/"(?:[^"]|"")*"/g, (text) => '"'.repeat(text.length));
  return REMOVAL.exec(bare)?.index ?? -1;
};

/**
 * Understands one line of shorthand: a part, what holds or feeds it, what is on its board, or how it came off. Never throws and never guesses: what can
 * be read two ways comes back as a question with its choices, and `entry` is null until all are settled.
 *
 * @param line the line as typed so far
 * @returns how each stretch was understood, the open questions, and the entry once there are none; the grammar stands in docs/method/bench.md
 * @example
 * parseLine('2x bracket, hose guide pa66-gf30 inj 41 g').entry // => { kind: 'part', quantity: 2, name: 'bracket, hose guide', … }
 */
export const parseLine = (line: string): ParsedLine => {
  if (line.length > MOST_CHARACTERS)
    return refused('', 'line-long', `The line has ${line.length} characters; at most ${MOST_CHARACTERS} are read. Split it`);
  if (UNPRINTABLE.test(line)) return refused(line, 'unprintable', 'The line holds control characters; type it again');
  const usual = usualCharacters(line);
  const start = usual.length - usual.trimStart().length;
  if (start === usual.length) return { line, understood: [], questions: [], entry: null };
  const step = parseStep(usual, start);
  if (step) return { ...step, line };
  const off = removalAt(usual);
  const end = off < 0 ? usual.length : off;
  const together = matchAt(TOGETHER, usual, start);
  const own = usual.slice(0, end);
  const parsed = together ? withTogether(partCandidate(own, start + together[0].length).parsed, start) : recordOf(own, start);
  if (off < 0) return { ...parsed, line };
  const removal = parseStep(usual, off + 1);
  return removal ? withRemoval({ ...parsed, line }, removal, line) : { ...recordOf(usual, start), line };
};

/** The line with one question settled. */
export const settle = (line: string, question: { readonly start: number; readonly end: number }, replacement: string): string =>
  `${line.slice(0, question.start)}${replacement}${line.slice(question.end)}`.replace(/^\s+/, '');
