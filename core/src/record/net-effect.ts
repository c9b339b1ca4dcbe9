import { issue, type Issue } from '../shared';
import { cellOf, cellsOf, fieldsFrom, fieldsOf, sameValue, withFields, type Cell } from './cells';
import { splitKind, type Entity, type Op, type RowOf } from './entities';
import { rowFaults } from './row-faults';

type AnyRow = RowOf<Entity>;

/** What a change does to one row in the end: absent before is an addition, absent after a removal. */
export interface RowEffect {
  readonly entity: Entity;
  readonly id: string;
  readonly before: AnyRow | null;
  readonly after: AnyRow | null;
}

/** One value that has become something else since the person saw it. */
export interface CellConflict {
  readonly cell: Cell;
  readonly was: unknown;
  readonly yours: unknown;
  readonly theirs: unknown;
}

/** A row that someone changed or took off meanwhile. `current` is null when it is gone; `cells` are what clashes. */
export interface Conflict {
  readonly entity: Entity;
  readonly id: string;
  /** what the op wanted to do with it */
  readonly verb: 'edit' | 'remove';
  readonly current: AnyRow | null;
  readonly cells: readonly CellConflict[];
}

export interface NetEffect {
  readonly effects: readonly RowEffect[];
  readonly conflicts: readonly Conflict[];
  readonly issues: readonly Issue[];
}

/** Rows as they stand, by kind and id. */
export type CurrentRows = ReadonlyMap<Entity, ReadonlyMap<string, AnyRow>>;

/**
 * What all ops of a change come to, row by row, with every conflict and every fault of the rows they leave. An edit
 * touches its own cells only, so that edits of different fields of one row go together; it conflicts where a cell is
 * neither what the person saw nor already what the person wants.
 *
 * @param ops ops of one change, each valid by itself
 * @param current the rows they name, as they stand
 * @param revision revision of the change; the version of every row it touches
 */
export const netEffect = (ops: readonly Op[], current: CurrentRows, revision: number): NetEffect => {
  const conflicts: Conflict[] = [];
  const issues: Issue[] = [];
  const effects = new Map<string, RowEffect>();
  for (const op of ops) {
    const { entity } = splitKind(op.kind);
    const key = `${entity} ${op.id}`;
    const stored = current.get(entity)?.get(op.id) ?? null;
    const effect = effects.get(key) ?? { entity, id: op.id, before: stored, after: stored };
    const found = outcome(op, effect);
    if ('issue' in found) issues.push(found.issue);
    else if ('conflict' in found) conflicts.push(found.conflict);
    else effects.set(key, { ...effect, after: found.after && { ...found.after, id: op.id, version: revision } });
  }
  const touched = [...effects.values()].filter(({ before, after }) => before !== null || after !== null);
  return {
    effects: touched,
    conflicts,
    issues: [...issues, ...touched.flatMap(({ entity, after }) => (after ? rowFaults(entity, after) : []))],
  };
};

type Outcome = { readonly after: AnyRow | null } | { readonly issue: Issue } | { readonly conflict: Conflict };

const outcome = (op: Op, { entity, before, after }: RowEffect): Outcome => {
  if (!('was' in op))
    return after === null
      ? { after: op.fields as AnyRow }
      : { issue: issue('id-taken', 'A record with this id is already there', 'id', op.id) };
  const verb = 'fields' in op ? 'edit' : 'remove';
  if (after === null)
    return before === null
      ? { conflict: { entity, id: op.id, verb, current: null, cells: [] } }
      : { issue: issue('removed-twice', 'The same change removes this record before', 'id', op.id) };
  const wanted = 'fields' in op ? cellsOf(op.fields) : null;
  const clashing = [...cellsOf(op.was)].flatMap(([cell, was]): readonly CellConflict[] => {
    const theirs = cellOf(after, cell);
    const yours = wanted?.get(cell) ?? null;
    return sameValue(theirs, was) || (wanted && sameValue(theirs, yours)) ? [] : [{ cell, was, yours, theirs }];
  });
  if (clashing.length > 0) return { conflict: { entity, id: op.id, verb, current: after, cells: clashing } };
  return { after: 'fields' in op ? withFields(after, op.fields) : null };
};

const changedCells = (before: AnyRow, after: AnyRow): readonly (readonly [Cell, unknown, unknown])[] => {
  const cells = new Set([...cellsOf(fieldsOf(before)).keys(), ...cellsOf(fieldsOf(after)).keys()]);
  return [...cells].map((cell) => [cell, cellOf(before, cell), cellOf(after, cell)] as const).filter(([, was, is]) => !sameValue(was, is));
};

/** The ops that undo a change, to be sent as a change of its own; what has been changed since comes back as a conflict. */
export const inverseOps = (effects: readonly RowEffect[]): readonly Op[] =>
  [...effects].reverse().flatMap(({ entity, id, before, after }): readonly Op[] => {
    if (before === null) return after === null ? [] : [{ kind: `${entity}.remove`, id, was: fieldsOf(after) } as unknown as Op];
    if (after === null) return [{ kind: `${entity}.add`, id, fields: fieldsOf(before) } as unknown as Op];
    const changed = changedCells(before, after);
    const [was, fields] = [fieldsFrom(changed.map(([c, , is]) => [c, is])), fieldsFrom(changed.map(([c, w]) => [c, w]))];
    return changed.length === 0 ? [] : [{ kind: `${entity}.edit`, id, was, fields } as unknown as Op];
  });
