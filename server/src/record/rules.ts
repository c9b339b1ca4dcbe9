import { issue } from '@each-bolt/core/shared';
import type { RecordRule } from '../db/store';
import { leaderless, ownerlessQuestions } from './queries';

/** Somebody leads every study. */
export const memberRule: RecordRule = async (db, studyId) =>
  (await leaderless(db, studyId)).map(({ id, name }) =>
    issue('lead-missing', `“${name}” would have nobody who leads it; make someone else a lead first`, 'role', id),
  );

/** A question is owned by somebody of the study. */
export const questionRule: RecordRule = async (db, studyId, touched) =>
  (
    await ownerlessQuestions(
      db,
      studyId,
      touched.map(({ id }) => id),
    )
  ).map(({ id, name }) => issue('owner-missing', `“${name}” would be owned by somebody who is not of this study`, 'ownerId', id));
