import type { KnowingEntity, EvidenceOf } from '../../record';
import { CODE_END, figureAt, type Figure } from './common-matchers';
import type { Question, Understood } from './entry';
import { countMatcher, tallyMatcher, type CountDraft } from './counts';
import { COUNT_TEXT, readCount, type CountSaid } from './how-known';
import { matchAt } from './matching';
import { readLine, tidy, wordsAsOne, wordsOf, type Matcher, type Stretch } from './reader';
import { LENGTH } from './unit-words';

const COUNT_AT = new RegExp(`^${COUNT_TEXT}`, 'i');
export const MOST_NOTE = 400;

export interface SetLine<Draft> {
  readonly draft: Partial<Draft>;
  readonly count: number;
  /** was a count said, before the kind or behind it */
  readonly isCounted: boolean;
  readonly note: string;
  readonly evidence: EvidenceOf;
  readonly understood: readonly Understood[];
  readonly questions: readonly Question[];
  readonly stretches: readonly Stretch<Draft>[];
  /** how unlikely it is that the line is of this kind */
  readonly cost: number;
}

interface SetLead<Draft> {
  readonly entity: KnowingEntity;
  readonly line: string;
  readonly start: number;
  /** the match of the beginning; its first six groups are those of COUNT_TEXT, absent where the count stands behind or nowhere */
  readonly leading: RegExpExecArray;
  readonly matchers: readonly Matcher<Draft>[];
  readonly most: number;
  /** what the beginning said besides the count */
  readonly kind: { readonly label: string; readonly value: string };
}

/** Reads a line that begins with a kind, its count before it or anywhere behind: what follows, what is asked, and the remark that is left. */
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
  const reading = readLine<Draft & CountDraft>(
    entity,
    line,
    start + leading[0].length,
    (isGiven ? matchers : [countMatcher(most), tallyMatcher(escaped(leading[0]), most), ...matchers]) as readonly Matcher<
      Draft & CountDraft
    >[],
    'remark',
  );
  const behind: Pick<CountSaid, 'count' | 'evidence'> | undefined = reading.draft.count;
  const note = wordsOf(reading.words);
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
  const countChip: readonly Understood[] = said && inside ? [{ ...countSpan, label: 'count', value: said.value, mark: said.mark }] : [];
  const counted = isGiven ? (inside ? said?.evidence : null) : behind?.evidence;
  const kindChip: Understood = { start: start + digits.length, end: start + leading[0].length, ...kind, mark: null };
  return {
    draft: reading.draft,
    count: said && inside ? said.count : (behind?.count ?? 1),
    isCounted: isGiven || behind !== undefined || reading.questions.some(({ code }) => code.startsWith('count')),
    note,
    evidence: counted ? { count: counted, ...reading.evidence } : reading.evidence,
    understood: [...countChip, kindChip, ...wordsAsOne(reading.understood, 'remark', note)],
    questions,
    stretches: reading.stretches,
    cost:
      reading.cost +
      (isGiven ? 2 : 1) +
      (/\d\S*?\s?[x×*](?=\s)/i.test(leading[0]) ? 1.5 : 0) +
      0.5 * (note === '' ? 0 : note.split(' ').length),
  };
};

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, String.raw`\$&`);

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
  const figure: Figure = {
    before: before === '' ? null : new RegExp(before, 'iy'),
    behind: null,
    table: LENGTH,
    usual,
    label,
    inAll,
    field,
    most: mostM,
    mostText: `${mostM} m`,
    spelling: (text) => `${before === '' ? '' : 'id'}${text}`,
    unitAsked: ['m', 'mm'],
  };
  return (line, at) => {
    const found = figureAt(line, at, figure);
    if (!found) return null;
    return found.read ? { ...found.match, put: put(found.read.si, found.read.isTotal) } : found.match;
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
export const sharedLength = (evidence: EvidenceOf, field: string, among: number): EvidenceOf => {
  const length = evidence[field];
  return length && among > 1 ? { ...evidence, [field]: { ...length, u: length.u === null ? null : length.u / among } } : evidence;
};
