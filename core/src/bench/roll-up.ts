import type { Outline, StudyFields } from '../record';
import { massClosure, type MassClosure, type SummedMass } from './mass-closure';
import { productVar, type OwnFigures } from './own-figures';

/** How opened assemblies are counted: as their parts, or each as one. */
export type AssembliesAs = StudyFields['assembliesAs'];

/** Totals at a node with all that hangs below it and its own quantity. Fasteners stay apart, so that the rule can take them in or leave them out. */
export interface Totals {
  readonly parts: number;
  /** the range the counts allow; infinite above where only "at least" is known */
  readonly partsLow: number;
  readonly partsHigh: number;
  /** weakest mark among the counts as its rank, −1 for none */
  readonly countRank: number;
  readonly fasteners: number;
  readonly fastenersLow: number;
  readonly fastenersHigh: number;
  readonly fastenerCountRank: number;
  readonly joints: number;
  /** mass of the parts that have one, kg */
  readonly massKg: number;
  /** variance of massKg, kg² */
  readonly massVar: number;
  /** parts whose mass is in massKg */
  readonly partsMassed: number;
  /** parts weighed singly (mark M) */
  readonly partsWeighed: number;
  /** weakest mark in massKg as its rank, −1 for none, and the kg that rest on it */
  readonly massRank: number;
  readonly massKgOnRank: number;
  readonly fastenerMassKg: number;
  readonly fastenerMassVar: number;
  readonly fastenersMassed: number;
  readonly fastenerRank: number;
  readonly fastenerKgOnRank: number;
  /** cost of the parts that have one */
  readonly cost: number;
  readonly partsCosted: number;
  readonly fastenerCost: number;
  readonly fastenersCosted: number;
  /** weakest mark among what the costs rest on, as a rank, −1 for none */
  readonly costRank: number;
  readonly fastenerCostRank: number;
  /** variance of massKg and fastenerMassKg together, kg² */
  readonly allMassVar: number;
  /** variance of the costs that comes from ranges of counts */
  readonly costVar: number;
  readonly fastenerCostVar: number;
  /** counts in it of which only "at least" is known: mass and cost may be more */
  readonly openCounts: number;
}

// One node's totals are STRIDE numbers in a row; for 50 000 nodes that is several times faster than objects.
const PARTS = 0;
const FASTENERS = 1;
const JOINTS = 2;
const MASS = 3;
const MASS_VAR = 4;
const PARTS_MASSED = 5;
const PARTS_WEIGHED = 6;
const FASTENER_MASS = 7;
const FASTENER_MASS_VAR = 8;
const FASTENERS_MASSED = 9;
const COST = 10;
const PARTS_COSTED = 11;
const FASTENER_COST = 12;
const FASTENERS_COSTED = 13;
// the two weakest marks, as rank + 1 so that 0 is none, with the kg on each right behind
const MASS_RANK = 14;
const MASS_ON_RANK = 15;
const FASTENER_RANK = 16;
const FASTENER_ON_RANK = 17;
// ranges of the counts and their weakest marks, as rank + 1
const PARTS_LOW = 18;
const PARTS_HIGH = 19;
const COUNT_RANK = 20;
const FASTENERS_LOW = 21;
const FASTENERS_HIGH = 22;
const FASTENER_COUNT_RANK = 23;
const COST_RANK = 24;
const FASTENER_COST_RANK = 25;
// variance of parts and fasteners together: less than the sum of the two where a whole was weighed with its fasteners in
const ALL_VAR = 26;
// variance of the costs that comes from ranges of counts
const COST_VAR = 27;
const FASTENER_COST_VAR = 28;
// counts of which only "at least" is known
const OPEN = 29;
const STRIDE = 30;

/** Adds kg on a mark to kg on the weakest mark so far: the weaker mark wins, equal marks add up. */
const addWeakest = (t: Float64Array, rankAt: number, rank: number, kg: number): void => {
  const known = t[rankAt]!;
  if (rank > known) {
    t[rankAt] = rank;
    t[rankAt + 1] = kg;
  } else if (rank === known) t[rankAt + 1]! += kg;
};

