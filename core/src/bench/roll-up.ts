import { evidenceAt, type EvidenceMark } from '../shared';
import type { Outline, StudyFields } from '../record';
import { onWeakest, type OwnFigures } from './own-figures';

/** How opened assemblies are counted: as their pieces, or each as one. */
export type AssembliesAs = StudyFields['assembliesAs'];

/** Totals at a node with all that hangs below it and its own quantity. Fasteners stay apart, so that the rule can take them in or leave them out. */
export interface Totals {
  readonly pieces: number;
  readonly fasteners: number;
  readonly joints: number;
  /** mass of the pieces that have one, kg */
  readonly massKg: number;
  /** variance of massKg, kg² */
  readonly massVar: number;
  /** pieces whose mass is in massKg */
  readonly piecesMassed: number;
  /** pieces weighed singly (mark M) */
  readonly piecesWeighed: number;
  /** weakest mark in massKg as its rank, −1 for none, and the kg that rest on it */
  readonly massRank: number;
  readonly massKgOnRank: number;
  readonly fastenerMassKg: number;
  readonly fastenerMassVar: number;
  readonly fastenersMassed: number;
  readonly fastenerRank: number;
  readonly fastenerKgOnRank: number;
  /** cost of the pieces that have one */
  readonly cost: number;
  readonly piecesCosted: number;
  readonly fastenerCost: number;
  readonly fastenersCosted: number;
}

const NOTHING: Totals = {
  pieces: 0,
  fasteners: 0,
  joints: 0,
  massKg: 0,
  massVar: 0,
  piecesMassed: 0,
  piecesWeighed: 0,
  massRank: -1,
  massKgOnRank: 0,
  fastenerMassKg: 0,
  fastenerMassVar: 0,
  fastenersMassed: 0,
  fastenerRank: -1,
  fastenerKgOnRank: 0,
  cost: 0,
  piecesCosted: 0,
  fastenerCost: 0,
  fastenersCosted: 0,
};

type Mutable<T> = { -readonly [K in keyof T]: T[K] };

const sumOf = (children: readonly number[], totals: readonly Totals[]): Mutable<Totals> => {
  const sum: Mutable<Totals> = { ...NOTHING };
  for (const place of children) {
    const child = totals[place]!;
    sum.pieces += child.pieces;
    sum.fasteners += child.fasteners;
    sum.joints += child.joints;
    sum.massKg += child.massKg;
    sum.massVar += child.massVar;
    sum.piecesMassed += child.piecesMassed;
    sum.piecesWeighed += child.piecesWeighed;
    if (child.massRank > sum.massRank) {
      sum.massRank = child.massRank;
      sum.massKgOnRank = child.massKgOnRank;
    } else if (child.massRank === sum.massRank) sum.massKgOnRank += child.massKgOnRank;
    sum.fastenerMassKg += child.fastenerMassKg;
    sum.fastenerMassVar += child.fastenerMassVar;
    sum.fastenersMassed += child.fastenersMassed;
    if (child.fastenerRank > sum.fastenerRank) {
      sum.fastenerRank = child.fastenerRank;
      sum.fastenerKgOnRank = child.fastenerKgOnRank;
    } else if (child.fastenerRank === sum.fastenerRank) sum.fastenerKgOnRank += child.fastenerKgOnRank;
    sum.cost += child.cost;
    sum.piecesCosted += child.piecesCosted;
    sum.fastenerCost += child.fastenerCost;
    sum.fastenersCosted += child.fastenersCosted;
  }
  return sum;
};

const putMass = (sum: Mutable<Totals>, massKg: number, massVar: number, rank: number): void => {
  sum.massKg = massKg;
  sum.massVar = massVar;
  sum.massRank = rank;
  sum.massKgOnRank = massKg;
};

const asLeaf = (sum: Mutable<Totals>, own: OwnFigures): void => {
  sum.pieces = 1;
  if (own.massKg === null) return;
  putMass(sum, own.massKg, own.massVar, own.massRank);
  sum.piecesMassed = 1;
  sum.piecesWeighed = own.massRank === 0 ? 1 : 0;
};

