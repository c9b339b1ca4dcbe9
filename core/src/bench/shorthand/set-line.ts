import { LENGTH_UNITS, ESTIMATE_RELATIVE_U, isLengthUnit, readNumber, resolutionU, toSi } from '../../shared';
import { known, type KnowingEntity, type KnownOf } from '../../record';
import { CODE_END, lengthM } from './common-matchers';
import type { Question, Understood } from './entry';
import { COUNT_TEXT, readCount } from './how-known';
import { matchAt } from './matching';
import { keepAsWords, leaveOut, readLine, tidy, wordsAsOne, type Match, type Matcher } from './reader';

const COUNT_AT = new RegExp(`^${COUNT_TEXT}`, 'i');
const NUMBER = String.raw`\d[\d.,]*`;
export const MOST_NOTE = 400;

export interface SetLine<Draft> {
  readonly draft: Partial<Draft>;
  readonly count: number;
  readonly note: string;
  readonly known: KnownOf;
  readonly understood: readonly Understood[];
  readonly questions: readonly Question[];
}

export interface SetLead<Draft> {
  readonly entity: KnowingEntity;
  readonly line: string;
  readonly start: number;
  /** the match of the beginning; its first six groups are those of COUNT_TEXT, empty where the count is left out */
  readonly leading: RegExpExecArray;
  readonly matchers: readonly Matcher<Draft>[];
  readonly most: number;
  /** what the beginning said besides the count */
  readonly kind: { readonly label: string; readonly value: string };
}

/** Reads a line that begins with a count and a kind: what follows, what is asked, and the remark that is left. */
export const readSetLine = <Draft extends object>({
  entity,
  line,
  start,
  leading,
  matchers,
  most,
  kind,
}: SetLead<Draft>): SetLine<Draft> => {
  const isGiven = leading[2] !== undefined;
  const said = isGiven ? readCount(leading.slice(1, 7)) : null;
  const digits = isGiven ? (COUNT_AT.exec(leading[0])?.[0] ?? '') : '';
  const inside = !isGiven || (said !== null && said.count >= 1 && said.count <= most);
  const reading = readLine<Draft>(entity, line, start + leading[0].length, matchers);
  const note = tidy(reading.words.join(' ')).replace(/,+$/, '').trim();
  const countSpan = { start, end: start + digits.length };
  const questions: readonly Question[] = [
    ...(inside
      ? []
      : [
          {
            ...countSpan,
            code: 'count-limit',
            message: said === null ? 'A range goes from the lower to the higher count' : `A count is from 1 to ${most}`,
            choices: [{ label: '1', replacement: '1' }],
          },
        ]),
    ...reading.questions,
    ...(note.length > MOST_NOTE
      ? [{ start, end: line.length, code: 'note-long', message: `A remark may have at most ${MOST_NOTE} characters`, choices: [] }]
      : []),
  ];
  const countChip: readonly Understood[] = said && inside ? [{ ...countSpan, label: 'count', value: said.value, evidence: said.mark }] : [];
  const kindChip: Understood = { start: start + digits.length, end: start + leading[0].length, ...kind, evidence: null };
  return {
    draft: reading.draft,
    count: said && inside ? said.count : 1,
    note,
    known: said?.known && inside ? { count: said.known, ...reading.known } : reading.known,
    understood: [...countChip, kindChip, ...wordsAsOne(reading.understood, 'remark', note)],
    questions,
  };
};

interface LengthAsk<Draft> {
  /** before the number, as a pattern without groups; empty for a length alone */
  readonly before: string;
  readonly label: string;
  /** its label where it is said in all; null where it cannot be */
  readonly inAll: string | null;
  readonly field: string;
  readonly mostM: number;
  /** the unit when none is said; null asks for one */
  readonly usual: 'mm' | null;
  readonly put: (metres: number, isTotal: boolean) => Partial<Draft>;
}

