/** The worker that reads files of parts; a file of its own, because test runners do not know where modules are. */
export const makeImportWorker = (): Worker => new Worker(new URL('./import.worker', import.meta.url), { type: 'module' });
