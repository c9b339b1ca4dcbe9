import { ENTITIES, KINDS, REFERENCES, FILE_FIELDS, PERSON_FIELDS, fieldsIn, type Entity } from '@each-bolt/core/record';
import { testDatabase } from '../../testing/test-database';
import { columnOf, sqlTypeOf, tableOf } from './columns';
import type { Pool } from './pool';
import { many } from './rows';

let pool: Pool;
let drop: () => Promise<void>;

beforeAll(async () => {
  ({ pool, drop } = await testDatabase());
});
afterAll(() => drop());

const COLUMN_TYPE: Readonly<Record<string, string>> = { float8: 'double precision' };
const bare = (field: string): string => columnOf(field).replaceAll('"', '');
const KEPT = ENTITIES.map((entity) => [entity] as const);

/** Foreign keys of a table as "columns > table(columns), deferred". */
const keysOf = async (table: string): Promise<readonly string[]> =>
  (
    await many<{ def: string }>(
      pool,
      `select pg_get_constraintdef(oid) as def from pg_constraint where conrelid = $1::regclass and contype = 'f' order by 1`,
      [table],
    )
  ).map(({ def }) => def);

const referenceKey = (column: string, table: string): RegExp =>
  new RegExp(
    `^FOREIGN KEY \\((?:${column}, study_id|study_id, ${column}|${column}, \\w+)\\) REFERENCES ${table}\\([^)]*\\) DEFERRABLE INITIALLY DEFERRED$`,
  );

describe('the tables hold what is declared', () => {
  it.each(KEPT)('%s: a column for every field, of its type, null where it may be absent, and no other', async (entity) => {
    const found = await many<{ name: string; type: string; nullable: string }>(
      pool,
      `select column_name as name, data_type as type, is_nullable as nullable from information_schema.columns
       where table_schema = 'public' and table_name = $1 order by column_name`,
      [tableOf(entity)],
    );
    const own = entity === 'study' ? ['copy_of', 'id', 'revision', 'version'] : ['id', 'study_id', 'version'];
    const declared = Object.entries(fieldsIn(entity)).map(([field, of]) => ({
      name: bare(field),
      type: COLUMN_TYPE[sqlTypeOf(of)] ?? sqlTypeOf(of),
      nullable: of.optional ? 'YES' : 'NO',
    }));
    expect(found.filter(({ name }) => !own.includes(name))).toEqual([...declared].sort((a, b) => (a.name < b.name ? -1 : 1)));
  });

  const choices = ENTITIES.flatMap((entity) =>
    Object.entries(fieldsIn(entity)).flatMap(([field, of]) => (of.type === 'choice' ? [[entity, field, of.choices] as const] : [])),
  );
  it.each(choices)('%s, %s: only the words that are declared', async (entity, field, words) => {
    const checks = await many<{ def: string }>(
      pool,
      `select pg_get_constraintdef(c.oid) as def from pg_constraint c join pg_attribute a on a.attrelid = c.conrelid and c.conkey = array[a.attnum]
       where c.conrelid = $1::regclass and c.contype = 'c' and a.attname = $2`,
      [tableOf(entity), bare(field)],
    );
    const said = checks.flatMap(({ def }) => [...def.matchAll(/'((?:[^']|'')*)'::text/g)].map(([, word]) => word));
    expect([...said].sort()).toEqual([...words].sort());
  });

  const held = REFERENCES.filter(({ isList }) => !isList).map(({ entity, field, to }) => [entity, field, to] as const);
  it.each(held)('%s, %s: a %s of the same study, held by a key that is looked at in the end', async (entity, field, to) => {
    const keys = await keysOf(tableOf(entity));
    expect(keys.filter((key) => referenceKey(bare(field), tableOf(to)).test(key))).toHaveLength(1);
  });

  it.each(FILE_FIELDS.map(({ entity, field }) => [entity, field] as const))('%s, %s: a file of the same study', async (entity, field) => {
    const keys = await keysOf(tableOf(entity));
    expect(keys.filter((key) => referenceKey(bare(field), 'study_file').test(key))).toHaveLength(1);
  });

  it.each(PERSON_FIELDS.map(({ entity, field }) => [entity, field] as const))('%s, %s: an account', async (entity, field) => {
    const keys = await keysOf(tableOf(entity));
    expect(keys).toContain(`FOREIGN KEY (${bare(field)}) REFERENCES person(id) DEFERRABLE INITIALLY DEFERRED`);
  });

  const unique = ENTITIES.flatMap((entity) =>
    ((KINDS[entity] as { readonly unique?: readonly { readonly fields: readonly string[] }[] }).unique ?? []).map(
      ({ fields }) => [entity, fields] as const,
    ),
  );
  it.each(unique)('%s: only one of %j', async (entity: Entity, fields) => {
    const keys = await many<{ def: string }>(
      pool,
      `select pg_get_constraintdef(oid) as def from pg_constraint where conrelid = $1::regclass and contype = 'u'`,
      [tableOf(entity)],
    );
    expect(keys.map(({ def }) => def)).toContain(`UNIQUE (${fields.map(bare).join(', ')}) DEFERRABLE INITIALLY DEFERRED`);
  });
});
