import { evidenceRank, type EvidenceMark } from '../shared';
import type { FastenerSet, Part, StudyRecord } from '../record';
import { countInSum, countRange, evidenceFor, isMassOfAll } from '../record';
import { closureAt, fastenerLine, fastenerMass, ownAt, productVar, totalsAt, type MassClosure, type OwnRead } from '../bench';
import { studyShown, type StudyMeasures, type StudyShown } from './cost-measures';
import { fastenerCost } from './fastener-cost';
import { basisOf } from './part-cost';
import type { StudyRollUp } from './study-roll-up';

export const MEASURES = ['count', 'mass', 'cost'] as const;
export type Measure = (typeof MEASURES)[number];

/** One thing a figure is made of. */
export interface ChainTerm {
  readonly kind: 'vehicle' | 'subsystem' | 'part' | 'fasteners';
  /** key of the node, or id of the fastener set */
  readonly key: string;
  /** shorthand of a set; empty for what has a name */
  readonly line: string;
  /** how many times it stands in the figure above */
  readonly times: number;
  /** what it gives to the figure above: parts, kg or money; null where nothing is known */
  readonly value: number | null;
  /** standard uncertainty of the value, kg; null where none is worked out */
  readonly u: number | null;
  /** range of a count, or null */
  readonly low: number | null;
  readonly high: number | null;
  readonly mark: EvidenceMark | null;
  /** share of the figure above, 0…1; null where the value is not known */
  readonly fraction: number | null;
}

/** A figure and what it is made of, the weakest evidence first. */
interface Chain {
  readonly whole: ChainTerm;
  readonly terms: readonly ChainTerm[];
  /** true when the figure is a value of this very part, not a sum: its reading is the end of the chain */
  readonly isReading: boolean;
  /** a weighing of the whole against the sum of its parts, of a mass; null where there is none */
  readonly closure: MassClosure | null;
}

const valueOf = (s: StudyShown, measure: Measure): Pick<ChainTerm, 'value' | 'u' | 'mark' | 'low' | 'high'> => {
  const none = { u: null, low: null, high: null };
  if (measure === 'count') {
    const { low, high } = s.partsRange;
    const ranged = high !== s.parts || low !== s.parts;
    return { ...none, value: s.parts, mark: s.countMark, ...(ranged ? { low, high } : {}) };
  }
  if (measure === 'mass') return { ...none, value: s.massKg, u: s.massUKg, mark: s.weakest };
  return { ...none, value: s.cost, mark: s.costMark };
};

const weakestFirst = (a: ChainTerm, b: ChainTerm): number =>
  (b.mark === null ? -1 : evidenceRank(b.mark)) - (a.mark === null ? -1 : evidenceRank(a.mark)) || (b.value ?? 0) - (a.value ?? 0);

/** The range of a count of which there are from so many to so many; none where both ends are one, and no end above where none is known. */
const rangeTimes = (
  [low, high]: readonly [number, number],
  { count }: Pick<OwnRead<StudyMeasures>, 'count'>,
): Pick<ChainTerm, 'low' | 'high'> => {
  const [least, most] = [low * count.low, high * count.high];
  return least === most ? { low: null, high: null } : { low: least, high: Number.isFinite(most) ? most : null };
};

const setTerm = (set: FastenerSet, measure: Measure, own: OwnRead<StudyMeasures>, record: StudyRecord): ChainTerm => {
  const times = measure === 'count' ? own.count.value : own.count.mean;
  const mass = fastenerMass(set);
  const cost = fastenerCost(set, basisOf(record.study));
  const mean = countInSum(set.count, set.evidence.count);
  const isInAll = isMassOfAll(set);
  const count = set.count * times;
  const inSum = (isInAll ? set.count : mean.mean) * times;
  const uOf = (kg: number, uKg: number): number =>
    isInAll ? uKg * inSum : Math.sqrt(productVar(mean.mean, mean.variance, kg, uKg * uKg)) * times;
  const value = { count, mass: mass === null ? null : mass.kg * inSum, cost: cost === null ? null : cost * mean.mean * times }[measure];
  return {
    kind: 'fasteners',
    key: set.id,
    line: fastenerLine(set),
    times,
    value,
    u: measure === 'mass' && mass ? uOf(mass.kg, mass.uKg) : null,
    ...(measure === 'count' ? rangeTimes(countRange(set.count, set.evidence.count), own) : { low: null, high: null }),
    mark: measure === 'count' ? (evidenceFor('fasteners', set, 'count')?.mark ?? null) : (mass?.mark ?? null),
    fraction: null,
  };
};

/**
 * How a figure comes about: the figure at a node and the terms it is the sum of, each with its own mark and its share.
 * The terms of a term come by asking again at its place.
 *
 * @param place place of the node in the outline
 * @param measure which of its figures
 * @returns null when no node stands there
 */
export const evidenceChain = (record: StudyRecord, { rolled }: StudyRollUp, place: number, measure: Measure): Chain | null => {
  const { fastenersIn } = record.study;
  const { nodes } = rolled.outline;
  const node = nodes[place];
  const totals = totalsAt(rolled, place);
  const own = ownAt(rolled, place);
  if (!node || !totals || !own) return null;
  const whole: ChainTerm = {
    kind: node.kind,
    key: node.key,
    line: '',
    times: own.count.value,
    fraction: 1,
    ...valueOf(studyShown(totals, fastenersIn), measure),
  };
  const children = node.children.map((child): ChainTerm => {
    const at = nodes[child]!;
    const term = valueOf(studyShown(totalsAt(rolled, child)!, fastenersIn), measure);
    const times = measure === 'count' ? own.count.value : own.count.mean;
    const value = term.value === null ? null : term.value * times;
    const u = term.u === null ? null : term.u * times;
    const ends = [term.low ?? term.value ?? 0, term.low === null ? (term.value ?? 0) : (term.high ?? Number.POSITIVE_INFINITY)] as const;
    const range = measure === 'count' ? rangeTimes(ends, own) : { low: null, high: null };
    return { kind: at.kind, key: at.key, line: '', times: own.count.value, fraction: null, ...term, value, u, ...range };
  });
  const sets = fastenersIn && own.isPart ? record.fastenerSets.filter((set) => set.partId === node.id) : [];
  const terms = [...children.filter((c) => c.value !== 0), ...sets.map((set) => setTerm(set, measure, own, record))];
  const shared = terms.map((term) => ({ ...term, fraction: term.value === null || !whole.value ? null : term.value / whole.value }));
  const part = node.kind === 'part' ? record.parts.find((p) => p.id === node.id) : undefined;
  return {
    whole,
    terms: shared.sort(weakestFirst),
    isReading: part !== undefined && isReading(part, measure, children.length > 0),
    closure: measure === 'mass' ? closureAt(rolled, place) : null,
  };
};

const isReading = (part: Part, measure: Measure, isAssembly: boolean): boolean => {
  if (measure === 'count') return true;
  if (measure === 'mass') return part.massEachKg !== null;
  return part.boughtPrice !== null || !isAssembly;
};

/** The fields of a part that a figure of it rests on, to be looked up one by one. */
export const restsOn = (measure: Measure, part: Part): readonly (keyof Part)[] => {
  if (measure === 'count') return ['quantity'];
  if (measure === 'mass') return ['massEachKg', 'quantity'];
  return part.boughtPrice === null ? ['massEachKg', 'materialId', 'processId', 'quantity'] : ['boughtPrice', 'quantity'];
};