// written out measure by measure: this and `multiply` run once for every node, and most nodes hold no fasteners
const addChild = (t: Float64Array, at: number, child: Float64Array, c: number): void => {
  t[at + PARTS]! += child[c + PARTS]!;
  t[at + PARTS_LOW]! += child[c + PARTS_LOW]!;
  t[at + PARTS_HIGH]! += child[c + PARTS_HIGH]!;
  if (child[c + COUNT_RANK]! > t[at + COUNT_RANK]!) t[at + COUNT_RANK] = child[c + COUNT_RANK]!;
  t[at + JOINTS]! += child[c + JOINTS]!;
  t[at + MASS]! += child[c + MASS]!;
  t[at + MASS_VAR]! += child[c + MASS_VAR]!;
  t[at + ALL_VAR]! += child[c + ALL_VAR]!;
  t[at + COST_VAR]! += child[c + COST_VAR]!;
  t[at + OPEN]! += child[c + OPEN]!;
  t[at + PARTS_MASSED]! += child[c + PARTS_MASSED]!;
  t[at + PARTS_WEIGHED]! += child[c + PARTS_WEIGHED]!;
  t[at + COST]! += child[c + COST]!;
  t[at + PARTS_COSTED]! += child[c + PARTS_COSTED]!;
  if (child[c + COST_RANK]! > t[at + COST_RANK]!) t[at + COST_RANK] = child[c + COST_RANK]!;
  addWeakest(t, at + MASS_RANK, child[c + MASS_RANK]!, child[c + MASS_ON_RANK]!);
  if (child[c + FASTENERS] === 0) return;
  t[at + FASTENERS]! += child[c + FASTENERS]!;
  t[at + FASTENERS_LOW]! += child[c + FASTENERS_LOW]!;
  t[at + FASTENERS_HIGH]! += child[c + FASTENERS_HIGH]!;
  if (child[c + FASTENER_COUNT_RANK]! > t[at + FASTENER_COUNT_RANK]!) t[at + FASTENER_COUNT_RANK] = child[c + FASTENER_COUNT_RANK]!;
  t[at + FASTENER_MASS]! += child[c + FASTENER_MASS]!;
  t[at + FASTENER_MASS_VAR]! += child[c + FASTENER_MASS_VAR]!;
  t[at + FASTENERS_MASSED]! += child[c + FASTENERS_MASSED]!;
  t[at + FASTENER_COST]! += child[c + FASTENER_COST]!;
  t[at + FASTENER_COST_VAR]! += child[c + FASTENER_COST_VAR]!;
  t[at + FASTENERS_COSTED]! += child[c + FASTENERS_COSTED]!;
  if (child[c + FASTENER_COST_RANK]! > t[at + FASTENER_COST_RANK]!) t[at + FASTENER_COST_RANK] = child[c + FASTENER_COST_RANK]!;
  addWeakest(t, at + FASTENER_RANK, child[c + FASTENER_RANK]!, child[c + FASTENER_ON_RANK]!);
};

/** Puts a mass of the parts; `massVar` is its variance, `allVar` that of it and the fasteners inside together. */
const putMass = (t: Float64Array, at: number, massKg: number, massVar: number, allVar: number, rank: number): void => {
  t[at + MASS] = massKg;
  t[at + MASS_VAR] = massVar;
  t[at + ALL_VAR] = allVar;
  t[at + MASS_RANK] = rank + 1;
  t[at + MASS_ON_RANK] = massKg;
};

const asLeaf = (t: Float64Array, at: number, own: OwnFigures): void => {
  t[at + PARTS] = 1;
  t[at + PARTS_LOW] = 1;
  t[at + PARTS_HIGH] = 1;
  if (own.massKg === null) return;
  putMass(t, at, own.massKg, own.massVar, own.massVar, own.massRank);
  t[at + PARTS_MASSED] = 1;
  t[at + PARTS_WEIGHED] = own.massRank === 0 ? 1 : 0;
};

/** What is summed up in a slot, as a sum to be held against a weighing of the whole. */
const summed = (t: Float64Array, at: number): SummedMass => ({
  massKg: t[at + MASS]! + t[at + FASTENER_MASS]!,
  massVar: t[at + ALL_VAR]!,
  isComplete: t[at + PARTS_MASSED] === t[at + PARTS] && t[at + FASTENERS_MASSED] === t[at + FASTENERS],
});

