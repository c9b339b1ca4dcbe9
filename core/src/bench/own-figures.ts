import { evidenceRank, type EvidenceMark } from '../shared';
import {
  isMassOfAll,
  massSaid,
  countInSum,
  countRange,
  evidenceFor,
  type FastenerSet,
  type JointSet,
  type EvidenceOf,
  type Outline,
  type Part,
  type StudyRecord,
} from '../record';
import { fastenerMass } from './fasteners/fastener-mass';

/** What one node adds to the totals by itself, for one such part, before its quantity. */
export interface OwnFigures {
  readonly isPart: boolean;
  readonly quantity: number;
  /** the range the quantity allows; infinite above when only "at least" is known */
  readonly quantityLow: number;
  readonly quantityHigh: number;
  /** the quantity as it enters sums of mass and cost, with the variance of its range */
  readonly quantityMean: number;
  readonly quantityVar: number;
  /** only "at least" is known of a count here */
  readonly isOpen: boolean;
  /** the mass was stated of all of them together, so that their number does not make it less sure */
  readonly isMassInAll: boolean;
  /** how the quantity is known, as a rank */
  readonly countRank: number;
  readonly fasteners: number;
  readonly fastenersLow: number;
  readonly fastenersHigh: number;
  /** weakest mark among the counts of the fastener sets, −1 for none */
  readonly fastenerCountRank: number;
  readonly fastenerMassKg: number;
  readonly fastenerMassVar: number;
  readonly fastenersMassed: number;
  readonly fastenerRank: number;
  readonly fastenerKgOnRank: number;
  readonly joints: number;
  readonly massKg: number | null;
  readonly massVar: number;
  readonly massRank: number;
  readonly costAmount: number | null;
  /** weakest mark among what the cost rests on, as a rank */
  readonly costRank: number;
  /** the price covers the part with all that is inside it */
  readonly boughtWhole: boolean;
  readonly fastenerCost: number;
  /** variance of the cost of the fasteners that comes from ranges of their counts */
  readonly fastenerCostVar: number;
  readonly fastenersCosted: number;
  readonly fastenerCostRank: number;
}

/** Cost of one part and of one fastener of a set, in the study's currency and basis; null where it cannot be worked out. */
export interface CostOf {
  readonly part: (part: Part) => { readonly amount: number | null; readonly boughtWhole: boolean };
  readonly fastener: (set: FastenerSet) => number | null;
}

const NOTHING_OWN: OwnFigures = {
  isPart: false,
  quantity: 1,
  quantityLow: 1,
  quantityHigh: 1,
  quantityMean: 1,
  quantityVar: 0,
  isOpen: false,
  isMassInAll: false,
  countRank: -1,
  fasteners: 0,
  fastenersLow: 0,
  fastenersHigh: 0,
  fastenerCountRank: -1,
  fastenerMassKg: 0,
  fastenerMassVar: 0,
  fastenersMassed: 0,
  fastenerRank: -1,
  fastenerKgOnRank: 0,
  joints: 0,
  massKg: null,
  massVar: 0,
  massRank: -1,
  costAmount: null,
  costRank: -1,
  boughtWhole: false,
  fastenerCost: 0,
  fastenerCostVar: 0,
  fastenersCosted: 0,
  fastenerCostRank: -1,
};

/** Adds mass that rests on a mark to mass that rests on marks up to `rank`: the weaker mark wins, equal marks add up. */
export const onWeakest = (rank: number, kg: number, otherRank: number, otherKg: number): readonly [number, number] =>
  otherRank > rank ? [otherRank, otherKg] : otherRank < rank ? [rank, kg] : [rank, kg + otherKg];

const rankOf = (mark: EvidenceMark | null): number => (mark === null ? -1 : evidenceRank(mark));

const square = (value: number): number => value * value;

/**
 * Variance of a count times a value, both with a variance and independent.
 *
 *   u²(n m) = n² u²(m) + m² u²(n) + u²(n) u²(m)
 *
 * @source variance of a product of independent quantities, exact; JCGM 100:2008 (GUM), 5.1.2 gives its first two terms
 */
export const productVar = (n: number, nVar: number, value: number, valueVar: number): number =>
  n * n * valueVar + nVar * (value * value + valueVar);

const COUNTED = evidenceRank('C');
/** a count is taken as counted unless something else is said */
const countRankOf = (evidence: EvidenceOf, field: string): number => {
  const said = evidence[field];
  return said ? evidenceRank(said.mark) : COUNTED;
};

const markRank = (mark: EvidenceMark | null | undefined): number => (mark === null || mark === undefined ? -1 : evidenceRank(mark));

