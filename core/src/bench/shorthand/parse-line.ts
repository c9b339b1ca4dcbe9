import { UNPRINTABLE } from '../../shared';
import type { ParsedLine } from './entry';
import { matchAt } from './matching';
import { parseBoard, parseComponents } from './parse-boards';
import { parseConnections } from './parse-connections';
import { parseFasteners } from './parse-fasteners';
import { parseFluids } from './parse-fluids';
import { parseJoints } from './parse-joints';
import { parsePiece } from './parse-piece';
import { parseStep } from './parse-step';

/** Longest line that is read. */
export const MOST_CHARACTERS = 1000;

/** `+ bracket …`: it comes off together with the piece before */
const TOGETHER = /\+\s+(?=\S)/y;

const withBefore = (parsed: ParsedLine, at: number): ParsedLine => ({
  ...parsed,
  understood: [{ start: at, end: at + 1, label: 'removal', value: 'together with the piece before', evidence: null }, ...parsed.understood],
  entry: parsed.entry?.kind === 'piece' ? { ...parsed.entry, together: true } : parsed.entry,
});

const refused = (line: string, code: string, message: string): ParsedLine => ({
  line,
  understood: [],
  questions: [{ start: 0, end: line.length, code, message, choices: [] }],
  entry: null,
});

/**
 * Understands one line of shorthand: a piece, what holds or feeds it, what is on its board, or how it came off. Never throws and never guesses: what can
 * be read two ways comes back as a question with its choices, and `entry` is null until all are settled.
 *
 * @param line the line as typed so far
 * @returns how each stretch was understood, the open questions, and the entry once there are none; the grammar stands in docs/method/bench.md
 * @example
 * parseLine('2x bracket, hose guide pa66-gf30 inj 41 g').entry // => { kind: 'piece', quantity: 2, name: 'bracket, hose guide', … }
 */
export const parseLine = (line: string): ParsedLine => {
  if (line.length > MOST_CHARACTERS)
    return refused('', 'line-long', `The line has ${line.length} characters; at most ${MOST_CHARACTERS} are read. Split it`);
  if (UNPRINTABLE.test(line)) return refused(line, 'unprintable', 'The line holds control characters; type it again');
  const start = line.length - line.trimStart().length;
  if (start === line.length) return { line, understood: [], questions: [], entry: null };
  const together = matchAt(TOGETHER, line, start);
  if (together) return withBefore(parsePiece(line, start + together[0].length), start);
  return (
    parseStep(line, start) ??
    parseFasteners(line, start) ??
    parseJoints(line, start) ??
    parseConnections(line, start) ??
    parseBoard(line, start) ??
    parseComponents(line, start) ??
    parseFluids(line, start) ??
    parsePiece(line, start)
  );
};

/** The line with one question settled. */
export const settle = (line: string, question: { readonly start: number; readonly end: number }, replacement: string): string =>
  `${line.slice(0, question.start)}${replacement}${line.slice(question.end)}`.replace(/^\s+/, '');
