import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { pino } from 'pino';
import { buildApp } from './app';
import { ConfigError, readConfig } from './config';
import { migrate, MigrationError } from './db/migrate';
import { openPool } from './db/pool';
import { loadDemo } from './demo/load-demo';

/** Folder of the program: the build stands two levels below it. */
const ROOT = join(import.meta.dirname, '..', '..');

const start = async (): Promise<void> => {
  const config = readConfig(process.env);
  const log = pino({ level: config.logLevel });
  const { version } = JSON.parse(readFileSync(join(ROOT, 'package.json'), 'utf8')) as { version: string };
  const pool = openPool(config.databaseUrl);
  pool.on('error', (error) => log.warn({ err: error }, 'a database connection was lost'));
  const applied = await migrate(pool, join(ROOT, 'server', 'migrations'));
  if (applied.length > 0) log.info({ applied }, 'database brought up to date');
  if (await loadDemo(pool, join(ROOT, 'demo'))) log.info('demo study loaded');
  const server = buildApp({ pool, log, version, webDir: config.webDir }).listen(config.port, config.host);
  await new Promise<void>((resolve, reject) => server.once('listening', resolve).once('error', reject));
  const address = server.address();
  process.send?.({ listening: typeof address === 'object' && address ? address.port : config.port });
  const stop = (): void => {
    server.close(() => void pool.end().then(() => process.exit(0)));
    server.closeIdleConnections();
  };
  process.once('SIGINT', stop).once('SIGTERM', stop).once('disconnect', stop);
};

start().catch((error: unknown) => {
  const known = error instanceof ConfigError || error instanceof MigrationError || (error as { code?: string }).code === 'EADDRINUSE';
  process.stderr.write(`${known ? (error as Error).message : error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`);
  process.exit(1);
});
