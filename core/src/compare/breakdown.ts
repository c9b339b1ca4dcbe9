import { MATERIAL_FAMILIES, evidenceAt, materialById, processById, type EvidenceMark, type MaterialFamily } from '../shared';
import type { Part } from '../record';
import { productVar } from '../bench';
import type { PartBelow } from '../cost';

/** One share of a subsystem: the parts of one material or process, the fasteners, or what cannot be split. */
export interface Share {
  readonly key: string;
  readonly label: string;
  readonly parts: number;
  /** the ends between which the count lies; null above where only "at least" is known */
  readonly partsLow: number;
  readonly partsHigh: number | null;
  /** null: none of its parts has a mass */
  readonly massKg: number | null;
  readonly massUKg: number | null;
  readonly cost: number | null;
  /** standard uncertainty of the cost that comes from ranges of counts alone */
  readonly costUOfCounts: number | null;
  /** weakest mark of each figure, null for none */
  readonly marks: Marks;
}

/** The weakest mark of a count, a mass and a cost. */
export interface Marks {
  readonly parts: EvidenceMark | null;
  readonly mass: EvidenceMark | null;
  readonly cost: EvidenceMark | null;
}

const NO_MARKS: Marks = { parts: null, mass: null, cost: null };

export type BreakdownBy = 'material' | 'family' | 'process';

export const NOT_STATED = 'not stated';
export const FASTENERS = 'fasteners';
export const NOT_SPLIT = 'only as a whole';

const familyOf = (part: Part): MaterialFamily | null => materialById.get(part.materialId ?? '')?.family ?? null;

const labelOf = (part: Part, by: BreakdownBy): string => {
  if (by === 'family') return familyOf(part) ?? NOT_STATED;
  if (by === 'material') return materialById.get(part.materialId ?? '')?.name ?? NOT_STATED;
  return processById.get(part.processId ?? '')?.name ?? NOT_STATED;
};

/** An amount with its variance and weakest mark; null where nothing has one. */
interface Amount {
  readonly value: number;
  readonly variance: number;
  readonly rank: number;
}

/** What one key comes to at a node, for one of it or for all of them. */
interface Slice {
  readonly parts: number;
  readonly low: number;
  readonly high: number;
  readonly rank: number;
  readonly mass: Amount | null;
  readonly cost: Amount | null;
}
type Slices = ReadonlyMap<string, Slice>;

const addAmounts = (a: Amount | null, b: Amount | null): Amount | null =>
  a === null || b === null ? (a ?? b) : { value: a.value + b.value, variance: a.variance + b.variance, rank: Math.max(a.rank, b.rank) };

const addSlices = (a: Slice | undefined, b: Slice): Slice =>
  a === undefined
    ? b
    : {
        parts: a.parts + b.parts,
        low: a.low + b.low,
        high: a.high + b.high,
        rank: Math.max(a.rank, b.rank),
        mass: addAmounts(a.mass, b.mass),
        cost: addAmounts(a.cost, b.cost),
      };

const merged = (all: readonly (readonly [string, Slice])[]): Slices => {
  const sum = new Map<string, Slice>();
  for (const [key, slice] of all) sum.set(key, addSlices(sum.get(key), slice));
  return sum;
};

const timesAmount = (amount: Amount | null, mean: number, countVar: number): Amount | null =>
  amount && { ...amount, value: amount.value * mean, variance: productVar(mean, countVar, amount.value, amount.variance) };

/** As many of it as there are of the node: what is inside of one shares the range of its count. */
const timesCount = (slice: Slice, { count, countVariance }: PartBelow['own']): Slice => ({
  parts: slice.parts * count.value,
  low: slice.low * count.low,
  high: slice.high === 0 ? 0 : slice.high * count.high,
  rank: Math.max(slice.rank, count.rank),
  mass: timesAmount(slice.mass, count.mean, countVariance('mass')),
  cost: timesAmount(slice.cost, count.mean, countVariance('cost')),
});

/** A figure of fasteners of which none has one is none. */
const knownOf = <F extends Amount & { readonly known: number }>(figure: F | null): F | null =>
  figure !== null && figure.known > 0 ? figure : null;

