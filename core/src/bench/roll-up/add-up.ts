import type { StudyFields } from '../../record';
import type { Layout, PartMeasure } from './measure';

/** How opened assemblies are counted: as their parts, or each as one. */
export type AssembliesAs = StudyFields['assembliesAs'];

/**
 * Variance of a count times a value, both with a variance and independent.
 *
 *   u²(n m) = n² u²(m) + m² u²(n) + u²(n) u²(m)
 *
 * @source variance of a product of independent quantities, exact; JCGM 100:2008 (GUM), 5.1.2 gives its first two terms
 */
export const productVar = (n: number, nVar: number, value: number, valueVar: number): number =>
  n * n * valueVar + nVar * (value * value + valueVar);

/** Adds an amount on a mark to the amount on the weakest mark so far: the weaker mark wins, equal marks add up. */
const addOnWeakest = (t: Float64Array, rankAt: number, onAt: number, rank: number, amount: number): void => {
  const known = t[rankAt]!;
  if (rank > known) {
    t[rankAt] = rank;
    t[onAt] = amount;
  } else if (rank === known) t[onAt]! += amount;
};

/** Adds a row of totals to what is summed up in another. */
export const addRow = (layout: Layout, t: Float64Array, at: number, from: Float64Array, f: number): void => {
  const { largest, marks, amountsOnMarks } = layout;
  for (let i = 0; i < largest; i++) t[at + i]! += from[f + i]!;
  for (let i = largest; i < marks; i++) if (from[f + i]! > t[at + i]!) t[at + i] = from[f + i]!;
  for (let i = marks, on = amountsOnMarks; i < amountsOnMarks; i++, on++) addOnWeakest(t, at + i, at + on, from[f + i]!, from[f + on]!);
};

/** What sits on the node itself, beside what is inside it. */
const addHeld = (layout: Layout, t: Float64Array, at: number, own: Float64Array, o: number): void => {
  const { heldSums, heldLargest, heldMarks, marks, amountsOnMarks, together, open } = layout;
  for (const i of heldSums) t[at + i]! += own[o + i]!;
  for (const both of together) for (const i of both.joinedVariances) t[at + both.at]! += own[o + i]!;
  for (const i of heldLargest) if (own[o + i]! > t[at + i]!) t[at + i] = own[o + i]!;
  for (const i of heldMarks) {
    const on = i + amountsOnMarks - marks;
    addOnWeakest(t, at + i, at + on, own[o + i]!, own[o + on]!);
  }
  t[at + open]! += own[o + open]!;
};

/** Everything a measure is out of has a figure, its own parts and what joins it. */
export const isComplete = ({ at, outOf, joined }: PartMeasure, t: Float64Array, row: number): boolean =>
  t[row + at.known] === t[row + outOf!.value] &&
  joined.every((j) => j.outOf === null || j.at.known < 0 || t[row + j.at.known] === t[row + j.outOf.value]);

/** Value and variance of a measure with what joins it. */
export const valueBelow = ({ at, joined }: PartMeasure, t: Float64Array, row: number): number =>
  joined.reduce((sum, j) => sum + t[row + j.at.value]!, t[row + at.value]!);
export const varianceBelow = ({ at }: PartMeasure, t: Float64Array, row: number): number =>
  at.together >= 0 ? t[row + at.together]! : at.variance >= 0 ? t[row + at.variance]! : 0;

const wholeStands = (measure: PartMeasure, t: Float64Array, at: number, own: Float64Array, o: number): boolean =>
  measure.whole !== undefined &&
  own[o + measure.at.known]! > 0 &&
  measure.whole.stands(
    {
      value: own[o + measure.at.value]!,
      variance: measure.at.variance < 0 ? 0 : own[o + measure.at.variance]!,
      covers: own[o + measure.coversAt] === 1,
    },
    { value: valueBelow(measure, t, at), variance: varianceBelow(measure, t, at), isComplete: isComplete(measure, t, at) },
  );

/** Puts the own figure of the whole in place of what is inside; `value` and `variance` without what joins it. */
const putWhole = (m: PartMeasure, t: Float64Array, at: number, own: Float64Array, o: number, value: number, variance: number): void => {
  t[at + m.at.value] = value;
  if (m.at.variance >= 0) t[at + m.at.variance] = variance;
  if (m.at.together >= 0) t[at + m.at.together] = own[o + m.at.variance]!;
  if (m.at.rank >= 0) t[at + m.at.rank] = own[o + m.at.rank]!;
  if (m.at.onRank >= 0) t[at + m.at.onRank] = value;
  for (const term of m.terms) t[at + term] = own[o + term]!;
};

/** The whole stands in for its parts; what joins it was in it, and is taken off the parts or covered. */
const standIn = (m: PartMeasure, t: Float64Array, at: number, own: Float64Array, o: number): void => {
  const takenOff = m.whole!.joined === 'taken off';
  let joinedValue = 0;
  let joinedVariance = 0;
  for (const j of m.joined) {
    if (takenOff) {
      joinedValue += t[at + j.at.value]!;
      joinedVariance += j.at.variance < 0 ? 0 : t[at + j.at.variance]!;
      continue;
    }
    t[at + j.at.value] = 0;
    if (j.at.variance >= 0) t[at + j.at.variance] = 0;
    if (j.at.rank >= 0) t[at + j.at.rank] = 0;
    if (j.at.onRank >= 0) t[at + j.at.onRank] = 0;
    if (j.at.known >= 0 && j.outOf) t[at + j.at.known] = t[at + j.outOf.value]!;
  }
  const ownVariance = m.at.variance < 0 ? 0 : own[o + m.at.variance]!;
  putWhole(m, t, at, own, o, Math.max(0, own[o + m.at.value]! - joinedValue), ownVariance + joinedVariance);
  t[at + m.at.known] = t[at + m.outOf!.value]!;
  // parts of a whole that is no reading are no readings
  if (m.at.best >= 0 && own[o + m.at.rank] !== 1) t[at + m.at.best] = 0;
};

