import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { createServer } from 'node:http';
import { buildApp } from './app';
import { Aside } from './aside/aside';
import { ConfigError, isLoopback, readConfig, type Config } from './config';
import { migrate, MigrationError } from './db/migrate';
import { openPool, type Pool } from './db/pool';
import { loadDemo } from './demo/load-demo';
import { CONNECTIONS, limitConnections } from './http/connections';
import { openLog } from './http/log';
import { newSecret } from './http/session';
import { Turns } from './http/turns';
import { InstrumentHub } from './instruments/hub';
import { Reachable } from './instruments/reachable';
import { startStandIns } from './instruments/start-stand-ins';
import { Live } from './live/live';
import { demoPasswordPeople, settingOr } from './people/queries';

/** Folder of the program: the build stands two levels below it. */
const ROOT = join(import.meta.dirname, '..', '..');

/** Passwords that everybody can read must not stand open to a network. */
const refuseDemoPasswords = async (pool: Pool, { host, trustProxy, publicUrl }: Config): Promise<void> => {
  const isPassedOn = trustProxy !== null || publicUrl !== null;
  if (isLoopback(host) && !isPassedOn) return;
  const open = await demoPasswordPeople(pool);
  if (open.length > 0)
    throw new ConfigError(
      `${isPassedOn ? 'Others can reach this server through a proxy' : `HOST is ${host}, which others can reach`}, but ${open.map((p) => p.name).join(', ')} still ${open.length === 1 ? 'has' : 'have'} the password the demo study came with. ` +
        'Start on 127.0.0.1, sign in and change it, then start again; or begin without the demo study: DEMO=no on an empty database.',
    );
};

const start = async (): Promise<void> => {
  const config = readConfig(process.env);
  const log = openLog(config.logLevel);
  const { version } = JSON.parse(readFileSync(join(ROOT, 'package.json'), 'utf8')) as { version: string };
  const pool = openPool(config.databaseUrl);
  pool.on('error', (error) => log.warn({ err: error }, 'a database connection was lost'));
  const applied = await migrate(pool, join(ROOT, 'server', 'migrations'));
  if (applied.length > 0) log.info({ applied }, 'database brought up to date');
  if (config.demo && (await loadDemo(pool, join(ROOT, 'demo')))) log.info('demo study loaded');
  await refuseDemoPasswords(pool, config);
  const secret = await settingOr(pool, 'session secret', newSecret());
  const instruments = new InstrumentHub(pool, log, new Reachable(config.instrumentRanges));
  const live = new Live(pool, log, () => {
    instruments.reload().catch((error: unknown) => log.warn({ err: error }, 'the list of instruments could not be read'));
  });
  await live.start();
  const standIns = config.standIns ? await startStandIns(pool, log) : null;
  await instruments.reload();
  const turns = new Turns();
  const aside = new Aside(join(import.meta.dirname, 'aside.js'), config.databaseUrl, log, turns);
  const { webDir, limits, trustProxy, publicUrl } = config;
  const parts = { pool, log, version, webDir, secret, live, aside, turns, instruments, limits, trustProxy, publicUrl };
  const server = createServer(CONNECTIONS, buildApp(parts)).listen(config.port, config.host);
  limitConnections(server);
  await new Promise<void>((resolve, reject) => server.once('listening', resolve).once('error', reject));
  aside.warm();
  const address = server.address();
  process.send?.({ listening: typeof address === 'object' && address ? address.port : config.port });
  const stop = (): void => {
    // those who follow a study never end by themselves
    void live.stop().catch(() => undefined);
    instruments.stop();
    standIns?.stop();
    server.close(
      () =>
        void aside
          .stop()
          .then(() => pool.end())
          .then(() => process.exit(0)),
    );
    server.closeIdleConnections();
  };
  process.once('SIGINT', stop).once('SIGTERM', stop).once('disconnect', stop);
  // whoever started it went while it was starting
  if (process.send && !process.connected) stop();
};

start().catch((error: unknown) => {
  const known = error instanceof ConfigError || error instanceof MigrationError || (error as { code?: string }).code === 'EADDRINUSE';
  process.stderr.write(`${known ? (error as Error).message : error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`);
  process.exit(1);
});
