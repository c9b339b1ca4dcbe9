import type { Outline, Part, StudyRecord } from '../../record';
import { counted } from '../../shared';

/** Parts of a study that were left closed or are damaged, in the order of the record. */
interface Register {
  readonly closed: readonly Part[];
  readonly damaged: readonly Part[];
}

/** Parts that were left closed and parts that came to harm, each in the order they were recorded. */
export const closedAndDamaged = (record: Pick<StudyRecord, 'parts'>): Register => {
  const order = [...record.parts].sort((a, b) => a.sequence - b.sequence || (a.id < b.id ? -1 : 1));
  return { closed: order.filter((p) => p.opened === 'closed'), damaged: order.filter((p) => p.damage !== '') };
};

/**
 * How many parts were left closed in and below every node of the outline: what is inside them is in no figure.
 *
 * @returns [node] parts left closed, the node itself included; each line of parts counts once
 */
export const closedBelow = (outline: Outline, parts: ReadonlyMap<string, Part>): Int32Array => {
  const closed = new Int32Array(outline.nodes.length);
  // every parent stands before its children, so that one pass from the end adds all up
  for (let at = outline.nodes.length - 1; at >= 0; at--) {
    const node = outline.nodes[at]!;
    if (node.kind === 'part' && parts.get(node.id)?.opened === 'closed') closed[at]! += 1;
    if (node.parent >= 0) closed[node.parent]! += closed[at]!;
  }
  return closed;
};

/** What a total does not hold: "1 part left closed is counted as it is, not what is inside it"; empty when nothing is closed. */
export const closedWords = (closedBelow: number): string =>
  closedBelow === 0
    ? ''
    : closedBelow === 1
      ? '1 part left closed: what is inside it is not in this figure'
      : `${counted(closedBelow, 'part')} left closed: what is inside them is not in this figure`;
