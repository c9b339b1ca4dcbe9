import { evidenceAt, type EvidenceMark } from '../../shared';
import { onWeakest, type BenchMeasures } from './own-figures';
import type { Totals } from './roll-up';

/** A count that may be anything between two ends; null above where only "at least" is known. */
export interface CountRange {
  readonly low: number;
  readonly high: number | null;
}

/** What a total says once the rule on fasteners is applied. Absent figures are null, never 0. */
export interface Shown {
  readonly parts: number;
  readonly partsRange: CountRange;
  /** weakest mark among the counts */
  readonly countMark: EvidenceMark | null;
  readonly fasteners: number;
  readonly fastenersRange: CountRange;
  readonly fastenerMark: EvidenceMark | null;
  readonly joints: number;
  readonly jointsRange: CountRange;
  readonly jointMark: EvidenceMark | null;
  readonly massKg: number | null;
  readonly massUKg: number | null;
  /** counts of which only "at least" is known: mass and cost may be more */
  readonly openCounts: number;
  readonly partsOfMass: number;
  readonly partsWeighed: number;
  readonly partsMassed: number;
  /** fasteners counted in but without a mass */
  readonly fastenersNotMassed: number;
  readonly weakest: EvidenceMark | null;
  /** share of massKg that rests on the weakest mark, 0…1 */
  readonly weakestFraction: number;
}

const range = (low: number, high: number): CountRange => ({ low, high: Number.isFinite(high) ? high : null });

/** Are there fasteners, and does the rule count them in? */
export const takesFasteners = (t: Totals<BenchMeasures>, fastenersIn: boolean): boolean => fastenersIn && t.fasteners.value > 0;

/** Applies the rule on fasteners to a total: in, they count as parts and their mass is added. */
export const shown = (t: Totals<BenchMeasures>, fastenersIn: boolean): Shown => {
  const withFasteners = takesFasteners(t, fastenersIn);
  const { parts, fasteners, joints, mass, fastenerMass } = t;
  const massKg = mass.value + (withFasteners ? fastenerMass.value : 0);
  const [rank, kgOnRank] = withFasteners
    ? onWeakest(mass.rank, mass.onRank, fastenerMass.rank, fastenerMass.onRank)
    : [mass.rank, mass.onRank];
  const anyMass = mass.known > 0 || mass.value > 0 || (withFasteners && fastenerMass.known > 0);
  return {
    parts: parts.value + (withFasteners ? fasteners.value : 0),
    partsRange: range(parts.low + (withFasteners ? fasteners.low : 0), parts.high + (withFasteners ? fasteners.high : 0)),
    countMark: evidenceAt(withFasteners ? Math.max(parts.rank, fasteners.rank) : parts.rank),
    fasteners: fasteners.value,
    fastenersRange: range(fasteners.low, fasteners.high),
    fastenerMark: evidenceAt(fasteners.rank),
    joints: joints.value,
    jointsRange: range(joints.low, joints.high),
    jointMark: evidenceAt(joints.rank),
    massKg: anyMass ? massKg : null,
    massUKg: anyMass ? Math.sqrt(withFasteners ? mass.together : mass.variance) : null,
    openCounts: t.openCounts,
    partsOfMass: parts.value,
    partsWeighed: mass.best,
    partsMassed: mass.known,
    fastenersNotMassed: withFasteners ? fasteners.value - fastenerMass.known : 0,
    weakest: evidenceAt(rank),
    weakestFraction: massKg > 0 ? kgOnRank / massKg : 0,
  };
};
