import {
  ESTIMATE_RELATIVE_U,
  NUMBER_TEXT,
  readNumber,
  resolutionU,
  standardU,
  toSi,
  type EvidenceMark,
  type TypedNumber,
  type Unit,
} from '../../shared';
import { matchAt } from './matching';
import type { UnitTable } from './unit-words';

/** What may stand behind a code: white space, a comma or the like, a closing bracket, or the end of the line. */
export const END = String.raw`(?=[,;.:!]*(?:\s|$)|[)\]])`;
/** The same where a mark may stand right behind: `dc04?`, `T30@P`. */
export const CODE_END = String.raw`(?=\s|\?|@[MCSPTRI?]|[,;.:]*(?:\s|$)|[)\]])`;

type Said = 'about' | 'total' | 'each' | 'least' | 'most' | 'between';
type Patterns = readonly (readonly [Said, RegExp])[];

/** Words before a quantity that say what it is one of: an estimate, a bound, in all, each. */
const WORDS_BEFORE: Readonly<Record<Said, string>> = {
  least: String.raw`>=|≥|>|at least|min(?:imum|\.)?|more than|over|above`,
  most: String.raw`<=|≤|<|at most|max(?:imum|\.)?|up to|less than|under|below`,
  about: String.raw`~|≈|approx(?:imately|\.)?|appr\.?|about|around|roughly|circa|ca\.?|c\.|est(?:imated|\.)?|etwa|ungef(?:ähr|\.)|environ|env\.`,
  total: String.raw`total|tot\.?|in all|in total|all in|all together|altogether|together|sum|gesamt|insgesamt|zusammen|ges\.|au total|en tout|totale|totalt|Σ`,
  each: String.raw`each|ea\.?|je|à|@|chacune?|cada uno|vardera`,
  between: 'between|zwischen|entre|tra',
};
/** The same behind it. */
const WORDS_BEHIND: Readonly<Record<Exclude<Said, 'between'>, string>> = {
  least: String.raw`at least|min(?:imum|\.)?|or more|and up`,
  most: String.raw`at most|max(?:imum|\.)?|or less`,
  about: String.raw`approx(?:imately|\.)?|appr\.?|roughly|circa|ca\.?|est(?:imated|\.)?|or so`,
  total: String.raw`total|totals|tot\.?|in all|in total|all in|all together|altogether|together|sum|gesamt|insgesamt|zusammen|ges\.?|au total|en tout|in totale|en total|totalt`,
  each: String.raw`each|ea\.?|apiece|a piece|per piece|per pc\.?|\/\s?pcs?\.?|\/\s?ea\.?|\/\s?st(?:k|ück)?\.?|\/\s?pi[eè]ce|\/\s?pz\.?|\/\s?unit|\/\s?ud\.?|pro stück|chacune?|la pièce|ciascun[oa]|cad\.|cada un[oa]|c\/u|vardera|styck`,
};
const patternsOf = (words: Readonly<Partial<Record<Said, string>>>, around: (pattern: string) => string): Patterns =>
  (Object.entries(words) as [Said, string][]).map(([word, pattern]) => [word, new RegExp(around(pattern), 'iy')] as const);
const BEFORE = patternsOf(WORDS_BEFORE, (pattern) => String.raw`(?:${pattern})(?:\s*(?=[\d.,~≈½¼¾⅓⅔⅛⅜⅝⅞])|\s+|:\s*)`);
const BEHIND = patternsOf(WORDS_BEHIND, (pattern) => String.raw`\s*\(?(?:${pattern})\)?${CODE_END}`);
/** “t2.5 approx 5 kg”: an estimate or a limit before the next figure belongs to that one. */
const BEFORE_NEXT = /\s+[~≈]?\s?[\d.,½¼¾]/y;
const LOOSE: ReadonlySet<string> = new Set(['about', 'least', 'most']);
const NUMBER = new RegExp(NUMBER_TEXT, 'iy');
const RANGE = new RegExp(String.raw`\s?(?:-|\.\.\.?|…|\bto\b|\bbis\b)\s?(${NUMBER_TEXT})`, 'iy');
/** between 40 and 44 g */
const BETWEEN = new RegExp(String.raw`\s(?:and|und|et|e)\s(${NUMBER_TEXT})`, 'iy');
const SPREAD = new RegExp(String.raw`\s*(\()?(?:±|\+\/-|\+-)\s*(${NUMBER_TEXT})`, 'iy');
const CLOSING = /\s*\)/y;
const PERCENT = /\s*%/y;
const MARK = /\s?@([MCSPTRI?])(?=[\s,;.)\]]|$)|\s?(\?)(?=[\s,;.)\]]|$)/iy;
const SURE = /!(?=[\s,;.)\]]|$)/y;
/** Units so small that three digits after a point may be thousands. */
const MAY_GROUP: ReadonlySet<string> = new Set(['g', 'mg', 'mm']);
/** Pairs written one after the other: 6' 3", 4 lb 6 oz, 1 kg 200 g. */
const SMALLER: Readonly<Record<string, string>> = { ft: 'in', lb: 'oz', kg: 'g', m: 'cm' };

