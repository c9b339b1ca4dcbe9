import type { Schema } from 'yup';
import { check, issue, type Checked, type Issue } from '../shared';
import { CHANGE_SHELL, opSchemaOf } from './contract';
import type { Change, Op } from './entities';
import { opOfToday, type Masses } from './of-today';

const kindOf = (op: unknown): string =>
  typeof op === 'object' && op !== null && 'kind' in op && typeof op.kind === 'string' ? op.kind : '';

const idOf = (op: unknown): string | null =>
  typeof op === 'object' && op !== null && 'id' in op && typeof op.id === 'string' ? op.id : null;

const at = (index: number, field: string | null): string => (field === null ? `ops[${index}]` : `ops[${index}].${field}`);

const checkOp = (op: unknown, index: number): readonly Issue[] => {
  const schema = opSchemaOf(kindOf(op)) as Schema<Op> | null;
  if (!schema) {
    const message = `Op ${index + 1} is of a kind that is not known here`;
    return [issue('unknown-op', message, at(index, 'kind'), idOf(op))];
  }
  const checked = check(schema, op, idOf(op));
  return checked.ok ? [] : checked.issues.map((fault) => ({ ...fault, field: at(index, fault.field) }));
};

/** So many faults of a change are looked for and listed. */
const MOST_FAULTS = 100;

/** Reads a change from the outside: strictly, op by op, with its faults listed, at most about a hundred. */
export const readChange = (input: unknown): Checked<Change> => {
  const shell = check(CHANGE_SHELL, input);
  if (!shell.ok) return shell;
  const masses: Masses = new Map();
  const ops = shell.value.ops.map((op) => opOfToday(op, masses));
  const issues: Issue[] = [];
  // whoever mends a hundred faults sends it again; a change made of nothing else must not keep others waiting
  for (const [at, op] of ops.entries()) {
    if (issues.length >= MOST_FAULTS) break;
    issues.push(...checkOp(op, at));
  }
  return issues.length > 0 ? { ok: false, issues } : { ok: true, value: { ...shell.value, ops } as Change };
};
