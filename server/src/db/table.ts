import { KINDS, fieldsIn, type Entity, type RowOf } from '@each-bolt/core/record';
import type { Store } from './store';
import { columnOf, sqlTypeOf, tableOf, type SqlType } from './columns';
import { copyIn } from './copy-in';
import { many, one } from './rows';

/** The version of a row of the table t: the revision that wrote it last; a large change left its mark in place of it. */
const VERSION = 'case when t.version > 0 then t.version else (select c.revision from change c where c.mark = t.version) end';

/**
 * How rows of a kind are read and written. Its statements are put together once, from the names in the code alone; every value is a
 * parameter. A study is told from another by its own id, and its first revision is its first version.
 */
export const tableStore = <E extends Entity>(entity: E): Store<E> => {
  const table = tableOf(entity);
  const isStudy = KINDS[entity].list === null;
  const declared = Object.entries(fieldsIn(entity)).map(([field, of]) => [field, sqlTypeOf(of)] as const);
  const fields: readonly (readonly [string, SqlType | 'bigint'])[] = [['id', 'uuid'], ['version', 'bigint'], ...declared];
  const read = (field: string, type: SqlType | 'bigint'): string =>
    field === 'version' ? VERSION : `${columnOf(field)}${type === 'numeric' ? '::text' : ''}`;
  const shown = fields.map(([field, type]) => `${read(field, type)} as "${field}"`).join(', ');
  const rows = `json_to_recordset($2::json) as r(${fields.map(([field, type]) => `"${field}" ${type}`).join(', ')})`;
  const ofStudy = isStudy ? 'id' : 'study_id';
  const byStudy = `select ${shown} from ${table} t where ${ofStudy} = $1`;
  const all = `${byStudy} order by ${'sequence' in fieldsIn(entity) ? 'sequence, id' : 'id'}`;
  const allText = `select coalesce(json_agg(r), '[]')::text as text from (${all}) r`;
  const byId = `${byStudy} and id = any($2) order by id`;
  const hold = `select id from ${table} where ${ofStudy} = $1 and id = any($2) order by id for no key update`;
  const into = `${table} (${isStudy ? 'revision' : 'study_id'}, ${fields.map(([field]) => columnOf(field)).join(', ')})`;
  const insert = `insert into ${into}
    select ${isStudy ? 'r.version' : '$1::uuid'}, ${fields.map(([field]) => `r."${field}"`).join(', ')} from ${rows}${isStudy ? ' where r.id = $1' : ''}`;
  const set = fields.filter(([field]) => field !== 'id').map(([field]) => `${columnOf(field)} = r."${field}"`);
  const update = `update ${table} t set ${set.join(', ')} from ${rows} where t.${ofStudy} = $1 and t.id = r.id`;
  const remove = `delete from ${table} where ${ofStudy} = $1 and id = any($2)`;
  const valueOf = (row: object, field: string): unknown => (row as Readonly<Record<string, unknown>>)[field];
  return {
    entity,
    table,
    allText: async (db, studyId) => (await one<{ text: string }>(db, allText, [studyId])).text,
    rows: (db, studyId, ids) => many<RowOf<E>>(db, byId, [studyId, ids]),
    hold: (db, studyId, ids) => db.query(hold, [studyId, ids]),
    insert: (db, studyId, added) => db.query(insert, [studyId, JSON.stringify(added)]),
    insertMany: (db, studyId, added) =>
      copyIn(db, into, added, (row) => [isStudy ? row.version : studyId, ...fields.map(([field]) => valueOf(row, field))]),
    update: (db, studyId, edited) => db.query(update, [studyId, JSON.stringify(edited)]),
    remove: (db, studyId, ids) => db.query(remove, [studyId, ids]),
  };
};
