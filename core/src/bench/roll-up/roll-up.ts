import type { Outline } from '../../record';
import { addRow, finishInner, finishLeaf, isComplete, isOne, valueBelow, varianceBelow, type AssembliesAs } from './add-up';
import type { Below, Layout, Measure, MeasureFigure, MeasureFigures, Measures, OwnCount, OwnFigure, Places } from './measure';

/** What one node gives to the measures by itself, for one such part, before its count; null for what is no part. */
export interface Own {
  readonly count: OwnCount;
  /** [stage] by measure; a measure that is not named gets nothing */
  readonly figures: readonly OwnFigures[];
}
export type OwnFigures = Readonly<Record<string, OwnFigure>>;

/** The same as read back: null for a measure of parts the node has no figure of. */
export interface OwnRead<M extends Measures> {
  readonly isPart: boolean;
  readonly count: Pick<OwnCount, 'value' | 'low' | 'high' | 'mean' | 'rank'>;
  readonly figures: { readonly [K in keyof M]: MeasureFigure<M[K]> | null };
  /** the figure of a measure covers all that is inside */
  readonly covers: (measure: keyof M & string) => boolean;
  /** variance of the count as it enters a measure: none where the figure was stated of all together */
  readonly countVariance: (measure: keyof M & string) => number;
}

/** Totals of every node. Read it through `totalsAt`, `belowAt` and `ownAt`: what edits changed lies over what was first worked out. */
export interface RollUp<M extends Measures = Measures> {
  readonly outline: Outline;
  readonly assembliesAs: AssembliesAs;
  readonly layout: Layout<M>;
  readonly first: Rows;
  readonly changed: Changed;
}

/**
 * Only nodes with something inside keep their totals, in the order of `innerOf`, and beside them what lies below before it is
 * known what stands for the node; those of a leaf follow at once from its own figures.
 */
interface Rows {
  readonly own: Float64Array;
  readonly totals: Float64Array;
  readonly below: Float64Array;
}
interface Changed {
  readonly own: ReadonlyMap<number, Float64Array>;
  readonly totals: ReadonlyMap<number, Float64Array>;
  readonly below: ReadonlyMap<number, Float64Array>;
}
const UNCHANGED: Changed = { own: new Map(), totals: new Map(), below: new Map() };

const packFigure = (places: Places, figure: OwnFigure, own: Float64Array, o: number): void => {
  own[o + places.value] = figure.value;
  if (places.low >= 0) own[o + places.low] = figure.low ?? figure.value;
  if (places.high >= 0) own[o + places.high] = figure.high ?? figure.value;
  if (places.variance >= 0) own[o + places.variance] = figure.variance ?? 0;
  if (places.rank >= 0) own[o + places.rank] = (figure.rank ?? -1) + 1;
  if (places.onRank >= 0) own[o + places.onRank] = figure.onRank ?? figure.value;
  if (places.known >= 0) own[o + places.known] = figure.known ?? 1;
  if (places.best >= 0) own[o + places.best] = figure.rank === 0 ? 1 : 0;
};

const packFigures = ({ placesOf, parts }: Layout, figures: OwnFigures, own: Float64Array, o: number): void => {
  for (const name in figures) {
    const figure = figures[name]!;
    const places = placesOf[name];
    if (!places) throw new RangeError(`there is no measure ${name}`);
    packFigure(places, figure, own, o);
    if (figure.covers !== true && figure.inAll !== true) continue;
    for (const m of parts)
      if (m.at === places) {
        if (figure.covers === true) own[o + m.coversAt] = 1;
        if (figure.inAll === true && m.countVarAt >= 0) own[o + m.countVarAt] = 0;
      }
  }
};

/** Packs what a node gives into a row that holds nothing. */
const pack = (layout: Layout, given: Own | null, own: Float64Array, o: number): void => {
  const { count, counted, products, together, open } = layout;
  if (given === null) return;
  own[o + count.isPart] = 1;
  own[o + count.value] = given.count.value;
  own[o + count.low] = given.count.low;
  own[o + count.high] = given.count.high;
  own[o + count.mean] = given.count.mean;
  own[o + count.rank] = given.count.rank + 1;
  own[o + open] = given.count.isOpen ? 1 : 0;
  if (counted.rank >= 0) own[o + counted.rank] = given.count.rank + 1;
  own[o + counted.value] = 1;
  own[o + counted.low] = 1;
  own[o + counted.high] = 1;
  for (const p of products) own[o + p.countVarAt] = given.count.variance;
  for (const figures of given.figures) packFigures(layout, figures, own, o);
  // that of a node with nothing inside; what is inside others comes from below
  for (const both of together) own[o + both.at] = both.joinedVariances.reduce((sum, i) => sum + own[o + i]!, own[o + both.variance]!);
};

