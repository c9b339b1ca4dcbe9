import { MATERIALS, PROCESSES } from '../../shared';
import { COMPONENT_CLASSES, FASTENER_KINDS, JOINT_KINDS, LOCKS, type FastenerSet, type StudyRecord } from '../../record';
import { fastenerLine } from './from-row';
import { SYNONYMS } from './synonyms';

/** A way to go on with the word that is being typed. */
export interface Suggestion {
  /** takes the place of the word, from `start` to `end` of the line */
  readonly text: string;
  readonly start: number;
  readonly end: number;
  /** where it comes from: "part", "material", "for bushing" */
  readonly why: string;
}

/** The words a study can be typed with, the most used first. */
export interface WordBook {
  readonly words: readonly { readonly text: string; readonly why: string; readonly times: number; readonly key: string }[];
  /** fastener sets as a line without their count: “M6x16 T30 8.8 -z” */
  readonly sets: readonly string[];
}

const MOST = 6;
const SHORTEST = 2;

const keyOf = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');

/** What was measured of one set is not that of the next: its count, mass, breakaway torque and remark stay away. */
const kindOfSet = (set: FastenerSet): string =>
  fastenerLine({ ...set, count: 1, massEachKg: null, evidence: {}, breakawayNm: null, removed: null, note: '' }).replace(/^1\s+/, '');

const setsOf = (sets: readonly FastenerSet[]): readonly string[] => {
  const times = new Map<string, number>();
  for (const set of sets) {
    const text = kindOfSet(set);
    times.set(text, (times.get(text) ?? 0) + 1);
  }
  return [...times].sort(([a, n], [b, m]) => m - n || (a < b ? -1 : 1)).map(([text]) => text);
};

/**
 * The words of a study: names and parts of names of its parts by how often they are used, and the words of the
 * catalogues and the shorthand. Made once per record, not per key.
 */
export const wordBook = (record: Pick<StudyRecord, 'parts' | 'steps' | 'fluids' | 'fastenerSets'>): WordBook => {
  const times = new Map<string, { n: number; why: string }>();
  const put = (text: string, why: string): void => {
    const word = text.trim();
    if (word.length < SHORTEST) return;
    const found = times.get(word);
    if (found) found.n += 1;
    else times.set(word, { n: 1, why });
  };
  for (const part of record.parts) {
    put(part.name, 'part');
    for (const word of part.name.split(/[\s,]+/)) if (word !== part.name) put(word, 'word of the study');
  }
  for (const step of record.steps) put(step.tool, 'tool');
  for (const fluid of record.fluids) put(fluid.name, 'fluid');
  const fixed = [
    ...MATERIALS.map((m) => [m.id, m.name] as const),
    ...PROCESSES.map((p) => [p.words[0] ?? p.id, p.name] as const),
    ...FASTENER_KINDS.map((k) => [k, 'fastener'] as const),
    ...JOINT_KINDS.map((k) => [k, 'joint'] as const),
    ...COMPONENT_CLASSES.map((c) => [c, 'on a board'] as const),
    ...LOCKS.map((l) => [l, 'lock'] as const),
  ];
  const own = [...times].map(([text, { n, why }]) => ({ text, why, times: n + 1, key: keyOf(text) }));
  return {
    sets: setsOf(record.fastenerSets),
    words: [...own, ...fixed.filter(([text]) => !times.has(text)).map(([text, why]) => ({ text, why, times: 0, key: keyOf(text) }))].sort(
      (a, b) => b.times - a.times || Number(b.why === 'part') - Number(a.why === 'part') || (a.text < b.text ? -1 : 1),
    ),
  };
};

/** True when the consonants of an abbreviation stand in a word in this order, the first one first: "brkt" of "bracket". */
const abbreviates = (short: string, key: string): boolean => {
  if (!key.startsWith(short.charAt(0)) || /[aeiou]/.test(short)) return false;
  let at = 0;
  for (const letter of key) if (letter === short[at]) at += 1;
  return at === short.length;
};

/** “4 M6”: the sets of the study that go on so, the most used first. */
const suggestSets = (book: WordBook, line: string, cursor: number): readonly Suggestion[] => {
  const [, lead = '', typed = ''] = /^(\s*\d{1,3}\s*x?\s+)([a-z]+\d?\S*(?:\s\S*)*)$/i.exec(line.slice(0, cursor)) ?? [];
  if (typed.length < SHORTEST || line.length > cursor) return [];
  return book.sets
    .filter((text) => text.length > typed.length && text.toLowerCase().startsWith(typed.toLowerCase()))
    .slice(0, MOST)
    .map((text) => ({ text, start: lead.length, end: cursor, why: 'set of the study' }));
};

/**
 * How the word before the cursor may go on: the glossary’s word for a synonym first, then words that begin so, then
 * words it abbreviates, each by how often the study uses it.
 */
export const suggest = (book: WordBook, line: string, cursor: number): readonly Suggestion[] => {
  const sets = suggestSets(book, line, cursor);
  if (sets.length > 0) return sets;
  const start = line.lastIndexOf(' ', cursor - 1) + 1;
  const typed = line.slice(start, cursor).replace(/^[#"]+/, '');
  const key = keyOf(typed);
  if (key.length < SHORTEST || /^[\d~#>]/.test(typed) || typed !== line.slice(start, cursor)) return [];
  const found: Suggestion[] = [];
  const put = (text: string, why: string): void => {
    if (
      found.length < MOST &&
      text.toLowerCase() !== typed.toLowerCase() &&
      !found.some((f) => f.text.toLowerCase() === text.toLowerCase())
    )
      found.push({ text, start, end: cursor, why });
  };
  for (const [synonym, word] of SYNONYMS) if (keyOf(synonym) === key) put(word, `for ${synonym}`);
  for (const word of book.words) if (word.key.startsWith(key)) put(word.text, word.why);
  if (key.length > SHORTEST) {
    for (const [synonym, word] of SYNONYMS) if (keyOf(synonym).startsWith(key)) put(word, `for ${synonym}`);
    for (const word of book.words) if (found.length < MOST && abbreviates(key, word.key)) put(word.text, word.why);
  }
  return found;
};

/** The line with a suggestion taken, and where the cursor stands then. */
export const takeSuggestion = (line: string, { text, start, end }: Suggestion): { readonly line: string; readonly cursor: number } => {
  const rest = line.slice(end);
  const gap = rest.startsWith(' ') ? '' : ' ';
  return { line: `${line.slice(0, start)}${text}${gap}${rest}`, cursor: start + text.length + 1 };
};
