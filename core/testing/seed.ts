import fc from 'fast-check';

/** Random cases are the same in every run, so that a run tells of the code alone; FC_SEED tries others. */
fc.configureGlobal({ seed: Number(process.env.FC_SEED ?? 2026) });