/** The whole stands in for its parts; its fasteners were weighed with it, and what they weigh is taken off the parts. */
const standIn = (t: Float64Array, at: number, own: OwnFigures): void => {
  const fastenersKg = t[at + FASTENER_MASS]!;
  putMass(t, at, Math.max(0, own.massKg! - fastenersKg), own.massVar + t[at + FASTENER_MASS_VAR]!, own.massVar, own.massRank);
  t[at + PARTS_MASSED] = t[at + PARTS]!;
  if (own.massRank !== 0) t[at + PARTS_WEIGHED] = 0;
};

const asParts = (t: Float64Array, at: number, own: OwnFigures): void => {
  if (own.massKg !== null && massClosure({ massKg: own.massKg, massVar: own.massVar }, summed(t, at)).stands === 'whole')
    standIn(t, at, own);
};

const asOne = (t: Float64Array, at: number, own: OwnFigures): void => {
  const parts = t[at + PARTS]!;
  const allMassed = t[at + PARTS_MASSED] === parts;
  const allWeighed = t[at + PARTS_WEIGHED] === parts;
  const isWhole = own.massKg !== null && massClosure({ massKg: own.massKg, massVar: own.massVar }, summed(t, at)).stands === 'whole';
  if (isWhole) putMass(t, at, own.massKg, own.massVar, own.massVar, own.massRank);
  else {
    addWeakest(t, at + MASS_RANK, t[at + FASTENER_RANK]!, t[at + FASTENER_ON_RANK]!);
    t[at + MASS]! += t[at + FASTENER_MASS]!;
    t[at + MASS_VAR] = t[at + ALL_VAR]!;
  }
  t[at + COST]! += t[at + FASTENER_COST]!;
  t[at + COST_VAR]! += t[at + FASTENER_COST_VAR]!;
  t[at + COST_RANK] = Math.max(t[at + COST_RANK]!, t[at + FASTENER_COST_RANK]!);
  t[at + PARTS_COSTED] = t[at + PARTS_COSTED] === parts ? 1 : 0;
  t[at + PARTS_MASSED] = isWhole || allMassed ? 1 : 0;
  t[at + PARTS_WEIGHED] = (isWhole && own.massRank === 0) || (!isWhole && allWeighed) ? 1 : 0;
  t[at + PARTS] = 1;
  t[at + PARTS_LOW] = 1;
  t[at + PARTS_HIGH] = 1;
  t[at + COUNT_RANK] = 0;
  for (const m of [
    FASTENERS,
    FASTENERS_LOW,
    FASTENERS_HIGH,
    FASTENER_COUNT_RANK,
    FASTENER_COST_RANK,
    JOINTS,
    FASTENER_MASS,
    FASTENER_MASS_VAR,
    FASTENERS_MASSED,
    FASTENER_COST,
    FASTENER_COST_VAR,
    FASTENERS_COSTED,
    FASTENER_ON_RANK,
  ])
    t[at + m] = 0;
  t[at + FASTENER_RANK] = 0;
};

const putCost = (t: Float64Array, at: number, own: OwnFigures, isLeaf: boolean): void => {
  if (own.costAmount === null) return;
  if (own.boughtWhole) {
    t[at + COST] = own.costAmount;
    t[at + COST_VAR] = 0;
    t[at + FASTENER_COST_VAR] = 0;
    t[at + COST_RANK] = own.costRank + 1;
    t[at + FASTENER_COST_RANK] = 0;
    t[at + PARTS_COSTED] = t[at + PARTS]!;
    t[at + FASTENER_COST] = 0;
    t[at + FASTENERS_COSTED] = t[at + FASTENERS]!;
  } else if (isLeaf) {
    t[at + COST] = own.costAmount;
    t[at + COST_RANK] = own.costRank + 1;
    t[at + PARTS_COSTED] = 1;
  }
};

