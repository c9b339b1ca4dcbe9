import type { StudyRecord } from '@each-bolt/core/record';
import { fastenerSetsOf, jointSetsOf, picturesOf, piecesOf } from '../bench/queries';
import type { Db } from '../db/pool';
import { membersOf, questionsOf, studyById, studyHead, subsystemsOf, vehiclesOf } from './queries';

/** The whole record of a study as of one moment, or null when there is none. Runs in a transaction of its own. */
export const readRecord = async (db: Db, studyId: string): Promise<StudyRecord | null> => {
  await db.query('set transaction isolation level repeatable read, read only');
  const head = await studyHead(db, studyId);
  const study = await studyById(db, studyId);
  if (head === null || study === null) return null;
  return {
    revision: head.revision,
    study,
    vehicles: await vehiclesOf(db, studyId),
    subsystems: await subsystemsOf(db, studyId),
    pieces: await piecesOf(db, studyId),
    fastenerSets: await fastenerSetsOf(db, studyId),
    jointSets: await jointSetsOf(db, studyId),
    members: await membersOf(db, studyId),
    questions: await questionsOf(db, studyId),
    pictures: await picturesOf(db, studyId),
  };
};
