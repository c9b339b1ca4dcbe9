/** The worker that makes schedules; a file of its own, because test runners do not know where modules are. */
export const makeScheduleWorker = (): Worker => new Worker(new URL('./schedule.worker', import.meta.url), { type: 'module' });