/**
 * Every measure of a table at every node: counts with their range, amounts with variance, completeness and weakest evidence.
 * Amounts add up as uncorrelated, those of one reading shared by several parts as fully correlated.
 *
 *   m = Σ nᵢ mᵢ      u² = Σ nᵢ² u(mᵢ)²
 *
 * @param layout the table of measures, laid out
 * @param outline the forest
 * @param ownOf what each node gives by itself; null for what is no part
 * @param assembliesAs the counting rule
 * @source JCGM 100:2008 (GUM), eq. 10 (uncorrelated) and eq. 16 with r = 1 (one reading for n parts)
 */
export const rollUp = <M extends Measures>(
  layout: Layout<M>,
  outline: Outline,
  ownOf: (place: number) => Own | null,
  assembliesAs: AssembliesAs,
): RollUp<M> => {
  const { ownStride } = layout;
  const own = new Float64Array(outline.nodes.length * ownStride);
  for (let place = 0; place < outline.nodes.length; place++) pack(layout, ownOf(place), own, place * ownStride);
  return addedUp(layout, outline, own, assembliesAs);
};

/** The same from own figures that are packed already: what the counting rule alone changes. */
export const addedUp = <M extends Measures>(
  layout: Layout<M>,
  outline: Outline,
  own: Float64Array,
  assembliesAs: AssembliesAs,
): RollUp<M> => {
  const { parentOf, innerOf, innerCount, nodes } = outline;
  const { stride, ownStride } = layout;
  const totals = new Float64Array(innerCount * stride);
  const below = new Float64Array(innerCount * stride);
  const leaf = new Float64Array(stride);
  // every parent stands before its children, so from the end each node finds its children summed up
  for (let place = nodes.length - 1; place >= 0; place--) {
    const parent = parentOf[place]!;
    const slot = innerOf[place]! * stride;
    const row = place * ownStride;
    if (slot >= 0) {
      for (let i = slot; i < slot + stride; i++) totals[i] = below[i]!;
      finishInner(layout, totals, slot, own, row, assembliesAs);
    }
    if (parent < 0) continue;
    const above = innerOf[parent]! * stride;
    if (slot >= 0) addRow(layout, below, above, totals, slot);
    // one part with nothing inside is what it gives by itself
    else if (isOne(layout, own, row)) addRow(layout, below, above, own, row);
    else {
      finishLeaf(layout, leaf, 0, own, row);
      addRow(layout, below, above, leaf, 0);
    }
  }
  return { outline, assembliesAs, layout, first: { own, totals, below }, changed: UNCHANGED };
};

/** Row and place of what a node gives by itself. */
const ownRow = ({ layout, first, changed }: RollUp, place: number): readonly [Float64Array, number] => {
  const edited = changed.own.get(place);
  return edited ? [edited, 0] : [first.own, place * layout.ownStride];
};

const innerRow = (
  { outline, layout, first, changed }: RollUp,
  which: 'totals' | 'below',
  place: number,
): readonly [Float64Array, number] | null => {
  const slot = outline.innerOf[place]!;
  if (slot < 0) return null;
  const edited = changed[which].get(place);
  return edited ? [edited, 0] : [first[which], slot * layout.stride];
};

/** More changed nodes than this are folded into a new first state, so that reading stays quick. */
const MOST_CHANGED = 256;

const folded = <M extends Measures>(rolled: RollUp<M>): RollUp<M> => {
  const { innerOf } = rolled.outline;
  const { stride, ownStride } = rolled.layout;
  const totals = rolled.first.totals.slice();
  const below = rolled.first.below.slice();
  const own = rolled.first.own.slice();
  for (const [place, row] of rolled.changed.totals) totals.set(row, innerOf[place]! * stride);
  for (const [place, row] of rolled.changed.below) below.set(row, innerOf[place]! * stride);
  for (const [place, row] of rolled.changed.own) own.set(row, place * ownStride);
  return { ...rolled, first: { own, totals, below }, changed: UNCHANGED };
};

/**
 * The same after one node's own figures changed: only the node and those above it are worked out again, in the same order
 * of summing, so that the result is to the last bit what a whole roll-up gives. The roll-up before stays as it is.
 *
 * @param before the roll-up before the edit
 * @param place place of the node in the outline
 * @param given its new own figures
 */
export const rollUpAfterEdit = <M extends Measures>(before: RollUp<M>, place: number, given: Own | null): RollUp<M> => {
  const base = before.changed.own.size > MOST_CHANGED ? folded(before) : before;
  const { layout } = base;
  const { nodes, parentOf, innerOf } = base.outline;
  const row = new Float64Array(layout.ownStride);
  pack(layout, given, row, 0);
  const own = new Map(base.changed.own).set(place, row);
  const totals = new Map(base.changed.totals);
  const below = new Map(base.changed.below);
  const now = { ...base, changed: { own, totals, below } };
  const leaf = new Float64Array(layout.stride);
  for (let at = place; at >= 0; at = parentOf[at]!) {
    if (innerOf[at]! < 0) continue;
    const under = new Float64Array(layout.stride);
    const { children } = nodes[at]!;
    for (let i = children.length - 1; i >= 0; i--) addRow(layout, under, 0, ...totalsRow(now, children[i]!, leaf));
    const slot = under.slice();
    finishInner(layout, slot, 0, ...ownRow(now, at), base.assembliesAs);
    below.set(at, under);
    totals.set(at, slot);
  }
  return now;
};

