import { KINDS, fieldsIn, type Entity, type Field, type NameFrom } from '@each-bolt/core/record';

/** SQL types of columns. Prices are numeric and travel as their digits. */
export type SqlType = 'uuid' | 'text' | 'integer' | 'float8' | 'boolean' | 'date' | 'jsonb' | 'numeric';

const TYPES: Readonly<Record<Exclude<Field['type'], 'number'>, SqlType>> = {
  text: 'text',
  choice: 'text',
  flag: 'boolean',
  date: 'date',
  // as text: what was written comes back to the last sign
  instant: 'text',
  'local time': 'text',
  price: 'numeric',
  reference: 'uuid',
  'any reference': 'uuid',
  person: 'uuid',
  library: 'text',
  file: 'text',
  list: 'jsonb',
  tuple: 'jsonb',
  group: 'jsonb',
  'by name': 'jsonb',
  evidence: 'jsonb',
};

/** The SQL type of the column of a field. */
export const sqlTypeOf = (field: Field): SqlType => (field.type === 'number' ? (field.whole ? 'integer' : 'float8') : TYPES[field.type]);

/** The column of a field: `massEachKg` has `mass_each_kg`. */
export const columnOf = (field: string): string => `"${field.replace(/[A-Z]/g, (capital) => `_${capital.toLowerCase()}`)}"`;

export const tableOf = (entity: Entity): string => KINDS[entity].table;

const quoted = (text: string): string => `'${text.replaceAll("'", "''")}'`;

const nameOfOther = (field: Field | undefined, column: string, study: string): string => {
  if (field?.type === 'person') return `(select n.name from person n where n.id = ${column})`;
  const item = field?.type === 'list' ? (field.item as Field) : field;
  if (item?.type !== 'reference') throw new RangeError('a record is called by one that it refers to');
  const other = item.to as Entity;
  const from = `from ${tableOf(other)} n where n.study_id = ${study}`;
  return field?.type === 'list'
    ? `(select string_agg(${nameSql(other, 'n')}, ', ') ${from} and ${column} ? n.id::text)`
    : `(select ${nameSql(other, 'n')} ${from} and n.id = ${column})`;
};

/** What a row is called, as SQL over the row of its table under an alias. */
export const nameSql = (entity: Entity, alias: string): string => {
  const name: NameFrom<string> = KINDS[entity].name;
  const column = (field: string): string => `${alias}.${columnOf(field)}`;
  if ('fields' in name) return `concat_ws(' ', ${name.fields.map(column).join(', ')})`;
  if ('of' in name) {
    const other = (field: string): string => nameOfOther(fieldsIn(entity)[field], column(field), `${alias}.study_id`);
    const second = name.and === undefined ? '' : ` || coalesce(' of ' || ${other(name.and)}, '')`;
    return `coalesce(${other(name.of)}${second}, ${quoted(name.otherwise)})`;
  }
  return name.otherwise === undefined ? column(name.field) : `coalesce(nullif(${column(name.field)}, ''), ${quoted(name.otherwise)})`;
};
