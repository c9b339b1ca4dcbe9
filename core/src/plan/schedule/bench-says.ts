import type { WorkPackage } from '../../record';

/** What the bench's own record says of a package that opens a subsystem. */
export interface BenchSays {
  readonly packageId: string;
  readonly recorded: number;
  /** parts expected; null when nobody knows */
  readonly expected: number | null;
  /** day on which the package was begun, when it says nothing of it yet */
  readonly startedOn: string | null;
  /** working time still needed in proportion to the parts that are missing, when they are known */
  readonly remainingS: number | null;
}

/**
 * What recorded parts say of a package: that it has begun, and how much is left.
 *
 *   left = most likely time × (1 − recorded / expected), never below a twentieth of it while it is not said to be done
 *
 * @param recorded loose parts of its subsystem on its vehicle
 * @param firstDay day of the first of them, YYYY-MM-DD, or null
 * @returns null when the bench has nothing to say: no part yet, the package is done, or nothing would change
 */
export const benchSays = (
  pack: WorkPackage,
  { recorded, expected, firstDay }: { readonly recorded: number; readonly expected: number | null; readonly firstDay: string | null },
): BenchSays | null => {
  if (recorded === 0 || pack.doneOn !== null) return null;
  const fraction = expected === null || expected === 0 ? null : Math.max(0.05, 1 - recorded / expected);
  const remainingS = fraction === null || pack.mostLikelyS === null ? null : Math.round((pack.mostLikelyS * fraction) / 900) * 900;
  const startedOn = pack.startedOn === null ? firstDay : null;
  const isNew = startedOn !== null || (remainingS !== null && remainingS !== pack.remainingS);
  return isNew ? { packageId: pack.id, recorded, expected, startedOn, remainingS } : null;
};