/** A quantity as it stands in a line. Exactly one of `value` and `fault` says something. */
export interface Stated {
  readonly end: number;
  readonly isAbout: boolean;
  readonly isTotal: boolean;
  readonly bound: 'least' | 'most' | null;
  /** the unit, '' where none was said and none is usual */
  readonly symbol: string;
  readonly hasUnit: boolean;
  readonly mark: EvidenceMark | null;
  readonly isSure: boolean;
  /** the number and unit as it is printed, without estimate, spread and mark: "41 g", "5-6 kg" */
  readonly plain: string;
  /** the digits as typed */
  readonly digits: string;
  readonly value: { readonly si: number; readonly u: number; readonly spread: string; readonly isRange: boolean } | null;
  readonly fault:
    | { readonly kind: 'two-ways'; readonly digits: string; readonly readings: readonly TypedNumber[] }
    | { readonly kind: 'number'; readonly digits: string }
    | { readonly kind: 'spread' }
    | { readonly kind: 'range' }
    | null;
}

interface Words {
  readonly at: number;
  readonly said: ReadonlySet<string>;
}

const modifiers = (line: string, from: number, patterns: Patterns): Words => {
  const said = new Set<string>();
  let at = from;
  let more = true;
  while (more) {
    more = false;
    for (const [word, pattern] of patterns) {
      const match = said.has(word) ? null : matchAt(pattern, line, at);
      if (!match || match[0].trim() === '') continue;
      if (patterns !== BEFORE && LOOSE.has(word) && matchAt(BEFORE_NEXT, line, at + match[0].length)) continue;
      said.add(word);
      at += match[0].length;
      more = true;
      break;
    }
  }
  return { at, said };
};

interface Beginning {
  readonly before: Words;
  readonly digits: string;
}

/** The beginnings of quantities of the line that is being read: every kind of quantity begins alike. */
const begun = { line: '', at: new Map<number, Beginning | null>() };

/** What stands before a number at a place, and the number; null where there is none. */
const beginningAt = (line: string, start: number): Beginning | null => {
  if (begun.line !== line) {
    begun.line = line;
    begun.at.clear();
  }
  const kept = begun.at.get(start);
  if (kept !== undefined) return kept;
  const before = modifiers(line, start, BEFORE);
  const digits = matchAt(NUMBER, line, before.at)?.[0] ?? '';
  const found = digits.trim() === '' ? null : { before, digits };
  begun.at.set(start, found);
  return found;
};

interface Asking {
  readonly table: UnitTable;
  /** the unit when none is said; null makes a unit necessary for it to be this quantity at all; '' takes a bare number */
  readonly usual: string | null;
  /** decimals SI values are rounded to, so that a printed line reads back as the same number */
  readonly decimals?: number | undefined;
  /** it cannot be said in all: “total” behind it belongs to what follows */
  readonly isEachOnly?: boolean;
}

const rounded = (si: number, decimals: number | undefined): number =>
  decimals === undefined ? si : Math.round(si * 10 ** decimals) / 10 ** decimals;

const UNIT_AT = new Map<UnitTable, RegExp>();
const unitAt = (table: UnitTable): RegExp => {
  const kept =
    UNIT_AT.get(table) ?? new RegExp(String.raw`\s{0,2}${table.pattern}(?![\p{L}\d]|\/(?!\s?(?:pc|ea|st|pz|pi[eè]ce|unit|ud)))`, 'iuy');
  UNIT_AT.set(table, kept);
  return kept;
};
const STOP = new RegExp(String.raw`(?=\s|$|[?!)\]/]|@|[,;.:]+(?:\s|$)|±|\+-|\+\/)`, 'y');

/** Is a pair one figure: whole units, then less than one more of them? `1 kg 200 g` is, `1.2 kg 1200 g` is said twice. */
const isLessThanOne = (
  larger: string,
  unit: string,
  smaller: string | undefined,
  of: string | undefined,
  { units }: UnitTable,
): boolean => {
  const [whole, rest] = [readNumber(larger), readNumber(smaller ?? '')];
  const [unitOf, restOf] = [units[unit], units[of ?? '']];
  if (whole.kind !== 'number' || rest.kind !== 'number' || !unitOf || !restOf) return false;
  return Number.isInteger(whole.number.value) && toSi(rest.number.value, restOf) < toSi(1, unitOf);
};

