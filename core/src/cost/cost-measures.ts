import { evidenceAt, type EvidenceMark } from '../shared';
import { evidenceFor, massSaid, countInSum, type FastenerSet, type Part } from '../record';
import { BENCH_MEASURES, fastenerMass, productVar, rankOf, shown, takesFasteners } from '../bench';
import type { Measures, OwnFigure, Shown, Totals } from '../bench';

/** The terms of a cost. */
type CostTermName = 'material' | 'tooling' | 'conversion' | 'bought';

/** What a cost is made of; a term that is 0 is none. */
export type CostTerms = Readonly<Record<CostTermName, number>>;

const TERM = { unit: 'currency', of: 'part', adds: 'sum', says: [], termOf: 'cost' } as const;

/** What cost adds to the measures of the bench: an amount in the study's currency and basis, and the terms it is made of. */
const COST_MEASURES = {
  cost: {
    label: 'cost',
    unit: 'currency',
    of: 'part',
    adds: 'sum',
    says: ['variance', 'together', 'weakest', 'known'],
    outOf: 'parts',
    // the price of a whole is that of all inside it, fasteners too
    whole: { stands: ({ covers }) => covers, joined: 'covered' },
  },
  material: { ...TERM, label: 'material' },
  tooling: { ...TERM, label: 'tooling' },
  conversion: { ...TERM, label: 'conversion' },
  bought: { ...TERM, label: 'bought out' },
  fastenerCost: {
    label: 'cost of the fasteners',
    unit: 'currency',
    of: 'held',
    adds: 'sum',
    says: ['variance', 'weakest', 'known'],
    outOf: 'fasteners',
    joins: ['cost', 'bought'],
  },
} as const satisfies Measures;

/** All that a study is rolled up in. */
export const STUDY_MEASURES = { ...BENCH_MEASURES, ...COST_MEASURES } as const;
export type StudyMeasures = typeof STUDY_MEASURES;

/** A price rests on who told it; a worked-out cost on the mass, the material and the process, each as it is known. */
const costRankOf = (part: Part): number =>
  part.boughtPrice !== null
    ? rankOf(evidenceFor('part', part, 'boughtPrice')?.mark)
    : Math.max(rankOf(massSaid(part)?.mark), ...['materialId', 'processId'].map((field) => rankOf(evidenceFor('part', part, field)?.mark)));

/** What a part gives to the measures of cost, and whether its price covers what is inside it. */
export const partCostOwn = (
  part: Part,
  terms: CostTerms | null,
  boughtWhole: boolean,
): Readonly<Record<'cost' | CostTermName, OwnFigure>> | Record<string, never> => {
  if (terms === null) return {};
  const { material, tooling, conversion, bought } = terms;
  return {
    cost: { value: material + tooling + conversion + bought, rank: costRankOf(part), covers: boughtWhole },
    material: { value: material },
    tooling: { value: tooling },
    conversion: { value: conversion },
    bought: { value: bought },
  };
};

/** What the fasteners on a part give to it, each at its price or null where it has none. */
export const fastenerCostOwn = (sets: readonly FastenerSet[], priceOf: (set: FastenerSet) => number | null): OwnFigure | null => {
  let [value, variance, known, rank] = [0, 0, 0, -1];
  for (const set of sets) {
    const each = priceOf(set);
    if (each === null) continue;
    const times = countInSum(set.count, set.evidence.count);
    value += times.mean * each;
    variance += productVar(times.mean, times.variance, each, 0);
    known += set.count;
    rank = Math.max(rank, rankOf(fastenerMass(set)?.mark));
  }
  return known > 0 ? { value, variance, known, rank } : null;
};

/** What a total says of cost. Absent figures are null, never 0. */
interface ShownCost {
  readonly cost: number | null;
  /** standard uncertainty of the cost that comes from ranges of counts alone */
  readonly costUOfCounts: number | null;
  /** what the cost is made of; null where there is none */
  readonly terms: CostTerms | null;
  readonly partsCosted: number;
  /** fasteners counted in but without a cost */
  readonly fastenersNotCosted: number;
  /** weakest mark among what the cost rests on */
  readonly costMark: EvidenceMark | null;
}

const shownCost = (t: Totals<StudyMeasures>, fastenersIn: boolean): ShownCost => {
  const withFasteners = takesFasteners(t, fastenersIn);
  const { cost, fastenerCost, fasteners } = t;
  const anyCost = cost.known > 0 || cost.value > 0 || (withFasteners && fastenerCost.known > 0);
  const { material, tooling, conversion, bought } = t;
  return {
    cost: anyCost ? cost.value + (withFasteners ? fastenerCost.value : 0) : null,
    costUOfCounts: anyCost ? Math.sqrt(withFasteners ? cost.together : cost.variance) : null,
    terms: anyCost
      ? {
          material: material.value,
          tooling: tooling.value,
          conversion: conversion.value,
          bought: bought.value + (withFasteners ? fastenerCost.value : 0),
        }
      : null,
    partsCosted: cost.known,
    fastenersNotCosted: withFasteners ? fasteners.value - fastenerCost.known : 0,
    costMark: anyCost ? evidenceAt(withFasteners ? Math.max(cost.rank, fastenerCost.rank) : cost.rank) : null,
  };
};

/** What a total of a study says once the rule on fasteners is applied: counts, mass and cost. */
export type StudyShown = Shown & ShownCost;

/** Applies the rule on fasteners to a total of a study: in, they count as parts, and their mass and cost are added. */
export const studyShown = (t: Totals<StudyMeasures>, fastenersIn: boolean): StudyShown => ({
  ...shown(t, fastenersIn),
  ...shownCost(t, fastenersIn),
});
