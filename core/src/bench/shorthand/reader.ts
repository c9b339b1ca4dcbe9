import type { EvidenceMark } from '../../shared';
import { impliedMark, known as knownBy, type Known, type KnowingEntity } from '../../record';
import type { Choice, Question, Understood } from './entry';
import { markBehind } from './how-known';
import { matchAt } from './matching';

/** What one matcher makes of the line at a place. */
export interface Match<Draft> {
  readonly end: number;
  readonly label?: string;
  readonly value?: string;
  readonly evidence?: EvidenceMark | null;
  /** fields understood */
  readonly put?: Partial<Draft>;
  /** the field of the record whose value this is, when it can say how it is known; with what is already known of it */
  readonly about?: string;
  readonly known?: Known;
  /** text that stays in the name or remark */
  readonly word?: string;
  readonly question?: { readonly code: string; readonly message: string; readonly choices: readonly Choice[] };
}

export type Matcher<Draft> = (line: string, at: number) => Match<Draft> | null;

export interface Reading<Draft> {
  readonly draft: Partial<Draft>;
  readonly known: Readonly<Record<string, Known>>;
  readonly words: readonly string[];
  readonly understood: readonly Understood[];
  readonly questions: readonly Question[];
}

const GAP = /[\s]+|,(?=\s|$)/y;
const WORD = /\S+/y;
const QUOTED = /"((?:[^"]|"")*)"(?=[\s,]|$)/y;

/** Text that is taken as it stands, whatever it looks like. */
export const quote = (text: string): string => `"${text.replaceAll('"', '""')}"`;

export const tidy = (text: string): string => text.replace(/\s+/g, ' ').trim();

/** The choice that keeps the stretch as plain words. */
export const keepAsWords = (text: string): Choice => ({ label: 'keep it as words', replacement: quote(text) });

export const leaveOut: Choice = { label: 'leave it out', replacement: '' };

const quoted = <Draft>(line: string, at: number): Match<Draft> | null => {
  const match = matchAt(QUOTED, line, at);
  if (match) return { end: at + match[0].length, word: tidy((match[1] ?? '').replaceAll('""', '"')) };
  if (line[at] !== '"') return null;
  return {
    end: line.length,
    question: {
      code: 'open-quote',
      message: 'The quotation mark is not closed',
      choices: [
        { label: 'close it', replacement: `${line.slice(at)}"` },
        { label: 'drop it', replacement: line.slice(at + 1) },
      ],
    },
  };
};

const plainWord = <Draft>(line: string, at: number): Match<Draft> => {
  const word = matchAt(WORD, line, at)?.[0] ?? '';
  return { end: at + word.length, word };
};

const twice = <Draft>(match: Match<Draft>, draft: Partial<Draft>): boolean =>
  match.put !== undefined && Object.keys(match.put).some((key) => Object.hasOwn(draft, key));

/** Reads a line from `start` with the first matcher that fits at each place; what fits none is a word. */
export const readLine = <Draft extends object>(
  entity: KnowingEntity,
  line: string,
  start: number,
  matchers: readonly Matcher<Draft>[],
): Reading<Draft> => {
  const known: Record<string, Known> = {};
  const draft: Partial<Draft> = {};
  const words: string[] = [];
  const understood: Understood[] = [];
  const questions: Question[] = [];
  let at = start;
  while (at < line.length) {
    const gap = matchAt(GAP, line, at);
    if (gap) {
      if (gap[0] === ',' && words.length > 0 && lastIsWord(understood, at)) words.push(`${words.pop() ?? ''},`);
      at += gap[0].length;
      continue;
    }
    const match = withMark(entity, line, firstMatch(line, at, matchers));
    const span = { start: at, end: match.end };
    if (match.question) questions.push({ ...span, ...match.question });
    else if (twice(match, draft))
      questions.push({
        ...span,
        code: 'said-twice',
        message: `The ${match.label ?? 'same'} is said twice; which one holds?`,
        choices: [{ label: 'the first', replacement: '' }, keepAsWords(line.slice(at, match.end))],
      });
    else {
      Object.assign(draft, match.put);
      if (match.about !== undefined && match.known) known[match.about] = match.known;
      if (match.word) words.push(match.word);
      if (match.label !== undefined)
        understood.push({ ...span, label: match.label, value: match.value ?? '', evidence: match.evidence ?? null });
      else if (match.word) understood.push({ ...span, label: '', value: match.word, evidence: null });
    }
    at = match.end;
  }
  return { draft, known, words, understood, questions };
};

/** Words that are no codes, shown as one stretch from the first to the last of them: the name, the remark. */
export const wordsAsOne = (understood: readonly Understood[], label: string, text: string): readonly Understood[] => {
  const words = understood.filter((u) => u.label === '');
  const [first, last] = [words[0], words.at(-1)];
  if (!first || !last) return understood;
  const chip: Understood = { start: first.start, end: last.end, label, value: text, evidence: null };
  return [...understood.filter((u) => u.label !== ''), chip].sort((a, b) => a.start - b.start);
};

/** A match with the mark that stands behind it, if any. */
export const withMark = <Draft>(entity: KnowingEntity, line: string, match: Match<Draft>): Match<Draft> => {
  if (match.about === undefined || match.question) return match;
  const behind = markBehind(line, match.end);
  const mark = behind?.mark ?? match.known?.mark ?? impliedMark(entity, match.about);
  if (!behind) return { ...match, evidence: mark };
  return { ...match, end: behind.end, evidence: behind.mark, known: { ...(match.known ?? knownBy(behind.mark)), mark: behind.mark } };
};

const lastIsWord = (understood: readonly Understood[], at: number): boolean => {
  const last = understood.at(-1);
  return last?.label === '' && last.end === at;
};

const firstMatch = <Draft>(line: string, at: number, matchers: readonly Matcher<Draft>[]): Match<Draft> => {
  const literal = quoted<Draft>(line, at);
  if (literal) return literal;
  for (const matcher of matchers) {
    const match = matcher(line, at);
    if (match) return match;
  }
  return plainWord(line, at);
};
