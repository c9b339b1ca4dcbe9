import type { Op } from '@each-bolt/core/record';
import type { Db } from '../db/pool';
import { many, maybeOne } from '../db/rows';

/** Changes of one study queue up here, so that revisions have no gaps and nobody reads a half-written record. */
export const lockStudy = (db: Db, studyId: string): Promise<unknown> =>
  db.query('select pg_advisory_xact_lock(hashtextextended($1, 0))', [studyId]);

export interface KeptChange {
  readonly studyId: string;
  readonly revision: number;
  readonly digest: Buffer;
}

export const changeById = (db: Db, id: string): Promise<KeptChange | null> =>
  maybeOne(db, 'select study_id as "studyId", revision, digest from change where id = $1', [id]);

export interface NewChange {
  readonly id: string;
  readonly studyId: string;
  readonly revision: number;
  readonly madeBy: string;
  readonly device: string;
  readonly digest: Buffer;
  readonly ops: readonly Op[];
  readonly inverse: readonly Op[];
}

export const insertChange = (db: Db, c: NewChange): Promise<unknown> =>
  db.query(
    `insert into change (id, study_id, revision, made_by, device, digest, ops, inverse)
     values ($1, $2, $3, $4, $5, $6, $7, $8)`,
    [c.id, c.studyId, c.revision, c.madeBy, c.device, c.digest, JSON.stringify(c.ops), JSON.stringify(c.inverse)],
  );

export interface ChangeLine {
  readonly id: string;
  readonly revision: number;
  readonly madeAt: Date;
  readonly madeBy: string;
  readonly device: string;
  readonly ops: readonly Op[];
  readonly inverse: readonly Op[];
}

export const changesSince = (db: Db, studyId: string, revision: number, most: number): Promise<readonly ChangeLine[]> =>
  many(
    db,
    `select id, revision, made_at as "madeAt", made_by as "madeBy", device, ops, inverse
     from change where study_id = $1 and revision > $2 order by revision limit $3`,
    [studyId, revision, most],
  );
