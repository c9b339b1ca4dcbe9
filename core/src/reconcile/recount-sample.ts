import { randomLcg } from 'd3-random';
import { evidenceRank } from '../shared';
import { countRange, evidenceFor, type FastenerSet, type JointSet, type Recount, type RecountSample, type StudyRecord } from '../record';
import { differencesOf, type Differences } from './agreement/differences';
import { intraclass } from './agreement/intraclass';
import { kappa } from './agreement/kappa';
import { sampleSizeOf, shareAtMost, shareWithin } from './agreement/sample-size';

/** A set that may be counted once more. */
export interface CountedSet {
  readonly kind: 'fasteners' | 'joints';
  readonly setId: string;
  readonly partId: string;
  readonly risk: number;
}

const WEAK = evidenceRank('P');

/** How likely a count is wrong beside others: more pieces, a range, weak evidence. Assumed: each doubles it, pieces by their logarithm. */
const riskOf = (kind: CountedSet['kind'], set: FastenerSet | JointSet): number => {
  const [low, high] = countRange(set.count, set.evidence.count);
  const mark = evidenceFor(kind, set, 'count')?.mark ?? 'C';
  return Math.log2(1 + set.count) * (low === high ? 1 : 2) * (evidenceRank(mark) >= WEAK ? 2 : 1);
};

/** The counts of a record that can be counted once more. */
export const countedSets = ({ fastenerSets, jointSets }: Pick<StudyRecord, 'fastenerSets' | 'jointSets'>): readonly CountedSet[] => [
  ...fastenerSets.map((set) => ({ kind: 'fasteners', setId: set.id, partId: set.partId, risk: riskOf('fasteners', set) }) as const),
  ...jointSets.map((set) => ({ kind: 'joints', setId: set.id, partId: set.partId, risk: riskOf('joints', set) }) as const),
];

/**
 * Draws counts to be counted again: at random, each as likely; or by risk, each as likely as its risk is large among those left.
 *
 * @param seed the same seed draws the same
 * @source by risk: exponential keys, Efraimidis and Spirakis 2006
 */
export const drawSample = (sets: readonly CountedSet[], n: number, by: RecountSample['sampledBy'], seed: number): readonly CountedSet[] => {
  const random = randomLcg(seed);
  return [...sets]
    .sort((a, b) => (a.setId < b.setId ? -1 : 1))
    .map((set) => ({ set, key: -Math.log(1 - random()) / (by === 'by risk' ? Math.max(set.risk, 1e-6) : 1) }))
    .sort((a, b) => a.key - b.key)
    .slice(0, n)
    .map(({ set }) => set);
};

/** How many to draw for what is wanted, out of all there are. */
export const neededFor = (sample: Pick<RecountSample, 'assuranceFraction' | 'wrongFraction' | 'allowed'>, outOf: number): number =>
  outOf === 0 ? 0 : sampleSizeOf(outOf, sample, sample.allowed);

/** What a sample showed so far. */
export interface SampleResult {
  readonly drawn: number;
  readonly counted: number;
  readonly wrong: number;
  /** parts on which something that was drawn is not counted yet */
  readonly leftOn: readonly string[];
  /** share of all counts that is wrong, with the assurance asked for: at most so much; null while nothing is counted, or drawn by risk */
  readonly atMostFraction: number | null;
  /** two-sided 95 % interval of the share; null as above */
  readonly within: readonly [number, number] | null;
  /** whether what was wanted is shown; null while not all is counted */
  readonly isShown: boolean | null;
}

/** First and second count of each set, the last recount of it. */
const pairsOf = (recounts: readonly Recount[]): ReadonlyMap<string, readonly [first: number, second: number]> => {
  const pairs = new Map<string, readonly [number, number]>();
  for (const recount of [...recounts].sort((a, b) => (a.countedAt < b.countedAt ? -1 : 1)))
    for (const { setId, first, second } of recount.counts) pairs.set(setId, [first, second]);
  return pairs;
};

/** What the recounts of a sample say. By risk drawn, wrong ones are sought out: they say nothing of the share among those not counted. */
export const sampleResult = (sample: RecountSample, record: Pick<StudyRecord, 'recounts' | 'fastenerSets' | 'jointSets'>): SampleResult => {
  const since = record.recounts.filter((recount) => recount.countedAt >= sample.drawnAt);
  const pairs = pairsOf(since);
  const partOf = new Map([...record.fastenerSets, ...record.jointSets].map((set) => [set.id, set.partId]));
  const counted = sample.sets.filter(({ setId }) => pairs.has(setId));
  const wrong = counted.filter(({ setId }) => {
    const [first, second] = pairs.get(setId)!;
    return first !== second;
  }).length;
  const left = sample.sets.filter(({ setId }) => !pairs.has(setId) && partOf.has(setId));
  const n = counted.length;
  const speaks = sample.sampledBy === 'at random' && n > 0;
  return {
    ...{ drawn: sample.sets.length, counted: n, wrong, leftOn: [...new Set(left.map(({ setId }) => partOf.get(setId)!))] },
    atMostFraction: speaks ? shareAtMost(wrong, n, sample.assuranceFraction) : null,
    within: speaks ? shareWithin(wrong, n, 0.95) : null,
    isShown: left.length > 0 ? null : speaks && wrong <= sample.allowed,
  };
};

/** How well first and second counts agree. */
export interface CountAgreement {
  readonly sets: number;
  readonly alike: number;
  /** of counts by how many they are: 1, 2, 3, 4, 5 to 8, more */
  readonly kappa: number | null;
  readonly kappaU: number | null;
  readonly intraclass: number | null;
  readonly differences: Differences | null;
}

const CLASS_UP_TO = [1, 2, 3, 4, 8];
const classOf = (count: number): number => {
  const at = CLASS_UP_TO.findIndex((most) => count <= most);
  return at < 0 ? CLASS_UP_TO.length : at;
};

/** Agreement of all recounts of a study with the counts they repeat. */
export const countAgreement = (recounts: readonly Recount[]): CountAgreement | null => {
  const pairs = [...pairsOf(recounts).values()];
  if (pairs.length === 0) return null;
  const classes = CLASS_UP_TO.length + 1;
  const table = Array.from({ length: classes }, () => new Array<number>(classes).fill(0));
  for (const [first, second] of pairs) table[classOf(first)]![classOf(second)]! += 1;
  const agreed = kappa(table, 'none');
  const scatter = pairs.length < 2 ? null : intraclass(pairs);
  return {
    ...{ sets: pairs.length, alike: pairs.filter(([a, b]) => a === b).length },
    ...{ kappa: agreed.kappa, kappaU: agreed.standardError, intraclass: scatter?.agreement ?? null, differences: differencesOf(pairs) },
  };
};
