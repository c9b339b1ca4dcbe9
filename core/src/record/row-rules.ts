import { issue, type Issue } from '../shared';
import type { EvidenceOf } from './kinds/field';
import { countRange, type Weighed } from './evidence';

/** A mass goes with its uncertainty and how it is known. */
export const massFaults = (row: Weighed, id: string): readonly Issue[] =>
  (row.massEachKg === null) === ((row.evidence.massEachKg?.u ?? null) === null)
    ? []
    : [issue('mass-incomplete', 'A mass needs its uncertainty and how it is known; give both or none', 'massEachKg', id)];

/** A range goes around its value: two, perhaps three is 2 within 2 to 3. */
export const rangeFaults = (field: string, value: number, evidence: EvidenceOf, id: string): readonly Issue[] => {
  const [low, high] = countRange(value, evidence[field]);
  return value >= low && value <= high ? [] : [issue('outside-range', `The count ${value} lies outside its own range`, field, id)];
};
