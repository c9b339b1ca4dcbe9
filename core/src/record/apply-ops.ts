import { withFields } from './cells';
import { ENTITIES, splitKind, type Entity, type Op, type RowOf, type Study, type StudyRecord } from './entities';
import { KINDS } from './kinds';
import type { CurrentRows } from './net-effect';

type ListName = Exclude<keyof StudyRecord, 'revision' | 'study'>;

/** Where a record keeps the rows of each kind. */
export const LIST_OF = Object.fromEntries(
  ENTITIES.flatMap((entity) => (KINDS[entity].list === null ? [] : [[entity, KINDS[entity].list]])),
) as Readonly<Record<Exclude<Entity, 'study'>, ListName>>;

/** The rows of one kind in a record. */
export const rowsOf = <E extends Entity>(record: StudyRecord, entity: E): readonly RowOf<E>[] => {
  const list = (LIST_OF as Partial<Record<Entity, ListName>>)[entity];
  const rows: unknown = list === undefined ? [record.study] : record[list];
  return rows as readonly RowOf<E>[];
};

/** The rows of a record that ops name, by kind and id. */
export const namedRows = (record: StudyRecord, ops: readonly Op[]): CurrentRows => {
  const wanted = new Map<Entity, Set<string>>();
  for (const op of ops) {
    const { entity } = splitKind(op.kind);
    const ids = wanted.get(entity);
    if (ids) ids.add(op.id);
    else wanted.set(entity, new Set([op.id]));
  }
  return new Map(
    [...wanted].map(([entity, ids]) => [
      entity,
      new Map(rowsOf(record, entity).flatMap((row) => (ids.has(row.id) ? [[row.id, row]] : []))),
    ]),
  );
};

type AnyRow = RowOf<Exclude<Entity, 'study'>>;

const rowAfter = (row: AnyRow | Study | undefined, op: Op, revision: number): AnyRow | Study | undefined => {
  if (!('fields' in op)) return undefined;
  // an edit of a row that is gone changes nothing
  if ('was' in op && !row) return undefined;
  return { ...withFields(row ?? {}, op.fields), id: op.id, version: revision } as unknown as AnyRow | Study;
};

const listAfter = (rows: readonly AnyRow[], ops: readonly Op[], revision: number): readonly AnyRow[] => {
  const touched = new Map<string, AnyRow | undefined>();
  const current = new Map<string, AnyRow>();
  const ids = new Set(ops.map((op) => op.id));
  for (const row of rows) if (ids.has(row.id)) current.set(row.id, row);
  for (const op of ops) {
    const before = touched.has(op.id) ? touched.get(op.id) : current.get(op.id);
    touched.set(op.id, rowAfter(before, op, revision) as AnyRow | undefined);
  }
  const kept = rows.flatMap((row) => {
    if (!touched.has(row.id)) return [row];
    const after = touched.get(row.id);
    return after ? [after] : [];
  });
  const added = [...touched].flatMap(([id, row]) => (row && !current.has(id) ? [row] : []));
  return added.length > 0 ? [...kept, ...added] : kept;
};

/**
 * The record after a change: a new record that shares all lists the change does not touch.
 *
 * @param record the record before
 * @param ops ops of one change, already known to be valid
 * @param revision revision the server gave the change; the version of every row it touches
 */
export const applyOps = (record: StudyRecord, ops: readonly Op[], revision: number): StudyRecord => {
  const byList = new Map<ListName, Op[]>();
  let study = record.study;
  for (const op of ops) {
    const { entity } = splitKind(op.kind);
    if (entity === 'study') study = (rowAfter(study, op, revision) as Study | undefined) ?? study;
    else {
      const list = byList.get(LIST_OF[entity]);
      if (list) list.push(op);
      else byList.set(LIST_OF[entity], [op]);
    }
  }
  const lists: Partial<Record<ListName, readonly AnyRow[]>> = {};
  for (const [name, listOps] of byList) lists[name] = listAfter(record[name], listOps, revision);
  return { ...record, ...lists, study, revision } as StudyRecord;
};
