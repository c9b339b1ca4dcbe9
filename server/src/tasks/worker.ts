import { setPriority } from 'node:os';
import { getHeapStatistics } from 'node:v8';
import { parentPort, workerData } from 'node:worker_threads';
import { openPool, type PoolLimits } from '../db/pool';
import { crossed } from '../aside/crossing';
import type { AsideSettings, Task } from '../aside/task';
import { TASKS } from './tasks';

/** Whoever waits for an answer comes before what is done aside. Elsewhere the number of no thread but of the whole program is meant. */
const ASIDE_NICENESS = 10;
if (process.platform === 'linux') setPriority(0, ASIDE_NICENESS);

/** What is large takes its time, on a busy machine too. */
const LARGE: PoolLimits = { connections: 2, statementMs: 300_000, betweenMs: 300_000 };

const { databaseUrl } = workerData as AsideSettings;
const pool = openPool(databaseUrl, LARGE);
// a lost connection is told by the task that needs it
pool.on('error', () => undefined);

/** A thread whose memory has grown to this is better ended than kept. */
const FULL_BYTES = 128 * 1024 * 1024;
const isFull = (): boolean => getHeapStatistics().total_heap_size > FULL_BYTES;

const port = parentPort;
if (!port) throw new Error('This is a thread of the server and does not run alone');
port.on('message', ({ task, given }: { readonly task: Task; readonly given: never }) => {
  (TASKS[task](pool, given) as Promise<unknown>).then(
    (answer) => port.postMessage({ answer, isFull: isFull() }),
    (error: unknown) => port.postMessage({ failure: crossed(error), isFull: isFull() }),
  );
});
