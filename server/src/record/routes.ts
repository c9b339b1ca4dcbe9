import { Router } from 'express';
import type { StudyRecord } from '@each-bolt/core/record';
import { fastenerSetsOf, jointSetsOf, piecesOf } from '../bench/queries';
import type { Db, Pool } from '../db/pool';
import { transaction } from '../db/transaction';
import { Problem } from '../http/problem';
import { studyIdOf } from '../ledger/routes';
import { studyById, studyLines, studyRevision, subsystemsOf, vehiclesOf } from './queries';

const readRecord = async (db: Db, studyId: string): Promise<StudyRecord | null> => {
  await db.query('set transaction isolation level repeatable read, read only');
  const revision = await studyRevision(db, studyId);
  const study = await studyById(db, studyId);
  if (revision === null || study === null) return null;
  return {
    revision,
    study,
    vehicles: await vehiclesOf(db, studyId),
    subsystems: await subsystemsOf(db, studyId),
    pieces: await piecesOf(db, studyId),
    fastenerSets: await fastenerSetsOf(db, studyId),
    jointSets: await jointSetsOf(db, studyId),
  };
};

/** GET /api/studies and GET /api/studies/:id */
export const recordRoutes = (pool: Pool): Router => {
  const router = Router();
  router.get('/', async (_request, response) => {
    response.json(await studyLines(pool));
  });
  router.get('/:id', async (request, response) => {
    const studyId = studyIdOf(request.params);
    const known = request.get('If-None-Match');
    const revision = await studyRevision(pool, studyId);
    if (revision === null) throw new Problem('not-found', 'There is no such study');
    response.set('Cache-Control', 'no-cache');
    if (known === `"${revision}"`) {
      response.status(304).end();
      return;
    }
    const record = await transaction(pool, (db) => readRecord(db, studyId));
    if (!record) throw new Problem('not-found', 'There is no such study');
    response.set('ETag', `"${record.revision}"`).json(record);
  });
  return router;
};
