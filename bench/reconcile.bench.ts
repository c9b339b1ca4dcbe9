import { Checking } from '@each-bolt/core/reconcile';
import type { StudyRecord } from '@each-bolt/core/record';
import { syntheticStudy } from '../core/testing/synthetic-study';
import { atMost, medianMs, type Result } from './harness';

const PARTS = 30_000;
const TODAY = '2026-06-01';

/** All checks over a study in which everything agrees, and again after the mass of one part was edited. */
export const reconcileBench = (): readonly Result[] => {
  const study = syntheticStudy(11, PARTS);
  const all = medianMs(
    () => {
      if (new Checking(study, TODAY).reconciled().causes.length > 0.02 * PARTS) throw new RangeError('a clean study is doubted');
    },
    3,
    1,
  );
  const checking = new Checking(study, TODAY);
  checking.reconciled();
  const at = study.parts.findIndex((part) => part.parentId !== null);
  let n = 0;
  const edited = (): StudyRecord => {
    const { record } = checking;
    const part = { ...record.parts[at]!, massEachKg: 0.4 + ++n / 1000 };
    return { ...record, revision: record.revision + 1, parts: record.parts.with(at, part) };
  };
  const one = medianMs(() => {
    checking.moveTo(edited());
    checking.reconciled();
  }, 21);
  return [atMost(`all checks on ${PARTS} parts`, all, 'ms', 1000), atMost('all checks after one edit', one, 'ms', 20)];
};
