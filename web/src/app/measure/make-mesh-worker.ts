/** The worker that measures scans; a file of its own, because test runners do not know where modules are. */
export const makeMeshWorker = (): Worker => new Worker(new URL('./mesh.worker', import.meta.url), { type: 'module' });
