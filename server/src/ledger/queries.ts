import type { Entity, KeptChange, Op } from '@each-bolt/core/record';
import type { Db } from '../db/pool';
import { many, maybeOne } from '../db/rows';

/** Changes of one study queue up here, so that revisions have no gaps and nobody reads a half-written record. */
export const lockStudy = (db: Db, studyId: string): Promise<unknown> =>
  db.query('select pg_advisory_xact_lock(hashtextextended($1, 0))', [studyId]);

export interface ChangeHead {
  readonly studyId: string;
  readonly revision: number;
  readonly digest: Buffer;
  readonly personId: string | null;
  readonly undoneBy: string | null;
}

export const changeById = (db: Db, id: string): Promise<ChangeHead | null> =>
  maybeOne(
    db,
    `select c.study_id as "studyId", c.revision, c.digest, c.person_id as "personId", u.id as "undoneBy"
     from change c left join change u on u.undoes = c.id where c.id = $1`,
    [id],
  );

export interface NewChange {
  readonly id: string;
  readonly studyId: string;
  readonly revision: number;
  readonly personId: string | null;
  readonly madeBy: string;
  readonly device: string;
  readonly digest: Buffer;
  readonly ops: readonly Op[];
  readonly inverse: readonly Op[];
  readonly undoes: string | null;
  /** the rows it touched */
  readonly rows: readonly { readonly entity: Entity; readonly id: string }[];
}

/** Keeps a change with the rows it touched, and tells every process that serves the study once it is committed. */
export const insertChange = async (db: Db, c: NewChange): Promise<void> => {
  await db.query(
    `insert into change (id, study_id, revision, person_id, made_by, device, digest, ops, inverse, undoes)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)`,
    [c.id, c.studyId, c.revision, c.personId, c.madeBy, c.device, c.digest, JSON.stringify(c.ops), JSON.stringify(c.inverse), c.undoes],
  );
  await db.query(
    `with told as (select pg_notify('study_change', $1::text))
     insert into change_row (study_id, revision, row_id, entity) select $1::uuid, $2, r.id, r.entity
     from unnest($3::uuid[], $4::text[]) as r(id, entity) cross join told`,
    [c.studyId, c.revision, c.rows.map((row) => row.id), c.rows.map((row) => row.entity)],
  );
};

// times leave as ISO text, the one spelling the client reads
const CHANGE = `c.id, c.revision, to_char(c.made_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as "madeAt", c.made_by as "madeBy",
  c.person_id as "personId", c.device, c.ops, c.inverse, c.undoes`;

export const changesSince = (db: Db, studyId: string, revision: number, most: number): Promise<readonly KeptChange[]> =>
  many(db, `select ${CHANGE} from change c where c.study_id = $1 and c.revision > $2 order by c.revision limit $3`, [
    studyId,
    revision,
    most,
  ]);

export const changeOf = (db: Db, studyId: string, id: string): Promise<KeptChange | null> =>
  maybeOne(db, `select ${CHANGE} from change c where c.study_id = $1 and c.id = $2`, [studyId, id]);

/** Changes before a revision, newest first. */
export const changesBefore = (db: Db, studyId: string, before: number, most: number): Promise<readonly KeptChange[]> =>
  many(db, `select ${CHANGE} from change c where c.study_id = $1 and c.revision < $2 order by c.revision desc limit $3`, [
    studyId,
    before,
    most,
  ]);

/** Changes that touched a row, before a revision, newest first. */
export const changesOfRow = (db: Db, studyId: string, rowId: string, before: number, most: number): Promise<readonly KeptChange[]> =>
  many(
    db,
    `select ${CHANGE} from change_row r join change c on c.study_id = r.study_id and c.revision = r.revision
     where r.study_id = $1 and r.row_id = $2 and r.revision < $3 order by r.revision desc limit $4`,
    [studyId, rowId, before, most],
  );

/** Changes that touched any of these rows, before a revision, newest first. */
export const changesOfRows = (
  db: Db,
  studyId: string,
  rowIds: readonly string[],
  before: number,
  most: number,
): Promise<readonly KeptChange[]> =>
  many(
    db,
    `select ${CHANGE} from change c
     where c.study_id = $1 and c.revision < $3
       and exists (select from change_row r where r.study_id = $1 and r.revision = c.revision and r.row_id = any($2))
     order by c.revision desc limit $4`,
    [studyId, rowIds, before, most],
  );

/** A person's own change as the undo stack needs it. */
export interface OwnChange {
  readonly id: string;
  readonly revision: number;
  readonly undoes: string | null;
}

/** What a person did in a study, oldest first. */
export const changesOfPerson = (db: Db, studyId: string, personId: string): Promise<readonly OwnChange[]> =>
  many(db, 'select id, revision, undoes from change where study_id = $1 and person_id = $2 order by revision', [studyId, personId]);
