import type { KeptChange } from '@each-bolt/core/record';
import type { Db } from '../db/pool';
import { many, maybeOne } from '../db/rows';
import type { ArchiveChange, ArchivePerson } from './format';

/** People named among the members, owners or history of a study. */
export const peopleOfStudy = (db: Db, studyId: string): Promise<readonly ArchivePerson[]> =>
  many(
    db,
    `select p.id, p.login, p.name from person p where p.id in (
       select person_id from member where study_id = $1
       union select owner_id from question where study_id = $1
       union select person_id from change where study_id = $1) order by p.id`,
    [studyId],
  );

/** A change id or record id of these that is here already, or null. Tables are named by the code alone. */
export const takenId = (db: Db, tables: readonly string[], ids: readonly string[]): Promise<{ readonly id: string } | null> =>
  maybeOne(
    db,
    `with wanted as materialized (select unnest($1::uuid[]) as id)
     select id from (${['change', ...tables].map((table) => `select t.id from ${table} t join wanted w on w.id = t.id`).join(' union all ')}) taken limit 1`,
    [ids],
  );

/** How the history names the device of a change that was brought in. */
const TOLD = 'told by an archive';

/**
 * Puts the ledger of an archived study back as the archive tells it. What it says is nobody's of this organisation: no account here made it,
 * whatever ids the archive holds.
 */
export const insertChanges = (db: Db, studyId: string, changes: readonly ArchiveChange[]): Promise<unknown> =>
  db.query(
    `insert into change (id, study_id, revision, made_at, made_by, person_id, device, digest, ops, inverse, undoes)
     select r.id, $1, r.revision, r."madeAt", r."madeBy", null, case when starts_with(r.device, '${TOLD}') then r.device else left('${TOLD}, ' || r.device, 100) end, decode(r.digest, 'hex'), r.ops, r.inverse, r.undoes
     from jsonb_to_recordset($2::jsonb) as r(id uuid, revision bigint, "madeAt" timestamptz, "madeBy" text, device text,
       digest text, ops jsonb, inverse jsonb, undoes uuid) order by r.revision`,
    [studyId, JSON.stringify(changes)],
  );

export const insertChangeRows = (db: Db, studyId: string, changes: readonly Pick<KeptChange, 'id' | 'ops'>[]): Promise<unknown> => {
  const rows = changes.flatMap((change) => change.ops.map((op) => ({ change: change.id, id: op.id, entity: op.kind.split('.')[0] })));
  return db.query(
    `insert into change_row (study_id, change_id, row_id, entity)
     select distinct $1::uuid, r.change, r.id, r.entity from jsonb_to_recordset($2::jsonb) as r(change uuid, id uuid, entity text)`,
    [studyId, JSON.stringify(rows)],
  );
};

export const loginsLike = (db: Db, logins: readonly string[]): Promise<readonly { readonly login: string }[]> =>
  many(db, 'select login from person where login = any($1) order by login', [logins]);