const addFasteners = (t: Float64Array, at: number, own: OwnFigures): void => {
  t[at + JOINTS]! += own.joints;
  if (own.fasteners === 0) return;
  t[at + FASTENERS]! += own.fasteners;
  t[at + FASTENERS_LOW]! += own.fastenersLow;
  t[at + FASTENERS_HIGH]! += own.fastenersHigh;
  if (own.fastenerCountRank + 1 > t[at + FASTENER_COUNT_RANK]!) t[at + FASTENER_COUNT_RANK] = own.fastenerCountRank + 1;
  t[at + FASTENER_MASS]! += own.fastenerMassKg;
  t[at + FASTENER_MASS_VAR]! += own.fastenerMassVar;
  t[at + ALL_VAR]! += own.fastenerMassVar;
  t[at + FASTENER_COST_VAR]! += own.fastenerCostVar;
  t[at + FASTENERS_MASSED]! += own.fastenersMassed;
  t[at + FASTENER_COST]! += own.fastenerCost;
  t[at + FASTENERS_COSTED]! += own.fastenersCosted;
  if (own.fastenerCostRank + 1 > t[at + FASTENER_COST_RANK]!) t[at + FASTENER_COST_RANK] = own.fastenerCostRank + 1;
  addWeakest(t, at + FASTENER_RANK, own.fastenerRank + 1, own.fastenerKgOnRank);
};

const multiply = (t: Float64Array, at: number, own: OwnFigures): void => {
  const { quantity, quantityLow, quantityHigh, quantityMean: n, quantityVar } = own;
  if (own.countRank + 1 > t[at + COUNT_RANK]!) t[at + COUNT_RANK] = own.countRank + 1;
  if (own.isOpen) t[at + OPEN]! += 1;
  if (quantity === 1 && quantityLow === 1 && quantityHigh === 1) return;
  const massVarOfCount = own.isMassInAll ? 0 : quantityVar;
  t[at + PARTS_LOW]! *= quantityLow;
  t[at + PARTS_HIGH]! *= quantityHigh;
  t[at + PARTS]! *= quantity;
  t[at + JOINTS]! *= quantity;
  // one reading stands for all of them, so they err together: u(n m) = n u(m); a range of the count adds its own
  t[at + ALL_VAR] = productVar(n, massVarOfCount, t[at + MASS]! + t[at + FASTENER_MASS]!, t[at + ALL_VAR]!);
  t[at + MASS_VAR] = productVar(n, massVarOfCount, t[at + MASS]!, t[at + MASS_VAR]!);
  t[at + MASS]! *= n;
  t[at + PARTS_MASSED]! *= quantity;
  t[at + PARTS_WEIGHED]! *= quantity;
  t[at + COST_VAR] = productVar(n, quantityVar, t[at + COST]!, t[at + COST_VAR]!);
  t[at + COST]! *= n;
  t[at + PARTS_COSTED]! *= quantity;
  t[at + MASS_ON_RANK]! *= n;
  if (t[at + FASTENERS] === 0) return;
  t[at + FASTENERS]! *= quantity;
  t[at + FASTENERS_LOW]! *= quantityLow;
  t[at + FASTENERS_HIGH]! *= quantityHigh;
  t[at + FASTENER_MASS_VAR] = productVar(n, quantityVar, t[at + FASTENER_MASS]!, t[at + FASTENER_MASS_VAR]!);
  t[at + FASTENER_MASS]! *= n;
  t[at + FASTENERS_MASSED]! *= quantity;
  t[at + FASTENER_COST_VAR] = productVar(n, quantityVar, t[at + FASTENER_COST]!, t[at + FASTENER_COST_VAR]!);
  t[at + FASTENER_COST]! *= n;
  t[at + FASTENERS_COSTED]! *= quantity;
  t[at + FASTENER_ON_RANK]! *= n;
};

/** Turns the sum of the children, already in place, into the totals of the node. */
const finish = (t: Float64Array, at: number, own: OwnFigures, isLeaf: boolean, assembliesAs: AssembliesAs): void => {
  if (!own.isPart) return;
  if (isLeaf) asLeaf(t, at, own);
  else if (assembliesAs === 'parts') asParts(t, at, own);
  putCost(t, at, own, isLeaf);
  if (!isLeaf && assembliesAs === 'one') asOne(t, at, own);
  addFasteners(t, at, own);
  multiply(t, at, own);
};

