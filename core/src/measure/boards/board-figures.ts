import { fixed, issue, type Issue } from '../../shared';
import type { Board, ComponentClass, ComponentSet, Part } from '../../record';
import { rollup, sum } from 'd3-array';

export interface BoardFigures {
  /** of one side, m² */
  readonly areaM2: number | null;
  readonly fitted: number;
  readonly empty: number;
  /** components on each cm² of one side of the board; null without a size */
  readonly perCm2: number | null;
  /** by class, the most first, with places left empty */
  readonly byClass: readonly { readonly componentClass: ComponentClass; readonly fitted: number; readonly empty: number }[];
  readonly sides: number | null;
  readonly pressFitPins: number | null;
  readonly solderedPins: number | null;
  readonly handJoints: number | null;
  readonly issues: readonly Issue[];
}

const CM2 = 1e-4;

/** A board that does not lie flat in a box of these outsides, in whichever way. */
const isLargerThan = (board: readonly [number, number], box: readonly number[]): boolean => {
  const [long, wide] = [Math.max(...board), Math.min(...board)];
  const sides = [...box].sort((a, b) => b - a);
  return long > sides[0]! || wide > sides[1]!;
};

/**
 * Area, components by class and per cm², places left empty, pins; and whether the board lies in the part it is in.
 *
 * @param box the part that holds the board, with its envelope where that is known
 */
export const boardFigures = (board: Board | null, components: readonly ComponentSet[], box: Part | null): BoardFigures => {
  const areaM2 = board?.lengthM && board.widthM ? board.lengthM * board.widthM : null;
  const counts = rollup(
    components,
    (alike) => ({ fitted: sum(alike, (c) => (c.fitted ? c.count : 0)), empty: sum(alike, (c) => (c.fitted ? 0 : c.count)) }),
    ({ componentClass }) => componentClass,
  );
  const byClass = [...counts]
    .map(([componentClass, count]) => ({ componentClass, ...count }))
    .sort((a, b) => b.fitted - a.fitted || b.empty - a.empty);
  const fitted = sum(byClass, (c) => c.fitted);
  const size = [box?.lengthM ?? null, box?.widthM ?? null, box?.heightM ?? null];
  const issues =
    board && areaM2 !== null && size.every((side) => side !== null) && isLargerThan([board.lengthM!, board.widthM!], size)
      ? [
          issue(
            'board-larger',
            `The board of ${fixed(board.lengthM! * 1000, 0)} × ${fixed(board.widthM! * 1000, 0)} mm does not lie in “${box!.name}” of ${size.map((side) => fixed(side * 1000, 0)).join(' × ')} mm: one of the two sizes is wrong`,
            'lengthM',
            board.id,
          ),
        ]
      : [];
  return {
    ...{ areaM2, fitted, empty: sum(byClass, (c) => c.empty), byClass, issues },
    perCm2: areaM2 === null ? null : fitted / (areaM2 / CM2),
    sides: board?.sides ?? null,
    pressFitPins: board?.pressFitPins ?? null,
    solderedPins: board?.solderedPins ?? null,
    handJoints: board?.handJoints ?? null,
  };
};
