const none = (): Worker => {
  throw new RangeError('no worker here');
};

/** Test runners have no workers. */
export const makeScheduleWorker = none;
export const makeMeshWorker = none;
export const makeSectionWorker = none;
export const makeImportWorker = none;