/** Totals of every node. Read it through `totalsAt` and `ownAt`: what edits changed lies over what was first worked out. */
export interface RollUp {
  readonly outline: Outline;
  readonly assembliesAs: AssembliesAs;
  readonly first: First;
  readonly changed: { readonly totals: ReadonlyMap<number, Float64Array>; readonly own: ReadonlyMap<number, OwnFigures> };
}

/** Only nodes with something inside keep their totals, in the order of `innerOf`; those of a leaf follow at once from its own figures. */
interface First {
  readonly own: readonly OwnFigures[];
  readonly totals: Float64Array;
}

const UNCHANGED: RollUp['changed'] = { totals: new Map(), own: new Map() };

/** Works the totals of a leaf out into a slot that may hold anything. */
const putLeaf = (slot: Float64Array, own: OwnFigures, assembliesAs: AssembliesAs): void => {
  for (let m = 0; m < STRIDE; m++) slot[m] = 0;
  finish(slot, 0, own, true, assembliesAs);
};

/**
 * Counts, mass with variance, cost, completeness and weakest evidence at every node. Masses add up as uncorrelated,
 * those of one reading shared by several parts as fully correlated.
 *
 *   m = Σ nᵢ mᵢ      u² = Σ nᵢ² u(mᵢ)²
 *
 * @param outline the forest
 * @param own [node] what each node adds by itself
 * @param assembliesAs the counting rule
 * @source JCGM 100:2008 (GUM), eq. 10 (uncorrelated) and eq. 16 with r = 1 (one reading for n parts)
 */
export const rollUp = (outline: Outline, own: readonly OwnFigures[], assembliesAs: AssembliesAs): RollUp => {
  const { parentOf, innerOf, innerCount } = outline;
  const totals = new Float64Array(innerCount * STRIDE);
  const leaf = new Float64Array(STRIDE);
  // every parent stands before its children, so from the end each node finds its children summed up
  for (let place = own.length - 1; place >= 0; place--) {
    const parent = parentOf[place]!;
    const slot = innerOf[place]!;
    if (slot < 0) putLeaf(leaf, own[place]!, assembliesAs);
    else finish(totals, slot * STRIDE, own[place]!, false, assembliesAs);
    if (parent < 0) continue;
    if (slot < 0) addChild(totals, innerOf[parent]! * STRIDE, leaf, 0);
    else addChild(totals, innerOf[parent]! * STRIDE, totals, slot * STRIDE);
  }
  return { outline, assembliesAs, first: { own, totals }, changed: UNCHANGED };
};

/** What a node adds by itself. */
export const ownAt = ({ first, changed }: RollUp, place: number): OwnFigures | undefined => changed.own.get(place) ?? first.own[place];

/** More changed nodes than this are folded into a new first state, so that reading stays quick. */
const MOST_CHANGED = 256;

const folded = (rolled: RollUp): RollUp => {
  const { innerOf } = rolled.outline;
  const totals = rolled.first.totals.slice();
  const own = rolled.first.own.slice();
  for (const [place, slot] of rolled.changed.totals) totals.set(slot, innerOf[place]! * STRIDE);
  for (const [place, figures] of rolled.changed.own) own[place] = figures;
  return { ...rolled, first: { own, totals }, changed: UNCHANGED };
};

/**
 * The same after one node's own figures changed: only the node and those above it are worked out again, in the same order
 * of summing, so that the result is to the last bit what a whole roll-up gives. The roll-up before stays as it is.
 *
 * @param before the roll-up before the edit
 * @param place place of the node in the outline
 * @param figures its new own figures
 */
export const rollUpAfterEdit = (before: RollUp, place: number, figures: OwnFigures): RollUp => {
  const base = before.changed.own.size > MOST_CHANGED ? folded(before) : before;
  const { nodes, innerOf, parentOf } = base.outline;
  const own = new Map(base.changed.own).set(place, figures);
  const totals = new Map(base.changed.totals);
  const ownOf = (at: number): OwnFigures => own.get(at) ?? base.first.own[at]!;
  const leaf = new Float64Array(STRIDE);
  for (let at = innerOf[place]! < 0 ? parentOf[place]! : place; at >= 0; at = parentOf[at]!) {
    const { children } = nodes[at]!;
    const slot = new Float64Array(STRIDE);
    for (let i = children.length - 1; i >= 0; i--) {
      const child = children[i]!;
      if (innerOf[child]! < 0) {
        putLeaf(leaf, ownOf(child), base.assembliesAs);
        addChild(slot, 0, leaf, 0);
      } else addChild(slot, 0, totals.get(child) ?? base.first.totals, totals.has(child) ? 0 : innerOf[child]! * STRIDE);
    }
    finish(slot, 0, ownOf(at), false, base.assembliesAs);
    totals.set(at, slot);
  }
  return { ...base, changed: { totals, own } };
};

