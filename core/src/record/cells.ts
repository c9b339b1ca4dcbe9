import type { Op, RowOf, Entity } from './entities';

/** One value of a row that an edit can touch by itself: a field, or how one field is known ("known.quantity"). */
export type Cell = string;

type Values = Readonly<Record<string, unknown>>;

const KNOWN = 'known.';

/** The values of a row or of the fields of an edit, cell by cell. */
export const cellsOf = (fields: object): ReadonlyMap<Cell, unknown> => {
  const cells = new Map<Cell, unknown>();
  for (const [field, value] of Object.entries(fields)) {
    if (field !== 'known') cells.set(field, value);
    else for (const [of, said] of Object.entries(value as Values)) cells.set(KNOWN + of, said);
  }
  return cells;
};

/** The value of one cell; null where nothing is said of how a field is known. */
export const cellOf = (row: object, cell: Cell): unknown =>
  cell.startsWith(KNOWN) ? ((row as { known?: Values }).known?.[cell.slice(KNOWN.length)] ?? null) : ((row as Values)[cell] ?? null);

/** The field a cell belongs to: the mark of a count belongs to the count. */
export const fieldOfCell = (cell: Cell): string => (cell.startsWith(KNOWN) ? cell.slice(KNOWN.length) : cell);

/** Cells put back together as fields of an edit. */
export const fieldsFrom = (cells: Iterable<readonly [Cell, unknown]>): Values => {
  const fields: Record<string, unknown> = {};
  const known: Record<string, unknown> = {};
  for (const [cell, value] of cells) {
    if (cell.startsWith(KNOWN)) known[cell.slice(KNOWN.length)] = value;
    else fields[cell] = value;
  }
  return Object.keys(known).length > 0 ? { ...fields, known } : fields;
};

/** True when two values of a cell are the same, however their parts are ordered. */
export const sameValue = (a: unknown, b: unknown): boolean => {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  const [x, y] = [Object.entries(a), b as Values];
  return x.length === Object.keys(b).length && x.every(([key, value]) => Object.hasOwn(b, key) && sameValue(value, y[key]));
};

const knownAfter = (before: Values | undefined, edit: Values): Values =>
  Object.fromEntries(Object.entries({ ...before, ...edit }).filter(([, said]) => said !== null));

/** A row with the fields of an edit laid over it. */
export const withFields = <T extends object>(row: T, fields: object): T =>
  'known' in fields
    ? { ...row, ...fields, known: knownAfter((row as { known?: Values }).known, fields.known as Values) }
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
  const gone = [...cellsOf(fieldsOf(row)).keys()].filter((cell) => cell.startsWith(KNOWN) && cellOf(after, cell) === null);
  return editOp(entity, row, fieldsFrom([...cellsOf(after), ...gone.map((cell) => [cell, null] as const)]));
};

/** The op that takes a row off. */
export const removeOp = <E extends Entity>(entity: E, row: RowOf<E>): Op =>
  ({ kind: `${entity}.remove`, id: row.id, was: fieldsOf(row) }) as unknown as Op;