/** What stands in a line where a quantity may begin: its pieces, not yet taken for numbers. */
interface Written {
  readonly before: Words;
  readonly behind: Words;
  readonly end: number;
  /** the numbers as typed: one; two for the ends of a range, or for a unit and the smaller one behind it */
  readonly texts: readonly string[];
  readonly kind: 'one' | 'range' | 'pair';
  readonly symbol: string;
  readonly hasUnit: boolean;
  readonly spread: WrittenSpread | null;
  readonly isSure: boolean;
  readonly mark: EvidenceMark | null;
}

interface WrittenSpread {
  readonly digits: string;
  readonly symbol: string;
  readonly isPercent: boolean;
  readonly end: number;
}

/** The spread behind a figure: `±2 g`, `(±2)`, `± 5 %`; null where one was begun and not closed. */
const spreadFrom = (line: string, matched: RegExpMatchArray, begins: number, usual: string, table: UnitTable): WrittenSpread | null => {
  let end = begins;
  const percent = matchAt(PERCENT, line, end);
  const own = percent ?? matchAt(unitAt(table), line, end);
  if (own) end += own[0].length;
  const symbol = own && !percent ? (table.symbolOf(own[1] ?? '') ?? usual) : usual;
  if (matched[1] !== undefined) {
    const closing = matchAt(CLOSING, line, end);
    if (!closing) return null;
    end += closing[0].length;
  }
  return { digits: matched[2] ?? '', symbol, isPercent: percent !== null, end };
};

/** The second figure of a pair, as in `6' 3"`: its digits and where it ends. */
const smallerBehind = (
  line: string,
  at: number,
  digits: string,
  symbol: string,
  table: UnitTable,
): { digits: string; end: number } | null => {
  const pair = SMALLER[symbol];
  const second = pair ? matchAt(NUMBER, line, at + (/^\s*/.exec(line.slice(at))?.[0].length ?? 0)) : null;
  if (!second) return null;
  const ends = second.index + second[0].length;
  const unit = matchAt(unitAt(table), line, ends);
  const isPair = unit !== null && table.symbolOf(unit[1] ?? '') === pair && isLessThanOne(digits, symbol, second[0], pair, table);
  return isPair ? { digits: second[0], end: ends + unit[0].length } : null;
};

/** The pieces of the quantity that begins here; null where none does. */
const writtenAt = (line: string, start: number, { table, usual, isEachOnly = false }: Asking): Written | null => {
  const begun = beginningAt(line, start);
  if (begun === null) return null;
  const { before, digits } = begun;
  let at = before.at + digits.length;
  // 5-6 kg, 5 kg - 6 kg
  const to = before.said.has('between') ? BETWEEN : RANGE;
  const between = matchAt(unitAt(table), line, at);
  const wideFrom = between && matchAt(to, line, at + between[0].length) ? at + between[0].length : at;
  const range = matchAt(to, line, wideFrom);
  if (to === BETWEEN && !range) return null;
  if (range) at = wideFrom + range[0].length;
  // 41±2 g: the unit stands behind the spread
  const early = range ? null : matchAt(SPREAD, line, at);
  const late = early ? matchAt(unitAt(table), line, at + early[0].length) : null;
  const unit = late ?? matchAt(unitAt(table), line, at);
  if (unit && !late) at += unit[0].length;
  const symbol = unit ? table.symbolOf(unit[1] ?? '') : (usual ?? undefined);
  if (symbol === undefined) return null;
  if (range && !unit && usual === null) return null;
  const second = range ? null : smallerBehind(line, at, digits, symbol, table);
  if (second) at = second.end;
  if (!matchAt(STOP, line, at)) return null;

  const plusMinus = late ? early : matchAt(SPREAD, line, at);
  const spread = plusMinus ? spreadFrom(line, plusMinus, at + plusMinus[0].length, symbol, table) : null;
  if (plusMinus && !spread) return null;
  if (spread) at = spread.end;
  const isSure = matchAt(SURE, line, at) !== null;
  if (isSure) at += 1;
  let behind = modifiers(line, at, isEachOnly ? BEHIND.filter(([word]) => word !== 'total') : BEHIND);
  // `kg min` may begin the next stretch as well; what stands behind only counts where nothing of the kind stood before
  if ([...behind.said].some((word) => before.said.has(word))) behind = { at, said: new Set() };
  at = behind.at;
  const mark = matchAt(MARK, line, at);
  if (mark) at += mark[0].length;
  const high = range?.[1];
  return {
    ...{ before, behind, end: at, symbol, hasUnit: unit !== null, spread, isSure },
    texts: [digits, ...(high === undefined ? [] : [high]), ...(second ? [second.digits] : [])],
    kind: high !== undefined ? 'range' : second ? 'pair' : 'one',
    mark: mark ? ((mark[1]?.toUpperCase() ?? '?') as EvidenceMark) : null,
  };
};

