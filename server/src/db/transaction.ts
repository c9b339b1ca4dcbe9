import pg from 'pg';
import type { Db, Pool } from './pool';

const isRetryable = (error: unknown): boolean => error instanceof pg.DatabaseError && (error.code ?? '').startsWith('40');

const once = async <T>(pool: Pool, act: (db: Db) => Promise<T>): Promise<T> => {
  const client = await pool.connect();
  let broken: Error | undefined;
  // the database may go away between two statements, when nobody waits for an answer that could fail
  const onLost = (error: Error): void => {
    broken = error;
  };
  client.on('error', onLost);
  try {
    await client.query('begin');
    const result = await act(client);
    await client.query('commit');
    return result;
  } catch (error) {
    await client.query('rollback').catch((failure: unknown) => {
      broken = failure instanceof Error ? failure : new Error(String(failure));
    });
    throw error;
  } finally {
    client.off('error', onLost);
    client.release(broken);
  }
};

const MOST_TRIES = 3;

/** Runs an act in one transaction: all of it is kept, or nothing. Deadlocks and serialisation failures are tried again. */
export const transaction = async <T>(pool: Pool, act: (db: Db) => Promise<T>): Promise<T> => {
  for (let attempt = 1; ; attempt++) {
    try {
      return await once(pool, act);
    } catch (error) {
      if (attempt >= MOST_TRIES || !isRetryable(error)) throw error;
    }
  }
};
