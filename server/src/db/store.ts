import type { Issue } from '@each-bolt/core/shared';
import type { Entity, RowEffect, RowOf } from '@each-bolt/core/record';
import type { Db } from './pool';

/** A change of more ops than this is a large one. */
export const LARGE_OPS = 400;

/** How the rows of one kind of record are read and written. */
export interface Store<E extends Entity> {
  readonly entity: E;
  /** the table its rows are in */
  readonly table: string;
  /** all rows of the study in their order, as a list in JSON, which passes through without being read here */
  readonly allText: (db: Db, studyId: string) => Promise<string>;
  /** rows of the study with these ids */
  readonly rows: (db: Db, studyId: string, ids: readonly string[]) => Promise<readonly RowOf<E>[]>;
  /** keeps others from writing these rows until the transaction ends */
  readonly hold: (db: Db, studyId: string, ids: readonly string[]) => Promise<unknown>;
  readonly insert: (db: Db, studyId: string, rows: readonly RowOf<E>[]) => Promise<unknown>;
  /** the same for very many rows */
  readonly insertMany: (db: Db, studyId: string, rows: readonly RowOf<E>[]) => Promise<unknown>;
  readonly update: (db: Db, studyId: string, rows: readonly RowOf<E>[]) => Promise<unknown>;
  readonly remove: (db: Db, studyId: string, ids: readonly string[]) => Promise<unknown>;
}

/** A rule across rows, checked once all rows of a change are written and before it is kept. @param touched effects on rows of its kinds */
export type RecordRule = (db: Db, studyId: string, touched: readonly RowEffect[]) => Promise<readonly Issue[]>;
