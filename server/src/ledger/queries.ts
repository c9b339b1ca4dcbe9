import type { Entity, KeptChange, Op } from '@each-bolt/core/record';
import type { OwnChange } from '@each-bolt/core/wire';
import type { Db } from '../db/pool';
import { isoText, many, maybeOne, one } from '../db/rows';

/** Who has the turn waits so long for rows that somebody else is writing, then lets the others go first. */
const ROWS_WAIT_MS = 150;

/**
 * Takes the turn in the ledger of a study until the transaction ends: revisions have no gaps and nobody reads a half-written
 * record. From then on a row that a large change is writing is not waited for: the turn would be held all that time.
 */
export const takeTurn = (db: Db, studyId: string): Promise<unknown> =>
  db.query(`select pg_advisory_xact_lock(hashtextextended($1, 0)), set_config('lock_timeout', '${ROWS_WAIT_MS}', true)`, [studyId]);

/** Two sendings of one change, or of one archive, go one after the other. */
export const onlyOnce = (db: Db, id: string): Promise<unknown> => db.query('select pg_advisory_xact_lock(hashtextextended($1, 1))', [id]);

/**
 * Lets the planner of the database look at a table, which is named by the code alone, as it is within the transaction: rows by the
 * thousand that were just written are unknown to it, and each would be looked for among all. Not while another does.
 */
export const refreshStatistics = (db: Db, table: string): Promise<unknown> => db.query(`analyze (skip_locked) ${table}`);

