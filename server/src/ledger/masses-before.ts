import { isUuid } from '@each-bolt/core/shared';
import type { EvidenceOf, Masses, Op } from '@each-bolt/core/record';
import type { Pool } from '../db/pool';
import { changeOf } from './queries';
import { STORES } from '../db/stores';

type MassOf = NonNullable<ReturnType<Masses['get']>>;

const WEIGHED = ['part', 'fasteners', 'fluid'] as const;

const idOf = (op: unknown): string | null =>
  typeof op === 'object' && op !== null && 'id' in op && typeof op.id === 'string' && isUuid(op.id) ? op.id : null;

/** What an op of a kept change says its row weighed before it. */
const massBefore = (op: Op, now: MassOf | undefined): MassOf | undefined => {
  const was = ('was' in op ? op.was : {}) as { readonly massEachKg?: number | null; readonly evidence?: EvidenceOf };
  if (!('massEachKg' in was) && !was.evidence?.massEachKg) return now;
  return { kg: was.massEachKg ?? now?.kg ?? null, said: was.evidence?.massEachKg ?? now?.said ?? null };
};

/**
 * What the rows that ops name weigh before these, by id: now, or as a change of this id says that was kept already.
 *
 * @param changeId id of the change that the ops are of
 */
export const massesBefore = async (pool: Pool, studyId: string, changeId: unknown, ops: readonly unknown[]): Promise<Masses> => {
  const ids = ops.flatMap((op) => idOf(op) ?? []);
  const masses: Masses = new Map();
  for (const entity of WEIGHED)
    for (const { id, massEachKg, evidence } of await STORES[entity].rows(pool, studyId, ids))
      masses.set(id, { kg: massEachKg, said: evidence.massEachKg ?? null });
  const kept = typeof changeId === 'string' && isUuid(changeId) ? await changeOf(pool, studyId, changeId) : null;
  for (const op of kept?.ops ?? []) {
    const before = massBefore(op, masses.get(op.id));
    if (before) masses.set(op.id, before);
  }
  return masses;
};
