import { DIRECTIONS, DIRECTION_WORD } from '../../record';
import { hasDigit } from './characters';
import { END } from './common-matchers';
import type { ParsedLine, Question, StepEntry, Understood } from './entry';
import { matchAt } from './matching';
import { leaveOut, quote, tidy } from './reader';

const BIT = new RegExp(
  String.raw`(?:T\d{1,3}|TX\s?\d{1,3}|IP\d{1,2}|H\d{1,2}|SW\s?\d{1,2}|AF\s?\d{1,2}|E\d{1,2}|PH\s?\d|PZ\s?\d|M\d{1,2}|SL\d{1,2})${END}`,
  'iy',
);
const DIRECTION = new RegExp(String.raw`[+-][xyz]${END}`, 'iy');
const PEOPLE = new RegExp(String.raw`(?:(\d{1,2})\s?|(two|three|four)\s)(?:p|people|persons?|hands|men)${END}`, 'iy');
const WORD_NUMBER: Readonly<Record<string, number>> = { two: 2, three: 3, four: 4 };
const AFTER = new RegExp(String.raw`after\s+(\d{1,5}(?:\s*,\s*\d{1,5})*)${END}`, 'iy');
const WORD = /[^\s"]*[^\s",](?=,?(?:\s|"|$))|\S/y;
const TOOL = /tool\s+"((?:[^"]|"")*)"(?=[\s,]|$)/iy;
/** a size in mm or a fraction of an inch before the word of a tool: a key, a socket */
const KEY_SIZE = /(\d{1,2})\s?mm(?=[\s,]|$)/iy;
/** how long it took: a removal has its times from the clock */
const TIME = /\d+(?:[.,]\d+)?\s?(?:s|secs?|seconds?|mins?|minutes?|h|hours?)(?=[\s,]|$)/iy;
/** what held it, and how tight: fastener sets carry that */
const HELD_BY = /\d{1,3}\s?x?\s+(?:screws?|bolts?|nuts?|clips?|rivets?|pins?|studs?)(?=[\s,]|$)|\d{1,3}\s?x(?=\s)/iy;
const TORQUE_TEXT = /\d+(?:[.,]\d+)?\s?(?:nm|ncm|n·m|lb-?ft|ft-?lbs?)(?=[\s,]|$)/iy;
/** A figure that what follows “>” may begin with: people, time, a key, what held it. “> 5 kg” is a limit. */
export const STEP_FIGURE = String.raw`\d{1,2}\s?(?:p|people|persons?|hands|mins?|minutes?|secs?|screws?|bolts?|nuts?|clips?)\b|\d{1,3}\s?x\s+(?:[TEHM]\d|IP\d|PH|PZ|screw|bolt|nut|clip)|\d{1,2}\s?mm\s+(?:socket|key|spanner|wrench|driver|hex|allen)`;
const STEP_AT = new RegExp(String.raw`>\s+(?:${STEP_FIGURE}|\d{1,2}\s?mm\b)`, 'iy');
const QUOTED = /"((?:[^"]|"")*)"(?=[\s,]|$)/y;
const GAP = /[\s]+|,(?=\s|$)/y;

type Draft = { -readonly [K in keyof Omit<StepEntry, 'kind'>]?: StepEntry[K] };

const bitText = (text: string): string => text.toUpperCase().replace(/\s+/g, '').replace(/^TX/, 'T').replace(/^AF/, 'SW');

interface Flag {
  readonly pattern: RegExp;
  readonly value: string;
  readonly put: Draft;
}
const flag = (words: string, value: string, put: Draft): Flag => ({ pattern: new RegExp(`(?:${words})${END}`, 'iy'), value, put });
const FLAGS: readonly Flag[] = [
  flag('blind', 'blind', { seen: false }),
  flag('seen', 'seen', { seen: true }),
  flag('self(?:-holding)?|holds itself', 'holds itself', { holdsItself: true }),
  flag('loose|must be held', 'must be held', { holdsItself: false }),
  flag('one[- ]?way', 'fits one way only', { oneWay: true }),
  flag('any[- ]?way', 'fits more than one way', { oneWay: false }),
  flag('free', 'nothing had to come off first', { after: [] }),
];

