import pg from 'pg';

export type Pool = pg.Pool;
/** What a query function needs: a pool or a client inside a transaction. */
export type Db = Pick<pg.Pool, 'query'>;

const INT8 = 20;
const DATE = 1082;

/** How many connections, and how long a statement, or the work between two of a transaction, may take. */
export interface PoolLimits {
  readonly connections: number;
  readonly statementMs: number;
  readonly betweenMs: number;
}

const LIMITS: PoolLimits = { connections: 10, statementMs: 60_000, betweenMs: 30_000 };

/** A pool whose values arrive as the record holds them: revisions as numbers, dates as YYYY-MM-DD. */
export const openPool = (connectionString: string, { connections, statementMs, betweenMs }: PoolLimits = LIMITS): Pool => {
  const types = new pg.TypeOverrides();
  types.setTypeParser(INT8, Number);
  types.setTypeParser(DATE, (text: string) => text);
  return new pg.Pool({
    connectionString,
    types,
    max: connections,
    // a network that swallows everything says nothing: dead connections are found by the system and by these times
    keepAlive: true,
    keepAliveInitialDelayMillis: 5000,
    connectionTimeoutMillis: 10_000,
    query_timeout: statementMs + 5000,
    statement_timeout: statementMs,
    lock_timeout: 10_000,
    idle_in_transaction_session_timeout: betweenMs,
  });
};
