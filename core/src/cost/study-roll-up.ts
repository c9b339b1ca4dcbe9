import type { FastenerSet, JointSet, Outline, Part, StudyRecord } from '../record';
import { countInSum, outline } from '../record';
import { benchOwn, layoutOf, ownOfParts, partsByPlace, rollUp, rollUpAfterEdit, type Own, type RollUp } from '../bench';
import { STUDY_MEASURES, fastenerCostOwn, partCostOwn, type StudyMeasures } from './cost-measures';
import { fastenerCost } from './fastener-cost';
import { basisOf, partTerms } from './part-cost';

/** The measures of a study, laid out once. */
export const STUDY_LAYOUT = layoutOf(STUDY_MEASURES);

/** How many of each node one vehicle has: quantities of the node and all above it, multiplied. [node] */
const multiplied = (
  { parentOf }: Outline,
  partAt: readonly (Part | undefined)[],
  quantityOf: (part: Part) => number,
): readonly number[] => {
  const perVehicle: number[] = [];
  for (let place = 0; place < partAt.length; place++) {
    const part = partAt[place];
    perVehicle.push((perVehicle[parentOf[place]!] ?? 1) * (part ? quantityOf(part) : 1));
  }
  return perVehicle;
};

/** Of a range its low end: as it is counted. */
const counted = (part: Part): number => part.quantity;
/** Of a range its middle: as it enters mass and cost. */
const inSums = (part: Part): number => countInSum(part.quantity, part.evidence.quantity).mean;

type OwnOf = (part: Part, fasteners: readonly FastenerSet[], joints: readonly JointSet[], place: number) => Own;

/** What a part gives to every measure of a study: those of the bench and those of cost. */
const ownOf = (record: StudyRecord, perVehicle: readonly number[]): OwnOf => {
  const basis = basisOf(record.study);
  return (part, fasteners, joints, place) => {
    const { count, figures } = benchOwn(part, fasteners, joints);
    const { terms, boughtWhole } = partTerms(part, perVehicle[place] ?? 1, basis);
    const fastenerCosts = fasteners.length > 0 ? fastenerCostOwn(fasteners, (set) => fastenerCost(set, basis)) : null;
    const cost = partCostOwn(part, terms, boughtWhole);
    return { count, figures: fastenerCosts === null ? [...figures, cost] : [...figures, cost, { fastenerCost: fastenerCosts }] };
  };
};

/** A roll-up with all measures, cost included, and what it was made from. */
export interface StudyRollUp {
  readonly rolled: RollUp<StudyMeasures>;
  readonly perVehicle: readonly number[];
  readonly meanPerVehicle: readonly number[];
}

/** Rolls a whole study up under its own counting rule and cost basis. */
export const studyRollUp = (record: StudyRecord): StudyRollUp => {
  const tree = outline(record);
  const partAt = partsByPlace(record, tree);
  const perVehicle = multiplied(tree, partAt, counted);
  const meanPerVehicle = multiplied(tree, partAt, inSums);
  const own = ownOfParts(record, partAt, ownOf(record, meanPerVehicle));
  return { rolled: rollUp(STUDY_LAYOUT, tree, own, record.study.assembliesAs), perVehicle, meanPerVehicle };
};

/** True when the edit of a part moves nothing and multiplies nothing, so that only the totals above it change. */
const staysInPlace = (before: Part, after: Part): boolean =>
  before.parentId === after.parentId &&
  before.subsystemId === after.subsystemId &&
  before.vehicleId === after.vehicleId &&
  before.sequence === after.sequence &&
  before.quantity === after.quantity &&
  before.evidence.quantity === after.evidence.quantity;

/**
 * The roll-up after a change to one part or to its fastener and joint sets, from the roll-up before; worked out whole
 * when the change moved the part, multiplied it, or touched anything else.
 *
 * @param before roll-up of `was`
 * @param was record before the change
 * @param now record after it
 * @param partId the one part touched, or null when the change touched more
 */
export const studyRollUpAfter = (before: StudyRollUp, was: StudyRecord, now: StudyRecord, partId: string | null): StudyRollUp => {
  const place = partId === null ? undefined : before.rolled.outline.placeOf.get(partId);
  const partBefore = was.parts.find((part) => part.id === partId);
  const partAfter = now.parts.find((part) => part.id === partId);
  if (place === undefined || was.study !== now.study || !partBefore || !partAfter || !staysInPlace(partBefore, partAfter))
    return studyRollUp(now);
  const fasteners = now.fastenerSets.filter((set) => set.partId === partId);
  const joints = now.jointSets.filter((set) => set.partId === partId);
  const own = ownOf(now, before.meanPerVehicle)(partAfter, fasteners, joints, place);
  return { ...before, rolled: rollUpAfterEdit(before.rolled, place, own) };
};

/** The one part that a list of touched records comes down to, or null. */
export const onlyPart = (partIds: readonly string[]): string | null => {
  const [first, ...rest] = new Set(partIds);
  return first === undefined || rest.length > 0 ? null : first;
};
