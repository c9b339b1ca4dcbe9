import type { Evidence } from '../../record';
import { COUNT_TEXT, readCount } from './how-known';
import { matchAt } from './matching';
import { END } from './quantity';
import { LENGTH, MASS } from './unit-words';
import { leaveOut, type Match, type Matcher } from './reader';

export interface CountDraft {
  readonly count: { readonly count: number; readonly evidence: Evidence | null };
}

const UNITS = String.raw`(?:off|pcs?\.?|pces?|pieces?|ea\.?|nos?\.?|stk\.?|stück|stuks?|units?|uds?\.?|pz\.?|pezzi|pièces?|piezas?|szt\.?|buc\.?|st\.?)`;
const ABOUT = String.raw`(?:approx\.?|ca\.?|circa|about|around|roughly|~|≈)\s*`;
const LEAST = String.raw`(?:>=|≥|at least|min\.?|>)\s*`;
const MOST = String.raw`(?:<=|≤|at most|max\.?|up to|<)\s*`;
/** a figure with a unit is no count: “x 12 mm” */
const UNIT = `(?:${LENGTH.pattern.slice(1, -1)}|${MASS.pattern.slice(1, -1)})`;
/** `12x`, `12 ×`, `12 off`, `12 pcs`, `8x` right before a thread, `x12`, `qty 12`; groups: about, least, most, then those of COUNT_TEXT */
const FORMS: readonly RegExp[] = [
  new RegExp(
    String.raw`(${ABOUT})?(${LEAST})?(${MOST})?${COUNT_TEXT}(?:\s?[x×*](?=[\s)]|$|[M"#](?=\d)|[;,](?=\s|$)|\d[\d.,]*\s?(?:k?gs?|lbs?|oz)(?:[\s,;)]|$))|(?:\s?|-)${UNITS}(?=\s|$|[,;)])(?:\s?[x×@]\s?(?=\d))?)`,
    'iy',
  ),
  new RegExp(
    String.raw`(${ABOUT})?(${LEAST})?(${MOST})?(?:(?<=\S\s)[x×]\s|[x×](?=[~\d])|qty\.?\s?[:=]?\s?|quantity\s?[:=]?\s?|menge\s?[:=]?\s?|no\. of\s)${COUNT_TEXT}${END}(?!\s?${UNIT}(?![\p{L}\d]))`,
    'iuy',
  ),
];
const BARE = new RegExp(String.raw`(${ABOUT})?(${LEAST})?(${MOST})?${COUNT_TEXT}(?=\s+(?:\S))`, 'iy');

/** What a count in a line comes to, or the question it raises. */
const countFrom = (text: string, groups: readonly (string | undefined)[], end: number, most: number): Match<CountDraft> => {
  const [about, least, atMost, ...rest] = groups;
  const [, low = '', high, plus, ...marks] = rest;
  const digits = `${low}${high === undefined ? '' : `-${high}`}${plus ?? ''}`;
  if (atMost !== undefined)
    return {
      end,
      cost: 1.2,
      question: {
        code: 'count-bound',
        message: `“${text.trim()}” is a limit, not a count`,
        choices: [
          { label: `1 to ${low}`, replacement: `1-${low}x` },
          { label: low, replacement: `${low}x` },
          { label: `about ${low}`, replacement: `~${low}x` },
        ],
      },
    };
  const said = readCount([about === undefined ? rest[0] : '~', low, high, least === undefined ? plus : '+', ...marks]);
  if (said === null || said.count < 1 || said.count > most)
    return {
      end,
      question: {
        code: 'count-limit',
        message: said === null ? `“${digits}”: a range goes from the lower to the higher count` : `A count is from 1 to ${most}`,
        choices: [{ label: '1', replacement: '1x' }, leaveOut],
      },
    };
  return { end, label: 'count', value: said.value, mark: said.mark, put: { count: { count: said.count, evidence: said.evidence } } };
};

/** A count that says so: `12x`, `12 off`, `x12`, `qty 12`, `>=12x`. It may stand anywhere. */
export const countMatcher =
  (most: number): Matcher<CountDraft> =>
  (line, at) => {
    for (const form of FORMS) {
      const match = matchAt(form, line, at);
      if (match) return countFrom(match[0], match.slice(1), at + match[0].length, most);
    }
    return null;
  };

/** A number at the end of a line, behind a word and a colon: `spot welds: 14`. */
export const tallyMatcher = (words: string, most: number): Matcher<CountDraft> => {
  const tally = new RegExp(String.raw`(?<=(?:${words})\s?[:=]\s*)(${ABOUT})?(${LEAST})?(${MOST})?${COUNT_TEXT}(?=\s*$)`, 'iy');
  return (line, at) => {
    const match = matchAt(tally, line, at);
    return match ? countFrom(match[0], match.slice(1), at + match[0].length, most) : null;
  };
};

/** A number alone at the beginning of a set: its count. */
export const bareCountMatcher =
  (start: number, most: number): Matcher<CountDraft> =>
  (line, at) => {
    const match = at === start ? matchAt(BARE, line, at) : null;
    return match ? countFrom(match[0], match.slice(1), at + match[0].length, most) : null;
  };

/** Was the count of a line written with an x or a word for parts, as people count parts? */
export const isCountedAsParts = (line: string, start: number, end: number): boolean => /[x×*]|[a-z]{2}/i.test(line.slice(start, end));

/** Number words at the beginning of a line, which may be a count. */
const WORDS = ['two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve'];
const WORD_COUNT = new RegExp(String.raw`(?:a |one )?(${WORDS.join('|')}|pair(?: of)?|(?:a )?dozen)(?=\s)`, 'iy');

/** “two brackets”: asked, for the number may be part of the name. */
export const wordCountMatcher =
  (start: number): Matcher<CountDraft> =>
  (line, at) => {
    const match = at === start ? matchAt(WORD_COUNT, line, at) : null;
    if (!match) return null;
    const word = (match[1] ?? '').toLowerCase();
    const count = word.startsWith('pair') ? 2 : word.includes('dozen') ? 12 : WORDS.indexOf(word) + 2;
    return {
      end: at + match[0].length,
      cost: 1.5,
      question: {
        code: 'count-or-name',
        message: `Is “${match[0]}” the count, or part of the name?`,
        choices: [
          { label: `${count} parts`, replacement: `${count}x` },
          { label: 'part of the name', replacement: `"${match[0]}"` },
        ],
      },
    };
  };