/** Middle and own standard uncertainty of figures that are numbers: one, the ends of a range, or a unit and a smaller one. */
const middleOf = (
  kind: Written['kind'],
  low: TypedNumber,
  top: TypedNumber | undefined,
  of: Unit,
  smaller: Unit | undefined,
  decimals: number | undefined,
): { si: number; u: number } => {
  const si = (n: TypedNumber): number => rounded(toSi(n.value, of), decimals);
  // a range is taken to be evenly spread between its ends
  if (kind === 'range' && top) return { si: (si(low) + si(top)) / 2, u: (si(top) - si(low)) / Math.sqrt(12) };
  if (kind === 'pair' && top && smaller)
    return { si: rounded(toSi(low.value, of) + toSi(top.value, smaller), decimals), u: resolutionU(toSi(top.step, smaller)) };
  return { si: si(low), u: resolutionU(toSi(low.step, of)) };
};

/**
 * Reads a quantity where it stands: what is said before it (estimate, bound, in all, each), a number or a range, its unit,
 * its spread, what is said behind it, and how it is known. Null where there is no such quantity.
 */
export const statedAt = (line: string, start: number, asking: Asking): Stated | null => {
  const written = writtenAt(line, start, asking);
  if (written === null) return null;
  const { kind, texts, symbol, spread: plusMinus } = written;
  const { table, decimals } = asking;
  const said = new Set([...written.before.said, ...written.behind.said]);
  const base = {
    ...{ end: written.end, symbol, hasUnit: written.hasUnit, mark: written.mark, isSure: written.isSure, digits: texts[0]! },
    isAbout: said.has('about'),
    isTotal: said.has('total'),
    bound: said.has('least') ? ('least' as const) : said.has('most') ? ('most' as const) : null,
  };
  const faulty = (fault: Stated['fault']): Stated => ({ ...base, plain: `${texts.join('-')} ${symbol}`.trim(), value: null, fault });
  const reads = texts.map((text) => readNumber(text, MAY_GROUP.has(symbol) && kind !== 'pair' && !base.isSure));
  const twoWays = reads.findIndex((read) => read.kind === 'ambiguous');
  const ambiguous = reads[twoWays];
  if (ambiguous?.kind === 'ambiguous') return faulty({ kind: 'two-ways', digits: texts[twoWays] ?? '', readings: ambiguous.readings });
  const numbers = reads.flatMap((read) => (read.kind === 'number' ? [read.number] : []));
  const notRead = reads.findIndex((read) => read.kind !== 'number');
  const [low, top] = numbers;
  if (notRead >= 0 || !low) return faulty({ kind: 'number', digits: texts[notRead]! });
  const of = table.units[symbol];
  if (!of) return { ...base, plain: low.text, value: { si: low.value, u: resolutionU(low.step), spread: '', isRange: false }, fault: null };

  if (kind === 'range' && top && !(top.value > low.value)) return faulty({ kind: 'range' });
  const smaller = table.units[SMALLER[symbol] ?? ''];
  const { si, u: own } = middleOf(kind, low, top, of, smaller, decimals);
  const spread = plusMinus && { ...plusMinus, of: table.units[plusMinus.symbol] ?? of, read: readNumber(plusMinus.digits) };
  const spreadSi =
    spread === null
      ? null
      : spread.read.kind !== 'number'
        ? Number.NaN
        : spread.isPercent
          ? (si * spread.read.number.value) / 100
          : toSi(spread.read.number.value, spread.of);
  if (spreadSi !== null && !(spreadSi > 0)) return faulty({ kind: 'spread' });
  const u = (spreadSi === null ? null : standardU(spreadSi)) ?? (base.isAbout ? Math.max(own, si * ESTIMATE_RELATIVE_U) : own);
  const plain =
    kind === 'pair'
      ? `${low.text} ${of.symbol} ${top?.text ?? ''} ${smaller?.symbol ?? ''}`
      : `${low.text}${kind === 'range' ? `-${top?.text ?? ''}` : ''} ${of.symbol}`;
  const spreadText = spread?.read.kind === 'number' ? ` ±${spread.read.number.text} ${spread.isPercent ? '%' : spread.of.symbol}` : '';
  return { ...base, plain, value: { si, u, spread: spreadText, isRange: kind === 'range' }, fault: null };
};

/** Replaces the digits that can be read two ways, to write the stretch with one reading. */
export const withDigits = (stretch: string, digits: string, text: string): string => {
  const at = stretch.indexOf(digits);
  return at < 0 ? stretch : `${stretch.slice(0, at)}${text}${stretch.slice(at + digits.length)}`;
};
