import { evidenceRank, type EvidenceMark } from '../../shared';
import {
  isMassOfAll,
  massSaid,
  countInSum,
  countRange,
  type FastenerSet,
  type JointSet,
  type EvidenceOf,
  type Outline,
  type Part,
  type StudyRecord,
} from '../../record';
import { fastenerMass } from '../fasteners/fastener-mass';
import { productVar } from './add-up';
import { massClosure, type MassClosure } from './mass-closure';
import type { Measures, OwnFigure } from './measure';
import { wholeAndBelow, type Own, type RollUp } from './roll-up';

/** What the bench measures. A later stage has a table of its own beside it. */
export const BENCH_MEASURES = {
  parts: { label: 'parts', unit: '', of: 'part', adds: 'sum', says: ['range', 'weakest'] },
  fasteners: { label: 'fasteners', unit: '', of: 'held', adds: 'sum', says: ['range', 'weakest'] },
  joints: { label: 'joints', unit: '', of: 'held', adds: 'sum', says: ['range', 'weakest'] },
  mass: {
    label: 'mass',
    unit: 'kg',
    of: 'part',
    adds: 'sum',
    says: ['variance', 'together', 'amount on weakest', 'known', 'best'],
    outOf: 'parts',
    // weighed with its fasteners in it
    whole: {
      stands: ({ value, variance }, below) =>
        massClosure({ massKg: value, massVar: variance }, { massKg: below.value, massVar: below.variance, isComplete: below.isComplete })
          .stands === 'whole',
      joined: 'taken off',
    },
  },
  fastenerMass: {
    label: 'mass of the fasteners',
    unit: 'kg',
    of: 'held',
    adds: 'sum',
    says: ['variance', 'amount on weakest', 'known'],
    outOf: 'fasteners',
    joins: ['mass'],
  },
} as const satisfies Measures;
export type BenchMeasures = typeof BENCH_MEASURES;

/** Adds an amount that rests on a mark to an amount that rests on marks up to `rank`: the weaker mark wins, equal marks add up. */
export const onWeakest = (rank: number, kg: number, otherRank: number, otherKg: number): readonly [number, number] =>
  otherRank > rank ? [otherRank, otherKg] : otherRank < rank ? [rank, kg] : [rank, kg + otherKg];

/** The rank of a mark, −1 for none. */
export const rankOf = (mark: EvidenceMark | null | undefined): number => (mark === null || mark === undefined ? -1 : evidenceRank(mark));

const square = (value: number): number => value * value;

const COUNTED = evidenceRank('C');
/** a count is taken as counted unless something else is said */
const countRankOf = (evidence: EvidenceOf, field: string): number => {
  const said = evidence[field];
  return said ? evidenceRank(said.mark) : COUNTED;
};

/** The sets of fasteners on one part, as they enter its counts and its mass. */
const ofFasteners = (sets: readonly FastenerSet[]): { fasteners: OwnFigure; fastenerMass: OwnFigure; isOpen: boolean } => {
  let [count, low, high, countRank] = [0, 0, 0, -1];
  let [kg, variance, known, rank, onRank] = [0, 0, 0, -1, 0];
  let isOpen = false;
  for (const set of sets) {
    const [least, most] = countRange(set.count, set.evidence.count);
    count += set.count;
    low += least;
    high += most;
    countRank = Math.max(countRank, countRankOf(set.evidence, 'count'));
    const times = countInSum(set.count, set.evidence.count);
    isOpen ||= times.isOpen;
    const mass = fastenerMass(set);
    if (!mass) continue;
    const inAll = isMassOfAll(set);
    const n = inAll ? set.count : times.mean;
    known += set.count;
    kg += n * mass.kg;
    variance += inAll ? square(n * mass.uKg) : productVar(times.mean, times.variance, mass.kg, square(mass.uKg));
    [rank, onRank] = onWeakest(rank, onRank, evidenceRank(mass.mark), n * mass.kg);
  }
  return { fasteners: { value: count, low, high, rank: countRank }, fastenerMass: { value: kg, variance, rank, onRank, known }, isOpen };
};