const standInAll = (layout: Layout, t: Float64Array, at: number, own: Float64Array, o: number): void => {
  for (const m of layout.parts) if (wholeStands(m, t, at, own, o)) standIn(m, t, at, own, o);
};

const joinUp = (m: PartMeasure, t: Float64Array, at: number): void => {
  for (const j of m.joined) {
    const value = t[at + j.at.value]!;
    if (j.at.onRank >= 0) addOnWeakest(t, at + m.at.rank, at + m.at.onRank, t[at + j.at.rank]!, t[at + j.at.onRank]!);
    else if (j.at.rank >= 0 && t[at + j.at.rank]! > t[at + m.at.rank]!) t[at + m.at.rank] = t[at + j.at.rank]!;
    t[at + m.at.value]! += value;
    for (const to of j.alsoTo) t[at + to]! += value;
  }
  if (m.at.together >= 0) t[at + m.at.variance] = t[at + m.at.together]!;
};

/** The assembly counts as one part: what it holds goes over to it, and is no longer counted by itself. */
const asOne = (layout: Layout, t: Float64Array, at: number, own: Float64Array, o: number): void => {
  const { counted, parts, heldSums, heldLargest, heldMarks, marks, amountsOnMarks } = layout;
  for (const m of parts) {
    const all = t[at + m.outOf!.value]!;
    const isWhole = wholeStands(m, t, at, own, o);
    const isAllKnown = isWhole || t[at + m.at.known] === all;
    const isBest = m.at.best >= 0 && (isWhole ? own[o + m.at.rank] === 1 : t[at + m.at.best] === all);
    if (isWhole) putWhole(m, t, at, own, o, own[o + m.at.value]!, m.at.variance < 0 ? 0 : own[o + m.at.variance]!);
    else joinUp(m, t, at);
    t[at + m.at.known] = isAllKnown ? 1 : 0;
    if (m.at.best >= 0) t[at + m.at.best] = isBest ? 1 : 0;
  }
  t[at + counted.value] = 1;
  t[at + counted.low] = 1;
  t[at + counted.high] = 1;
  if (counted.rank >= 0) t[at + counted.rank] = 0;
  for (const i of heldSums) t[at + i] = 0;
  for (const i of heldLargest) t[at + i] = 0;
  for (const i of heldMarks) {
    t[at + i] = 0;
    t[at + i + amountsOnMarks - marks] = 0;
  }
};

/** There is one of the node, and that is certain. */
export const isOne = ({ count }: Layout, own: Float64Array, o: number): boolean =>
  own[o + count.value] === 1 && own[o + count.low] === 1 && own[o + count.high] === 1;

/** So many of the node, from what one of them comes to. */
const multiply = (layout: Layout, t: Float64Array, at: number, own: Float64Array, o: number): void => {
  const { counted, count, lows, highs, amounts, variances, amountsOnMarks, stride, products, together } = layout;
  const rank = own[o + count.rank]!;
  if (rank > t[at + counted.rank]!) t[at + counted.rank] = rank;
  if (isOne(layout, own, o)) return;
  const value = own[o + count.value]!;
  const low = own[o + count.low]!;
  const high = own[o + count.high]!;
  const mean = own[o + count.mean]!;
  // one reading stands for all of them, so they err together: u(n m) = n u(m); a range of the count adds its own
  for (const both of together) {
    let sum = t[at + both.value]!;
    for (const i of both.joined) sum += t[at + i]!;
    t[at + both.at] = productVar(mean, own[o + both.countVarAt]!, sum, t[at + both.at]!);
  }
  for (const p of products) t[at + p.variance] = productVar(mean, own[o + p.countVarAt]!, t[at + p.value]!, t[at + p.variance]!);
  for (let i = 0; i < lows; i++) t[at + i]! *= value;
  // nothing of what may be any number stays nothing
  for (let i = lows; i < highs; i++) t[at + i]! *= low;
  for (let i = highs; i < amounts; i++) if (t[at + i] !== 0) t[at + i]! *= high;
  for (let i = amounts; i < variances; i++) t[at + i]! *= mean;
  for (let i = amountsOnMarks; i < stride; i++) t[at + i]! *= mean;
};

/** Turns the own figures of a node with nothing inside into its totals. */
export const finishLeaf = (layout: Layout, t: Float64Array, at: number, own: Float64Array, o: number): void => {
  for (let i = 0; i < layout.stride; i++) t[at + i] = own[o + i]!;
  if (own[o + layout.count.isPart] === 1) multiply(layout, t, at, own, o);
};

/** Turns the sum of the children, already in place, into the totals of the node. */
export const finishInner = (
  layout: Layout,
  t: Float64Array,
  at: number,
  own: Float64Array,
  o: number,
  assembliesAs: AssembliesAs,
): void => {
  if (own[o + layout.count.isPart] !== 1) return;
  if (assembliesAs === 'parts') standInAll(layout, t, at, own, o);
  else asOne(layout, t, at, own, o);
  addHeld(layout, t, at, own, o);
  multiply(layout, t, at, own, o);
};