const asPieces = (sum: Mutable<Totals>, own: OwnFigures): void => {
  if (own.massKg === null || sum.piecesMassed === sum.pieces) return;
  // weighed as a whole and not wholly piece by piece: the whole stands in, less the fasteners inside that have a mass of their own
  const withoutFasteners = own.massKg - sum.fastenerMassKg;
  if (!(withoutFasteners > sum.massKg)) return;
  putMass(sum, withoutFasteners, own.massVar, own.massRank);
  sum.piecesMassed = sum.pieces;
};

const asOne = (sum: Mutable<Totals>, own: OwnFigures): void => {
  const allMassed = sum.piecesMassed === sum.pieces;
  const allWeighed = sum.piecesWeighed === sum.pieces;
  if (own.massKg !== null) putMass(sum, own.massKg, own.massVar, own.massRank);
  else {
    [sum.massRank, sum.massKgOnRank] = onWeakest(sum.massRank, sum.massKgOnRank, sum.fastenerRank, sum.fastenerKgOnRank);
    sum.massKg += sum.fastenerMassKg;
    sum.massVar += sum.fastenerMassVar;
  }
  sum.cost += sum.fastenerCost;
  sum.piecesCosted = sum.piecesCosted === sum.pieces ? 1 : 0;
  sum.piecesMassed = own.massKg !== null || allMassed ? 1 : 0;
  sum.piecesWeighed = own.massRank === 0 || (own.massKg === null && allWeighed) ? 1 : 0;
  sum.pieces = 1;
  sum.joints = sum.fasteners = sum.fastenersMassed = sum.fastenersCosted = 0;
  sum.fastenerMassKg = sum.fastenerMassVar = sum.fastenerKgOnRank = sum.fastenerCost = 0;
  sum.fastenerRank = -1;
};

const putCost = (sum: Mutable<Totals>, own: OwnFigures, isLeaf: boolean): void => {
  if (own.boughtWhole && own.costAmount !== null) {
    sum.cost = own.costAmount;
    sum.piecesCosted = sum.pieces;
    sum.fastenerCost = 0;
    sum.fastenersCosted = sum.fasteners;
  } else if (isLeaf && own.costAmount !== null) {
    sum.cost = own.costAmount;
    sum.piecesCosted = 1;
  }
};

const addFasteners = (sum: Mutable<Totals>, own: OwnFigures): void => {
  sum.fasteners += own.fasteners;
  sum.joints += own.joints;
  sum.fastenerMassKg += own.fastenerMassKg;
  sum.fastenerMassVar += own.fastenerMassVar;
  sum.fastenersMassed += own.fastenersMassed;
  [sum.fastenerRank, sum.fastenerKgOnRank] = onWeakest(sum.fastenerRank, sum.fastenerKgOnRank, own.fastenerRank, own.fastenerKgOnRank);
  sum.fastenerCost += own.fastenerCost;
  sum.fastenersCosted += own.fastenersCosted;
};

const EXTENSIVE = [
  'pieces',
  'fasteners',
  'joints',
  'massKg',
  'piecesMassed',
  'piecesWeighed',
  'massKgOnRank',
  'fastenerMassKg',
  'fastenersMassed',
  'fastenerKgOnRank',
  'cost',
  'piecesCosted',
  'fastenerCost',
  'fastenersCosted',
] as const;

const multiply = (sum: Mutable<Totals>, quantity: number): void => {
  if (quantity === 1) return;
  for (const key of EXTENSIVE) sum[key] *= quantity;
  // one reading stands for all of them, so they err together: u(n m) = n u(m)
  sum.massVar *= quantity * quantity;
  sum.fastenerMassVar *= quantity * quantity;
};

const totalsAt = (children: readonly number[], own: OwnFigures, totals: readonly Totals[], assembliesAs: AssembliesAs): Totals => {
  const sum = sumOf(children, totals);
  if (!own.isPiece) return sum;
  const isLeaf = children.length === 0;
  if (isLeaf) asLeaf(sum, own);
  else if (assembliesAs === 'pieces') asPieces(sum, own);
  putCost(sum, own, isLeaf);
  if (!isLeaf && assembliesAs === 'one') asOne(sum, own);
  addFasteners(sum, own);
  multiply(sum, own.quantity);
  return sum;
};

/** Totals of every node, in the order of the outline. */
export interface RollUp {
  readonly outline: Outline;
  readonly own: readonly OwnFigures[];
  readonly assembliesAs: AssembliesAs;
  readonly totals: readonly Totals[];
}