/** `1.2 m`, `total 3.4 m`, `id8`, `~1.4 m ±20 mm`: a length with how it is known. */
export const lengthMatcher = <Draft>({ before, label, inAll, field, mostM, usual, put }: LengthAsk<Draft>): Matcher<Draft> => {
  const pattern = new RegExp(
    String.raw`${before}(${inAll === null ? '(?!)' : String.raw`total\s+`})?(~)?(${NUMBER})\s*(mm|cm|m|in|ft)?(?:\s*(?:±|\+-|\+\/-)\s*(${NUMBER})\s*(mm|cm|m|in|ft)?)?${CODE_END}`,
    'iy',
  );
  return (line, at) => {
    const match = matchAt(pattern, line, at);
    if (!match) return null;
    const [text, total = '', about = '', digits = '', unit = usual ?? '', spreadDigits, spreadUnit] = match;
    const end = at + text.length;
    const ask = (code: string, message: string, choices: readonly { label: string; replacement: string }[]): Match<Draft> => ({
      end,
      question: { code, message, choices },
    });
    const read = readNumber(digits);
    if (read.kind === 'ambiguous')
      return ask(
        'number-two-ways',
        `Is ${digits} a decimal comma or thousands?`,
        read.readings.map((r) => ({ label: text.replace(digits, r.text), replacement: text.replace(digits, r.text) })),
      );
    if (read.kind === 'none') return ask('number', `“${digits}” is not a number`, [keepAsWords(text)]);
    const symbol = unit.toLowerCase();
    if (!isLengthUnit(symbol))
      return ask(
        'length-without-unit',
        `${digits}: m or mm?`,
        ['m', 'mm'].map((u) => ({ label: `${digits} ${u}`, replacement: `${text.trimEnd()} ${u}` })),
      );
    const metres = lengthM(read.number.value, symbol);
    if (!(metres > 0 && metres <= mostM))
      return ask('length-limit', `The ${label} must be more than 0 and at most ${mostM} m`, [leaveOut, keepAsWords(text)]);
    const spread = spreadDigits === undefined ? null : readNumber(spreadDigits);
    const spreadSymbol = (spreadUnit ?? symbol).toLowerCase();
    const spreadM = spread?.kind === 'number' && isLengthUnit(spreadSymbol) ? lengthM(spread.number.value, spreadSymbol) : null;
    if (spread !== null && !(spreadM !== null && spreadM > 0))
      return ask('u-zero', 'An uncertainty is more than 0', [
        { label: 'leave it out', replacement: `${total}${about}${digits} ${symbol}` },
      ]);
    const stepM = resolutionU(toSi(read.number.step, LENGTH_UNITS[symbol]));
    const u = spreadM ?? (about ? Math.max(stepM, metres * ESTIMATE_RELATIVE_U) : stepM);
    const typed = `${total ? 'total ' : ''}${about}${read.number.text} ${symbol}${spreadM === null ? '' : ` ±${spread?.kind === 'number' ? spread.number.text : ''} ${spreadSymbol}`}`;
    return {
      end,
      about: field,
      known: known(about ? 'I' : 'M', { u, typed }),
      label: total ? (inAll ?? label) : label,
      value: `${read.number.text} ${symbol}`,
      put: put(metres, total !== ''),
    };
  };
};

/** A word that stands for one value of a field. */
export const wordMatcher = <Draft, Value>(
  words: Readonly<Record<string, Value>>,
  label: string,
  field: string,
  put: (value: Value) => Partial<Draft>,
  say: (value: Value) => string = String,
): Matcher<Draft> => {
  const pattern = new RegExp(
    `(?:${Object.keys(words)
      .sort((a, b) => b.length - a.length)
      .map((word) => word.replaceAll(' ', String.raw`\s+`))
      .join('|')})${CODE_END}`,
    'iy',
  );
  return (line, at) => {
    const text = matchAt(pattern, line, at)?.[0];
    const value = text === undefined ? undefined : words[tidy(text).toLowerCase()];
    if (text === undefined || value === undefined) return null;
    return { end: at + text.length, label, value: say(value), about: field, put: put(value) };
  };
};

/** A length stated in all, shared among what it is the length of, and so is its uncertainty. */
export const sharedLength = (known: KnownOf, field: string, among: number): KnownOf => {
  const length = known[field];
  return length && among > 1 ? { ...known, [field]: { ...length, u: length.u === null ? null : length.u / among } } : known;
};

export const nanometre = (metres: number): number => Math.round(metres * 1e9) / 1e9;
