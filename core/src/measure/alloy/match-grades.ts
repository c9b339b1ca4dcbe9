import { normalCdf } from '../../shared';
import { GRADES, TRACE, type Grade, type Limit } from './grades';

export type Fractions = Readonly<Record<string, { readonly fraction: number; readonly u: number }>>;

/** One element of a reading against the limits of a grade. */
interface ElementVerdict {
  readonly symbol: string;
  readonly fraction: number;
  readonly u: number;
  readonly limit: Limit;
  /** standard uncertainties by which it lies outside the limits; 0 inside */
  readonly outside: number;
}

interface GradeMatch {
  readonly grade: Grade;
  /** chance of the reading under this grade relative to the best, 0…1 */
  readonly likelihoodFraction: number;
  /** every element lies within its limits, or outside by no more than two standard uncertainties */
  readonly fits: boolean;
  /** the elements outside, the worst first */
  readonly outside: readonly ElementVerdict[];
  /** elements with limits that the instrument does not see, or did not report: not measured is not none */
  readonly unseen: readonly string[];
}

export interface AlloyMatch {
  readonly base: Grade['base'] | null;
  /** the most likely first; those that do not fit after those that do */
  readonly matches: readonly GradeMatch[];
  /** what would tell the fitting ones apart, in words; empty when one alone fits */
  readonly separate: readonly string[];
}

/** Elements lighter than this atomic number give X-rays too weak to be read through air. */
export const UNSEEN_BY_X_RAYS: readonly string[] = ['H', 'Li', 'Be', 'B', 'C', 'N', 'O', 'F', 'Na'];
/** and these are read with little certainty */
export const WEAK_BY_X_RAYS: readonly string[] = ['Mg', 'Al', 'Si', 'P', 'S'];

const FITS_WITHIN = 2;
const BASES: readonly Grade['base'][] = ['Al', 'Mg', 'Zn', 'Fe', 'Cu'];
/** what a reading says without a stated uncertainty is taken as this exact, as a fraction */
const LEAST_U = 0.00002;

/**
 * Grades that a reading of element fractions may come from, ranked.
 *
 * Within its limits a grade may have any fraction, each as likely; the reading adds a normal error. For one element
 *
 *   L = (Φ((high − x)/u) − Φ((low − x)/u)) · c / (high − low),   c a common width
 *
 * is the chance of reading x; those of all elements are multiplied. Where only a most is given, the element is taken to
 * be wanted in half the melts and a trace in the other half (assumed): L is the mean of both. An element a grade does not
 * name may be there as a trace (0.05 %, assumed). Elements the instrument does not see, or did not report, are left out and
 * told: what is not reported is not measured, and is not 0.
 *
 * @param reading fraction and standard uncertainty by symbol of the element
 * @param unseen symbols the instrument cannot see
 */
export const matchGrades = (reading: Fractions, unseen: readonly string[], grades: readonly Grade[] = GRADES): AlloyMatch => {
  const base = baseOf(reading);
  if (base === null) return { base, matches: [], separate: [] };
  const judged = grades.filter((g) => g.base === base).map((g) => ({ ...judge(reading, g, unseen), grade: g }));
  const best = Math.max(...judged.map((j) => j.logLikelihood));
  const matches = judged
    .map(({ grade, logLikelihood, outside, unseen: not }): GradeMatch => ({
      grade,
      likelihoodFraction: Math.exp(logLikelihood - best),
      fits: outside.every((e) => e.outside <= FITS_WITHIN),
      outside,
      unseen: not,
    }))
    .sort((a, b) => Number(b.fits) - Number(a.fits) || b.likelihoodFraction - a.likelihoodFraction);
  return {
    base,
    matches,
    separate: separating(
      matches.filter((m) => m.fits).map((m) => m.grade),
      unseen,
    ),
  };
};

/** The element there is most of, when alloys of it are known. */
const baseOf = (reading: Fractions): Grade['base'] | null => {
  const most = Object.entries(reading).sort(([, a], [, b]) => b.fraction - a.fraction)[0]?.[0];
  return BASES.find((base) => base === most) ?? null;
};

interface Judged {
  readonly logLikelihood: number;
  readonly outside: readonly ElementVerdict[];
  readonly unseen: readonly string[];
}

