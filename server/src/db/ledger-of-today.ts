import { changeOfToday, type Masses, type Op } from '@each-bolt/core/record';
import type { Db } from './pool';
import { many } from './rows';

/** So many changes are held here at a time. */
const AT_ONCE = 20;

interface Stored {
  readonly id: string;
  readonly revision: number;
  readonly ops: readonly Op[];
  readonly inverse: readonly Op[] | null;
}

const studyOfToday = async (db: Db, studyId: string): Promise<void> => {
  const masses: Masses = new Map();
  for (let after = 0; ;) {
    const changes = await many<Stored>(
      db,
      'select id, revision, ops, inverse from change where study_id = $1 and revision > $2 order by revision limit $3',
      [studyId, after, AT_ONCE],
    );
    for (const change of changes) {
      const { ops, inverse } = changeOfToday(change, masses);
      if (ops !== change.ops)
        await db.query('update change set ops = $2, inverse = $3 where id = $1', [
          change.id,
          JSON.stringify(ops),
          inverse && JSON.stringify(inverse),
        ]);
    }
    const last = changes.at(-1);
    if (!last) return;
    after = last.revision;
  }
};

/** Puts every kept change of every study into the words of today, so that a history, an undo and an archive speak as the record does. */
export const ledgerOfToday = async (db: Db): Promise<void> => {
  for (const { id } of await many<{ id: string }>(db, 'select id from study')) await studyOfToday(db, id);
};
