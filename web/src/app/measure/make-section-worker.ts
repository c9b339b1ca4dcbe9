/** The worker that works sections out; a file of its own, because test runners do not know where modules are. */
export const makeSectionWorker = (): Worker => new Worker(new URL('./section.worker', import.meta.url), { type: 'module' });
