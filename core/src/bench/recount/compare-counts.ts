import { countRange, type FastenerSet, type JointSet, type Recounted, type RecountFields } from '../../record';
import { fastenerLine, jointLine } from '../shorthand/from-row';

/** A set to be counted again, without its count. */
interface BlindSet {
  readonly kind: 'fasteners' | 'joints';
  readonly setId: string;
  /** "M6x16 T30 8.8": what it is, not how many */
  readonly words: string;
}

const WITHOUT_COUNT = /^\S+\s+/;

/** The sets of a part as they are shown to whoever counts again: without any count. */
export const blindSets = (fasteners: readonly FastenerSet[], joints: readonly JointSet[]): readonly BlindSet[] => [
  ...fasteners.map((set): BlindSet => ({
    kind: 'fasteners',
    setId: set.id,
    words: fastenerLine({
      ...set,
      count: 1,
      massEachKg: null,
      note: '',
      evidence: {},
    }).replace(WITHOUT_COUNT, ''),
  })),
  ...joints.map((set): BlindSet => ({
    kind: 'joints',
    setId: set.id,
    words: jointLine({ ...set, count: 1, lengthEachM: null, note: '', evidence: {} }).replace(WITHOUT_COUNT, ''),
  })),
];

/** Sets whose blind recount lies outside what the first allows; a first count that was a range allows all of it. */
export const differences = (counts: readonly Recounted[], sets: readonly (FastenerSet | JointSet)[]): readonly Recounted[] => {
  const byId = new Map(sets.map((set) => [set.id, set]));
  return counts.filter(({ setId, first, second }) => {
    const [low, high] = countRange(first, byId.get(setId)?.evidence.count);
    return second < low || second > high;
  });
};

/** What a blind recount comes to. */
export const recountState = (
  counts: readonly Recounted[],
  others: string,
  sets: readonly (FastenerSet | JointSet)[],
): RecountFields['state'] => (others.trim() === '' && differences(counts, sets).length === 0 ? 'agrees' : 'differs');
