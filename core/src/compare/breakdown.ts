import { MATERIAL_FAMILIES, evidenceAt, materialById, processById, type EvidenceMark, type MaterialFamily } from '../shared';
import type { Piece } from '../record';
import type { PieceBelow } from '../cost';

/** One share of a subsystem: the pieces of one material or process, the fasteners, or what cannot be split. */
export interface Share {
  readonly key: string;
  readonly label: string;
  readonly pieces: number;
  /** null: none of its pieces has a mass */
  readonly massKg: number | null;
  readonly cost: number | null;
  /** weakest mark of each figure, null for none */
  readonly marks: Marks;
}

/** The weakest mark of a count, a mass and a cost. */
export interface Marks {
  readonly pieces: EvidenceMark | null;
  readonly mass: EvidenceMark | null;
  readonly cost: EvidenceMark | null;
}

export const NO_MARKS: Marks = { pieces: null, mass: null, cost: null };

export type BreakdownBy = 'material' | 'family' | 'process';

export const NOT_STATED = 'not stated';
export const FASTENERS = 'fasteners';
export const NOT_SPLIT = 'inside assemblies known only as a whole';

const familyOf = (piece: Piece): MaterialFamily | null => materialById.get(piece.materialId ?? '')?.family ?? null;

const labelOf = (piece: Piece, by: BreakdownBy): string => {
  if (by === 'family') return familyOf(piece) ?? NOT_STATED;
  if (by === 'material') return materialById.get(piece.materialId ?? '')?.name ?? NOT_STATED;
  return processById.get(piece.processId ?? '')?.name ?? NOT_STATED;
};

const add = (known: number | null, more: number | null): number | null => (more === null ? known : (known ?? 0) + more);

interface Ranks {
  readonly pieces: number;
  readonly mass: number;
  readonly cost: number;
}

const weaker = (a: Ranks | undefined, b: Ranks): Ranks =>
  a ? { pieces: Math.max(a.pieces, b.pieces), mass: Math.max(a.mass, b.mass), cost: Math.max(a.cost, b.cost) } : b;

const marksOf = (ranks: Ranks | undefined): Marks =>
  ranks ? { pieces: evidenceAt(ranks.pieces), mass: evidenceAt(ranks.mass), cost: evidenceAt(ranks.cost) } : NO_MARKS;

/**
 * Splits a subsystem by material, family or process. Pieces are taken at their lowest level whatever the counting rule;
 * the fasteners stand on a row of their own, and what a weighed or bought assembly holds beyond its pieces on another,
 * so that the rows add up to the total.
 *
 * @param pieces all pieces of the subsystem
 * @param by what to split by
 * @param total mass and cost of the subsystem with fasteners
 */
export const breakdown = (
  pieces: readonly PieceBelow[],
  by: BreakdownBy,
  total: { readonly massKg: number | null; readonly cost: number | null },
): readonly Share[] => {
  const shares = new Map<string, Share>();
  const ranksOf = new Map<string, Ranks>();
  const put = (key: string, label: string, pieces: number, massKg: number | null, cost: number | null, ranks: Ranks): void => {
    ranksOf.set(key, weaker(ranksOf.get(key), ranks));
    const before = shares.get(key) ?? { key, label, pieces: 0, massKg: null, cost: null, marks: NO_MARKS };
    shares.set(key, { ...before, pieces: before.pieces + pieces, massKg: add(before.massKg, massKg), cost: add(before.cost, cost) });
  };
  for (const { piece, own, perVehicle, meanPerVehicle, isLeaf } of pieces) {
    const label = labelOf(piece, by);
    if (isLeaf)
      put(
        label,
        label,
        perVehicle,
        own.massKg === null ? null : own.massKg * meanPerVehicle,
        own.costAmount === null ? null : own.costAmount * meanPerVehicle,
        { pieces: own.countRank, mass: own.massRank, cost: own.costRank },
      );
    if (own.fasteners > 0)
      put(
        FASTENERS,
        FASTENERS,
        own.fasteners * perVehicle,
        own.fastenersMassed > 0 ? own.fastenerMassKg * meanPerVehicle : null,
        own.fastenersCosted > 0 ? own.fastenerCost * meanPerVehicle : null,
        { pieces: own.fastenerCountRank, mass: own.fastenerRank, cost: own.fastenerCostRank },
      );
  }
  const listed = [...shares.values()].map((share) => ({ ...share, marks: marksOf(ranksOf.get(share.key)) }));
  const rest = (whole: number | null, parts: readonly (number | null)[]): number | null => {
    const difference = (whole ?? 0) - parts.reduce<number>((sum, part) => sum + (part ?? 0), 0);
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
    : [...listed, { key: NOT_SPLIT, label: NOT_SPLIT, pieces: 0, massKg, cost, marks: NO_MARKS }];
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
