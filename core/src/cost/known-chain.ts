import { evidenceRank, type EvidenceMark } from '../shared';
import type { FastenerSet, Piece, StudyRecord } from '../record';
import { countInSum, countRange, knownAs } from '../record';
import {
  closureAt,
  fastenerLine,
  fastenerMass,
  ownAt,
  productVar,
  shown,
  totalsAt,
  type MassClosure,
  type OwnFigures,
  type Shown,
} from '../bench';
import { fastenerCost } from './fastener-cost';
import { basisOf } from './piece-cost';
import type { StudyRollUp } from './study-roll-up';

export const MEASURES = ['count', 'mass', 'cost'] as const;
export type Measure = (typeof MEASURES)[number];

/** One thing a figure is made of. */
export interface ChainPart {
  readonly kind: 'vehicle' | 'subsystem' | 'piece' | 'fasteners';
  /** key of the node, or id of the fastener set */
  readonly key: string;
  /** shorthand of a set; empty for what has a name */
  readonly line: string;
  /** how many times it stands in the figure above */
  readonly times: number;
  /** what it gives to the figure above: pieces, kg or money; null where nothing is known */
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
export interface Chain {
  readonly whole: ChainPart;
  readonly parts: readonly ChainPart[];
  /** true when the figure is a value of this very piece, not a sum: its reading is the end of the chain */
  readonly isReading: boolean;
  /** a weighing of the whole against the sum of its pieces, of a mass; null where there is none */
  readonly closure: MassClosure | null;
}

const valueOf = (s: Shown, measure: Measure): Pick<ChainPart, 'value' | 'u' | 'mark' | 'low' | 'high'> => {
  const none = { u: null, low: null, high: null };
  if (measure === 'count') {
    const ranged = s.piecesHigh !== s.pieces || s.piecesLow !== s.pieces;
    return { ...none, value: s.pieces, mark: s.countMark, ...(ranged ? { low: s.piecesLow, high: s.piecesHigh } : {}) };
  }
  if (measure === 'mass') return { ...none, value: s.massKg, u: s.massUKg, mark: s.weakest };
  return { ...none, value: s.cost, mark: s.costMark };
};

const weakestFirst = (a: ChainPart, b: ChainPart): number =>
  (b.mark === null ? -1 : evidenceRank(b.mark)) - (a.mark === null ? -1 : evidenceRank(a.mark)) || (b.value ?? 0) - (a.value ?? 0);

/** The range of a count of which there are from so many to so many; none where both ends are one, and no end above where none is known. */
const rangeTimes = (
  [low, high]: readonly [number, number],
  { quantityLow, quantityHigh }: Pick<OwnFigures, 'quantityLow' | 'quantityHigh'>,
): Pick<ChainPart, 'low' | 'high'> => {
  const [least, most] = [low * quantityLow, high * quantityHigh];
  return least === most ? { low: null, high: null } : { low: least, high: Number.isFinite(most) ? most : null };
};

const setPart = (set: FastenerSet, measure: Measure, own: OwnFigures, record: StudyRecord): ChainPart => {
  const times = measure === 'count' ? own.quantity : own.quantityMean;
  const mass = fastenerMass(set);
  const cost = fastenerCost(set, basisOf(record.study));
  const mean = countInSum(set.count, set.known.count);
  const isInAll = set.massTyped?.startsWith('total') ?? false;
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
    ...(measure === 'count' ? rangeTimes(countRange(set.count, set.known.count), own) : { low: null, high: null }),
    mark: measure === 'count' ? (knownAs('fasteners', set, 'count')?.mark ?? null) : (mass?.evidence ?? null),
    fraction: null,
  };
};

/**
 * How a figure comes about: the figure at a node and the parts it is the sum of, each with its own mark and its share.
 * The parts of a part come by asking again at its place.
 *
 * @param place place of the node in the outline
 * @param measure which of its figures
 * @returns null when no node stands there
 */
export const knownChain = (record: StudyRecord, { rolled }: StudyRollUp, place: number, measure: Measure): Chain | null => {
  const { fastenersIn } = record.study;
  const { nodes } = rolled.outline;
  const node = nodes[place];
  const totals = totalsAt(rolled, place);
  const own = ownAt(rolled, place);
  if (!node || !totals || !own) return null;
  const whole: ChainPart = {
    kind: node.kind,
    key: node.key,
    line: '',
    times: own.quantity,
    fraction: 1,
    ...valueOf(shown(totals, fastenersIn), measure),
  };
  const children = node.children.map((child): ChainPart => {
    const at = nodes[child]!;
    const part = valueOf(shown(totalsAt(rolled, child)!, fastenersIn), measure);
    const times = measure === 'count' ? own.quantity : own.quantityMean;
    const value = part.value === null ? null : part.value * times;
    const u = part.u === null ? null : part.u * times;
    const ends = [part.low ?? part.value ?? 0, part.low === null ? (part.value ?? 0) : (part.high ?? Number.POSITIVE_INFINITY)] as const;
    const range = measure === 'count' ? rangeTimes(ends, own) : { low: null, high: null };
    return { kind: at.kind, key: at.key, line: '', times: own.quantity, fraction: null, ...part, value, u, ...range };
  });
  const sets = fastenersIn && own.isPiece ? record.fastenerSets.filter((set) => set.pieceId === node.id) : [];
  const parts = [...children.filter((c) => c.value !== 0), ...sets.map((set) => setPart(set, measure, own, record))];
  const shared = parts.map((part) => ({ ...part, fraction: part.value === null || !whole.value ? null : part.value / whole.value }));
  const piece = node.kind === 'piece' ? record.pieces.find((p) => p.id === node.id) : undefined;
  return {
    whole,
    parts: shared.sort(weakestFirst),
    isReading: piece !== undefined && isReading(piece, measure, children.length > 0),
    closure: measure === 'mass' ? closureAt(rolled, place) : null,
  };
};

const isReading = (piece: Piece, measure: Measure, isAssembly: boolean): boolean => {
  if (measure === 'count') return true;
  if (measure === 'mass') return piece.massEachKg !== null;
  return piece.boughtPrice !== null || !isAssembly;
};

/** The fields of a piece that a figure of it rests on, to be looked up one by one. */
export const restsOn = (measure: Measure, piece: Piece): readonly (keyof Piece)[] => {
  if (measure === 'count') return ['quantity'];
  if (measure === 'mass') return ['massEachKg', 'quantity'];
  return piece.boughtPrice === null ? ['massEachKg', 'materialId', 'processId', 'quantity'] : ['boughtPrice', 'quantity'];
};
