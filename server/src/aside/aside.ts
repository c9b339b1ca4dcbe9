import { Worker, type Transferable } from 'node:worker_threads';
import type { Logger } from 'pino';
import { Problem } from '../http/problem';
import type { Turns } from '../http/turns';
import { arrived, type Crossed } from './crossing';
import type { Answer, AsideSettings, Given, Task } from './task';

interface Job {
  readonly task: Task;
  readonly given: object;
  readonly bytes: number;
  readonly whose: string;
  readonly moved: readonly Transferable[];
  /** says that the turn of the person whose it is ends; null while it is not theirs yet */
  endTurn: (() => void) | null;
  readonly done: (answer: never) => void;
  readonly fail: (error: Error) => void;
}

type Heard = ({ readonly answer: unknown } | { readonly failure: Crossed }) & { readonly isFull: boolean };

const MOST_THREADS = 2;
/** What waits is bounded, in jobs and in bytes; of one person's it may be no more than half of that. */
const MOST_WAITING = 100;
const MOST_WAITING_BYTES = 256 * 1024 * 1024;
/** So much memory the objects of one job may take; one that needs more is refused, and nothing else ends with it. */
const MOST_HEAP_MB = 1024;
/** Twice the usual: what lives as long as its job is not moved about again and again. */
const YOUNG_HEAP_MB = 96;

const OUT_OF_MEMORY = 'ERR_WORKER_OUT_OF_MEMORY';

/**
 * Threads beside the one that answers everybody: what would keep that one from others for more than an instant is done here, with
 * connections to the database of its own.
 */
export class Aside {
  private readonly waiting: Job[] = [];
  private readonly running = new Map<Worker, Job>();
  private readonly idle: Worker[] = [];
  private stopped = false;

  /** @param file the program of the threads, as it was built */
  constructor(
    private readonly file: string,
    private readonly databaseUrl: string,
    private readonly log: Logger,
    private readonly turns: Turns,
  ) {}

  /**
   * @param whose the person it is for: of one person one job runs at a time, so that nobody has all threads
   * @param bytes a buffer in `given` that is moved, not copied
   * @throws Problem what the task refuses; `unavailable` when too much waits already
   */
  run<T extends Task>(task: T, whose: string, given: Given<T>, bytes?: Uint8Array): Promise<Answer<T>> {
    const size = bytes?.byteLength ?? 0;
    const isFull = (jobs: readonly Job[], share: number): boolean =>
      jobs.length >= MOST_WAITING * share ||
      (jobs.length > 0 && jobs.reduce((sum, job) => sum + job.bytes, size) > MOST_WAITING_BYTES * share);
    const own = this.waiting.filter((job) => job.whose === whose);
    if (isFull(own, 0.5)) throw new Problem('too-many', 'You have sent much that is still worked on; wait for it. Nothing was written');
    if (isFull(this.waiting, 1))
      throw new Problem(
        'unavailable',
        'The server has many large files and changes to work on. Nothing was written; try again in a minute',
      );
    return new Promise((done, fail) => {
      // only a buffer that is nobody else’s can be moved
      const isOwn = bytes !== undefined && bytes.byteLength === bytes.buffer.byteLength;
      const job: Job = { task, given, whose, bytes: size, moved: isOwn ? [bytes.buffer as ArrayBuffer] : [], endTurn: null, done, fail };
      this.waiting.push(job);
      this.turns.take(whose, 'aside').then(
        (endTurn) => {
          job.endTurn = endTurn;
          this.next();
        },
        (error: unknown) => {
          this.waiting.splice(this.waiting.indexOf(job), 1);
          fail(error instanceof Error ? error : new Error(String(error)));
        },
      );
    });
  }

  /** Starts a thread before it is needed: whoever needs it first waits no longer than others. */
  warm(): void {
    if (this.idle.length === 0 && this.running.size === 0) this.idle.push(this.start());
  }

  async stop(): Promise<void> {
    this.stopped = true;
    for (const job of this.waiting.splice(0)) job.fail(new Problem('unavailable', 'The server is stopping. Nothing was written'));
    await Promise.all([...this.idle, ...this.running.keys()].map((worker) => worker.terminate()));
  }

  private next(): void {
    if (this.running.size >= MOST_THREADS || this.stopped) return;
    const at = this.waiting.findIndex(({ endTurn }) => endTurn !== null);
    const [job] = at < 0 ? [] : this.waiting.splice(at, 1);
    if (!job) return;
    const worker = this.idle.pop() ?? this.start();
    this.running.set(worker, job);
    worker.postMessage({ task: job.task, given: job.given }, [...job.moved]);
    this.next();
  }

  private start(): Worker {
    const workerData: AsideSettings = { databaseUrl: this.databaseUrl };
    const worker = new Worker(this.file, {
      workerData,
      resourceLimits: { maxOldGenerationSizeMb: MOST_HEAP_MB, maxYoungGenerationSizeMb: YOUNG_HEAP_MB },
    });
    let ended: unknown = null;
    worker.on('message', (heard: Heard) => {
      const job = this.over(worker);
      // one that had a whole study in its memory gives it back by ending
      if (heard.isFull) void worker.terminate();
      else this.idle.push(worker);
      if ('answer' in heard) job?.done(heard.answer as never);
      else job?.fail(arrived(heard.failure));
      this.next();
    });
    worker.on('error', (error) => {
      ended = error;
    });
    worker.on('exit', () => {
      const job = this.over(worker);
      const place = this.idle.indexOf(worker);
      if (place >= 0) this.idle.splice(place, 1);
      job?.fail(this.whyEnded(ended));
      this.next();
    });
    // threads that rest keep no program from ending
    worker.unref();
    return worker;
  }

  /** The job that a thread has done, one way or another. */
  private over(worker: Worker): Job | undefined {
    const job = this.running.get(worker);
    this.running.delete(worker);
    job?.endTurn?.();
    return job;
  }

  private whyEnded(error: unknown): Problem {
    if (this.stopped) return new Problem('unavailable', 'The server is stopping. Nothing was written; try again in a moment');
    if (error instanceof Error && 'code' in error && error.code === OUT_OF_MEMORY)
      return new Problem('too-large', 'It holds more than the server has memory for. Nothing was written');
    this.log.error({ err: error }, 'a thread of the server ended');
    return new Problem('failed', 'Something failed on the server. Nothing was written; it is in the server’s log');
  }
}
