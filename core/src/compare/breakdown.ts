import { MATERIAL_FAMILIES, evidenceAt, materialById, processById, type EvidenceMark, type MaterialFamily } from '../shared';
import type { Part } from '../record';
import type { PartBelow } from '../cost';

/** One share of a subsystem: the parts of one material or process, the fasteners, or what cannot be split. */
export interface Share {
  readonly key: string;
  readonly label: string;
  readonly parts: number;
  /** null: none of its parts has a mass */
  readonly massKg: number | null;
  readonly cost: number | null;
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
export const NOT_SPLIT = 'inside assemblies known only as a whole';

const familyOf = (part: Part): MaterialFamily | null => materialById.get(part.materialId ?? '')?.family ?? null;

const labelOf = (part: Part, by: BreakdownBy): string => {
  if (by === 'family') return familyOf(part) ?? NOT_STATED;
  if (by === 'material') return materialById.get(part.materialId ?? '')?.name ?? NOT_STATED;
  return processById.get(part.processId ?? '')?.name ?? NOT_STATED;
};

const add = (known: number | null, more: number | null): number | null => (more === null ? known : (known ?? 0) + more);

interface Ranks {
  readonly parts: number;
  readonly mass: number;
  readonly cost: number;
}

const weaker = (a: Ranks | undefined, b: Ranks): Ranks =>
  a ? { parts: Math.max(a.parts, b.parts), mass: Math.max(a.mass, b.mass), cost: Math.max(a.cost, b.cost) } : b;

const marksOf = (ranks: Ranks | undefined): Marks =>
  ranks ? { parts: evidenceAt(ranks.parts), mass: evidenceAt(ranks.mass), cost: evidenceAt(ranks.cost) } : NO_MARKS;

/**
 * Splits a subsystem by material, family or process. Parts are taken at their lowest level whatever the counting rule;
 * the fasteners stand on a row of their own, and what a weighed or bought assembly holds beyond its parts on another,
 * so that the rows add up to the total.
 *
 * @param parts all parts of the subsystem
 * @param by what to split by
 * @param total mass and cost of the subsystem with fasteners
 */
export const breakdown = (
  parts: readonly PartBelow[],
  by: BreakdownBy,
  total: { readonly massKg: number | null; readonly cost: number | null },
): readonly Share[] => {
  const shares = new Map<string, Share>();
  const ranksOf = new Map<string, Ranks>();
  const put = (key: string, label: string, parts: number, massKg: number | null, cost: number | null, ranks: Ranks): void => {
    ranksOf.set(key, weaker(ranksOf.get(key), ranks));
    const before = shares.get(key) ?? { key, label, parts: 0, massKg: null, cost: null, marks: NO_MARKS };
    shares.set(key, { ...before, parts: before.parts + parts, massKg: add(before.massKg, massKg), cost: add(before.cost, cost) });
  };
  for (const { part, own, perVehicle, meanPerVehicle, isLeaf } of parts) {
    const label = labelOf(part, by);
    if (isLeaf)
      put(
        label,
        label,
        perVehicle,
        own.massKg === null ? null : own.massKg * meanPerVehicle,
        own.costAmount === null ? null : own.costAmount * meanPerVehicle,
        { parts: own.countRank, mass: own.massRank, cost: own.costRank },
      );
    if (own.fasteners > 0)
      put(
        FASTENERS,
        FASTENERS,
        own.fasteners * perVehicle,
        own.fastenersMassed > 0 ? own.fastenerMassKg * meanPerVehicle : null,
        own.fastenersCosted > 0 ? own.fastenerCost * meanPerVehicle : null,
        { parts: own.fastenerCountRank, mass: own.fastenerRank, cost: own.fastenerCostRank },
      );
  }
  const listed = [...shares.values()].map((share) => ({ ...share, marks: marksOf(ranksOf.get(share.key)) }));
  const rest = (whole: number | null, addends: readonly (number | null)[]): number | null => {
    const difference = (whole ?? 0) - addends.reduce<number>((sum, addend) => sum + (addend ?? 0), 0);
    return Math.abs(difference) > 1e-9 ? difference : null;
  };
  const massKg = rest(
    total.massKg,
    listed.map((s) => s.massKg),
  );
  const cost = rest(
    total.cost,
    listed.map((s) => s.cost),
  );
  return massKg === null && cost === null
    ? listed
    : [...listed, { key: NOT_SPLIT, label: NOT_SPLIT, parts: 0, massKg, cost, marks: NO_MARKS }];
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
