import type { Outline, Piece, StudyRecord } from '../../record';
import { counted } from '../../shared';

/** Pieces of a study that were left closed or are damaged, in the order of the record. */
export interface Register {
  readonly closed: readonly Piece[];
  readonly damaged: readonly Piece[];
}

export const closedAndDamaged = (record: Pick<StudyRecord, 'pieces'>): Register => {
  const order = [...record.pieces].sort((a, b) => a.sequence - b.sequence || (a.id < b.id ? -1 : 1));
  return { closed: order.filter((p) => p.opened === 'closed'), damaged: order.filter((p) => p.damage !== '') };
};

/**
 * How many pieces were left closed in and below every node of the outline: what is inside them is in no figure.
 *
 * @returns [node] pieces left closed, the node itself included; each line of pieces counts once
 */
export const closedBelow = (outline: Outline, pieces: ReadonlyMap<string, Piece>): Int32Array => {
  const closed = new Int32Array(outline.nodes.length);
  // every parent stands before its children, so that one pass from the end adds all up
  for (let at = outline.nodes.length - 1; at >= 0; at--) {
    const node = outline.nodes[at]!;
    if (node.kind === 'piece' && pieces.get(node.id)?.opened === 'closed') closed[at]! += 1;
    if (node.parent >= 0) closed[node.parent]! += closed[at]!;
  }
  return closed;
};

/** What a total does not hold: "1 piece left closed is counted as it is, not what is inside it"; empty when nothing is closed. */
export const closedWords = (closedBelow: number): string =>
  closedBelow === 0
    ? ''
    : closedBelow === 1
      ? '1 piece left closed: what is inside it is not in this figure'
      : `${counted(closedBelow, 'piece')} left closed: what is inside them is not in this figure`;
