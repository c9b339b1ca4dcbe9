import type { QueryResultRow } from 'pg';
import type { Db } from './pool';

/** All rows of a statement. */
export const many = async <T>(db: Db, sql: string, values: readonly unknown[] = []): Promise<readonly T[]> =>
  (await db.query<QueryResultRow>(sql, [...values])).rows as T[];

/** The row of a statement that gives one or none. */
export const maybeOne = async <T>(db: Db, sql: string, values: readonly unknown[] = []): Promise<T | null> => {
  const rows = await many<T>(db, sql, values);
  if (rows.length > 1) throw new RangeError(`expected at most one row, got ${rows.length}`);
  return rows[0] ?? null;
};

/** The row of a statement that must give exactly one. */
export const one = async <T>(db: Db, sql: string, values: readonly unknown[] = []): Promise<T> => {
  const row = await maybeOne<T>(db, sql, values);
  if (row === null) throw new RangeError('expected one row, got none');
  return row;
};

/** A time as ISO 8601 text in UTC, the one spelling the page reads; SQL for a column that is named by the code alone. */
export const isoText = (column: string): string => `to_char(${column} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;
