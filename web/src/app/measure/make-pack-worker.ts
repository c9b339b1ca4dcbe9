/** The worker that works packs out; a file of its own, because test runners do not know where modules are. */
export const makePackWorker = (): Worker => new Worker(new URL('./pack.worker', import.meta.url), { type: 'module' });
