import { cellOf, cellsOf, fieldsFrom, type Op } from '@each-bolt/core/record';
import type { ToldConflict } from '@each-bolt/core/wire';

/** What somebody chose for each value that clashed: their own or the other’s. */
export type Chosen = ReadonlyMap<string, 'mine' | 'theirs'>;

export const choiceKey = (conflict: Pick<ToldConflict, 'id'>, cell: string): string => `${conflict.id} ${cell}`;

const chosenFor = (op: Op, conflict: ToldConflict, chosen: Chosen): readonly Op[] => {
  if (!('was' in op)) return [op];
  const { current } = conflict;
  if (current === null) return [];
  const { id: _id, version: _version, ...row } = current;
  if (!('fields' in op)) return chosen.get(choiceKey(conflict, '')) === 'mine' ? [{ ...op, was: row } as Op] : [];
  const left = [...cellsOf(op.fields)].filter(([cell]) => chosen.get(choiceKey(conflict, cell)) !== 'theirs');
  if (left.length === 0) return [];
  const was = left.map(([cell]) => [cell, cellOf(current, cell)] as const);
  return [{ ...op, was: fieldsFrom(was), fields: fieldsFrom(left) }];
};

/**
 * The ops of a refused change after somebody chose, value by value. Ops on rows that are gone drop out; a removal stays
 * only when it was chosen.
 */
export const resolved = (ops: readonly Op[], conflicts: readonly ToldConflict[], chosen: Chosen): readonly Op[] =>
  ops.flatMap((op) => {
    const conflict = conflicts.find((c) => c.id === op.id);
    return conflict ? chosenFor(op, conflict, chosen) : [op];
  });

/** A field of a refused change that the server found fault with. */
export interface FaultyField {
  readonly op: number;
  readonly field: string;
  readonly value: string | number;
  readonly message: string;
}

const PATH = /^ops\[(\d+)\]\.fields\.(\w+)$/;

/** The faulty fields that can be typed anew: text and numbers. */
export const faultyFields = (
  ops: readonly Op[],
  issues: readonly { readonly field: string | null; readonly recordId: string | null; readonly message: string }[],
): readonly FaultyField[] =>
  issues.flatMap(({ field, recordId, message }) => {
    const [, at, name] = PATH.exec(field ?? '') ?? [];
    const op = at === undefined ? ops.findIndex((o) => o.id === recordId) : Number(at);
    const found = ops[op];
    const key = name ?? field ?? '';
    const value: unknown = found && 'fields' in found ? (found.fields as Readonly<Record<string, unknown>>)[key] : undefined;
    return typeof value === 'string' || typeof value === 'number' ? [{ op, field: key, value, message }] : [];
  });

/** The ops with one field typed anew. */
export const retyped = (ops: readonly Op[], { op, field, value }: FaultyField, text: string): readonly Op[] =>
  ops.map((one, i) =>
    i === op && 'fields' in one
      ? ({ ...one, fields: { ...one.fields, [field]: typeof value === 'number' ? Number(text.replace(',', '.')) : text } } as Op)
      : one,
  );
