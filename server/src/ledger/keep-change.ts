import { createHash, randomInt } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { isDeepStrictEqual } from 'node:util';
import pg from 'pg';
import { issue, type Issue } from '@each-bolt/core/shared';
import {
  ENTITIES,
  inverseOps,
  netEffect,
  splitKind,
  opOfToday,
  type Change,
  type CurrentRows,
  type Entity,
  type Op,
  type Role,
  type RowEffect,
  type RowOf,
} from '@each-bolt/core/record';
import type { Db, Pool } from '../db/pool';
import { isHeldBroken } from '../db/references';
import { transaction } from '../db/transaction';
import { Problem } from '../http/problem';
import { mayMake } from '../http/roles';
import type { Kept } from '../aside/task';
import type { Maker } from '../people/maker';
import { roleIn, type Person } from '../people/queries';
import { setRevision, studyHead } from '../record/queries';
import { changeById, changeOf, insertChange, onlyOnce, refreshStatistics, rowsSince, setChangeRevision, takeTurn } from './queries';
import { toldConflicts } from './told-conflicts';
import { brokenRules } from './rules';
import { LARGE_OPS, type Store } from '../db/store';
import { STORES } from '../db/stores';

const storeOf = (entity: Entity): Store<Entity> => STORES[entity] as unknown as Store<Entity>;

type Ids = ReadonlyMap<Entity, ReadonlySet<string>>;

const byEntity = (rows: readonly { readonly entity: Entity; readonly id: string }[]): Ids => {
  const ids = new Map<Entity, Set<string>>();
  for (const { entity, id } of rows) ids.set(entity, (ids.get(entity) ?? new Set()).add(id));
  return ids;
};

const named = ({ ops }: Change): Ids => byEntity(ops.map(({ kind, id }) => ({ entity: splitKind(kind).entity, id })));

const loadCurrent = async (db: Db, studyId: string, ids: Ids): Promise<CurrentRows> => {
  const current = new Map<Entity, ReadonlyMap<string, RowOf<Entity>>>();
  for (const [entity, wanted] of ids) {
    const rows = await storeOf(entity).rows(db, studyId, [...wanted]);
    current.set(entity, new Map(rows.map((row) => [row.id, row])));
  }
  return current;
};

/** Keeps everybody else from writing the rows that a change edits or takes off. */
const holdRows = async (db: Db, studyId: string, { ops }: Change): Promise<void> => {
  const written = ops.filter((op) => 'was' in op).map(({ kind, id }) => ({ entity: splitKind(kind).entity, id }));
  for (const [entity, ids] of byEntity(written)) await storeOf(entity).hold(db, studyId, [...ids]);
};

