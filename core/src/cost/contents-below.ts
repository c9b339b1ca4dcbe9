import type { FastenerSet, JointSet, Piece, StudyRecord } from '../record';
import { groupByPiece, ownAt, type OwnFigures } from '../bench';
import type { StudyRollUp } from './study-roll-up';

/** One piece below a node, with what it adds by itself and how many of it one vehicle has. */
export interface PieceBelow {
  readonly piece: Piece;
  readonly own: OwnFigures;
  readonly perVehicle: number;
  /** the same as it enters mass and cost: the middle of ranges */
  readonly meanPerVehicle: number;
  readonly isLeaf: boolean;
  /** place in the outline */
  readonly place: number;
}

export interface ContentsBelow {
  /** parents before what is inside them */
  readonly pieces: readonly PieceBelow[];
  readonly fastenersOf: (pieceId: string) => readonly FastenerSet[];
  readonly jointsOf: (pieceId: string) => readonly JointSet[];
}

/** All pieces below a node of the outline, at every level. */
export const contentsBelow = (record: StudyRecord, { rolled, perVehicle, meanPerVehicle }: StudyRollUp, key: string): ContentsBelow => {
  const { nodes, placeOf } = rolled.outline;
  const root = nodes[placeOf.get(key) ?? -1];
  const byId = new Map(record.pieces.map((piece) => [piece.id, piece]));
  const fasteners = groupByPiece(record.fastenerSets);
  const joints = groupByPiece(record.jointSets);
  const pieces: PieceBelow[] = [];
  const waiting = [...(root?.children ?? [])].reverse();
  for (let place = waiting.pop(); place !== undefined; place = waiting.pop()) {
    const node = nodes[place];
    const own = ownAt(rolled, place);
    if (!node || !own) continue;
    const piece = node.kind === 'piece' ? byId.get(node.id) : undefined;
    if (piece)
      pieces.push({
        piece,
        own,
        perVehicle: perVehicle[place] ?? 1,
        meanPerVehicle: meanPerVehicle[place] ?? 1,
        isLeaf: node.children.length === 0,
        place,
      });
    for (let i = node.children.length - 1; i >= 0; i--) waiting.push(node.children[i]!);
  }
  return { pieces, fastenersOf: (id) => fasteners.get(id) ?? [], jointsOf: (id) => joints.get(id) ?? [] };
};
