import type { Study } from '@each-bolt/core/record';
import type { StudyLine } from '@each-bolt/core/wire';
import type { Db } from '../db/pool';
import { isoText, many, maybeOne } from '../db/rows';

/** The studies a person is in, the one changed last first. */
export const studyLines = (db: Db, personId: string): Promise<readonly StudyLine[]> =>
  many(
    db,
    `select s.id, s.title, s.revision, s.state, m.role,
       array(select v.name from vehicle v where v.study_id = s.id order by v.sequence, v.id) as vehicles,
       (select count(*) from part p where p.study_id = s.id) as parts,
       (select count(*) from question q where q.study_id = s.id and q.state = 'open') as "openQuestions",
       ${isoText('c.made_at')} as "changedAt"
     from study s join member m on m.study_id = s.id and m.person_id = $1
       left join change c on c.study_id = s.id and c.revision = s.revision
     order by s.state desc, c.made_at desc nulls last, s.id`,
    [personId],
  );

export const anyStudy = async (db: Db): Promise<boolean> =>
  (await maybeOne<{ id: string }>(db, 'select id from study order by id limit 1')) !== null;

/** Revision and state of a study, or null when there is none. */
export const studyHead = (db: Db, studyId: string): Promise<{ readonly revision: number; readonly state: Study['state'] } | null> =>
  maybeOne(db, 'select revision, state from study where id = $1', [studyId]);

/** Says of which study another is a copy; the copy of a copy is one of the first. */
export const setCopyOf = (db: Db, studyId: string, originalId: string): Promise<unknown> =>
  db.query('update study set copy_of = coalesce((select copy_of from study where id = $2), $2) where id = $1', [studyId, originalId]);

export const setRevision = (db: Db, studyId: string, revision: number): Promise<unknown> =>
  db.query('update study set revision = $2 where id = $1', [studyId, revision]);

/** A row, and what it is called. */
export interface Named {
  readonly id: string;
  readonly name: string;
}

/** Makes somebody lead of a study that has none, outside the ledger. */
export const insertMember = (db: Db, studyId: string, id: string, personId: string): Promise<unknown> =>
  db.query(
    `insert into member (study_id, id, version, person_id, role) select s.id, $2, s.revision, $3, 'lead' from study s where s.id = $1`,
    [studyId, id, personId],
  );

/** The study, when nobody leads it. */
export const leaderless = (db: Db, studyId: string): Promise<readonly Named[]> =>
  many(
    db,
    `select s.id, s.title as name from study s
     where s.id = $1 and not exists (select from member m where m.study_id = s.id and m.role = 'lead') order by s.id`,
    [studyId],
  );

/** Touched questions whose owner is not of the study. */
export const ownerlessQuestions = (db: Db, studyId: string, touched: readonly string[]): Promise<readonly Named[]> =>
  many(
    db,
    `select q.id, left(q.text, 60) as name from question q
     where q.study_id = $1 and q.id = any($2) and q.owner_id is not null
       and not exists (select from member m where m.study_id = q.study_id and m.person_id = q.owner_id)
     order by q.id`,
    [studyId, touched],
  );