/**
 * Counts, mass with variance, cost, completeness and weakest evidence at every node. Masses add up as uncorrelated,
 * those of one reading shared by several pieces as fully correlated.
 *
 *   m = Σ nᵢ mᵢ      u² = Σ nᵢ² u(mᵢ)²
 *
 * @param outline the forest
 * @param own [node] what each node adds by itself
 * @param assembliesAs the counting rule
 * @source JCGM 100:2008 (GUM), eq. 10 (uncorrelated) and eq. 16 with r = 1 (one reading for n pieces)
 */
export const rollUp = (outline: Outline, own: readonly OwnFigures[], assembliesAs: AssembliesAs): RollUp => {
  const { nodes } = outline;
  const totals = new Array<Totals>(nodes.length);
  for (let place = nodes.length - 1; place >= 0; place--) {
    const node = nodes[place];
    const figures = own[place];
    if (node && figures) totals[place] = totalsAt(node.children, figures, totals, assembliesAs);
  }
  return { outline, own, assembliesAs, totals };
};

/**
 * The same after one node's own figures changed: only the node and those above it are worked out again.
 *
 * @param before the roll-up before the edit
 * @param place place of the node in the outline
 * @param figures its new own figures
 */
export const rollUpAfterEdit = (before: RollUp, place: number, figures: OwnFigures): RollUp => {
  const { nodes } = before.outline;
  const own = before.own.slice();
  const totals = before.totals.slice();
  own[place] = figures;
  for (let at = place; at >= 0; at = nodes[at]?.parent ?? -1) {
    totals[at] = totalsAt(nodes[at]?.children ?? [], own[at]!, totals, before.assembliesAs);
  }
  return { ...before, own, totals };
};

/** Totals of a node by its key, or null when it is not in the outline. */
export const totalsOf = (rolled: RollUp, key: string): Totals | null => {
  const place = rolled.outline.placeOf.get(key);
  return place === undefined ? null : (rolled.totals[place] ?? null);
};

/** What a total says once the rule on fasteners is applied. Absent figures are null, never 0. */
export interface Shown {
  readonly pieces: number;
  readonly fasteners: number;
  readonly joints: number;
  readonly massKg: number | null;
  readonly massUKg: number | null;
  readonly cost: number | null;
  readonly piecesOfMass: number;
  readonly piecesWeighed: number;
  readonly piecesMassed: number;
  readonly piecesCosted: number;
  /** fasteners counted in but without a mass, or without a cost */
  readonly fastenersNotMassed: number;
  readonly fastenersNotCosted: number;
  readonly weakest: EvidenceMark | null;
  /** share of massKg that rests on the weakest mark, 0…1 */
  readonly weakestFraction: number;
}

/** Applies the rule on fasteners to a total: in, they count as pieces and their mass and cost are added. */
export const shown = (t: Totals, fastenersIn: boolean): Shown => {
  const withFasteners = fastenersIn && t.fasteners > 0;
  const massKg = t.massKg + (withFasteners ? t.fastenerMassKg : 0);
  const [rank, kgOnRank] = withFasteners
    ? onWeakest(t.massRank, t.massKgOnRank, t.fastenerRank, t.fastenerKgOnRank)
    : [t.massRank, t.massKgOnRank];
  const anyMass = t.piecesMassed > 0 || t.massKg > 0 || (withFasteners && t.fastenersMassed > 0);
  const anyCost = t.piecesCosted > 0 || t.cost > 0 || (withFasteners && t.fastenersCosted > 0);
  return {
    pieces: t.pieces + (withFasteners ? t.fasteners : 0),
    fasteners: t.fasteners,
    joints: t.joints,
    massKg: anyMass ? massKg : null,
    massUKg: anyMass ? Math.sqrt(t.massVar + (withFasteners ? t.fastenerMassVar : 0)) : null,
    cost: anyCost ? t.cost + (withFasteners ? t.fastenerCost : 0) : null,
    piecesOfMass: t.pieces,
    piecesWeighed: t.piecesWeighed,
    piecesMassed: t.piecesMassed,
    piecesCosted: t.piecesCosted,
    fastenersNotMassed: withFasteners ? t.fasteners - t.fastenersMassed : 0,
    fastenersNotCosted: withFasteners ? t.fasteners - t.fastenersCosted : 0,
    weakest: evidenceAt(rank),
    weakestFraction: massKg > 0 ? kgOnRank / massKg : 0,
  };
};
