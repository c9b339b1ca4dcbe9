import type { EvidenceMark } from '../shared';
import type { StudyRecord, Vehicle } from '../record';
import { subsystemKey } from '../record';
import { totalsAt, totalsOf, type CountRange } from '../bench';
import { contentsBelow, studyShown, type PartBelow, type StudyRollUp, type StudyShown } from '../cost';
import { FASTENERS, NOT_STATED, breakdown, shareOrder, type BreakdownBy, type Share } from './breakdown';
import { fastenerVariants } from './fastener-variants';

export const MEASURES = ['parts', 'fasteners', 'variants', 'joints', 'mass', 'cost'] as const;
export type Measure = (typeof MEASURES)[number];

export const MEASURE_WORD: Readonly<Record<Measure, string>> = {
  parts: 'Parts',
  fasteners: 'Fasteners',
  variants: 'Fastener variants',
  joints: 'Joints',
  mass: 'Mass',
  cost: 'Cost',
};

/** The word for a measure under the rule on fasteners: with them counted in, parts are parts and fasteners. */
const measureWord = (measure: Measure, fastenersIn: boolean): string =>
  measure === 'parts' && fastenersIn ? 'Parts and fasteners' : MEASURE_WORD[measure];

/** How much of a side has a cost: of its parts as counted, and of its mass; null where it has no mass. */
export interface Costed {
  readonly parts: number;
  readonly ofParts: number;
  readonly massFraction: number | null;
}

/** One vehicle's side of a comparison. */
export interface Side {
  readonly vehicle: Vehicle;
  readonly shown: StudyShown;
  readonly variants: number;
  readonly costed: Costed;
  readonly shares: Readonly<Record<BreakdownBy, readonly Share[]>>;
  /** one point per part straight under the subsystem */
  readonly groups: readonly Group[];
}

/** A part straight under the subsystem, with all that is inside it. */
interface Group {
  readonly partId: string;
  readonly name: string;
  readonly parts: number;
  readonly massKg: number | null;
  readonly massMark: EvidenceMark | null;
}

/** One line of the table: the two figures, their difference and what one is of the other. */
export interface CompareRow {
  readonly key: string;
  readonly label: string;
  readonly measure: Measure;
  readonly left: number | null;
  readonly right: number | null;
  /** left − right, null when either is absent */
  readonly difference: number | null;
  /** left ÷ right, null when either is absent or 0 */
  readonly ratio: number | null;
  /** standard uncertainty of a mass, or of a cost by ranges of counts; null where none is worked out */
  readonly leftU: number | null;
  readonly rightU: number | null;
  /** the two are independent: √(u² + u²) */
  readonly differenceU: number | null;
  readonly ratioU: number | null;
  /** the ends of a count that is a range; null where it is one number */
  readonly leftRange: CountRange | null;
  readonly rightRange: CountRange | null;
  /** weakest mark in each figure */
  readonly leftMark: EvidenceMark | null;
  readonly rightMark: EvidenceMark | null;
}

export interface Comparison {
  /** are fasteners counted with the parts? */
  readonly fastenersIn: boolean;
  readonly left: Side;
  readonly right: Side;
  readonly totals: readonly CompareRow[];
  readonly byMaterial: readonly CompareRow[];
  readonly byProcess: readonly CompareRow[];
}

const BREAKDOWNS: readonly BreakdownBy[] = ['material', 'family', 'process'];

const groupsOf = (
  parts: readonly PartBelow[],
  rolled: StudyRollUp['rolled'],
  rootPlace: number | undefined,
  fastenersIn: boolean,
): readonly Group[] =>
  parts
    .filter(({ place }) => rolled.outline.nodes[place]?.parent === rootPlace)
    .flatMap(({ part, place }) => {
      const totals = totalsAt(rolled, place);
      if (!totals) return [];
      const figures = studyShown(totals, fastenersIn);
      return [{ partId: part.id, name: part.name, parts: figures.parts, massKg: figures.massKg, massMark: figures.weakest }];
    });

/** Share of a side that has a cost. Parts inside a bought assembly are covered by its price. */
const costedOf = (parts: readonly PartBelow[], figures: StudyShown): Costed => {
  const covered = new Set<string>();
  let costedKg = 0;
  let allKg = 0;
  for (const { part, own, meanPerVehicle, isLeaf } of parts) {
    const { mass, cost } = own.figures;
    const isInside = part.parentId !== null && covered.has(part.parentId);
    if (isInside || (own.covers('cost') && cost !== null)) covered.add(part.id);
    if (!isLeaf || mass === null) continue;
    const kg = mass.value * meanPerVehicle;
    allKg += kg;
    if (covered.has(part.id) || cost !== null) costedKg += kg;
  }
  return { parts: figures.partsCosted, ofParts: figures.partsOfMass, massFraction: allKg > 0 ? costedKg / allKg : null };
};

const sideOf = (record: StudyRecord, rollUp: StudyRollUp, vehicle: Vehicle, subsystemId: string): Side | null => {
  const key = subsystemKey(vehicle.id, subsystemId);
  const totals = totalsOf(rollUp.rolled, key);
  if (!totals) return null;
  const { fastenersIn } = record.study;
  const { parts, fastenersOf } = contentsBelow(record, rollUp, key);
  const figures = studyShown(totals, fastenersIn);
  const whole = studyShown(totals, true);
  const split = (by: BreakdownBy): readonly Share[] =>
    breakdown(parts, by, whole).filter((share) => fastenersIn || share.key !== 'fasteners');
  return {
    vehicle,
    shown: figures,
    costed: costedOf(parts, figures),
    variants: fastenerVariants(parts.flatMap(({ part }) => fastenersOf(part.id))),
    shares: Object.fromEntries(BREAKDOWNS.map((by) => [by, split(by)])) as unknown as Side['shares'],
    groups: groupsOf(parts, rollUp.rolled, rollUp.rolled.outline.placeOf.get(key), fastenersIn),
  };
};