interface Token {
  readonly end: number;
  readonly label: string;
  readonly value: string;
  readonly put: Draft;
  readonly question?: Omit<Question, 'start' | 'end'>;
  readonly word?: string;
}

const asked = (end: number, question: Omit<Question, 'start' | 'end'>): Token => ({ end, label: '', value: '', put: {}, question });

/** What stands in a removal with a digit in it and is no code: a size of the tool, or words of it. */
const unread = (line: string, at: number, word: string): Token => {
  const key = matchAt(KEY_SIZE, line, at);
  const told = key ? null : (matchAt(TIME, line, at) ?? matchAt(HELD_BY, line, at) ?? matchAt(TORQUE_TEXT, line, at));
  const text = key?.[0] ?? told?.[0] ?? word;
  const tool = { label: 'part of the tool', replacement: `tool ${quote(text)}` };
  const remark = { label: 'a remark', replacement: quote(text) };
  return asked(at + text.length, {
    code: 'not-understood',
    message: `What is “${text}”?`,
    choices: [
      ...(key ? [{ label: `bit SW${key[1]}`, replacement: `SW${key[1]}` }] : []),
      ...(told ? [remark, tool] : [tool, remark]),
      leaveOut,
    ],
  });
};

const tokenAt = (line: string, at: number): Token => {
  const tool = matchAt(TOOL, line, at);
  if (tool) {
    const word = tidy((tool[1] ?? '').replaceAll('""', '"'));
    return { end: at + tool[0].length, label: '', value: word, put: {}, word };
  }
  const quoted = matchAt(QUOTED, line, at);
  if (quoted) {
    const note = tidy((quoted[1] ?? '').replaceAll('""', '"'));
    return { end: at + quoted[0].length, label: 'remark', value: note, put: { note } };
  }
  if (line[at] === '"')
    return {
      end: line.length,
      label: '',
      value: '',
      put: {},
      question: {
        code: 'open-quote',
        message: 'The quotation mark is not closed',
        choices: [{ label: 'close it', replacement: `${line.slice(at)}"` }],
      },
    };
  const direction = matchAt(DIRECTION, line, at)?.[0];
  const named = DIRECTIONS.find((d) => d === direction?.toLowerCase());
  if (direction !== undefined && named) return { end: at + 2, label: 'comes off', value: DIRECTION_WORD[named], put: { direction: named } };
  const people = matchAt(PEOPLE, line, at);
  if (people) {
    const count = people[1] === undefined ? (WORD_NUMBER[people[2]?.toLowerCase() ?? ''] ?? 0) : Number(people[1]);
    const end = at + people[0].length;
    return count >= 1 && count <= 20
      ? { end, label: 'people', value: String(count), put: { people: count } }
      : {
          end,
          label: '',
          value: '',
          put: {},
          question: { code: 'people-limit', message: 'A step takes 1 to 20 people', choices: [leaveOut] },
        };
  }
  const after = matchAt(AFTER, line, at);
  if (after) {
    const steps = [...new Set((after[1] ?? '').split(',').map(Number))];
    return { end: at + after[0].length, label: 'after step', value: steps.join(', '), put: { after: steps } };
  }
  for (const { pattern, value, put } of FLAGS) {
    const text = matchAt(pattern, line, at)?.[0];
    if (text !== undefined) return { end: at + text.length, label: 'it', value, put };
  }
  const bit = matchAt(BIT, line, at)?.[0];
  if (bit !== undefined) return { end: at + bit.length, label: 'bit', value: bitText(bit), put: { bit: bitText(bit) } };
  const word = matchAt(WORD, line, at)?.[0] ?? line.charAt(at);
  if (hasDigit(word)) return unread(line, at, word);
  return { end: at + word.length, label: '', value: word, put: {}, word };
};

