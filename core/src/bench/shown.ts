import { evidenceAt, type EvidenceMark } from '../shared';
import { onWeakest } from './own-figures';
import type { Totals } from './roll-up';

/** What a total says once the rule on fasteners is applied. Absent figures are null, never 0. */
export interface Shown {
  readonly parts: number;
  /** range of the count; null above where only "at least" is known */
  readonly partsLow: number;
  readonly partsHigh: number | null;
  /** weakest mark among the counts */
  readonly countMark: EvidenceMark | null;
  /** weakest mark among the counts of the fasteners */
  readonly fastenerMark: EvidenceMark | null;
  readonly fasteners: number;
  readonly joints: number;
  readonly massKg: number | null;
  readonly massUKg: number | null;
  readonly cost: number | null;
  /** standard uncertainty of the cost that comes from ranges of counts alone */
  readonly costUOfCounts: number | null;
  /** counts of which only "at least" is evidence: mass and cost may be more */
  readonly openCounts: number;
  readonly partsOfMass: number;
  readonly partsWeighed: number;
  readonly partsMassed: number;
  readonly partsCosted: number;
  /** fasteners counted in but without a mass, or without a cost */
  readonly fastenersNotMassed: number;
  readonly fastenersNotCosted: number;
  /** weakest mark among what the cost rests on */
  readonly costMark: EvidenceMark | null;
  readonly weakest: EvidenceMark | null;
  /** share of massKg that rests on the weakest mark, 0…1 */
  readonly weakestFraction: number;
}

/** Applies the rule on fasteners to a total: in, they count as parts and their mass and cost are added. */
export const shown = (t: Totals, fastenersIn: boolean): Shown => {
  const withFasteners = fastenersIn && t.fasteners > 0;
  const massKg = t.massKg + (withFasteners ? t.fastenerMassKg : 0);
  const [rank, kgOnRank] = withFasteners
    ? onWeakest(t.massRank, t.massKgOnRank, t.fastenerRank, t.fastenerKgOnRank)
    : [t.massRank, t.massKgOnRank];
  const high = t.partsHigh + (withFasteners ? t.fastenersHigh : 0);
  const anyMass = t.partsMassed > 0 || t.massKg > 0 || (withFasteners && t.fastenersMassed > 0);
  const anyCost = t.partsCosted > 0 || t.cost > 0 || (withFasteners && t.fastenersCosted > 0);
  return {
    parts: t.parts + (withFasteners ? t.fasteners : 0),
    partsLow: t.partsLow + (withFasteners ? t.fastenersLow : 0),
    partsHigh: Number.isFinite(high) ? high : null,
    countMark: evidenceAt(withFasteners ? Math.max(t.countRank, t.fastenerCountRank) : t.countRank),
    fastenerMark: evidenceAt(t.fastenerCountRank),
    fasteners: t.fasteners,
    joints: t.joints,
    massKg: anyMass ? massKg : null,
    massUKg: anyMass ? Math.sqrt(withFasteners ? t.allMassVar : t.massVar) : null,
    cost: anyCost ? t.cost + (withFasteners ? t.fastenerCost : 0) : null,
    costUOfCounts: anyCost ? Math.sqrt(t.costVar + (withFasteners ? t.fastenerCostVar : 0)) : null,
    openCounts: t.openCounts,
    partsOfMass: t.parts,
    partsWeighed: t.partsWeighed,
    partsMassed: t.partsMassed,
    partsCosted: t.partsCosted,
    fastenersNotMassed: withFasteners ? t.fasteners - t.fastenersMassed : 0,
    fastenersNotCosted: withFasteners ? t.fasteners - t.fastenersCosted : 0,
    costMark: anyCost ? evidenceAt(withFasteners ? Math.max(t.costRank, t.fastenerCostRank) : t.costRank) : null,
    weakest: evidenceAt(rank),
    weakestFraction: massKg > 0 ? kgOnRank / massKg : 0,
  };
};