/** What one of a part adds by itself: its material or process where nothing is inside, and its fasteners. */
const ownSlices = ({ part, own, isLeaf }: PartBelow, by: BreakdownBy): readonly (readonly [string, Slice])[] => {
  const { mass, cost, fasteners, fastenerMass, fastenerCost } = own.figures;
  return [
    ...(isLeaf ? [[labelOf(part, by), { parts: 1, low: 1, high: 1, rank: -1, mass, cost }] as const] : []),
    ...(fasteners && fasteners.value > 0
      ? [
          [
            FASTENERS,
            {
              ...{ parts: fasteners.value, low: fasteners.low, high: fasteners.high, rank: fasteners.rank },
              ...{ mass: knownOf(fastenerMass), cost: knownOf(fastenerCost) },
            },
          ] as const,
        ]
      : []),
  ];
};

const uOf = (amount: Amount | null): number | null => (amount === null ? null : Math.sqrt(amount.variance));

const shareOf = (key: string, { parts, low, high, rank, mass, cost }: Slice): Share => ({
  key,
  label: key,
  parts,
  partsLow: low,
  partsHigh: Number.isFinite(high) ? high : null,
  massKg: mass?.value ?? null,
  massUKg: uOf(mass),
  cost: cost?.value ?? null,
  costUOfCounts: uOf(cost),
  marks: { parts: evidenceAt(rank), mass: evidenceAt(mass?.rank ?? -1), cost: evidenceAt(cost?.rank ?? -1) },
});

/** What of a total is left after its shares; null where nothing is. Whole and shares count as independent, so that u is no less than it is. */
const rest = (
  whole: number | null,
  wholeU: number | null,
  addends: readonly (readonly [number | null, number | null])[],
): Amount | null => {
  const value = (whole ?? 0) - addends.reduce((sum, [addend]) => sum + (addend ?? 0), 0);
  const variance = addends.reduce((sum, [, u]) => sum + (u ?? 0) ** 2, (wholeU ?? 0) ** 2);
  return Math.abs(value) > 1e-9 ? { value, variance, rank: -1 } : null;
};

/**
 * Splits a subsystem by material, family or process. Parts are taken at their lowest level whatever the counting rule;
 * the fasteners stand on a row of their own, and what a weighed or bought assembly holds beyond its parts on another,
 * so that the rows add up to the total.
 *
 * @param parts all parts of the subsystem, each before what is inside it
 * @param by what to split by
 * @param total mass and cost of the subsystem with fasteners
 */
export const breakdown = (
  parts: readonly PartBelow[],
  by: BreakdownBy,
  total: Pick<Share, 'massKg' | 'massUKg' | 'cost' | 'costUOfCounts'>,
): readonly Share[] => {
  const inside = new Map<number, (readonly [string, Slice])[]>();
  const places = new Set(parts.map((below) => below.place));
  const atTop: (readonly [string, Slice])[] = [];
  for (const below of [...parts].reverse()) {
    const held = merged([...ownSlices(below, by), ...(inside.get(below.place) ?? [])]);
    const all = [...held].map(([key, slice]) => [key, timesCount(slice, below.own)] as const);
    if (!places.has(below.parentPlace)) atTop.unshift(...all);
    else inside.set(below.parentPlace, [...all, ...(inside.get(below.parentPlace) ?? [])]);
  }
  const listed = [...merged(atTop)].map(([key, slice]) => shareOf(key, slice));
  const mass = rest(
    total.massKg,
    total.massUKg,
    listed.map((s) => [s.massKg, s.massUKg]),
  );
  const cost = rest(
    total.cost,
    total.costUOfCounts,
    listed.map((s) => [s.cost, s.costUOfCounts]),
  );
  return mass === null && cost === null
    ? listed
    : [...listed, { ...shareOf(NOT_SPLIT, { parts: 0, low: 0, high: 0, rank: -1, mass, cost }), marks: NO_MARKS }];
};

const LAST = [NOT_STATED, FASTENERS, NOT_SPLIT];

/** Order of shares in tables and charts: families as in the catalogue, others by name; what is no material comes last. */
export const shareOrder = (a: string, b: string): number => {
  const lastA = LAST.indexOf(a);
  const lastB = LAST.indexOf(b);
  if (lastA >= 0 || lastB >= 0) return lastA - lastB;
  const familyA = MATERIAL_FAMILIES.indexOf(a as MaterialFamily);
  const familyB = MATERIAL_FAMILIES.indexOf(b as MaterialFamily);
  return familyA >= 0 && familyB >= 0 ? familyA - familyB : a.localeCompare(b, 'en');
};
