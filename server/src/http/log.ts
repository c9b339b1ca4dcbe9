import pg from 'pg';
import { pino, stdSerializers, type DestinationStream, type Logger } from 'pino';

/** What an error of the database is about, without what stands in the rows: its own words and details quote values. */
const ofDatabase = ({ code, severity, table, column, constraint, routine, stack }: pg.DatabaseError): object => {
  const frames = (stack ?? '').split('\n').filter((line) => /^\s+at /.test(line));
  return { type: 'DatabaseError', ...{ code, severity, table, column, constraint, routine }, stack: frames.join('\n') };
};

/** What failed in another thread, as the log keeps it. */
export class LoggedElsewhere {
  constructor(readonly kept: object) {}
}

/** An error as the log keeps it: never with values of the record, a password or its hash. */
export const serialized = (error: unknown): object => {
  if (error instanceof pg.DatabaseError) return ofDatabase(error);
  if (error instanceof LoggedElsewhere) return error.kept;
  if (!(error instanceof Error)) return { type: typeof error };
  const { type, message, stack } = stdSerializers.err(error);
  const code = 'code' in error && typeof error.code === 'string' ? error.code : undefined;
  return { type, message, stack, code };
};

/** The log of the server: JSON, a line for each event. */
export const openLog = (level: string, to?: DestinationStream): Logger => {
  const settings = { level, serializers: { err: serialized } };
  return to ? pino(settings, to) : pino(settings);
};
