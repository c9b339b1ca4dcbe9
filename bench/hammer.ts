import { setPriority } from 'node:os';
import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { Worker, parentPort, workerData } from 'node:worker_threads';
import { Guest } from './guest';

/** Who hammers at which study. */
interface Hammer {
  readonly port: number;
  readonly studyId: string;
  readonly reader: readonly (readonly [string, string])[];
}

const AT_ONCE = 2;

/** Again and again, several at a time, without end; what is answered does not matter. */
const hammer = (acts: readonly (() => Promise<unknown>)[]): void => {
  for (const act of acts) {
    const blow = (): void => {
      void act()
        .catch(() => pause(5))
        .then(blow);
    };
    for (let i = 0; i < AT_ONCE; i++) blow();
  }
};

/** What a reader of a study and a stranger can do to keep others waiting; runs in a thread until it is ended. */
export const hammerHere = (): void => {
  // clients are elsewhere: here they take only what the server leaves
  if (process.platform === 'linux') setPriority(0, 19);
  const { port, studyId, reader: cookies } = workerData as Hammer;
  const [reader, nobody] = [new Guest(port, null, '203.0.113.251', cookies), new Guest(port, null, '203.0.113.252')];
  const faulty = JSON.stringify({ id: randomUUID(), undoes: null, ops: Array.from({ length: 20_000 }, () => ({ kind: 'part.add', id: randomUUID(), fields: {} })) }); // prettier-ignore
  const deep = `${'['.repeat(200_000)}${']'.repeat(200_000)}`;
  hammer([
    () => reader.let('GET', `/api/studies/${studyId}`),
    () => reader.let('GET', `/api/studies/${studyId}/history`),
    () => reader.let('GET', `/api/studies/${studyId}/archive`),
    () => reader.let('POST', `/api/studies/${studyId}/changes`, faulty),
    () => nobody.let('POST', '/api/sign-in', JSON.stringify({ login: 'wenna', password: randomUUID() })),
    () => nobody.let('POST', '/api/sign-in', deep),
    () => nobody.let('POST', `/api/studies/${studyId}/changes`, faulty),
    () => nobody.let('GET', '/api/me'),
  ]);
  parentPort?.postMessage('begun');
};

/** Lets a reader and a stranger loose, in a thread of their own: what they are busy with is not taken for waiting of others. */
export const letLoose = async (port: number, studyId: string, reader: Guest): Promise<() => Promise<unknown>> => {
  const given: Hammer = { port, studyId, reader: reader.held() };
  const thread = new Worker(fileURLToPath(import.meta.url), { workerData: given });
  await new Promise((begun, failed) => thread.once('message', begun).once('error', failed));
  return () => thread.terminate();
};