/** Row and place of a node's totals; those of a leaf are worked out into `leaf`. */
const totalsRow = (rolled: RollUp, place: number, leaf: Float64Array): readonly [Float64Array, number] => {
  const inner = innerRow(rolled, 'totals', place);
  if (inner) return inner;
  finishLeaf(rolled.layout, leaf, 0, ...ownRow(rolled, place));
  return [leaf, 0];
};

const figureFrom = (places: Places, t: Float64Array, at: number): MeasureFigure<Measure> => {
  const figure: Record<string, number> = {};
  for (const [name, place] of Object.entries(places)) if (place >= 0) figure[name] = t[at + place]! - (name === 'rank' ? 1 : 0);
  return figure as MeasureFigure<Measure>;
};

/** Totals at a node, with the counts in it of which only "at least" is known. */
export type Totals<M extends Measures = Measures> = MeasureFigures<M> & { readonly openCounts: number };

const figuresFrom = <M extends Measures>({ measures, placesOf, open }: Layout<M>, t: Float64Array, at: number): Totals<M> => {
  const figures: Record<string, unknown> = { openCounts: t[at + open]! };
  for (const name in measures) figures[name] = figureFrom(placesOf[name], t, at);
  return figures as unknown as Totals<M>;
};

const isPlace = ({ outline }: RollUp, place: number): boolean => place >= 0 && place < outline.nodes.length;

/** Totals of the node at a place: what stands for it, times its count; null when there is none. */
export const totalsAt = <M extends Measures>(rolled: RollUp<M>, place: number): Totals<M> | null =>
  isPlace(rolled, place) ? figuresFrom(rolled.layout, ...totalsRow(rolled, place, new Float64Array(rolled.layout.stride))) : null;

/** What lies inside a node, summed up for one of it, whatever stands for the node; null where nothing is inside. */
export const belowAt = <M extends Measures>(rolled: RollUp<M>, place: number): Totals<M> | null => {
  const row = isPlace(rolled, place) ? innerRow(rolled, 'below', place) : null;
  return row && figuresFrom(rolled.layout, ...row);
};

/** Totals of a node by its key, or null when it is not in the outline. */
export const totalsOf = <M extends Measures>(rolled: RollUp<M>, key: string): Totals<M> | null => {
  const place = rolled.outline.placeOf.get(key);
  return place === undefined ? null : totalsAt(rolled, place);
};

/** What a node gives by itself, or null when there is no such place. */
export const ownAt = <M extends Measures>(rolled: RollUp<M>, place: number): OwnRead<M> | null => {
  if (!isPlace(rolled, place)) return null;
  const { layout } = rolled;
  const [own, o] = ownRow(rolled, place);
  const { count } = layout;
  const isPart = own[o + count.isPart] === 1;
  const figures: Record<string, unknown> = {};
  for (const [name, measure] of Object.entries(layout.measures)) {
    const places = layout.placesOf[name]!;
    const isKnown = measure.of === 'held' || places.known < 0 || own[o + places.known]! > 0;
    figures[name] = isPart && isKnown ? figureFrom(places, own, o) : null;
  }
  return {
    isPart,
    count: isPart
      ? {
          value: own[o + count.value]!,
          low: own[o + count.low]!,
          high: own[o + count.high]!,
          mean: own[o + count.mean]!,
          rank: own[o + count.rank]! - 1,
        }
      : { value: 1, low: 1, high: 1, mean: 1, rank: -1 },
    figures: figures as OwnRead<M>['figures'],
    covers: (name) => layout.parts.some((m) => m.at === layout.placesOf[name] && own[o + m.coversAt] === 1),
    countVariance: (name) => {
      const product = layout.products.find((p) => p.value === layout.placesOf[name].value);
      return product ? own[o + product.countVarAt]! : 0;
    },
  };
};

/**
 * What lies below a node in one measure with what joins it, and the own figure of the whole, both for one such part: what a weighing
 * of the whole is held against. Null where nothing is inside, or the whole has no figure of its own.
 */
export const wholeAndBelow = <M extends Measures>(
  rolled: RollUp<M>,
  place: number,
  measure: keyof M & string,
): { readonly whole: { readonly value: number; readonly variance: number }; readonly below: Below } | null => {
  const row = isPlace(rolled, place) ? innerRow(rolled, 'below', place) : null;
  const of = rolled.layout.parts.find((m) => m.at === rolled.layout.placesOf[measure]);
  const [own, o] = ownRow(rolled, place);
  if (!row || !of || !(own[o + of.at.known]! > 0)) return null;
  return {
    whole: { value: own[o + of.at.value]!, variance: of.at.variance < 0 ? 0 : own[o + of.at.variance]! },
    below: { value: valueBelow(of, ...row), variance: varianceBelow(of, ...row), isComplete: isComplete(of, ...row) },
  };
};
