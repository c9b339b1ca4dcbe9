import type { Op, RowOf, Entity } from './entities';

/** One value of a row that an edit can touch by itself: a field, or how one field is known ("evidence.quantity"). */
export type Cell = string;

type Values = Readonly<Record<string, unknown>>;

const EVIDENCE = 'evidence.';

/** The values of a row or of the fields of an edit, cell by cell. */
export const cellsOf = (fields: object): ReadonlyMap<Cell, unknown> => {
  const cells = new Map<Cell, unknown>();
  for (const [field, value] of Object.entries(fields)) {
    if (field !== 'evidence') cells.set(field, value);
    else for (const [of, said] of Object.entries(value as Values)) cells.set(EVIDENCE + of, said);
  }
  return cells;
};

/** The value of one cell; null where nothing is said of how a field is known. */
export const cellOf = (row: object, cell: Cell): unknown =>
  cell.startsWith(EVIDENCE)
    ? ((row as { evidence?: Values }).evidence?.[cell.slice(EVIDENCE.length)] ?? null)
    : ((row as Values)[cell] ?? null);

/** The field a cell belongs to: the mark of a count belongs to the count. */
export const fieldOfCell = (cell: Cell): string => (cell.startsWith(EVIDENCE) ? cell.slice(EVIDENCE.length) : cell);

/** Cells put back together as fields of an edit. */
export const fieldsFrom = (cells: Iterable<readonly [Cell, unknown]>): Values => {
  const fields: Record<string, unknown> = {};
  const evidence: Record<string, unknown> = {};
  for (const [cell, value] of cells) {
    if (cell.startsWith(EVIDENCE)) evidence[cell.slice(EVIDENCE.length)] = value;
    else fields[cell] = value;
  }
  return Object.keys(evidence).length > 0 ? { ...fields, evidence } : fields;
};

/** True when two values of a cell are the same, however their parts are ordered. */
export const sameValue = (a: unknown, b: unknown): boolean => {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  const [x, y] = [Object.entries(a), b as Values];
  return x.length === Object.keys(b).length && x.every(([key, value]) => Object.hasOwn(b, key) && sameValue(value, y[key]));
};

const evidenceAfter = (before: Values | undefined, edit: Values): Values =>
  Object.fromEntries(Object.entries({ ...before, ...edit }).filter(([, said]) => said !== null));

/** A row with the fields of an edit laid over it. */
export const withFields = <T extends object>(row: T, fields: object): T =>
  'evidence' in fields
    ? { ...row, ...fields, evidence: evidenceAfter((row as { evidence?: Values }).evidence, fields.evidence as Values) }
    : { ...row, ...fields };

/** A row without its id and version. */
export const fieldsOf = <E extends Entity>({ id: _id, version: _version, ...fields }: RowOf<E>): object => fields;

/** The op that edits a row: only the cells that differ, with what they were. Null when nothing differs. */
export const editOp = <E extends Entity>(entity: E, row: RowOf<E>, fields: object): Op | null => {
  const changed = [...cellsOf(fields)].filter(([cell, value]) => !sameValue(cellOf(row, cell), value));
  if (changed.length === 0) return null;
  const was = changed.map(([cell]) => [cell, cellOf(row, cell)] as const);
  return { kind: `${entity}.edit`, id: row.id, was: fieldsFrom(was), fields: fieldsFrom(changed) } as unknown as Op;
};

/** The op that makes a row what `after` says, with what is no longer said of how a field is known taken back. */
export const editTo = <E extends Entity>(entity: E, row: RowOf<E>, after: object): Op | null => {
  const gone = [...cellsOf(fieldsOf(row)).keys()].filter((cell) => cell.startsWith(EVIDENCE) && cellOf(after, cell) === null);
  return editOp(entity, row, fieldsFrom([...cellsOf(after), ...gone.map((cell) => [cell, null] as const)]));
};

/** The op that takes a row off. */
export const removeOp = <E extends Entity>(entity: E, row: RowOf<E>): Op =>
  ({ kind: `${entity}.remove`, id: row.id, was: fieldsOf(row) }) as unknown as Op;
