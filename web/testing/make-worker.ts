/** Test runners have no workers. */
export const makeScheduleWorker = (): Worker => {
  throw new RangeError('no worker here');
};
