import pg from 'pg';
import {
  ANY_REFERENCES,
  FILE_FIELDS,
  KINDS,
  PERSON_FIELDS,
  REFERENCES,
  type Entity,
  type FileField,
  type Reference,
  type Unique,
} from '@each-bolt/core/record';
import { columnOf, nameSql, tableOf } from './columns';
import type { Db } from './pool';
import { many } from './rows';

/** A row that names something which is not in its study. */
export interface Dangling {
  readonly id: string;
  readonly name: string;
  readonly entity: Entity;
  readonly field: string;
  /** kind of what it names */
  readonly to: Entity | 'person' | 'file';
  /** it is in the study, but does not belong to the same as the row */
  readonly isElsewhere: boolean;
}

const MEDIA: Readonly<Record<FileField['holds'], string>> = { picture: 'image/%', mesh: 'model/%' };

const dangling = (
  { entity, field, to }: Pick<Dangling, 'entity' | 'field' | 'to'>,
  from: string,
  where: string,
  isElsewhere = 'false',
): string =>
  `select t.id, left(${nameSql(entity, 't')}, 80) as name, '${entity}' as entity, '${field}' as field, '${to}' as "to", ${isElsewhere} as "isElsewhere"
   from ${tableOf(entity)} t ${from} where t.study_id = $1 and ${where}`;

const danglingOne = (reference: Reference): string => {
  const { field, to, isList, alike } = reference;
  const column = `t.${columnOf(field)}`;
  const named = isList ? 'named.id::uuid' : column;
  const each = isList ? `cross join lateral jsonb_array_elements_text(${column}) named(id) ` : '';
  const differs = alike === null ? '' : ` or o.${columnOf(alike)} <> t.${columnOf(alike)}`;
  return dangling(
    reference,
    `${each}left join ${tableOf(to)} o on o.id = ${named} and o.study_id = $1`,
    `(t.id = any($2) or ${named} = any($2)) and ${named} is not null and (o.id is null${differs})`,
    'o.id is not null',
  );
};

/** References that the database itself holds, by foreign keys: looked for only when one of them is broken. */
const HELD: readonly string[] = [
  ...REFERENCES.filter(({ isList }) => !isList).map(danglingOne),
  ...PERSON_FIELDS.map((field) =>
    dangling(
      { ...field, to: 'person' },
      `left join person o on o.id = t.${columnOf(field.field)}`,
      `t.id = any($2) and t.${columnOf(field.field)} is not null and o.id is null`,
    ),
  ),
];

/** References that are looked at with every change that could break them, with the kinds whose change could. */
const LOOKED_AT: readonly { readonly of: Entity; readonly to: readonly Entity[]; readonly sql: string }[] = [
  ...REFERENCES.filter(({ isList }) => isList).map((one) => ({ of: one.entity, to: [one.to], sql: danglingOne(one) })),
  ...ANY_REFERENCES.filter(({ whenGone }) => whenGone !== 'stays').flatMap(({ entity, field, toKindIn, to: kinds }) =>
    kinds.map((to) => {
      const named = `t.${columnOf(field)}`;
      const where = `(t.id = any($2) or ${named} = any($2)) and t.${columnOf(toKindIn)} = '${to}' and o.id is null`;
      const from = `left join ${tableOf(to)} o on o.id = ${named} and o.study_id = $1`;
      return { of: entity, to: [to], sql: dangling({ entity, field, to }, from, where) };
    }),
  ),
  ...FILE_FIELDS.map(({ entity, field, holds }) => {
    const from = `left join (study_file f join file x on x.sha256 = f.sha256 and x.media_type like '${MEDIA[holds]}')
      on f.study_id = $1 and f.sha256 = t.${columnOf(field)}`;
    return { of: entity, to: [], sql: dangling({ entity, field, to: 'file' }, from, 't.id = any($2) and f.sha256 is null') };
  }),
];