/** The numbers of a node: where they stand, or, for a leaf, worked out here. */
const numbersAt = (rolled: RollUp, place: number): readonly [Float64Array, number] => {
  const { outline, first, changed, assembliesAs } = rolled;
  const inner = outline.innerOf[place]!;
  const slot = changed.totals.get(place);
  if (slot) return [slot, 0];
  if (inner >= 0) return [first.totals, inner * STRIDE];
  const leaf = new Float64Array(STRIDE);
  putLeaf(leaf, ownAt(rolled, place)!, assembliesAs);
  return [leaf, 0];
};

/** Totals of the node at a place of the outline, or null when no node stands there. */
export const totalsAt = (rolled: RollUp, place: number): Totals | null => {
  if (!(place >= 0 && place < rolled.outline.nodes.length)) return null;
  const [t, at] = numbersAt(rolled, place);
  return {
    parts: t[at + PARTS]!,
    partsLow: t[at + PARTS_LOW]!,
    partsHigh: t[at + PARTS_HIGH]!,
    countRank: t[at + COUNT_RANK]! - 1,
    fasteners: t[at + FASTENERS]!,
    fastenersLow: t[at + FASTENERS_LOW]!,
    fastenersHigh: t[at + FASTENERS_HIGH]!,
    fastenerCountRank: t[at + FASTENER_COUNT_RANK]! - 1,
    joints: t[at + JOINTS]!,
    massKg: t[at + MASS]!,
    massVar: t[at + MASS_VAR]!,
    partsMassed: t[at + PARTS_MASSED]!,
    partsWeighed: t[at + PARTS_WEIGHED]!,
    massRank: t[at + MASS_RANK]! - 1,
    massKgOnRank: t[at + MASS_ON_RANK]!,
    fastenerMassKg: t[at + FASTENER_MASS]!,
    fastenerMassVar: t[at + FASTENER_MASS_VAR]!,
    fastenersMassed: t[at + FASTENERS_MASSED]!,
    fastenerRank: t[at + FASTENER_RANK]! - 1,
    fastenerKgOnRank: t[at + FASTENER_ON_RANK]!,
    cost: t[at + COST]!,
    partsCosted: t[at + PARTS_COSTED]!,
    fastenerCost: t[at + FASTENER_COST]!,
    fastenersCosted: t[at + FASTENERS_COSTED]!,
    costRank: t[at + COST_RANK]! - 1,
    fastenerCostRank: t[at + FASTENER_COST_RANK]! - 1,
    allMassVar: t[at + ALL_VAR]!,
    costVar: t[at + COST_VAR]!,
    fastenerCostVar: t[at + FASTENER_COST_VAR]!,
    openCounts: t[at + OPEN]!,
  };
};

/** Totals of a node by its key, or null when it is not in the outline. */
export const totalsOf = (rolled: RollUp, key: string): Totals | null => {
  const place = rolled.outline.placeOf.get(key);
  return place === undefined ? null : totalsAt(rolled, place);
};

/**
 * The weighing of a node held against the sum of what is inside it, per one such part; null where it is no assembly or was
 * not weighed as a whole.
 */
export const closureAt = (rolled: RollUp, place: number): MassClosure | null => {
  const own = ownAt(rolled, place);
  const children = rolled.outline.nodes[place]?.children ?? [];
  if (!own || children.length === 0) return null;
  const { massKg } = own;
  if (massKg === null) return null;
  const slot = new Float64Array(STRIDE);
  for (let i = children.length - 1; i >= 0; i--) {
    const [t, at] = numbersAt(rolled, children[i]!);
    addChild(slot, 0, t, at);
  }
  return massClosure({ massKg, massVar: own.massVar }, summed(slot, 0));
};
