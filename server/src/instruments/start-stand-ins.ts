import { fork, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import type { Logger } from 'pino';
import type { InstrumentKind } from '@each-bolt/core/bench';
import type { Pool } from '../db/pool';
import { setStandIns, type InstrumentRow } from './queries';

const NAMES: Readonly<Record<InstrumentKind, string>> = {
  scale: 'Bench scale',
  'floor scale': 'Floor scale',
  caliper: 'Caliper',
  'alloy analyser': 'Alloy analyser',
  'torque driver': 'Torque driver',
  'mesh scanner': 'Mesh scanner',
  camera: 'Camera',
};
const AGAIN_MS = 1000;

const listening = (child: ChildProcess): Promise<number> =>
  new Promise((done, fail) => {
    child.once('message', (message) => done((message as { listening: number }).listening));
    child.once('exit', () => fail(new Error('a stand-in did not start')));
  });

/** Starts a stand-in of each instrument as a process of its own, and names their addresses in the settings. */
export const startStandIns = async (pool: Pool, log: Logger): Promise<{ readonly stop: () => void }> => {
  const children = new Map<InstrumentKind, ChildProcess>();
  let stopped = false;
  const begin = async (kind: InstrumentKind, port: number): Promise<number> => {
    const child = fork(join(import.meta.dirname, 'stand-in.js'), [kind, String(port)], { stdio: ['ignore', 'ignore', 'inherit', 'ipc'] });
    children.set(kind, child);
    const at = await listening(child);
    child.once('exit', () => {
      if (stopped) return;
      log.warn({ kind }, 'a stand-in ended and is started again');
      setTimeout(() => {
        if (!stopped) begin(kind, at).catch((error: unknown) => log.warn({ err: error, kind }, 'a stand-in could not be started again'));
      }, AGAIN_MS);
    });
    return at;
  };
  const kinds = Object.keys(NAMES) as InstrumentKind[];
  const rows = await Promise.all(
    kinds.map(async (kind): Promise<InstrumentRow> => ({
      id: randomUUID(),
      name: NAMES[kind],
      kind,
      host: '127.0.0.1',
      port: await begin(kind, 0),
      simulated: true,
    })),
  );
  await setStandIns(pool, rows);
  return {
    stop: () => {
      stopped = true;
      for (const child of children.values()) child.kill('SIGTERM');
    },
  };
};
