import { createHash } from 'node:crypto';
import pg from 'pg';
import { issue, type Issue } from '@each-bolt/core/shared';
import { ENTITIES, splitKind, type Change, type ChangeKept, type Entity, type RowOf } from '@each-bolt/core/record';
import type { Db, Pool } from '../db/pool';
import { transaction } from '../db/transaction';
import { Problem } from '../http/problem';
import { setRevision, studyRevision } from '../record/queries';
import { changeById, insertChange, lockStudy } from './queries';
import { inverseOps, netEffect, type CurrentRows, type RowEffect } from './net-effect';
import type { Store } from './store';
import { RULES, STORES } from './stores';

/** Who makes a change, and from where. */
export interface Maker {
  readonly madeBy: string;
  readonly device: string;
}

export interface Kept extends ChangeKept {
  /** true when this change id was kept before and the first answer is given again */
  readonly repeated: boolean;
}

const storeOf = (entity: Entity): Store<Entity> => STORES[entity] as unknown as Store<Entity>;

const loadCurrent = async (db: Db, studyId: string, change: Change): Promise<CurrentRows> => {
  const ids = new Map<Entity, Set<string>>();
  for (const op of change.ops) {
    const { entity } = splitKind(op.kind);
    const known = ids.get(entity);
    if (known) known.add(op.id);
    else ids.set(entity, new Set([op.id]));
  }
  const current = new Map<Entity, ReadonlyMap<string, RowOf<Entity>>>();
  for (const [entity, wanted] of ids) {
    const rows = await storeOf(entity).rows(db, studyId, [...wanted]);
    current.set(entity, new Map(rows.map((row) => [row.id, row])));
  }
  return current;
};

const write = async (db: Db, studyId: string, effects: readonly RowEffect[]): Promise<void> => {
  const of = (entity: Entity, test: (effect: RowEffect) => boolean): readonly RowEffect[] =>
    effects.filter((e) => e.entity === entity && test(e));
  const after = (found: readonly RowEffect[]): readonly RowOf<Entity>[] => found.flatMap((e) => (e.after ? [e.after] : []));
  for (const entity of ENTITIES) {
    const added = after(of(entity, (e) => e.before === null));
    const edited = after(of(entity, (e) => e.before !== null));
    if (added.length > 0) await storeOf(entity).insert(db, studyId, added);
    if (edited.length > 0) await storeOf(entity).update(db, studyId, edited);
  }
  for (const entity of [...ENTITIES].reverse()) {
    const removed = of(entity, (e) => e.after === null);
    if (removed.length > 0)
      await storeOf(entity).remove(
        db,
        studyId,
        removed.map((e) => e.id),
      );
  }
};

const brokenRules = async (db: Db, studyId: string, effects: readonly RowEffect[]): Promise<readonly Issue[]> => {
  const entities = new Set(effects.map((effect) => effect.entity));
  const touched = effects.map((effect) => effect.id);
  const issues: Issue[] = [];
  for (const { rule, when } of RULES) if (when.some((entity) => entities.has(entity))) issues.push(...(await rule(db, studyId, touched)));
  return issues;
};

const refuseWith = (issues: readonly Issue[]): void => {
  if (issues.length > 0) throw new Problem('invalid', 'The change does not fit the record. Nothing was written', issues);
};

const startsStudy = (change: Change, studyId: string): boolean => change.ops.some((op) => op.kind === 'study.add' && op.id === studyId);

const wrongStudy = (change: Change, studyId: string): readonly Issue[] =>
  change.ops
    .filter((op) => splitKind(op.kind).entity === 'study' && op.id !== studyId)
    .map((op) => issue('other-study', 'The change names another study than its address', 'id', op.id));

const removedStudy = (change: Change): readonly Issue[] =>
  change.ops
    .filter((op) => op.kind === 'study.remove')
    .map((op) => issue('study-stays', 'A study is not removed; its record stays', 'kind', op.id));

const alreadyKept = async (db: Db, studyId: string, id: string, digest: Buffer): Promise<Kept | null> => {
  const kept = await changeById(db, id);
  if (!kept) return null;
  if (kept.studyId === studyId && kept.digest.equals(digest)) return { id, revision: kept.revision, repeated: true };
  throw new Problem('invalid', 'This change id was used before for another change. Nothing was written', [
    issue('id-used', 'A change needs an id of its own', 'id', id),
  ]);
};

const UNIQUE_VIOLATION = '23505';

const keep = async (db: Db, studyId: string, change: Change, digest: Buffer, maker: Maker): Promise<Kept> => {
  await lockStudy(db, studyId);
  const first = await alreadyKept(db, studyId, change.id, digest);
  if (first) return first;
  const last = await studyRevision(db, studyId);
  if (last === null && !startsStudy(change, studyId)) throw new Problem('not-found', 'There is no such study');
  const revision = (last ?? 0) + 1;
  const { effects, conflicts, issues } = netEffect(change, await loadCurrent(db, studyId, change), revision);
  refuseWith([...wrongStudy(change, studyId), ...removedStudy(change), ...issues]);
  if (conflicts.length > 0)
    throw new Problem(
      'conflict',
      'Someone changed this in the meantime. Nothing was written; look at the current values and decide',
      [],
      conflicts,
    );
  await write(db, studyId, effects);
  refuseWith(await brokenRules(db, studyId, effects));
  await setRevision(db, studyId, revision);
  await insertChange(db, { id: change.id, studyId, revision, digest, ...maker, ops: change.ops, inverse: inverseOps(effects, revision) });
  return { id: change.id, revision, repeated: false };
};

/**
 * Keeps a change: all of its ops or none, once however often it is sent. Throws a Problem that lists every fault or
 * conflict; nothing is written then.
 */
export const keepChange = async (pool: Pool, studyId: string, change: Change, maker: Maker): Promise<Kept> => {
  const digest = createHash('sha256').update(JSON.stringify(change.ops)).digest();
  try {
    return await transaction(pool, (db) => keep(db, studyId, change, digest, maker));
  } catch (error) {
    if (error instanceof pg.DatabaseError && error.code === UNIQUE_VIOLATION) {
      throw new Problem('invalid', 'A record with this id is already there, in this study or another. Nothing was written', [
        issue('id-taken', 'Every record needs an id of its own', 'id'),
      ]);
    }
    throw error;
  }
};
