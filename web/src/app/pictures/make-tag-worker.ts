/** The worker that looks for tags in pictures; a file of its own, because test runners do not know where modules are. */
export const makeTagWorker = (): Worker => new Worker(new URL('./tag.worker', import.meta.url), { type: 'module' });