const write = async (db: Db, studyId: string, effects: readonly RowEffect[]): Promise<void> => {
  const of = (entity: Entity, test: (effect: RowEffect) => boolean): readonly RowEffect[] =>
    effects.filter((e) => e.entity === entity && test(e));
  const after = (found: readonly RowEffect[]): readonly RowOf<Entity>[] => found.flatMap((e) => (e.after ? [e.after] : []));
  for (const entity of ENTITIES) {
    const added = after(of(entity, (e) => e.before === null));
    const edited = after(of(entity, (e) => e.before !== null));
    if (added.length > LARGE_OPS) {
      await storeOf(entity).insertMany(db, studyId, added);
      await refreshStatistics(db, STORES[entity].table);
    } else if (added.length > 0) await storeOf(entity).insert(db, studyId, added);
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

const refuseWith = (issues: readonly Issue[]): void => {
  if (issues.length > 0) throw new Problem('invalid', 'The change does not fit the record. Nothing was written', issues);
};

const startsStudy = (change: Change, studyId: string): boolean => change.ops.some((op) => op.kind === 'study.add' && op.id === studyId);

const wrongStudy = (change: Change, studyId: string): readonly Issue[] =>
  change.ops
    .filter((op) => splitKind(op.kind).entity === 'study' && op.id !== studyId)
    .map((op) => issue('other-study', 'The change names another study than its address', 'id', op.id));

/** Whether what was kept, by this version or one before it, is what is sent again: fields that came later count as never said. */
const isSame = async (db: Db, studyId: string, change: Change): Promise<boolean> => {
  const kept = await changeOf(db, studyId, change.id);
  const ofToday = (ops: readonly Op[]): unknown => JSON.parse(JSON.stringify(ops.map((op) => opOfToday(op))));
  return kept?.undoes === change.undoes && isDeepStrictEqual(ofToday(kept.ops), ofToday(change.ops));
};

const alreadyKept = async (db: Db, studyId: string, change: Change, digest: Buffer): Promise<Kept | null> => {
  const { id } = change;
  const kept = await changeById(db, id);
  if (!kept) return null;
  if (kept.studyId === studyId && (kept.digest.equals(digest) || (await isSame(db, studyId, change))))
    return { id, revision: kept.revision, repeated: true };
  throw new Problem('invalid', 'This change id was used before for another change. Nothing was written', [
    issue('id-used', 'A change needs an id of its own', 'id', id),
  ]);
};

/** The role a person writes with: of a study that begins, that of its lead. */
const roleOfMaker = async (db: Db, studyId: string, person: Person, isNew: boolean): Promise<Role | null> =>
  isNew ? (person.standing === 'lead' ? 'lead' : null) : roleIn(db, studyId, person.id);

/** Throws for whoever has no role in the study, or may not begin it. */
export const refuseRole = (role: Role | null, isNew: boolean): Role => {
  if (role !== null) return role;
  if (isNew) throw new Problem('forbidden', 'Only a lead of the organisation begins a study; ask one. Nothing was written');
  throw new Problem('not-found', 'There is no such study, or you are not of it. Nothing was written');
};

const checkMay = async (db: Db, studyId: string, change: Change, { person }: Maker, isNew: boolean): Promise<void> => {
  if (!person) return;
  const role = refuseRole(await roleOfMaker(db, studyId, person, isNew), isNew);
  const refused = change.ops.filter((op) => !mayMake(role, op));
  if (refused.length === 0) return;
  throw new Problem(
    'forbidden',
    `As ${role} of this study you may not do this. Nothing was written; ask a lead of the study`,
    refused.slice(0, 20).map((op) => issue('forbidden', `A ${role} may not make this: ${op.kind.replace('.', ', ')}`, 'kind', op.id)),
  );
};

/** True for an op that only opens an archived study again or archives it. */
const isAboutState = (op: Op): boolean => op.kind === 'study.edit' && Object.keys(op.fields).every((field) => field === 'state');

const undoneBefore = (): Problem =>
  new Problem('invalid', 'Nothing was written', [issue('undone-before', 'This change has been undone before', 'undoes')]);

const checkUndo = async (db: Db, studyId: string, { id, undoes }: Change, { person }: Maker): Promise<void> => {
  if (undoes === null) return;
  const undone = await changeById(db, undoes);
  if (undone?.studyId !== studyId)
    throw new Problem('invalid', 'Nothing was written', [issue('undone-unknown', 'The change to undo is not of this study', 'undoes')]);
  if (person && undone.personId !== person.id)
    throw new Problem('forbidden', 'Only what you did yourself can be undone by you. Nothing was written');
  if (undone.undoneBy !== null && undone.undoneBy !== id) throw undoneBefore();
};

const UNIQUE_VIOLATION = '23505';

/** A change on its way into the ledger of a study. */
interface Sent {
  readonly studyId: string;
  readonly change: Change;
  /** its ops as JSON */
  readonly opsText: string;
  readonly digest: Buffer;
  readonly maker: Maker;
  /** references that the database holds are looked at by themselves, so that what is wrong can be told */
  readonly inWords: boolean;
}

/** The revision a change follows on, once it is sure that its maker may make it now; 0 for a study that begins. */
const permit = async (db: Db, { studyId, change, maker }: Sent): Promise<number> => {
  const head = await studyHead(db, studyId);
  const isNew = head === null;
  if (isNew && !startsStudy(change, studyId)) throw new Problem('not-found', 'There is no such study');
  await checkMay(db, studyId, change, maker, isNew);
  if (head?.state === 'archived' && !change.ops.every(isAboutState))
    throw new Problem('forbidden', 'The study is archived and only read. Nothing was written; a lead can open it again');
  await checkUndo(db, studyId, change, maker);
  return head?.revision ?? 0;
};

/** What a change does to the rows as they stand; throws when it clashes with them or leaves faults. */
const effectsOf = async (db: Db, { studyId, change }: Sent, version: number): Promise<readonly RowEffect[]> => {
  const { effects, conflicts, issues } = netEffect(change.ops, await loadCurrent(db, studyId, named(change)), version);
  refuseWith([...wrongStudy(change, studyId), ...issues]);
  if (conflicts.length > 0)
    throw new Problem(
      'conflict',
      'Someone changed this in the meantime. Nothing was written; look at both values and choose',
      [],
      await toldConflicts(db, studyId, conflicts),
    );
  return effects;
};

const enter = (db: Db, sent: Sent, effects: readonly RowEffect[], at: { readonly revision: number; readonly mark: number | null }) => {
  const { studyId, change, opsText, digest, maker } = sent;
  const rows = effects.map(({ entity, id }) => ({ entity, id }));
  const made = { personId: maker.person?.id ?? null, madeBy: maker.name, device: maker.device };
  // of a change that only adds, each row once, its ops say what undoes it
  const onlyAdds = effects.length === change.ops.length && change.ops.every((op) => !('was' in op));
  return insertChange(db, { ...change, ...at, ...made, studyId, opsText, digest, inverse: onlyAdds ? null : inverseOps(effects), rows });
};

const keep = async (db: Db, sent: Sent): Promise<Kept> => {
  const { studyId, change, digest } = sent;
  await takeTurn(db, studyId);
  const first = await alreadyKept(db, studyId, change, digest);
  if (first) return first;
  const revision = (await permit(db, sent)) + 1;
  const effects = await effectsOf(db, sent, revision);
  await write(db, studyId, effects);
  refuseWith(await brokenRules(db, studyId, effects, sent.inWords));
  await setRevision(db, studyId, revision);
  await enter(db, sent, effects, { revision, mark: null });
  return { id: change.id, revision, repeated: false };
};

/**
 * What others wrote meanwhile, as effects whose rules are looked at again. What a row was before they did is of no interest, as long as
 * it counts as one that was there, but for tags: a tag counts as new where this change gives it too.
 */
const writtenSince = async (db: Db, studyId: string, revision: number, ours: readonly RowEffect[]): Promise<readonly RowEffect[]> => {
  const rows = await rowsSince(db, studyId, revision);
  const current = await loadCurrent(db, studyId, byEntity(rows));
  const tagOf = (row: RowOf<Entity> | null): string => (row !== null && 'tag' in row ? row.tag : '');
  const tags = new Set(ours.flatMap(({ after }) => tagOf(after) || []));
  return rows.map(({ entity, id }) => {
    const after = current.get(entity)?.get(id) ?? null;
    return { entity, id, before: tags.has(tagOf(after)) ? ({ ...after, tag: '' } as RowOf<Entity>) : after, after };
  });
};

/** Any number below nothing that no other change has. */
const newMark = (): number => -randomInt(1, 2 ** 47);

/**
 * Keeps a change of very many rows so that others of its study go on: everything is written and looked at before its turn, under a
 * mark in place of the revision that nobody knows yet. In its turn only what others wrote meanwhile is looked at again.
 */
const keepLarge = async (db: Db, sent: Sent): Promise<Kept> => {
  const { studyId, change, digest } = sent;
  await onlyOnce(db, change.id);
  const first = await alreadyKept(db, studyId, change, digest);
  if (first) return first;
  const seen = await permit(db, sent);
  const mark = newMark();
  await holdRows(db, studyId, change);
  const effects = await effectsOf(db, sent, mark);
  await write(db, studyId, effects);
  refuseWith(await brokenRules(db, studyId, effects, sent.inWords));
  await enter(db, sent, effects, { revision: mark, mark });
  await takeTurn(db, studyId);
  const revision = (await permit(db, sent)) + 1;
  if (revision > seen + 1) refuseWith(await brokenRules(db, studyId, await writtenSince(db, studyId, seen, effects), true));
  await setChangeRevision(db, change.id, revision);
  await setRevision(db, studyId, revision);
  return { id: change.id, revision, repeated: false };
};

const LOCK_NOT_AVAILABLE = '55P03';
/** Whoever writes a row that a large change is writing waits for it so long. */
const MOST_WAIT_MS = 20_000;
const AGAIN_MS = 100;

/** Runs an act again as long as somebody else is writing its rows; the turn of the study is free in between. */
const whenRowsAreFree = async <T>(act: (inWords: boolean) => Promise<T>): Promise<T> => {
  let inWords = false;
  for (const until = Date.now() + MOST_WAIT_MS; ;) {
    try {
      return await act(inWords);
    } catch (error) {
      const isLocked = error instanceof pg.DatabaseError && error.code === LOCK_NOT_AVAILABLE;
      // what the database would not keep is looked at once more, and told in words
      if (isHeldBroken(error) && !inWords) inWords = true;
      else if (!isLocked || Date.now() > until) throw error;
      else await pause(AGAIN_MS);
    }
  }
};

const sentBy = (studyId: string, change: Change, maker: Maker): Sent => {
  const opsText = JSON.stringify(change.ops);
  const digest = createHash('sha256')
    .update('[')
    .update(opsText)
    .update(`,${JSON.stringify(change.undoes)}]`)
    .digest();
  return { studyId, change, opsText, digest, maker, inWords: false };
};

/** Keeps a change in a transaction that keeps more than it. */
export const keepWithin = (db: Db, studyId: string, change: Change, maker: Maker): Promise<Kept> =>
  keep(db, sentBy(studyId, change, maker));

/**
 * Keeps a change: all of its ops or none, once however often it is sent. Throws a Problem that lists every fault or
 * conflict; nothing is written then.
 */
export const keepChange = async (pool: Pool, studyId: string, change: Change, maker: Maker): Promise<Kept> => {
  const sent = sentBy(studyId, change, maker);
  // a study that begins is nobody else’s yet
  const isLarge = change.ops.length > LARGE_OPS && !startsStudy(change, studyId);
  try {
    return await whenRowsAreFree((inWords) => transaction(pool, (db) => (isLarge ? keepLarge : keep)(db, { ...sent, inWords })));
  } catch (error) {
    if (error instanceof pg.DatabaseError && error.code === UNIQUE_VIOLATION) {
      if (error.constraint === 'change_undoes_key') throw undoneBefore();
      throw new Problem('invalid', 'A record with this id is already there, in this study or another. Nothing was written', [
        issue('id-taken', 'Every record needs an id of its own', 'id'),
      ]);
    }
    throw error;
  }
};
