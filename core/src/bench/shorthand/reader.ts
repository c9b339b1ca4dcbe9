import type { EvidenceMark } from '../../shared';
import { impliedMark, evidence as evidenceBy, type Evidence, type KnowingEntity } from '../../record';
import { hasDigit } from './characters';
import type { Choice, Question, Understood } from './entry';
import { markBehind } from './how-known';
import { matchAt } from './matching';

/** What one matcher makes of the line at a place. */
export interface Match<Draft> {
  readonly end: number;
  readonly label?: string;
  readonly value?: string;
  readonly mark?: EvidenceMark | null;
  /** fields understood */
  readonly put?: Partial<Draft>;
  /** the field of the record whose value this is, when it can say how it is known; with what is already known of it */
  readonly about?: string;
  readonly evidence?: Evidence;
  /** text that stays in the name or remark */
  readonly word?: string;
  readonly question?: { readonly code: string; readonly message: string; readonly choices: readonly Choice[]; readonly from?: number };
  /** how unlikely this reading is: a code that fits is 1, a question 4 */
  readonly cost?: number;
  /** an unmistakable spelling of it, where the stretch could also be read another way */
  readonly plain?: string;
  /** likely only behind a word of the name, or only behind something else */
  readonly isBehind?: 'word' | 'code';
}

/** One reading of the stretch that begins at a place, or several that compete. */
export type Matcher<Draft> = (line: string, at: number) => Match<Draft> | readonly Match<Draft>[] | null;

/** A stretch of the chosen cover. */
export interface Stretch<Draft> {
  readonly start: number;
  readonly match: Match<Draft>;
}

export interface Reading<Draft> {
  readonly draft: Partial<Draft>;
  readonly evidence: Readonly<Record<string, Evidence>>;
  readonly words: readonly string[];
  readonly understood: readonly Understood[];
  readonly questions: readonly Question[];
  readonly stretches: readonly Stretch<Draft>[];
  /** how unlikely the whole cover is */
  readonly cost: number;
}

const GAP = /\s+|[,;](?=\s|$)|[.:!]+(?=\s|$)|[)\]]+(?=[\s,;.]|$)/y;
/** a bracket is passed over where what is in it is a code */
const OPENING = /[([](?=\S)/y;
const WORD = /\S+/y;
const QUOTED = /"((?:[^"]|"")*)"(?=[\s,;:.)\]]|$)/y;

/** Text that is taken as it stands, whatever it looks like. */
export const quote = (text: string): string => `"${text.replaceAll('"', '""')}"`;

export const tidy = (text: string): string => text.replace(/\s+/g, ' ').trim();

/** The choice that keeps the stretch as plain words. */
export const keepAsWords = (text: string): Choice => ({ label: 'part of the name', replacement: quote(text.replaceAll('"', '″')) });

export const leaveOut: Choice = { label: 'leave it out', replacement: '' };

const COST = { code: 1, question: 4, word: 2, unread: 9, twice: 6, opening: 0.6 } as const;
/** Covers whose costs are this near to each other are both likely. */
export const NEAR_TIE = 0.75;
const BEAM = 12;

