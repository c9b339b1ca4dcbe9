import type { Outline, Piece, StudyRecord } from '../record';
import { countInSum, outline } from '../record';
import { ownFigures, ownFiguresOf, rollUp, rollUpAfterEdit, type CostOf, type RollUp } from '../bench';
import { fastenerCost } from './fastener-cost';
import { basisOf, pieceAmount } from './piece-cost';

/** How many of each node one vehicle has: quantities of the node and all above it, multiplied. [node] */
const multiplied = (pieces: readonly Piece[], { nodes }: Outline, quantityOf: (piece: Piece) => number): readonly number[] => {
  const quantity = new Map(pieces.map((piece) => [piece.id, quantityOf(piece)]));
  const perVehicle: number[] = [];
  for (const node of nodes) perVehicle.push((perVehicle[node.parent] ?? 1) * (node.kind === 'piece' ? (quantity.get(node.id) ?? 1) : 1));
  return perVehicle;
};

/** The same as counted: of a range its low end. [node] */
export const perVehicleOf = (record: StudyRecord, outline: Outline): readonly number[] =>
  multiplied(record.pieces, outline, (piece) => piece.quantity);

/** The same as it enters mass and cost: of a range its middle. [node] */
export const meanPerVehicleOf = (record: StudyRecord, outline: Outline): readonly number[] =>
  multiplied(record.pieces, outline, (piece) => countInSum(piece.quantity, piece.known.quantity).mean);

const costOf = (record: StudyRecord, placeOf: Outline['placeOf'], perVehicle: readonly number[]): CostOf => {
  const basis = basisOf(record.study);
  return {
    piece: (piece) => pieceAmount(piece, perVehicle[placeOf.get(piece.id) ?? -1] ?? 1, basis),
    fastener: (set) => fastenerCost(set, basis),
  };
};

/** A roll-up with all measures, cost included, and what it was made from. */
export interface StudyRollUp {
  readonly rolled: RollUp;
  readonly perVehicle: readonly number[];
  readonly meanPerVehicle: readonly number[];
}

/** Rolls a whole study up under its own counting rule and cost basis. */
export const studyRollUp = (record: StudyRecord): StudyRollUp => {
  const tree = outline(record);
  const perVehicle = perVehicleOf(record, tree);
  const meanPerVehicle = meanPerVehicleOf(record, tree);
  const own = ownFiguresOf(record, tree, costOf(record, tree.placeOf, meanPerVehicle));
  return { rolled: rollUp(tree, own, record.study.assembliesAs), perVehicle, meanPerVehicle };
};

/** True when the edit of a piece moves nothing and multiplies nothing, so that only the totals above it change. */
const staysInPlace = (before: Piece, after: Piece): boolean =>
  before.parentId === after.parentId &&
  before.subsystemId === after.subsystemId &&
  before.vehicleId === after.vehicleId &&
  before.sequence === after.sequence &&
  before.quantity === after.quantity &&
  before.known.quantity === after.known.quantity;

/**
 * The roll-up after a change to one piece or to its fastener and joint sets, from the roll-up before; worked out whole
 * when the change moved the piece, multiplied it, or touched anything else.
 *
 * @param before roll-up of `was`
 * @param was record before the change
 * @param now record after it
 * @param pieceId the one piece touched, or null when the change touched more
 */
export const studyRollUpAfter = (before: StudyRollUp, was: StudyRecord, now: StudyRecord, pieceId: string | null): StudyRollUp => {
  const place = pieceId === null ? undefined : before.rolled.outline.placeOf.get(pieceId);
  const pieceBefore = was.pieces.find((piece) => piece.id === pieceId);
  const pieceAfter = now.pieces.find((piece) => piece.id === pieceId);
  if (place === undefined || was.study !== now.study || !pieceBefore || !pieceAfter || !staysInPlace(pieceBefore, pieceAfter))
    return studyRollUp(now);
  const fasteners = now.fastenerSets.filter((set) => set.pieceId === pieceId);
  const joints = now.jointSets.filter((set) => set.pieceId === pieceId);
  const figures = ownFigures(pieceAfter, fasteners, joints, costOf(now, before.rolled.outline.placeOf, before.meanPerVehicle));
  return { ...before, rolled: rollUpAfterEdit(before.rolled, place, figures) };
};

/** The one piece that a list of touched records comes down to, or null. */
export const onlyPiece = (pieceIds: readonly string[]): string | null => {
  const [first, ...rest] = new Set(pieceIds);
  return first === undefined || rest.length > 0 ? null : first;
};
