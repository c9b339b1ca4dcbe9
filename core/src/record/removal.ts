import { rowsOf } from './apply-ops';
import { editOp, removeOp } from './cells';
import { ENTITIES, type Entity, type Op, type RowOf, type StudyRecord } from './entities';
import { ANY_REFERENCES, REFERENCES } from './references';

type Ids = ReadonlyMap<Entity, ReadonlySet<string>>;

const valueOf = (row: object, field: string): unknown => (row as Readonly<Record<string, unknown>>)[field];

const isIn = (ids: Ids, entity: Entity, id: unknown): boolean => typeof id === 'string' && ids.get(entity)?.has(id) === true;

/** Rows that go because what they refer to goes, one step further. */
const goingToo = (record: StudyRecord, gone: Ids): readonly (readonly [Entity, string])[] => [
  ...REFERENCES.filter(({ to, whenGone }) => whenGone === 'remove too' && gone.has(to)).flatMap(({ entity, field, to }) =>
    rowsOf(record, entity)
      .filter((row) => isIn(gone, to, valueOf(row, field)))
      .map((row) => [entity, row.id] as const),
  ),
  ...ANY_REFERENCES.filter(({ whenGone }) => whenGone === 'remove too').flatMap(({ entity, field, toKindIn }) =>
    rowsOf(record, entity)
      .filter((row) => isIn(gone, valueOf(row, toKindIn) as Entity, valueOf(row, field)))
      .map((row) => [entity, row.id] as const),
  ),
];

const allGoing = (record: StudyRecord, entity: Entity, ids: readonly string[]): Ids => {
  const gone = new Map<Entity, Set<string>>([[entity, new Set(ids)]]);
  for (let grows = true; grows;) {
    grows = false;
    for (const [kind, id] of goingToo(record, gone)) {
      const known = gone.get(kind) ?? new Set();
      if (known.has(id)) continue;
      gone.set(kind, known.add(id));
      grows = true;
    }
  }
  return gone;
};

/** What a row that stays no longer says, field by field. */
const forgotten = (entity: Entity, row: RowOf<Entity>, gone: Ids): Readonly<Record<string, unknown>> =>
  Object.fromEntries(
    REFERENCES.filter((reference) => reference.entity === entity && reference.whenGone === 'clear').flatMap(
      ({ field, to, isList }): readonly (readonly [string, unknown])[] => {
        const value = valueOf(row, field);
        if (!isList) return isIn(gone, to, value) ? [[field, null]] : [];
        const list = value as readonly string[];
        return list.some((id) => isIn(gone, to, id)) ? [[field, list.filter((id) => !isIn(gone, to, id))]] : [];
      },
    ),
  );

/**
 * The ops that take rows off with all that goes with them, as the declarations of the kinds say: what belongs to them goes too,
 * what only names them forgets them.
 *
 * @param ids rows of the kind to take off
 */
export const removalOps = (record: StudyRecord, entity: Entity, ids: readonly string[]): readonly Op[] => {
  const gone = allGoing(record, entity, ids);
  const forgetting = new Set(REFERENCES.filter(({ to, whenGone }) => whenGone === 'clear' && gone.has(to)).map((r) => r.entity));
  const edits = [...forgetting].flatMap((kind) =>
    rowsOf(record, kind).flatMap((row) => (isIn(gone, kind, row.id) ? [] : (editOp(kind, row, forgotten(kind, row, gone)) ?? []))),
  );
  const removals = [...ENTITIES].reverse().flatMap((kind) =>
    gone.has(kind)
      ? rowsOf(record, kind)
          .filter((row) => isIn(gone, kind, row.id))
          .map((row) => removeOp(kind, row as never))
      : [],
  );
  return [...edits, ...removals];
};

/** What a row says, field by field, where it is to name another record than it does. */
const pointed = (
  entity: Entity,
  row: RowOf<Entity>,
  to: Entity,
  from: ReadonlySet<string>,
  id: string,
): Readonly<Record<string, unknown>> => {
  const named = REFERENCES.filter((reference) => reference.entity === entity && reference.to === to).map(
    ({ field, isList }): readonly [string, unknown] => {
      const value = valueOf(row, field);
      const swapped = (one: unknown): unknown => (from.has(one as string) ? id : one);
      return [field, isList ? [...new Set((value as readonly string[]).map(swapped))] : swapped(value)];
    },
  );
  const any = ANY_REFERENCES.filter((reference) => reference.entity === entity && valueOf(row, reference.toKindIn) === to).map(
    ({ field }): readonly [string, unknown] => [field, from.has(valueOf(row, field) as string) ? id : valueOf(row, field)],
  );
  return Object.fromEntries([...named, ...any]);
};

/**
 * The ops by which all records that name some rows of a kind name one other of that kind instead.
 *
 * @param from ids of the rows that are named now
 * @param id the row that is named then
 */
export const renamedOps = (record: StudyRecord, to: Entity, from: ReadonlySet<string>, id: string): readonly Op[] =>
  ENTITIES.filter(
    (entity) =>
      REFERENCES.some((r) => r.entity === entity && r.to === to) || ANY_REFERENCES.some((r) => r.entity === entity && r.to.includes(to)),
  ).flatMap((entity) => rowsOf(record, entity).flatMap((row) => editOp(entity, row, pointed(entity, row, to, from, id)) ?? []));
