import type { WorkPackage } from '../../record';

/**
 * Working time of people for packages, seconds: the most likely time of each times its crew, of which there is one at least.
 * Packages without an estimate are counted apart; they are not nothing.
 */
export const labourOf = (
  packages: readonly Pick<WorkPackage, 'mostLikelyS' | 'people'>[],
): { readonly peopleS: number; readonly withoutEstimate: number } => ({
  peopleS: packages.reduce((sum, p) => sum + (p.mostLikelyS ?? 0) * Math.max(1, p.people), 0),
  withoutEstimate: packages.filter((p) => p.mostLikelyS === null).length,
});

/** "07:30": minutes of a day as a clock shows them. */
export const clockText = (min: number): string => `${String(Math.floor(min / 60)).padStart(2, '0')}:${String(min % 60).padStart(2, '0')}`;

/** Minutes of a day of "07:30", or null for anything else. */
export const readClock = (text: string): number | null => {
  const [, h, m] = /^\s*([01]?\d|2[0-3]):([0-5]\d)\s*$/.exec(text) ?? [];
  return h === undefined || m === undefined ? null : Number(h) * 60 + Number(m);
};