const quoted = <Draft>(line: string, at: number): Match<Draft> | null => {
  const match = matchAt(QUOTED, line, at);
  if (match) return { end: at + match[0].length, word: tidy((match[1] ?? '').replaceAll('""', '"')), cost: COST.code };
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

/** A word that is no code. With a digit in it, it is asked about: it may be a figure that was not understood. */
const plainWord = <Draft>(line: string, at: number, where: string): Match<Draft> => {
  const text = (matchAt(WORD, line, at)?.[0] ?? '').replace(/(?<=.);+$/, '');
  // a bracket that closes here and was opened before is no part of the word
  const word = /[([]/.test(text) ? text : text.replace(/(?<=.)[)\]].*$/, '');
  const end = at + word.length;
  if (!hasDigit(word)) return { end, word, cost: /^[\p{L}\p{M}]/u.test(word) ? COST.word : COST.word + 1 };
  const bare = word.replace(/[,;.:]+$/, '');
  return {
    end: at + bare.length,
    cost: COST.unread,
    question: {
      code: 'not-understood',
      message: `What is “${bare}”?`,
      choices: [{ ...keepAsWords(bare), label: `part of the ${where}` }, leaveOut],
    },
  };
};

interface Cover<Draft> {
  readonly cost: number;
  readonly before: Cover<Draft> | null;
  readonly stretch: Stretch<Draft> | null;
  /** the stretch each field was first said in */
  readonly said: ReadonlyMap<string, Stretch<Draft>>;
  readonly isTwice: boolean;
  readonly isAfterWord: boolean;
}

const sameValue = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

const extended = <Draft extends object>(cover: Cover<Draft>, stretch: Stretch<Draft>): Cover<Draft> => {
  const { match } = stretch;
  const put = Object.entries(match.put ?? {});
  const isTwice =
    !match.question &&
    put.some(([field, value]) => {
      const before = cover.said.get(field);
      return before !== undefined && !sameValue((before.match.put as Record<string, unknown> | undefined)?.[field], value);
    });
  const own = match.cost ?? (match.question ? COST.question : COST.code);
  const late = match.isBehind !== undefined && (match.isBehind === 'word') !== cover.isAfterWord ? 2 : 0;
  const said =
    put.length === 0 || match.question ? cover.said : new Map([...put.map(([field]) => [field, stretch] as const), ...cover.said]);
  return {
    cost: cover.cost + own + late + (isTwice ? COST.twice : 0),
    before: cover,
    stretch,
    said,
    isTwice,
    isAfterWord: match.word !== undefined || (cover.isAfterWord && put.length === 1 && put[0]?.[0] === 'count'),
  };
};

const asList = <Draft>(found: ReturnType<Matcher<Draft>>): readonly Match<Draft>[] =>
  found === null ? [] : Array.isArray(found) ? (found as readonly Match<Draft>[]) : [found as Match<Draft>];

/** Every reading of the stretch that begins at a place. */
const readingsAt = <Draft>(
  entity: KnowingEntity,
  line: string,
  at: number,
  matchers: readonly Matcher<Draft>[],
  where: string,
): readonly Match<Draft>[] => {
  const literal = quoted<Draft>(line, at);
  if (literal) return [literal];
  const found = matchers.flatMap((matcher) => asList(matcher(line, at))).map((match) => withMark(entity, line, match));
  return [...found, plainWord<Draft>(line, at, where)];
};

const path = <Draft>(cover: Cover<Draft>): readonly Cover<Draft>[] => {
  const all: Cover<Draft>[] = [];
  for (let at: Cover<Draft> | null = cover; at !== null; at = at.before) if (at.stretch) all.push(at);
  return all.reverse();
};

/** What a cover says, to tell covers apart that come to the same. */
const meaning = <Draft>(cover: Cover<Draft>): string =>
  JSON.stringify(
    path(cover).map(({ stretch }) => [stretch?.match.put ?? null, stretch?.match.word ?? '', stretch?.match.question?.code ?? '']),
  );

/** The question of which of two likely covers is meant: about the stretch in which they differ. */
const tieQuestion = <Draft>(line: string, covers: readonly Cover<Draft>[]): Question | null => {
  const paths = covers.map((cover) => path(cover).map(({ stretch }) => stretch!));
  const same = (a: Stretch<Draft> | undefined, b: Stretch<Draft> | undefined): boolean =>
    a !== undefined && a.start === b?.start && a.match.end === b.match.end && sameValue(a.match, b.match);
  const [first = []] = paths;
  let from = 0;
  while (paths.every((p) => same(p[from], first[from]))) from += 1;
  let to = 0;
  while (to < first.length - from && paths.every((p) => p.length - to > from && same(p[p.length - 1 - to], first[first.length - 1 - to])))
    to += 1;
  const inner = paths.map((p) => p.slice(from, p.length - to));
  if (inner.some((p) => p.length === 0)) return null;
  const start = Math.min(...inner.map((p) => p[0]?.start ?? line.length));
  const end = Math.max(...inner.map((p) => p.at(-1)?.match.end ?? 0));
  const choices = inner.map((p): Choice => ({
    label: p.map(({ match }) => (match.label === undefined ? (match.word ?? '') : `${match.label} ${match.value ?? ''}`.trim())).join(', '),
    replacement: p
      .map(({ start: at, match }) => match.plain ?? (match.word === undefined ? line.slice(at, match.end) : quote(match.word)))
      .join(' '),
  }));
  const stretch = line.slice(start, end);
  if (choices.some((choice) => choice.replacement === stretch)) return null;
  const words: Choice = keepAsWords(stretch);
  return {
    start,
    end,
    code: 'two-readings',
    message: `What is “${stretch}”?`,
    choices: [...choices, ...(choices.some((c) => c.replacement === words.replacement) ? [] : [words])],
  };
};

const twiceQuestion = <Draft>(line: string, first: Stretch<Draft>, second: Stretch<Draft>): Question => {
  const [start, end] = [first.start, second.match.end];
  const [a, b] = [line.slice(first.start, first.match.end), line.slice(second.start, second.match.end)];
  const between = line.slice(first.match.end, second.start);
  return {
    start,
    end,
    code: 'said-twice',
    message: `The ${second.match.label ?? 'same'} is said twice; which one holds?`,
    choices: [
      { label: tidy(a), replacement: `${a}${between}`.trimEnd() },
      { label: tidy(b), replacement: `${between.trimStart()}${b}` },
      { label: `${tidy(a)}, and “${tidy(b)}” is part of the name`, replacement: `${a}${between}${quote(b)}` },
    ],
  };
};

/**
 * Reads a line from `start`: of all ways to cover it with stretches, each read by a matcher or as a word, the likeliest.
 * What is likely in two ways comes back as a question with both, and a word with a digit in it as a question too.
 */
export const readLine = <Draft extends object>(
  entity: KnowingEntity,
  line: string,
  start: number,
  matchers: readonly Matcher<Draft>[],
  where: string,
): Reading<Draft> => {
  const covers = new Map<number, Cover<Draft>[]>([
    [start, [{ cost: 0, before: null, stretch: null, said: new Map(), isTwice: false, isAfterWord: true }]],
  ]);
  const arrive = (at: number, cover: Cover<Draft>): void => {
    const there = covers.get(at);
    if (!there) covers.set(at, [cover]);
    else there.push(cover);
  };
  for (let at = start; at < line.length; at++) {
    const here = covers.get(at);
    if (!here) continue;
    const gap = matchAt(GAP, line, at);
    if (gap) {
      for (const cover of here) arrive(at + gap[0].length, cover);
      continue;
    }
    const kept = here.sort((a, b) => a.cost - b.cost).slice(0, BEAM);
    const opening = matchAt(OPENING, line, at);
    if (opening) for (const cover of kept) arrive(at + 1, { ...cover, cost: cover.cost + COST.opening, isAfterWord: false });
    for (const match of readingsAt(entity, line, at, matchers, where))
      for (const cover of kept) arrive(match.end, extended(cover, { start: at, match }));
  }
  const ends = (covers.get(line.length) ?? []).sort((a, b) => a.cost - b.cost);
  const best = ends[0];
  if (!best) return { draft: {}, evidence: {}, words: [], understood: [], questions: [], stretches: [], cost: 0 };
  const told = new Set([meaning(best)]);
  const rivals = ends.slice(1).filter((cover) => {
    if (cover.cost - best.cost >= NEAR_TIE) return false;
    const says = meaning(cover);
    if (told.has(says)) return false;
    told.add(says);
    return true;
  });
  return collected(line, best, rivals);
};

/** Signs that only part one thing from the next: a colon, a dash or a stroke between codes. */
const PARTING = /^[-–—=:|/·•]+$/;
const PARTING_BEHIND = /(?<=.)[:=|]+$/;

/** A word of the cover without signs that only part it from a code; '' for such a sign alone. */
const partedWord = (word: string, before: Match<unknown> | undefined, behind: Match<unknown> | undefined): string => {
  const isBefore = before?.word !== undefined && !PARTING.test(before.word);
  const isBehind = behind?.word !== undefined && !PARTING.test(behind.word);
  if (PARTING.test(word)) return isBefore && isBehind ? word : '';
  return isBehind ? word : word.replace(PARTING_BEHIND, '');
};

const collected = <Draft extends object>(line: string, best: Cover<Draft>, rivals: readonly Cover<Draft>[]): Reading<Draft> => {
  const evidence: Record<string, Evidence> = {};
  const draft: Partial<Draft> = {};
  const words: string[] = [];
  const understood: Understood[] = [];
  const questions: Question[] = [];
  const all = path(best);
  for (const [i, { stretch, before, isTwice }] of all.entries()) {
    if (!stretch) continue;
    const { start } = stretch;
    const word =
      stretch.match.word === undefined || line[start] === '"'
        ? stretch.match.word
        : partedWord(stretch.match.word, all[i - 1]?.stretch?.match, all[i + 1]?.stretch?.match);
    const match = word === undefined ? stretch.match : { ...stretch.match, word };
    const span = { start, end: match.end };
    if (match.question) {
      const { from, ...question } = match.question;
      questions.push({ ...span, ...(from === undefined ? {} : { start: from }), ...question });
      continue;
    }
    const again = isTwice ? Object.keys(match.put ?? {}).find((field) => before?.said.has(field)) : undefined;
    const first = again === undefined ? undefined : before?.said.get(again);
    if (first) {
      questions.push(twiceQuestion(line, first, stretch));
      continue;
    }
    const isNew = match.put === undefined || Object.keys(match.put).some((field) => !Object.hasOwn(draft, field));
    for (const [field, value] of Object.entries(match.put ?? {}))
      if (!Object.hasOwn(draft, field)) Object.assign(draft, { [field]: value });
    if (match.about !== undefined && match.evidence) evidence[match.about] = match.evidence;
    if (match.word !== undefined && match.word !== '') {
      if (/^,(?:\s|$)/.test(line.slice(match.end))) words.push(`${match.word},`);
      else words.push(match.word);
      understood.push({ ...span, label: '', value: match.word, mark: null });
    }
    if (match.label !== undefined && isNew)
      understood.push({ ...span, label: match.label, value: match.value ?? '', mark: match.mark ?? null });
  }
  const tie = questions.length === 0 && rivals.length > 0 ? tieQuestion(line, [best, ...rivals.slice(0, 3)]) : null;
  return {
    draft,
    evidence: Object.fromEntries(Object.entries(evidence).sort(([a], [b]) => (a < b ? -1 : 1))),
    words,
    understood,
    questions: tie ? [tie] : questions,
    stretches: all.flatMap(({ stretch }) => (stretch ? [stretch] : [])),
    cost: best.cost,
  };
};

/** Words that are no codes, shown as one stretch from the first to the last of them: the name, the remark. */
export const wordsAsOne = (understood: readonly Understood[], label: string, text: string): readonly Understood[] => {
  const words = understood.filter((u) => u.label === '');
  const [first, last] = [words[0], words.at(-1)];
  if (!first || !last) return understood;
  const chip: Understood = { start: first.start, end: last.end, label, value: text, mark: null };
  return [...understood.filter((u) => u.label !== ''), chip].sort((a, b) => a.start - b.start);
};

/** The words of a line that are no codes, as one text. */
export const wordsOf = (words: readonly string[]): string =>
  tidy(words.join(' '))
    .replace(/[,;]+$/, '')
    .trim();

/** What a matcher reads, with a word before it that says what it is: `material: dc04`, `weight: 41 g`. */
export const labelled =
  <Draft>(label: RegExp, matcher: Matcher<Draft>, cost = 0): Matcher<Draft> =>
  (line, at) => {
    const word = matchAt(label, line, at)?.[0];
    return word === undefined
      ? []
      : asList(matcher(line, at + word.length)).map((match) => ({
          ...match,
          plain: match.plain ?? line.slice(at + word.length, match.end),
          cost: (match.cost ?? (match.question ? COST.question : COST.code)) + cost,
        }));
  };

/** A match with the mark that stands behind it, if any. */
export const withMark = <Draft>(entity: KnowingEntity, line: string, match: Match<Draft>): Match<Draft> => {
  if (match.about === undefined || match.question) return match;
  const behind = markBehind(line, match.end);
  const mark = behind?.mark ?? match.evidence?.mark ?? impliedMark(entity, match.about);
  if (!behind) return { ...match, mark };
  const plain = match.plain === undefined ? {} : { plain: `${match.plain}${behind.mark === '?' ? ' ?' : ` @${behind.mark}`}` };
  return {
    ...match,
    ...plain,
    end: behind.end,
    mark: behind.mark,
    evidence: { ...(match.evidence ?? evidenceBy(behind.mark)), mark: behind.mark },
  };
};
