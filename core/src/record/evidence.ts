import type { EvidenceMark } from '../shared';
import type { Evidence, EvidenceOf } from './kinds/field';

/** A row with a mass, whose uncertainty stands in its evidence. */
export interface Weighed {
  readonly massEachKg: number | null;
  readonly evidence: EvidenceOf;
}

/** The evidence of a mass; null where there is no mass. */
export const massSaid = ({ massEachKg, evidence: said }: Weighed): Evidence | null =>
  massEachKg === null ? null : (said.massEachKg ?? evidence('?'));

/** The standard uncertainty of a mass, kg; null where there is no mass. */
export const massUKg = (row: Weighed): number | null => massSaid(row)?.u ?? null;

/** Was the mass stated of all together? */
export const isMassOfAll = ({ evidence: said }: Pick<Weighed, 'evidence'>): boolean => said.massEachKg?.typed?.startsWith('total') ?? false;

/** How a figure is known: its mark, and what else is said of it; what is not said is null or empty. */
export const evidence = (mark: EvidenceMark, more: Partial<Evidence> = {}): Evidence => ({
  mark,
  u: null,
  low: null,
  high: null,
  typed: null,
  instrument: '',
  source: '',
  ...more,
});

/** "2 to 3", "at least 20": a range in words, or null when there is none. */
export const rangeText = ({ low, high }: Pick<Evidence, 'low' | 'high'>): string | null => {
  if (low !== null && high !== null) return `${low} to ${high}`;
  if (low !== null) return `at least ${low}`;
  return high === null ? null : `at most ${high}`;
};

/**
 * A count as it enters a sum: the middle of its range, and the variance of a rectangular distribution over it. A count of
 * which only "at least" is known enters with what is known.
 *
 *   n = (low + high) / 2      u² = (high − low)² / 12
 *
 * @source JCGM 100:2008 (GUM), 4.3.7
 * @example countInSum(8, evidence('C', { low: 8, high: 12 })) // => { mean: 10, variance: 1.3333333333333333, isOpen: false }
 */
export const countInSum = (
  count: number,
  said: Evidence | undefined,
): { readonly mean: number; readonly variance: number; readonly isOpen: boolean } => {
  const [low, high] = countRange(count, said);
  if (low === high) return { mean: count, variance: 0, isOpen: false };
  if (!Number.isFinite(high)) return { mean: Math.max(count, low), variance: 0, isOpen: true };
  return { mean: (low + high) / 2, variance: (high - low) ** 2 / 12, isOpen: false };
};

/** Lowest and highest count a record allows; the highest is infinite when only "at least" is known. */
export const countRange = (count: number, said: Evidence | undefined): readonly [number, number] => {
  if (!said || (said.low === null && said.high === null)) return [count, count];
  return [said.low ?? Math.min(1, count), said.high ?? Number.POSITIVE_INFINITY];
};
