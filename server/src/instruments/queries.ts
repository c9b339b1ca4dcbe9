import type { InstrumentKind } from '@each-bolt/core/bench';
import type { Db } from '../db/pool';
import { many } from '../db/rows';

/** An instrument of the organisation: where it is. */
export interface InstrumentRow {
  readonly id: string;
  readonly name: string;
  readonly kind: InstrumentKind;
  readonly host: string;
  readonly port: number;
  readonly simulated: boolean;
}

export const allInstruments = (db: Db): Promise<readonly InstrumentRow[]> =>
  many(db, 'select id, name, kind, host, port, simulated from instrument order by simulated, name, id', []);

export const addInstrument = (db: Db, row: InstrumentRow): Promise<unknown> =>
  db.query('insert into instrument (id, name, kind, host, port, simulated) values ($1, $2, $3, $4, $5, $6)', [
    row.id,
    row.name,
    row.kind,
    row.host,
    row.port,
    row.simulated,
  ]);

export const removeInstrument = (db: Db, id: string): Promise<unknown> => db.query('delete from instrument where id = $1', [id]);

/** Puts the stand-ins at the addresses they listen on now, and takes off those of an earlier start. */
export const setStandIns = async (db: Db, rows: readonly InstrumentRow[]): Promise<void> => {
  await db.query('delete from instrument where simulated', []);
  for (const row of rows) await addInstrument(db, row);
};
