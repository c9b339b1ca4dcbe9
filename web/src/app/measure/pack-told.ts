import { packDifference, packReport, type PackDifference, type PackReport, type Weighed } from '@each-bolt/core/measure';
import type { Pack } from '@each-bolt/core/record';

/** A pack to be worked out, beside another or alone, as it goes to the worker. */
export interface PackAsked {
  readonly pack: Pack;
  readonly beside: Pack | null;
  /** masses by part that their boundaries need */
  readonly masses: Readonly<Record<string, Weighed | null>>;
}

/** What it comes to. */
export interface PackTold {
  /** ids of what it was asked of */
  readonly of: string;
  readonly besideOf: string | null;
  readonly report: PackReport;
  readonly beside: PackReport | null;
  /** the first against the other, in words; empty alone */
  readonly sentence: string;
  /** what the hottest cell, the spread and the rest differ by, with standard uncertainty; null alone */
  readonly difference: Pick<PackDifference, 'values' | 'us'> | null;
}

export const toldOf = ({ pack, beside, masses }: PackAsked): PackTold => {
  const massOf = (partId: string): Weighed | null => masses[partId] ?? null;
  const ids = { of: pack.id, besideOf: beside?.id ?? null };
  const report = packReport(pack, massOf);
  if (beside === null) return { ...ids, report, beside: null, sentence: '', difference: null };
  const other = packReport(beside, massOf);
  // what cannot be cooled is told by its own report
  if (report.fault !== '' || other.fault !== '') return { ...ids, report, beside: other, sentence: '', difference: null };
  const { values, us, sentence } = packDifference(beside, pack);
  return { ...ids, report, beside: other, sentence, difference: { values, us } };
};
