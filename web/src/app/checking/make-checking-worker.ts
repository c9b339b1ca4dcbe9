/** The worker that runs the checks; a file of its own, because test runners do not know where modules are. */
export const makeCheckingWorker = (): Worker => new Worker(new URL('./checking.worker', import.meta.url), { type: 'module' });
