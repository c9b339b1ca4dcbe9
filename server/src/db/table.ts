import type { Entity, FieldsOf, RowOf } from '@each-bolt/core/record';
import type { Store } from '../ledger/store';
import { copyIn } from './copy-in';
import { many, one } from './rows';

/** SQL types of columns. `money` is numeric that travels as its digits. */
export type SqlType = 'uuid' | 'text' | 'integer' | 'float8' | 'boolean' | 'date' | 'jsonb' | 'money';

/** The column of every field of a kind of record; a missing or extra field does not compile. */
export type Columns<E extends Entity> = { readonly [K in keyof FieldsOf[E]]-?: SqlType };

const columnOf = (field: string): string => field.replace(/[A-Z]/g, (capital) => `_${capital.toLowerCase()}`);

/** The version of a row of the table t: the revision that wrote it last; a large change left its mark in place of it. */
export const VERSION = 'case when t.version > 0 then t.version else (select c.revision from change c where c.mark = t.version) end';

/**
 * The store of a kind of record that has a table of its own. Its statements are put together once, from the names
 * in the code alone; every value is a parameter. A field `massEachKg` has the column `mass_each_kg`.
 */
export const tableStore = <E extends Exclude<Entity, 'study'>>(entity: E, table: string, columns: Columns<E>): Store<E> => {
  const fields = Object.entries({ id: 'uuid', version: 'bigint', ...columns }) as (readonly [string, SqlType | 'bigint'])[];
  const quoted = (field: string): string => `"${columnOf(field)}"`;
  const read = (field: string, type: SqlType | 'bigint'): string =>
    field === 'version' ? VERSION : `${quoted(field)}${type === 'money' ? '::text' : ''}`;
  const shown = fields.map(([field, type]) => `${read(field, type)} as "${field}"`).join(', ');
  const types = fields.map(([field, type]) => `"${field}" ${type === 'money' ? 'numeric' : type}`).join(', ');
  const rows = `json_to_recordset($2::json) as r(${types})`;
  const order = 'sequence' in columns ? 'sequence, id' : 'id';
  const byStudy = `select ${shown} from ${table} t where study_id = $1`;
  const all = `${byStudy} order by ${order}`;
  const allText = `select coalesce(json_agg(r), '[]')::text as text from (${all}) r`;
  const byId = `${byStudy} and id = any($2) order by id`;
  const hold = `select id from ${table} where study_id = $1 and id = any($2) order by id for no key update`;
  const into = `${table} (study_id, ${fields.map(([field]) => quoted(field)).join(', ')})`;
  const insert = `insert into ${into}
    select $1, ${fields.map(([field]) => `r."${field}"`).join(', ')} from ${rows}`;
  const set = fields.filter(([field]) => field !== 'id').map(([field]) => `${quoted(field)} = r."${field}"`);
  const update = `update ${table} t set ${set.join(', ')} from ${rows} where t.study_id = $1 and t.id = r.id`;
  const remove = `delete from ${table} where study_id = $1 and id = any($2)`;
  const valueOf = (row: object, field: string): unknown => (row as Readonly<Record<string, unknown>>)[field];
  return {
    entity,
    table,
    allText: async (db, studyId) => (await one<{ text: string }>(db, allText, [studyId])).text,
    rows: (db, studyId, ids) => many<RowOf<E>>(db, byId, [studyId, ids]),
    hold: (db, studyId, ids) => db.query(hold, [studyId, ids]),
    insert: (db, studyId, added) => db.query(insert, [studyId, JSON.stringify(added)]),
    insertMany: (db, studyId, added) => copyIn(db, into, added, (row) => [studyId, ...fields.map(([field]) => valueOf(row, field))]),
    update: (db, studyId, edited) => db.query(update, [studyId, JSON.stringify(edited)]),
    remove: (db, studyId, ids) => db.query(remove, [studyId, ids]),
  };
};
