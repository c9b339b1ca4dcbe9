import { cellsOf, type Conflict } from '@each-bolt/core/record';
import type { ToldConflict } from '@each-bolt/core/wire';
import type { Db } from '../db/pool';
import { changesOfRow, type ChangeOfRow } from './queries';

/** How far back the one who changed a value is looked for. */
const MOST_CHANGES = 50;

/** So many conflicts of a change are told at once. */
const MOST_CONFLICTS = 100;

const touches = ({ ops }: ChangeOfRow, cell: string): boolean =>
  ops.some((op) => !('was' in op) || ('fields' in op && cellsOf(op.fields).has(cell)));

const told = async (db: Db, studyId: string, conflict: Conflict): Promise<ToldConflict> => {
  const changes = await changesOfRow(db, studyId, conflict.id, MOST_CHANGES);
  const [last] = changes;
  const cells = conflict.cells.map((cell) => {
    const change = changes.find((c) => touches(c, cell.cell)) ?? last;
    return { ...cell, by: change?.madeBy ?? null, at: change?.madeAt ?? null };
  });
  return { ...conflict, cells, by: last?.madeBy ?? null, at: last?.madeAt ?? null };
};

/** Conflicts with who and when, looked up in the ledger. */
export const toldConflicts = async (db: Db, studyId: string, conflicts: readonly Conflict[]): Promise<readonly ToldConflict[]> => {
  const all: ToldConflict[] = [];
  // whoever settles so many looks at the next ones when they are sent again
  for (const conflict of conflicts.slice(0, MOST_CONFLICTS)) all.push(await told(db, studyId, conflict));
  return all;
};