const ofJoints = (sets: readonly JointSet[]): OwnFigure => {
  let [value, low, high, rank] = [0, 0, 0, -1];
  for (const set of sets) {
    const [least, most] = countRange(set.count, set.evidence.count);
    value += set.count;
    low += least;
    high += most;
    rank = Math.max(rank, countRankOf(set.evidence, 'count'));
  }
  return { value, low, high, rank };
};

const ofMass = (part: Part, mean: number, countVar: number): OwnFigure | null => {
  if (part.massEachKg === null) return null;
  const said = massSaid(part);
  const inAll = isMassOfAll(part) && countVar > 0;
  // stated in all: shared among the count that enters the sum, so that the sum is what was stated
  const share = inAll ? part.quantity / mean : 1;
  return { value: part.massEachKg * share, variance: square((said?.u ?? 0) * share), rank: rankOf(said?.mark), inAll };
};

/** What one part with its fastener and joint sets gives to the measures of the bench. */
export const benchOwn = (part: Part, fastenerSets: readonly FastenerSet[], jointSets: readonly JointSet[]): Own => {
  const [low, high] = countRange(part.quantity, part.evidence.quantity);
  const { mean, variance, isOpen } = countInSum(part.quantity, part.evidence.quantity);
  const count = { value: part.quantity, low, high, mean, variance, rank: countRankOf(part.evidence, 'quantity'), isOpen };
  const figures: Record<string, OwnFigure> = {};
  const mass = ofMass(part, mean, variance);
  if (mass) figures.mass = mass;
  if (jointSets.length > 0) figures.joints = ofJoints(jointSets);
  if (fastenerSets.length === 0) return { count, figures: [figures] };
  const { fasteners, fastenerMass: ofThem, isOpen: anyOpen } = ofFasteners(fastenerSets);
  figures.fasteners = fasteners;
  figures.fastenerMass = ofThem;
  return { count: { ...count, isOpen: isOpen || anyOpen }, figures: [figures] };
};

/**
 * The weighing of a node held against the sum of what is inside it, per one such part; null where it is no assembly or was
 * not weighed as a whole.
 */
export const closureAt = (rolled: RollUp<BenchMeasures>, place: number): MassClosure | null => {
  const held = wholeAndBelow(rolled, place, 'mass');
  return (
    held &&
    massClosure(
      { massKg: held.whole.value, massVar: held.whole.variance },
      { massKg: held.below.value, massVar: held.below.variance, isComplete: held.below.isComplete },
    )
  );
};

const EMPTY: readonly never[] = [];

/** Rows by the part they belong to, in the order they came. */
export const groupByPart = <T extends { readonly partId: string }>(rows: readonly T[]): ReadonlyMap<string, readonly T[]> => {
  const groups = new Map<string, T[]>();
  for (const row of rows) {
    const group = groups.get(row.partId);
    if (group) group.push(row);
    else groups.set(row.partId, [row]);
  }
  return groups;
};

/** The part at each place of an outline; undefined where none is. [node] */
export const partsByPlace = (record: StudyRecord, { nodes, placeOf }: Outline): readonly (Part | undefined)[] => {
  const at = new Array<Part | undefined>(nodes.length).fill(undefined);
  for (const part of record.parts) {
    const place = placeOf.get(part.id);
    if (place !== undefined) at[place] = part;
  }
  return at;
};

/** The part at each place with its sets, for what the stages say a part gives; null where no part is. */
export const ownOfParts = (
  record: StudyRecord,
  partAt: readonly (Part | undefined)[],
  own: (part: Part, fasteners: readonly FastenerSet[], joints: readonly JointSet[], place: number) => Own,
): ((place: number) => Own | null) => {
  const fasteners = groupByPart(record.fastenerSets);
  const joints = groupByPart(record.jointSets);
  return (place) => {
    const part = partAt[place];
    return part ? own(part, fasteners.get(part.id) ?? EMPTY, joints.get(part.id) ?? EMPTY, place) : null;
  };
};