/**
 * Reads a line about the removal itself, which begins with “>”: `> cordless driver T30 -x 2p blind self one-way after 3`.
 * What is no code is the tool; what is in quotation marks is the remark. Null when the line does not begin so.
 */
export const parseStep = (line: string, start: number): ParsedLine | null => {
  if (line[start] !== '>' || (/^>\s*[=\d.,]/.test(line.slice(start)) && !matchAt(STEP_AT, line, start))) return null;
  const draft: Draft = {};
  const tool: string[] = [];
  const understood: Understood[] = [];
  const questions: Question[] = [];
  for (let at = start + 1; at < line.length;) {
    const gap = matchAt(GAP, line, at);
    if (gap) {
      at += gap[0].length;
      continue;
    }
    const token = tokenAt(line, at);
    const span = { start: at, end: token.end };
    if (token.question) questions.push({ ...span, ...token.question });
    else if (token.word !== undefined) {
      tool.push(token.word);
      const before = understood.at(-1);
      // words of the tool that stand together are one
      if (before?.label === 'tool' && /^\s*$/.test(line.slice(before.end, at)))
        understood[understood.length - 1] = { ...before, end: token.end, value: `${before.value} ${token.word}` };
      else understood.push({ ...span, label: 'tool', value: token.word, mark: null });
    } else if (Object.keys(token.put).some((field) => Object.hasOwn(draft, field)))
      questions.push({
        ...span,
        code: 'said-twice',
        message: `“${line.slice(at, token.end)}”: this is said already; which one holds?`,
        choices: [{ label: 'the first', replacement: '' }],
      });
    else {
      Object.assign(draft, token.put);
      understood.push({ ...span, label: token.label, value: token.value, mark: null });
    }
    at = token.end;
  }
  const words = tidy(tool.join(' '));
  if (words.length > 60)
    questions.push({
      start,
      end: line.length,
      code: 'tool-long',
      message: 'A tool may have at most 60 characters; put remarks in quotation marks',
      choices: [],
    });
  if ((draft.note ?? '').length > 4000)
    questions.push({ start, end: line.length, code: 'note-long', message: 'A remark may have at most 4000 characters', choices: [] });
  if (words !== '') draft.tool = words;
  if (Object.keys(draft).length === 0 && questions.length === 0)
    questions.push({
      start,
      end: line.length,
      code: 'step-empty',
      message: 'How did it come off? Type tool, bit, direction, people, blind, self, one-way, after 3',
      choices: [],
    });
  return { line, understood, questions, entry: questions.length > 0 ? null : { kind: 'step', ...draft } };
};

const FLAG_TEXT = (entry: StepEntry): readonly string[] => [
  entry.seen === undefined ? '' : entry.seen ? 'seen' : 'blind',
  entry.holdsItself === undefined ? '' : entry.holdsItself ? 'self' : 'loose',
  entry.oneWay === undefined ? '' : entry.oneWay ? 'one-way' : 'any-way',
];

const afterText = (after: readonly number[] | undefined): string =>
  after === undefined ? '' : after.length === 0 ? 'free' : `after ${after.join(', ')}`;

/** A step line that reads back as the same. */
export const printStep = (entry: StepEntry): string =>
  [
    '>',
    entry.tool === undefined ? '' : hasDigit(entry.tool) ? `tool ${quote(entry.tool)}` : entry.tool,
    entry.bit ?? '',
    entry.direction ?? '',
    entry.people === undefined ? '' : `${entry.people}p`,
    ...FLAG_TEXT(entry),
    afterText(entry.after),
    entry.note === undefined ? '' : quote(entry.note),
  ]
    .filter((text) => text !== '')
    .join(' ');
