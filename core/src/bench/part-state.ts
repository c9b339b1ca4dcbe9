import type { Part, Step } from '../record';

/** Where a part is by now and what became of it, in one word. */
export type PartState = 'fitted' | 'removed' | 'opened' | 'left closed' | 'missing' | 'destroyed' | 'returned';

/** Parts that nobody can put on a scale any more. */
const GONE: ReadonlySet<string> = new Set(['missing', 'destroyed', 'returned']);

/** Whether a part is still there to be weighed and measured: not missing, destroyed or returned. */
export const canBeMeasured = ({ state }: Pick<Part, 'state'>): boolean => state === null || !GONE.has(state);

/** The parts that some removal names. */
export const removedParts = (steps: readonly Step[]): ReadonlySet<string> => new Set(steps.flatMap((step) => step.parts));

/**
 * The state of a part: what is said of it where it is gone; else whether it was opened; else what is said, or that a removal names it.
 * Null where nothing says so: a part may be recorded without ever having been taken off.
 */
export const partState = ({ id, state, opened }: Pick<Part, 'id' | 'state' | 'opened'>, removed: ReadonlySet<string>): PartState | null => {
  if (state !== null && GONE.has(state)) return state;
  if (opened !== null) return opened === 'closed' ? 'left closed' : 'opened';
  return state ?? (removed.has(id) ? 'removed' : null);
};
