import { issue, type Issue } from '@each-bolt/core/shared';
import { rowFaults, splitKind, type Change, type Entity, type Op, type RowOf } from '@each-bolt/core/record';

type AnyRow = RowOf<Entity>;

/** What a change does to one row in the end: absent before is an addition, absent after a removal. */
export interface RowEffect {
  readonly entity: Entity;
  readonly id: string;
  readonly before: AnyRow | null;
  readonly after: AnyRow | null;
}

/** A row that has moved on since the client saw it; `current` is null when it was removed. */
export interface Conflict {
  readonly entity: Entity;
  readonly id: string;
  readonly expectsVersion: number;
  readonly current: AnyRow | null;
}

export interface NetEffect {
  readonly effects: readonly RowEffect[];
  readonly conflicts: readonly Conflict[];
  readonly issues: readonly Issue[];
}

/** Rows as they stand in the database, by kind and id. */
export type CurrentRows = ReadonlyMap<Entity, ReadonlyMap<string, AnyRow>>;

const keyOf = (entity: Entity, id: string): string => `${entity} ${id}`;

/**
 * Works out what all ops of a change come to, row by row, with every conflict and every fault of the rows they leave.
 * The database is not touched.
 */
export const netEffect = (change: Change, current: CurrentRows, revision: number): NetEffect => {
  const conflicts: Conflict[] = [];
  const issues: Issue[] = [];
  const effects = new Map<string, RowEffect>();
  for (const op of change.ops) {
    const { entity } = splitKind(op.kind);
    const key = keyOf(entity, op.id);
    const stored = current.get(entity)?.get(op.id) ?? null;
    const known = effects.get(key) ?? { entity, id: op.id, before: stored, after: stored };
    const fault = opFault(op, known, conflicts);
    if (fault) issues.push(fault);
    else effects.set(key, { ...known, after: afterOp(op, known.after, revision) });
  }
  const touched = [...effects.values()].filter(({ before, after }) => before !== null || after !== null);
  return {
    effects: touched,
    conflicts,
    issues: [...issues, ...touched.flatMap(({ entity, after }) => (after ? rowFaults(entity, after) : []))],
  };
};

const opFault = (op: Op, { entity, before, after }: RowEffect, conflicts: Conflict[]): Issue | null => {
  if (!('expectsVersion' in op)) return after === null ? null : issue('id-taken', 'A record with this id is already there', 'id', op.id);
  if (after !== null && before !== null && before.version !== op.expectsVersion)
    conflicts.push({ entity, id: op.id, expectsVersion: op.expectsVersion, current: before });
  if (after !== null) return null;
  if (before !== null) return issue('removed-twice', 'The same change removes this record before', 'id', op.id);
  conflicts.push({ entity, id: op.id, expectsVersion: op.expectsVersion, current: null });
  return null;
};

const afterOp = (op: Op, row: AnyRow | null, revision: number): AnyRow | null =>
  'fields' in op && (row !== null || !('expectsVersion' in op)) ? ({ ...row, ...op.fields, id: op.id, version: revision } as AnyRow) : null;

const fieldsOf = ({ id: _id, version: _version, ...fields }: AnyRow): object => fields;

const changedFields = (before: AnyRow, after: AnyRow): object =>
  Object.fromEntries(
    Object.entries(fieldsOf(before)).filter(([field, value]) => value !== (after as unknown as Record<string, unknown>)[field]),
  );

/** The ops that undo a change, to be sent as a change of its own. */
export const inverseOps = (effects: readonly RowEffect[], revision: number): readonly Op[] =>
  [...effects].reverse().flatMap(({ entity, id, before, after }): readonly Op[] => {
    if (before === null) return [{ kind: `${entity}.remove`, id, expectsVersion: revision }];
    if (after === null) return [{ kind: `${entity}.add`, id, fields: fieldsOf(before) } as Op];
    return [{ kind: `${entity}.edit`, id, expectsVersion: revision, fields: changedFields(before, after) }];
  });