interface ChangeHead {
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

interface NewChange {
  readonly id: string;
  readonly studyId: string;
  /** its revision, or its mark as long as its turn has not come */
  readonly revision: number;
  readonly mark: number | null;
  readonly personId: string | null;
  readonly madeBy: string;
  readonly device: string;
  readonly digest: Buffer;
  /** its ops as JSON */
  readonly opsText: string;
  /** null when it takes off what the ops add, and nothing else */
  readonly inverse: readonly Op[] | null;
  readonly undoes: string | null;
  /** the rows it touched */
  readonly rows: readonly { readonly entity: Entity; readonly id: string }[];
}

/**
 * Keeps a change with the rows it touched, and tells every process that serves the study once it is committed. It is made when it is
 * written: of several changes in one transaction each has its own time, and the list of studies its order.
 */
export const insertChange = async (db: Db, c: NewChange): Promise<void> => {
  await db.query(
    `insert into change (id, study_id, revision, mark, person_id, made_by, device, digest, ops, inverse, undoes, made_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, clock_timestamp())`,
    [
      ...[c.id, c.studyId, c.revision, c.mark, c.personId, c.madeBy, c.device, c.digest],
      ...[c.opsText, c.inverse && JSON.stringify(c.inverse), c.undoes],
    ],
  );
  await db.query(
    `with told as (select pg_notify('study_change', $1::text))
     insert into change_row (study_id, change_id, row_id, entity) select $1::uuid, $2, r.id, r.entity
     from unnest($3::uuid[], $4::text[]) as r(id, entity) cross join told`,
    [c.studyId, c.id, c.rows.map((row) => row.id), c.rows.map((row) => row.entity)],
  );
};

/** Gives a change that was written before its turn its revision, and the time of its turn. */
export const setChangeRevision = (db: Db, id: string, revision: number): Promise<unknown> =>
  db.query('update change set revision = $2, made_at = clock_timestamp() where id = $1', [id, revision]);

/** Rows that the changes after a revision touched. */
export const rowsSince = (
  db: Db,
  studyId: string,
  revision: number,
): Promise<readonly { readonly entity: Entity; readonly id: string }[]> =>
  many(
    db,
    `select distinct r.entity, r.row_id as id from change c join change_row r on r.change_id = c.id
     where c.study_id = $1 and c.revision > $2 order by r.entity, r.row_id`,
    [studyId, revision],
  );

/** Keeps the planner from joining each of very many rows with each, or leaves it to itself again. */
export const planForMany = (db: Db, isMany: boolean): Promise<unknown> =>
  db.query(`select set_config('enable_nestloop', $1, true)`, [isMany ? 'off' : 'on']);

const MADE_AT = isoText('c.made_at');
const ABOUT = `'id', c.id, 'revision', c.revision, 'madeAt', ${MADE_AT}, 'madeBy', c.made_by, 'personId', c.person_id, 'device', c.device,
  'undoes', c.undoes`;
const HEAD = `${ABOUT}, 'ops', c.ops`;
const DIGEST = `encode(c.digest, 'hex')`;
const UNDOING_ADD = `jsonb_build_object('kind', replace(o.op ->> 'kind', '.add', '.remove'), 'id', o.op -> 'id', 'was', o.op -> 'fields')`;
/** What undoes a change; of one that only adds it is not stored: it takes off what was added, the last first. */
const INVERSE = `coalesce(c.inverse, (
  select jsonb_agg(${UNDOING_ADD} order by o.place desc)
  from jsonb_array_elements(c.ops) with ordinality o(op, place)))`;
/** A change as JSON, put together by the database: a change of a whole import is passed on without being read here. */
const CHANGE = `json_build_object(${HEAD}, 'inverse', ${INVERSE})::text`;

/** Changes are read in portions of so many ops. What they take up as stored tells little: what repeats itself is packed a hundredfold. */
const PORTION_OPS = 2000;

/** The JSON of a change, with its revision. */
export interface ChangeText {
  readonly revision: number;
  readonly text: string;
}

/** The first changes after a revision, as JSON and in order: at most so many and no more than a portion, but at least one when there is any. */
export const changeTextsSince = (db: Db, studyId: string, revision: number, most: number): Promise<readonly ChangeText[]> =>
  many(
    db,
    `select c.revision, ${CHANGE} as text from change c
     where c.study_id = $1 and c.revision in (
       select revision from (
         select revision, sum(jsonb_array_length(ops)) over (order by revision) as ops, row_number() over (order by revision) as place
         from (select * from change where study_id = $1 and revision > $2 order by revision limit $3) next
       ) sized where ops <= ${PORTION_OPS} or place = 1)
     order by c.revision`,
    [studyId, revision, most],
  );

/** So many ops of a large change are held here at a time. */
const OPS_AT_ONCE = 500;

/** What a query with the id of a change gives, a text in each row, with commas between them. */
async function* listed(db: Db, query: string, id: string): AsyncGenerator<string> {
  await db.query(`declare listed no scroll cursor for ${query}`, [id]);
  for (let before = ''; ; before = ',') {
    const rows = await many<{ text: string }>(db, `fetch ${OPS_AT_ONCE} from listed`);
    if (rows.length > 0) yield before + rows.map(({ text }) => text).join(',');
    if (rows.length < OPS_AT_ONCE) break;
  }
  await db.query('close listed');
}

const listOfOps = (list: 'ops' | 'inverse', op: string, order: 'asc' | 'desc'): string =>
  `select ${op}::text as text from change c cross join lateral jsonb_array_elements(c.${list}) with ordinality o(op, place)
   where c.id = $1 order by o.place ${order}`;

async function* lineInParts(db: Db, id: string): AsyncGenerator<string> {
  const { head, onlyAdds } = await one<{ head: string; onlyAdds: boolean }>(
    db,
    `select rtrim(json_build_object(${ABOUT}, 'digest', ${DIGEST})::text, '}') as head, c.inverse is null as "onlyAdds" from change c where c.id = $1`,
    [id],
  );
  yield `${head}, "ops" : [`;
  yield* listed(db, listOfOps('ops', 'o.op', 'asc'), id);
  yield '], "inverse" : [';
  yield* listed(db, onlyAdds ? listOfOps('ops', UNDOING_ADD, 'desc') : listOfOps('inverse', 'o.op', 'asc'), id);
  yield ']}';
}

/**
 * Every change of a study as an archive holds them: in order, a line of JSON with its digest each, written by the database. What is
 * given is a stretch of the lines, and no more of a very large change than some of its ops. Runs within a transaction.
 */
export async function* changeLines(db: Db, studyId: string): AsyncGenerator<string> {
  const changes = await many<{ id: string; revision: number; ops: number }>(
    db,
    `select id, revision, jsonb_array_length(ops) as ops from change where study_id = $1 order by revision`,
    [studyId],
  );
  for (let at = 0; at < changes.length;) {
    let [end, ops] = [at, 0];
    while (end < changes.length && ops + changes[end]!.ops <= PORTION_OPS) ops += changes[end++]!.ops;
    if (end > at) {
      const lines = await many<{ text: string }>(
        db,
        `select json_build_object(${HEAD}, 'inverse', ${INVERSE}, 'digest', ${DIGEST})::text as text
         from change c where c.study_id = $1 and c.revision between $2 and $3 order by c.revision`,
        [studyId, changes[at]!.revision, changes[end - 1]!.revision],
      );
      yield `${lines.map(({ text }) => text).join('\n')}\n`;
      at = end;
    } else {
      yield* lineInParts(db, changes[at]!.id);
      yield '\n';
      at += 1;
    }
  }
}

export const changeText = async (db: Db, studyId: string, id: string): Promise<string | null> =>
  (await maybeOne<{ text: string }>(db, `select ${CHANGE} as text from change c where c.study_id = $1 and c.id = $2`, [studyId, id]))
    ?.text ?? null;

export const changeOf = async (db: Db, studyId: string, id: string): Promise<KeptChange | null> =>
  JSON.parse((await changeText(db, studyId, id)) ?? 'null') as KeptChange | null;

/** So many ops of a change are told in a history: those of the rows that are asked for, or its first. */
const TOLD_OPS = 50;

/**
 * Changes before a revision that touched any of these rows, or any at all, as JSON, newest first. Of a very large one some of its ops are
 * told, with what undoes these, and how many there are (`opCount`).
 */
export const changeTextsBefore = (
  db: Db,
  studyId: string,
  before: number,
  rowIds: readonly string[] | null,
  most: number,
): Promise<readonly ChangeText[]> =>
  many(
    db,
    `with found as (
       select h.*, jsonb_array_length(h.ops) as op_count from change h where h.study_id = $1 and h.revision < $2
         ${rowIds ? 'and h.id in (select r.change_id from change_row r where r.study_id = $1 and r.row_id = any($3::uuid[]))' : ''}
       order by h.revision desc limit $4
     ), c as (
       select f.id, f.revision, f.made_at, f.made_by, f.person_id, f.device, f.undoes, f.op_count,
         case when f.op_count <= ${TOLD_OPS} then f.ops else (
           select coalesce(jsonb_agg(told.op order by told.place), '[]') from (
             select o.op, o.place from jsonb_array_elements(f.ops) with ordinality o(op, place)
             where $3::uuid[] is null or o.op ->> 'id' = any($3::text[]) order by o.place limit ${TOLD_OPS}) told) end as ops,
         f.inverse
       from found f
     )
     select c.revision, json_build_object(${HEAD}, 'opCount', c.op_count, 'inverse', case when c.op_count <= ${TOLD_OPS} or c.inverse is null
       then ${INVERSE}
       else (select coalesce(jsonb_agg(i.op order by i.place), '[]') from jsonb_array_elements(c.inverse) with ordinality i(op, place)
             where i.op ->> 'id' in (select o ->> 'id' from jsonb_array_elements(c.ops) o)) end)::text as text
     from c order by c.revision desc`,
    [studyId, before, rowIds, most],
  );

/** A change as those who follow the study hear of it. */
export interface HeardChange {
  readonly revision: number;
  /** without what would undo it; null when it is too large to be told to everybody at once */
  readonly text: string | null;
  /** whether it is about who is of the study */
  readonly isOfMembers: boolean;
}

/** A change stored in more than this, packed, or of more ops is fetched by whoever follows. */
const TOLD_BYTES = 64 * 1024;
const MOST_TOLD_OPS = 400;

export const heardSince = (db: Db, studyId: string, revision: number, most: number): Promise<readonly HeardChange[]> =>
  many(
    db,
    `select c.revision, exists (select from change_row r where r.change_id = c.id and r.entity = 'member') as "isOfMembers",
       case when pg_column_size(c.ops) <= ${TOLD_BYTES} and jsonb_array_length(c.ops) <= ${MOST_TOLD_OPS} then json_build_object(${HEAD})::text end as text
     from change c where c.study_id = $1 and c.revision > $2 order by c.revision limit $3`,
    [studyId, revision, most],
  );

/** What a change did to one row, and who made it. */
export type ChangeOfRow = Pick<KeptChange, 'madeAt' | 'madeBy' | 'ops'>;

/** The changes that touched a row, newest first, with their ops of that row alone. */
export const changesOfRow = (db: Db, studyId: string, rowId: string, most: number): Promise<readonly ChangeOfRow[]> =>
  many(
    db,
    `select ${MADE_AT} as "madeAt", c.made_by as "madeBy",
       (select coalesce(jsonb_agg(o.op order by o.place), '[]') from jsonb_array_elements(c.ops) with ordinality o(op, place)
        where o.op ->> 'id' = $2::text) as ops
     from (select c.* from change_row r join change c on c.id = r.change_id
           where r.study_id = $1 and r.row_id = $2::uuid order by c.revision desc limit $3) c
     order by c.revision desc`,
    [studyId, rowId, most],
  );

/** What a person did in a study, oldest first. */
export const changesOfPerson = (db: Db, studyId: string, personId: string): Promise<readonly OwnChange[]> =>
  many(db, 'select id, revision, undoes from change where study_id = $1 and person_id = $2 order by revision', [studyId, personId]);
