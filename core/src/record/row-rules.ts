import { issue, type EvidenceMark, type Issue } from '../shared';
import type { KnownOf } from './kinds/field';
import { countRange } from './known';
import { allOrNone } from './whole-sets';

interface Weighed {
  readonly massEachKg: number | null;
  readonly massUKg: number | null;
  readonly massEvidence: EvidenceMark | null;
}

/** A mass, its uncertainty and how it is known go together. */
export const massFaults = (row: Weighed, id: string): readonly Issue[] =>
  allOrNone([row.massEachKg, row.massUKg, row.massEvidence])
    ? []
    : [issue('mass-incomplete', 'A mass needs its uncertainty and how it is known; give all three or none', 'massEachKg', id)];

/** A range goes around its value: two, perhaps three is 2 within 2 to 3. */
export const rangeFaults = (field: string, value: number, known: KnownOf, id: string): readonly Issue[] => {
  const [low, high] = countRange(value, known[field]);
  return value >= low && value <= high ? [] : [issue('outside-range', `The count ${value} lies outside its own range`, field, id)];
};
