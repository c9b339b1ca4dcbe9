import { ENTITIES, LIST_OF } from '@each-bolt/core/record';
import type { Db } from '../db/pool';
import { STORES } from '../ledger/stores';
import { studyById, studyHead } from './queries';

/**
 * The whole record of a study as of one moment, as JSON in pieces, or null when there is none: the database writes it, so that a record of any size passes through without being read here. Runs in a
 * transaction of its own.
 */
export const readRecordText = async (
  db: Db,
  studyId: string,
): Promise<{ readonly revision: number; readonly pieces: readonly string[] } | null> => {
  await db.query('set transaction isolation level repeatable read, read only');
  const head = await studyHead(db, studyId);
  const study = await studyById(db, studyId);
  if (head === null || study === null) return null;
  const pieces = [`{"revision":${head.revision},"study":${JSON.stringify(study)}`];
  for (const entity of ENTITIES) if (entity !== 'study') pieces.push(`,"${LIST_OF[entity]}":`, await STORES[entity].allText(db, studyId));
  return { revision: head.revision, pieces: [...pieces, '}'] };
};