/** A price rests on who told it; a worked-out cost on the mass, the material and the process, each as it is known. */
const costRankOf = (part: Part): number =>
  part.boughtPrice !== null
    ? markRank(evidenceFor('part', part, 'boughtPrice')?.mark)
    : Math.max(
        markRank(massSaid(part)?.mark),
        ...['materialId', 'processId'].map((field) => markRank(evidenceFor('part', part, field)?.mark)),
      );

/** What one part with its fastener and joint sets adds to the totals. */
export const ownFigures = (part: Part, fastenerSets: readonly FastenerSet[], jointSets: readonly JointSet[], cost: CostOf): OwnFigures => {
  let fasteners = 0;
  let fastenersLow = 0;
  let fastenersHigh = 0;
  let fastenerCountRank = -1;
  let fastenerMassKg = 0;
  let fastenerMassVar = 0;
  let fastenersMassed = 0;
  let fastenerRank = -1;
  let fastenerKgOnRank = 0;
  let fastenerCost = 0;
  let fastenerCostVar = 0;
  let isOpen = false;
  let fastenersCosted = 0;
  let fastenerCostRank = -1;
  for (const set of fastenerSets) {
    fasteners += set.count;
    const [low, high] = countRange(set.count, set.evidence.count);
    fastenersLow += low;
    fastenersHigh += high;
    fastenerCountRank = Math.max(fastenerCountRank, countRankOf(set.evidence, 'count'));
    const mass = fastenerMass(set);
    const times = countInSum(set.count, set.evidence.count);
    isOpen ||= times.isOpen;
    if (mass) {
      const inAll = isMassOfAll(set);
      const n = inAll ? set.count : times.mean;
      fastenersMassed += set.count;
      fastenerMassKg += n * mass.kg;
      fastenerMassVar += inAll ? square(n * mass.uKg) : productVar(times.mean, times.variance, mass.kg, square(mass.uKg));
      [fastenerRank, fastenerKgOnRank] = onWeakest(fastenerRank, fastenerKgOnRank, evidenceRank(mass.mark), n * mass.kg);
    }
    const each = cost.fastener(set);
    if (each !== null) {
      fastenerCost += times.mean * each;
      fastenerCostVar += times.variance * square(each);
      fastenersCosted += set.count;
      fastenerCostRank = Math.max(fastenerCostRank, mass ? evidenceRank(mass.mark) : -1);
    }
  }
  const { amount, boughtWhole } = cost.part(part);
  const said = massSaid(part);
  const [quantityLow, quantityHigh] = countRange(part.quantity, part.evidence.quantity);
  const times = countInSum(part.quantity, part.evidence.quantity);
  const isMassInAll = isMassOfAll(part) && times.variance > 0;
  // stated in all: shared among the count that enters the sum, so that the sum is what was stated
  const share = isMassInAll ? part.quantity / times.mean : 1;
  return {
    isPart: true,
    quantity: part.quantity,
    quantityLow,
    quantityHigh,
    quantityMean: times.mean,
    quantityVar: times.variance,
    isOpen: isOpen || times.isOpen,
    isMassInAll,
    countRank: countRankOf(part.evidence, 'quantity'),
    fasteners,
    fastenersLow,
    fastenersHigh,
    fastenerCountRank,
    fastenerMassKg,
    fastenerMassVar,
    fastenersMassed,
    fastenerRank,
    fastenerKgOnRank,
    joints: jointSets.reduce((sum, set) => sum + set.count, 0),
    massKg: part.massEachKg === null ? null : part.massEachKg * share,
    massVar: square((said?.u ?? 0) * share),
    massRank: rankOf(said?.mark ?? null),
    costAmount: amount,
    costRank: amount === null ? -1 : costRankOf(part),
    boughtWhole,
    fastenerCost,
    fastenerCostVar,
    fastenersCosted,
    fastenerCostRank,
  };
};

const EMPTY: readonly never[] = [];

export const groupByPart = <T extends { readonly partId: string }>(rows: readonly T[]): ReadonlyMap<string, readonly T[]> => {
  const groups = new Map<string, T[]>();
  for (const row of rows) {
    const group = groups.get(row.partId);
    if (group) group.push(row);
    else groups.set(row.partId, [row]);
  }
  return groups;
};

/** Own figures of every node of an outline, in its order. */
export const ownFiguresOf = (record: StudyRecord, { nodes }: Outline, cost: CostOf): readonly OwnFigures[] => {
  const parts = new Map(record.parts.map((part) => [part.id, part]));
  const fasteners = groupByPart(record.fastenerSets);
  const joints = groupByPart(record.jointSets);
  return nodes.map((node) => {
    const part = node.kind === 'part' ? parts.get(node.id) : undefined;
    return part ? ownFigures(part, fasteners.get(part.id) ?? EMPTY, joints.get(part.id) ?? EMPTY, cost) : NOTHING_OWN;
  });
};
