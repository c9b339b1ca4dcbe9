import { randomBytes, randomUUID } from 'node:crypto';
import type { BroughtIn } from '@each-bolt/core/wire';
import { ENTITIES, rowsOf, type Entity } from '@each-bolt/core/record';
import type { Db, Pool } from '../db/pool';
import { isHeldBroken } from '../db/references';
import { transaction } from '../db/transaction';
import { readPicture, sha256Of } from '../files/picture';
import { readScan } from '../files/scan-file';
import { insertFile, linkFile, type StoredFile } from '../files/queries';
import { Problem } from '../http/problem';
import { onlyOnce, refreshStatistics } from '../ledger/queries';
import { brokenRules } from '../ledger/rules';
import { LARGE_OPS, type Store } from '../db/store';
import { STORES } from '../db/stores';
import { passwordHash } from '../people/password';
import { insertPerson, personById, type Person } from '../people/queries';
import { setCopyOf, setRevision } from '../record/queries';
import type { ArchivePerson } from './format';
import { insertChangeRows, insertChanges, loginsLike, takenId } from './queries';
import { readArchive, soundFile, type ReadArchive } from './read-archive';
import { damaged, type Unzipped } from './unzip';

const TABLES = ENTITIES.map((entity) => STORES[entity].table);

/** Every id of the archive once; that of the study first, by which a study that is here already is mostly told. */
const idsOf = ({ record, changes }: ReadArchive): readonly string[] => [
  ...new Set([
    record.study.id,
    ...ENTITIES.flatMap((entity) => rowsOf(record, entity).map((row) => row.id)),
    ...changes.map((change) => change.id),
    ...changes.flatMap((change) => change.ops.map((op) => op.id)),
  ]),
];

const isTaken = async (db: Db, ids: readonly string[]): Promise<boolean> =>
  (await takenId(db, TABLES, ids.slice(0, 1))) !== null || (await takenId(db, TABLES, ids)) !== null;

/** The archive with a fresh id in place of every id of its own, in the record and all through its history. */
const withFreshIds = (archive: ReadArchive): ReadArchive => {
  const fresh = new Map(idsOf(archive).map((id) => [id, randomUUID()]));
  const text = JSON.stringify({ record: archive.record, changes: archive.changes });
  const swapped = text.replace(/[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g, (id) => fresh.get(id) ?? id);
  return { ...archive, ...(JSON.parse(swapped) as Pick<ReadArchive, 'record' | 'changes'>) };
};

/** Accounts for people of the archive who have none here: nobody can sign in to them until a lead of the organisation gives a password. */
const addPeople = async (db: Db, people: readonly ArchivePerson[]): Promise<void> => {
  for (const { id, login, name } of people) {
    if (await personById(db, id)) continue;
    const taken = (await loginsLike(db, [login])).length > 0;
    const free = taken ? `${login.slice(0, 30)}-${id.slice(0, 8)}` : login;
    const person: Person = { id, login: free, name, standing: 'member', demoPassword: false };
    await insertPerson(db, { ...person, passwordHash: await passwordHash(randomBytes(32).toString('base64')) });
  }
};

const readFile = async (bytes: Buffer, path: string): Promise<StoredFile> => {
  try {
    return path.startsWith('scans/') ? readScan(bytes, path) : await readPicture(bytes);
  } catch (error) {
    throw error instanceof Problem ? damaged(`${path}: ${error.message.replace(/\.? Nothing was written.*/, '')}`) : error;
  }
};

const addFiles = async (db: Db, zip: Unzipped, { manifest, files, record }: ReadArchive): Promise<void> => {
  for (const path of files) {
    const bytes = await soundFile(zip, manifest, path);
    const file = await readFile(bytes, path);
    if (!path.includes(`/${file.sha256}.`) || file.sha256 !== sha256Of(bytes)) throw damaged(`${path} is not the file its name says`);
    await insertFile(db, file);
    await linkFile(db, record.study.id, file.sha256);
  }
};

const addRows = async (db: Db, { record }: ReadArchive): Promise<void> => {
  const studyId = record.study.id;
  for (const entity of ENTITIES) {
    const rows = rowsOf(record, entity);
    // not by COPY, which writes out what it wrote at once: whoever commits meanwhile would wait for it
    if (rows.length > 0) await (STORES[entity] as unknown as Store<Entity>).insert(db, studyId, rows);
    if (rows.length > LARGE_OPS) await refreshStatistics(db, STORES[entity].table);
  }
  await setRevision(db, studyId, record.revision);
};

/** The database takes a list of JSON up to 256 MB: changes go in by so many ops. */
const OPS_AT_ONCE = 5000;

const portions = (changes: ReadArchive['changes']): readonly ReadArchive['changes'][] => {
  const starts = [0];
  let ops = 0;
  for (const [at, change] of changes.entries()) {
    const size = change.ops.length + change.inverse.length;
    if (ops > 0 && ops + size > OPS_AT_ONCE) {
      starts.push(at);
      ops = 0;
    }
    ops += size;
  }
  return starts.map((start, i) => changes.slice(start, starts[i + 1]));
};

/** Brings a study in from an archive, whole or not at all. */
export const takeArchive = async (pool: Pool, zip: Unzipped): Promise<BroughtIn> => {
  const sound = await readArchive(zip);
  try {
    return await bringIn(pool, zip, sound, false);
  } catch (error) {
    if (!isHeldBroken(error)) throw error;
    // what the database would not keep is looked at once more, and told in words
    return bringIn(pool, zip, sound, true);
  }
};

const bringIn = (pool: Pool, zip: Unzipped, sound: ReadArchive, inWords: boolean): Promise<BroughtIn> =>
  transaction(pool, async (db) => {
    const copied = await isTaken(db, idsOf(sound));
    const archive = copied ? withFreshIds(sound) : sound;
    const { record, changes } = archive;
    const studyId = record.study.id;
    await onlyOnce(db, studyId);
    await addPeople(db, archive.people);
    await addRows(db, { ...archive, record: { ...record, pictures: [], scans: [] } });
    if (copied) await setCopyOf(db, studyId, sound.record.study.id);
    await addFiles(db, zip, archive);
    if (record.pictures.length > 0) await STORES.picture.insert(db, studyId, record.pictures);
    if (record.scans.length > 0) await STORES.scan.insert(db, studyId, record.scans);
    for (const some of portions(changes)) {
      await insertChanges(db, studyId, some);
      await insertChangeRows(db, studyId, some);
    }
    const touched = ENTITIES.flatMap((entity) => rowsOf(record, entity).map((row) => ({ entity, id: row.id, before: null, after: row })));
    const [broken] = await brokenRules(db, studyId, touched, inWords);
    if (broken) throw damaged(`its record does not hold together: ${broken.message}`);
    return { studyId, title: record.study.title, copied };
  });