/** One figure of a side, and how sure it is. */
interface Told {
  readonly value: number | null;
  readonly u: number | null;
  readonly range: CountRange | null;
  readonly mark: EvidenceMark | null;
}

const NOT_TOLD: Told = { value: null, u: null, range: null, mark: null };

/** A count: nothing recorded is not 0, no figure of it is one; a range of one number is none. */
const counted = (count: number, range: CountRange, mark: EvidenceMark | null): Told =>
  count === 0 ? NOT_TOLD : { value: count, u: null, range: range.low === count && range.high === count ? null : range, mark };

const amount = (value: number | null, u: number | null, mark: EvidenceMark | null): Told => ({ ...NOT_TOLD, value, u, mark });

const row = (key: string, label: string, measure: Measure, l: Told, r: Told): CompareRow => {
  const both = l.value === null || r.value === null ? null : { l: l.value, r: r.value };
  const hasRatio = both !== null && both.l !== 0 && both.r !== 0;
  const hasU = both !== null && (l.u !== null || r.u !== null);
  const [lu, ru] = [l.u ?? 0, r.u ?? 0];
  return {
    key,
    label,
    measure,
    left: l.value,
    right: r.value,
    difference: both && both.l - both.r,
    ratio: hasRatio ? both.l / both.r : null,
    leftU: l.u,
    rightU: r.u,
    differenceU: hasU ? Math.hypot(lu, ru) : null,
    ratioU: hasU && hasRatio ? (both.l / both.r) * Math.hypot(lu / both.l, ru / both.r) : null,
    leftRange: l.range,
    rightRange: r.range,
    leftMark: l.mark,
    rightMark: r.mark,
  };
};

const totalRows = (left: Side, right: Side, fastenersIn: boolean): readonly CompareRow[] => {
  const value = ({ shown: s, variants }: Side): Readonly<Record<Measure, Told>> => ({
    parts: counted(s.parts, s.partsRange, s.countMark),
    fasteners: counted(s.fasteners, s.fastenersRange, s.fastenerMark),
    variants: counted(variants, { low: variants, high: variants }, s.fastenerMark),
    joints: counted(s.joints, s.jointsRange, s.jointMark),
    mass: amount(s.massKg, s.massUKg, s.weakest),
    cost: amount(s.cost, s.costUOfCounts, s.costMark),
  });
  const l = value(left);
  const r = value(right);
  return MEASURES.map((measure) => row(`total ${measure}`, measureWord(measure, fastenersIn), measure, l[measure], r[measure]));
};

const shareRows = (left: readonly Share[], right: readonly Share[]): readonly CompareRow[] => {
  // a side does without a material only where every part of it says what it is made of
  const isKnown = (shares: readonly Share[]): boolean => shares.length > 0 && shares.every((share) => share.key !== NOT_STATED);
  const keys = [...new Set([...left, ...right].map((share) => share.key))].sort(shareOrder);
  const find = (shares: readonly Share[], key: string): Share | undefined => shares.find((share) => share.key === key);
  const figure = (shares: readonly Share[], key: string, measure: 'parts' | 'mass' | 'cost'): Told => {
    const share = find(shares, key);
    // a material one side does not use at all weighs nothing there; parts that are there without a mass are unknown
    if (!share) return { ...NOT_TOLD, value: isKnown(shares) && key !== FASTENERS ? 0 : null };
    const { parts, partsLow: low, partsHigh: high, marks } = share;
    if (measure === 'mass') return amount(share.massKg, share.massUKg, marks.mass);
    if (measure === 'cost') return amount(share.cost, share.costUOfCounts, marks.cost);
    return { ...counted(parts, { low, high }, marks.parts), value: parts };
  };
  return keys.flatMap((key) => {
    return (['parts', 'mass', 'cost'] as const).map((measure) =>
      row(`${key} ${measure}`, key, measure, figure(left, key, measure), figure(right, key, measure)),
    );
  });
};

/**
 * Two vehicles, one subsystem, under the study's counting rule and cost basis. Null when either has no such subsystem.
 */
export const compareVehicles = (
  record: StudyRecord,
  rollUp: StudyRollUp,
  leftId: string,
  rightId: string,
  subsystemId: string,
): Comparison | null => {
  const vehicle = (id: string): Vehicle | undefined => record.vehicles.find((v) => v.id === id);
  const leftVehicle = vehicle(leftId);
  const rightVehicle = vehicle(rightId);
  const left = leftVehicle && sideOf(record, rollUp, leftVehicle, subsystemId);
  const right = rightVehicle && sideOf(record, rollUp, rightVehicle, subsystemId);
  if (!left || !right) return null;
  return {
    fastenersIn: record.study.fastenersIn,
    left,
    right,
    totals: totalRows(left, right, record.study.fastenersIn),
    byMaterial: shareRows(left.shares.material, right.shares.material),
    byProcess: shareRows(left.shares.process, right.shares.process),
  };
};