const judge = (reading: Fractions, grade: Grade, unseen: readonly string[]): Judged => {
  const symbols = new Set(Object.keys(reading));
  if (!grade.limits[grade.base]) symbols.delete(grade.base);
  let logLikelihood = 0;
  const outside: ElementVerdict[] = [];
  const isRead = (symbol: string): boolean => reading[symbol] !== undefined && !unseen.includes(symbol);
  const not = Object.keys(grade.limits).filter((symbol) => !isRead(symbol));
  const add = (symbol: string, fraction: number, u: number, limit: Limit): void => {
    const held = Math.max(LEAST_U, u);
    const beyond = Math.max(0, limit.low - fraction, fraction - limit.high) / held;
    logLikelihood += logChance(fraction, held, limit);
    if (beyond > 0) outside.push({ symbol, fraction, u, limit, outside: beyond });
  };
  for (const symbol of symbols) {
    const read = reading[symbol];
    if (!read || !isRead(symbol)) continue;
    const { fraction, u } = read;
    add(symbol, fraction, u, grade.limits[symbol] ?? TRACE);
  }
  for (const { of, limit } of grade.sums) {
    const parts = of.flatMap((symbol) => reading[symbol] ?? []);
    // of a sum with a part that was not read only the most can be broken
    const isWhole = of.every(isRead);
    const fraction = parts.reduce((sum, p) => sum + p.fraction, 0);
    const u = Math.hypot(...parts.map((p) => p.u));
    const beyond = Math.max(0, isWhole ? limit.low - fraction : 0, fraction - limit.high) / Math.max(LEAST_U, u);
    if (beyond > 0) {
      logLikelihood -= beyond ** 2 / 2;
      outside.push({ symbol: of.join(' + '), fraction, u, limit, outside: beyond });
    }
  }
  return { logLikelihood, outside: outside.sort((a, b) => b.outside - a.outside), unseen: not };
};

const COMMON_WIDTH = 0.001;

const logChance = (x: number, u: number, limit: Limit): number => {
  const { low, high } = limit;
  const beyond = Math.max(0, low - x, x - high) / u;
  // so far out both tails are nothing to a computer; the square of the distance still ranks
  if (beyond > 6) return Math.log(COMMON_WIDTH / (high - low)) - beyond ** 2 / 2;
  const isTraceOrMost = low === 0 && high > TRACE.high;
  const chance = isTraceOrMost ? (chancePer(x, u, limit) + chancePer(x, u, TRACE)) / 2 : chancePer(x, u, limit);
  return Math.log(chance * COMMON_WIDTH);
};

/** Chance of reading x in an even spread over the limits, for each unit of it. */
const chancePer = (x: number, u: number, { low, high }: Limit): number =>
  Math.max(normalCdf(high, x, u) - normalCdf(low, x, u), 1e-12) / (high - low);

const percent = (fraction: number): string => `${Number((fraction * 100).toPrecision(3))} %`;
/** A limit of a composition in words, per cent by mass, as in “0.4 % to 0.9 %”; fractions come in. */
export const limitText = ({ low, high }: Limit): string => (low === 0 ? `up to ${percent(high)}` : `${percent(low)} to ${percent(high)}`);

/** For each pair of fitting grades: which element tells them apart and from where, or that none does. */
const separating = (grades: readonly Grade[], unseen: readonly string[]): readonly string[] =>
  grades.slice(0, 4).flatMap((a, i) =>
    grades.slice(i + 1, 4).map((b) => {
      const symbols = [...new Set([...Object.keys(a.limits), ...Object.keys(b.limits)])];
      const differing = symbols
        .map((symbol) => ({ symbol, a: a.limits[symbol] ?? TRACE, b: b.limits[symbol] ?? TRACE }))
        .filter((e) => e.a.low !== e.b.low || e.a.high !== e.b.high);
      const apart = differing.filter((e) => e.a.high < e.b.low || e.b.high < e.a.low);
      const words = (e: (typeof differing)[number]): string =>
        `${e.symbol} (${limitText(e.a)} against ${limitText(e.b)}${unseen.includes(e.symbol) ? ', which this instrument does not see' : ''})`;
      if (apart.length > 0) return `${a.name} and ${b.name} are told apart by ${apart.map(words).join(', ')}`;
      return differing.length === 0
        ? `${a.name} and ${b.name} have the same limits`
        : `${a.name} and ${b.name} overlap: a composition may be both. Only a value outside one of them tells: ${differing.slice(0, 3).map(words).join(', ')}`;
    }),
  );
