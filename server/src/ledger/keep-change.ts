import { createHash } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import pg from 'pg';
import { issue, type Issue } from '@each-bolt/core/shared';
import {
  ENTITIES,
  inverseOps,
  netEffect,
  splitKind,
  withLaterFields,
  type Change,
  type ChangeKept,
  type CurrentRows,
  type Entity,
  type Op,
  type Role,
  type RowEffect,
  type RowOf,
} from '@each-bolt/core/record';
import type { Db, Pool } from '../db/pool';
import { transaction } from '../db/transaction';
import { Problem } from '../http/problem';
import { mayMake } from '../http/roles';
import { roleIn, type Person } from '../people/queries';
import { setRevision, studyHead } from '../record/queries';
import { changeById, changeOf, insertChange, lockStudy } from './queries';
import { toldConflicts } from './told-conflicts';
import type { Store } from './store';
import { RULES, STORES } from './stores';

/** Who makes a change, and from where. */
export interface Maker {
  /** null for the program itself, which loads demo data and archives and may do everything */
  readonly person: Person | null;
  readonly name: string;
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

/** What the rows of a change leave broken across rows. */
export const brokenRules = async (db: Db, studyId: string, effects: readonly RowEffect[]): Promise<readonly Issue[]> => {
  const entities = new Set(effects.map((effect) => effect.entity));
  const touched = effects.map((effect) => effect.id);
  const issues: Issue[] = [];
  for (const { rule, when } of RULES)
    if (when.some((entity) => entities.has(entity))) issues.push(...(await rule(db, studyId, touched, effects)));
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

/** Whether what was kept, by this version or one before it, is what is sent again: fields that came later count as never said. */
const isSame = async (db: Db, studyId: string, change: Change): Promise<boolean> => {
  const kept = await changeOf(db, studyId, change.id);
  const ofToday = (ops: readonly Op[]): unknown => JSON.parse(JSON.stringify(ops.map(withLaterFields)));
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

const checkMay = async (db: Db, studyId: string, change: Change, { person }: Maker, isNew: boolean): Promise<void> => {
  if (!person) return;
  const role = await roleOfMaker(db, studyId, person, isNew);
  if (role === null && isNew) throw new Problem('forbidden', 'Only a lead of the house begins a study; ask one. Nothing was written');
  if (role === null) throw new Problem('not-found', 'There is no such study, or you are not of it. Nothing was written');
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

const checkUndo = async (db: Db, studyId: string, undoes: string | null, { person }: Maker): Promise<void> => {
  if (undoes === null) return;
  const undone = await changeById(db, undoes);
  if (undone?.studyId !== studyId)
    throw new Problem('invalid', 'Nothing was written', [issue('undone-unknown', 'The change to undo is not of this study', 'undoes')]);
  if (person && undone.personId !== person.id)
    throw new Problem('forbidden', 'Only what you did yourself can be undone by you. Nothing was written');
  if (undone.undoneBy !== null)
    throw new Problem('invalid', 'Nothing was written', [issue('undone-before', 'This change has been undone before', 'undoes')]);
};

const UNIQUE_VIOLATION = '23505';

const keep = async (db: Db, studyId: string, change: Change, digest: Buffer, maker: Maker): Promise<Kept> => {
  await lockStudy(db, studyId);
  const first = await alreadyKept(db, studyId, change, digest);
  if (first) return first;
  const head = await studyHead(db, studyId);
  const isNew = head === null;
  if (isNew && !startsStudy(change, studyId)) throw new Problem('not-found', 'There is no such study');
  await checkMay(db, studyId, change, maker, isNew);
  if (head?.state === 'archived' && !change.ops.every(isAboutState))
    throw new Problem('forbidden', 'The study is archived and only read. Nothing was written; a lead can open it again');
  await checkUndo(db, studyId, change.undoes, maker);
  const revision = (head?.revision ?? 0) + 1;
  const { effects, conflicts, issues } = netEffect(change.ops, await loadCurrent(db, studyId, change), revision);
  refuseWith([...wrongStudy(change, studyId), ...issues]);
  if (conflicts.length > 0)
    throw new Problem(
      'conflict',
      'Someone changed this in the meantime. Nothing was written; look at both values and choose',
      [],
      await toldConflicts(db, studyId, conflicts),
    );
  await write(db, studyId, effects);
  refuseWith(await brokenRules(db, studyId, effects));
  await setRevision(db, studyId, revision);
  const { person, name, device } = maker;
  const rows = effects.map(({ entity, id }) => ({ entity, id }));
  await insertChange(db, {
    id: change.id,
    studyId,
    revision,
    digest,
    personId: person?.id ?? null,
    madeBy: name,
    device,
    ops: change.ops,
    inverse: inverseOps(effects),
    undoes: change.undoes,
    rows,
  });
  return { id: change.id, revision, repeated: false };
};

/**
 * Keeps a change: all of its ops or none, once however often it is sent. Throws a Problem that lists every fault or
 * conflict; nothing is written then.
 */
export const keepChange = async (pool: Pool, studyId: string, change: Change, maker: Maker): Promise<Kept> => {
  const digest = createHash('sha256')
    .update(JSON.stringify([change.ops, change.undoes]))
    .digest();
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