const allOf = (db: Db, queries: readonly string[], studyId: string, touched: readonly string[]): Promise<readonly Dangling[]> =>
  queries.length === 0
    ? Promise.resolve([])
    : many(db, `select distinct * from (${queries.join('\nunion all\n')}) d order by id, field`, [studyId, touched]);

/** Rows that name something which is not in the study, or is elsewhere, of the references that foreign keys hold. */
export const danglingHeld = (db: Db, studyId: string, touched: readonly string[]): Promise<readonly Dangling[]> =>
  allOf(db, HELD, studyId, touched);

/**
 * The same of references that no foreign key can hold.
 *
 * @param written kinds of record of which rows were written
 * @param changed kinds of which rows were changed or taken off
 */
export const danglingLookedAt = (
  db: Db,
  studyId: string,
  touched: readonly string[],
  written: ReadonlySet<Entity>,
  changed: ReadonlySet<Entity>,
): Promise<readonly Dangling[]> =>
  allOf(
    db,
    LOOKED_AT.filter(({ of, to }) => written.has(of) || to.some((kind) => changed.has(kind))).map(({ sql }) => sql),
    studyId,
    touched,
  );

/** A record of which there is one too many. */
export interface OneTooMany {
  readonly id: string;
  readonly name: string;
  readonly entity: Entity;
  readonly code: string;
}

const oneTooMany = (entity: Entity, { fields, code }: Unique<string>): string => {
  const columns = fields.map(columnOf);
  const alike = columns.map((column) => `o.${column} = t.${column}`).join(' and ');
  return `select t.id, left(${nameSql(entity, 't')}, 80) as name, '${entity}' as entity, '${code}' as code from ${tableOf(entity)} t
    where t.study_id = $1 and t.id = any($2)
      and exists (select from ${tableOf(entity)} o where o.study_id = $1 and o.id <> t.id and ${alike})`;
};

const UNIQUE = (Object.keys(KINDS) as Entity[]).flatMap((entity) =>
  ((KINDS[entity] as { readonly unique?: readonly Unique<string>[] }).unique ?? []).map((unique) => oneTooMany(entity, unique)),
);

/** Touched records that are one too many. */
export const tooMany = (db: Db, studyId: string, touched: readonly string[]): Promise<readonly OneTooMany[]> =>
  many(db, `${UNIQUE.join('\nunion all\n')} order by id`, [studyId, touched]);

const HELD_BROKEN: readonly (string | undefined)[] = ['23503', '23505'];

/** True when the database would not keep a reference, or something that there may be once. */
export const isHeldBroken = (error: unknown): error is pg.DatabaseError =>
  error instanceof pg.DatabaseError && HELD_BROKEN.includes(error.code);

/** Looks now at what the database looks at when a transaction ends; throws what `isHeldBroken` tells of. */
export const checkHeld = (db: Db): Promise<unknown> => db.query('set constraints all immediate; set constraints all deferred');

/** Touched rows that are inside themselves by way of others. @param field the reference to their own kind */
export const circling = (
  db: Db,
  studyId: string,
  entity: Entity,
  field: string,
  touched: readonly string[],
): Promise<readonly { readonly id: string; readonly name: string }[]> =>
  many(
    db,
    `with recursive above as (
       select p.id as start, p.${columnOf(field)} as at from ${tableOf(entity)} p where p.study_id = $1 and p.id = any($2)
       union
       select a.start, p.${columnOf(field)} from above a join ${tableOf(entity)} p on p.id = a.at
     )
     select t.id, ${nameSql(entity, 't')} as name from ${tableOf(entity)} t
     where t.id in (select start from above where at = start) order by t.id`,
    [studyId, touched],
  );

/** Every row of a kind with those of its own kind that it names. @param field the list of them */
export const named = (
  db: Db,
  studyId: string,
  entity: Entity,
  field: string,
): Promise<readonly { readonly id: string; readonly name: string; readonly names: readonly string[] }[]> =>
  many(
    db,
    `select t.id, ${nameSql(entity, 't')} as name, t.${columnOf(field)} as names from ${tableOf(entity)} t where t.study_id = $1 order by t.id`,
    [studyId],
  );
