import type { Schema } from 'yup';
import { check, isUuid } from '@each-bolt/core/shared';
import {
  ENTITIES,
  LIST_OF,
  schemaOf,
  rowFaults,
  rowsOf,
  changeOfToday,
  recordOfToday,
  wordsOfToday,
  type Masses,
  type StudyRecord,
} from '@each-bolt/core/record';
import { sha256Of } from '../files/picture';
import { MOST_DEPTH, depthOf } from '../http/json';
import {
  ARCHIVE_FORMAT,
  ARCHIVE_VERSION,
  CHANGE,
  MANIFEST,
  PEOPLE,
  WORDS_OF_TODAY,
  type ArchiveChange,
  type ArchivePerson,
  type Manifest,
} from './format';
import { damaged, type Unzipped } from './unzip';

/** An archive read whole and found sound. Pictures and scans stay packed until they are needed. */
export interface ReadArchive {
  readonly manifest: Manifest;
  readonly record: StudyRecord;
  readonly people: readonly ArchivePerson[];
  readonly changes: readonly ArchiveChange[];
  /** paths of pictures and scans */
  readonly files: readonly string[];
}

const json = (bytes: Buffer, path: string): unknown => {
  if (depthOf(bytes) > MOST_DEPTH) throw damaged(`${path} is nested deeper than a record ever is`);
  try {
    return JSON.parse(bytes.toString('utf8')) as unknown;
  } catch {
    throw damaged(`${path} is not valid JSON`);
  }
};

const checked = <T>(schema: Schema<T>, input: unknown, path: string): T => {
  const found = check(schema, input);
  if (!found.ok) throw damaged(`${path}: ${found.issues[0]?.message ?? 'is not as it should be'}`);
  return found.value;
};

const readManifest = async (zip: Unzipped): Promise<Manifest> => {
  const manifest = checked(MANIFEST, json(await zip.read('manifest.json'), 'manifest.json'), 'manifest.json');
  if (manifest.format !== ARCHIVE_FORMAT) throw damaged('it is not an archive of a study');
  if (manifest.formatVersion > ARCHIVE_VERSION) throw damaged('it was written by a newer version of this program; bring it in there');
  const [listed, held] = [new Set(manifest.files.map((f) => f.path)), new Set(zip.paths.filter((path) => path !== 'manifest.json'))];
  const missing = [...listed].find((path) => !held.has(path)) ?? [...held].find((path) => !listed.has(path));
  if (missing !== undefined) throw damaged(`${missing} is ${held.has(missing) ? 'not in its list' : 'missing'}`);
  return manifest;
};

/** The bytes of a file of the archive, whose sum is checked. */
export const soundFile = async (zip: Unzipped, manifest: Manifest, path: string): Promise<Buffer> => {
  const bytes = await zip.read(path);
  const entry = manifest.files.find((file) => file.path === path);
  if (entry?.sha256 !== sha256Of(bytes) || entry.bytes !== bytes.length) throw damaged(`${path} is damaged: its sum does not agree`);
  return bytes;
};

const isRecord = (input: unknown): input is StudyRecord =>
  typeof input === 'object' &&
  input !== null &&
  'study' in input &&
  typeof input.study === 'object' &&
  'revision' in input &&
  Object.values(LIST_OF).every((list) => !(list in input) || Array.isArray((input as Record<string, unknown>)[list]));

/** Every list holds rows with ids; what is in them is checked by the contract of their kind. */
const checkShape = (held: StudyRecord): void => {
  if (!(Number.isInteger(held.revision) && held.revision >= 1)) throw damaged('study.json: its revision is no whole number from 1');
  const lists = Object.values(LIST_OF).map((list) => [list, (held as unknown as Record<string, unknown>)[list] ?? []] as const);
  for (const [list, rows] of [['study', [held.study]] as const, ...lists])
    for (const [at, row] of (rows as readonly unknown[]).entries())
      if (typeof row !== 'object' || row === null || !('id' in row) || !isUuid(row.id))
        throw damaged(`study.json, ${list}, ${at + 1}: it has no id, a UUID in small letters`);
};

const checkRows = (record: StudyRecord): void => {
  const seen = new Set<string>();
  for (const entity of ENTITIES)
    for (const row of rowsOf(record, entity)) {
      const { id, version, ...fields } = row;
      if (seen.has(id)) throw damaged(`study.json, ${entity} ${id}: it is there twice`);
      seen.add(id);
      const found = check(schemaOf(entity) as Schema<unknown>, fields, id);
      const faults = found.ok ? rowFaults(entity, row) : found.issues;
      if (faults[0]) throw damaged(`study.json, ${entity} ${id}: ${faults[0].message}`);
      if (!(Number.isInteger(version) && version >= 1 && version <= record.revision))
        throw damaged(`study.json, ${entity} ${id}: wrong version`);
    }
};

const readStudy = (bytes: Buffer, manifest: Manifest): Pick<ReadArchive, 'record' | 'people'> => {
  const input = json(bytes, 'study.json');
  const held = wordsOfToday(typeof input === 'object' && input !== null && 'record' in input ? input.record : null);
  if (!isRecord(held)) throw damaged('study.json holds no study');
  if (manifest.formatVersion === ARCHIVE_VERSION && Object.values(LIST_OF).some((list) => !(list in held)))
    throw damaged('study.json holds no whole study');
  checkShape(held);
  const record = recordOfToday(held);
  if (record.study.id !== manifest.studyId || record.revision !== manifest.revision)
    throw damaged('study.json is of another study than the list says');
  checkRows(record);
  return { record, people: checked(PEOPLE, input, 'study.json').people };
};

const readChanges = (bytes: Buffer, manifest: Manifest): readonly ArchiveChange[] => {
  const lines = bytes
    .toString('utf8')
    .split('\n')
    .filter((line) => line !== '');
  const changes = lines.map((line, i) =>
    checked(CHANGE, json(Buffer.from(line), `changes.jsonl, line ${i + 1}`), `changes.jsonl, line ${i + 1}`),
  );
  if (changes.length !== manifest.revision || changes.some((change, i) => change.revision !== i + 1))
    throw damaged('changes.jsonl does not hold every change of the study once');
  const masses: Masses = new Map();
  return manifest.formatVersion < WORDS_OF_TODAY ? changes.map((change) => changeOfToday(change, masses)) : changes;
};

/** Reads and checks all of an archive: its list, its sums, every row by the rules of the record, every change. */
export const readArchive = async (zip: Unzipped): Promise<ReadArchive> => {
  const manifest = await readManifest(zip);
  const { record, people } = readStudy(await soundFile(zip, manifest, 'study.json'), manifest);
  const changes = readChanges(await soundFile(zip, manifest, 'changes.jsonl'), manifest);
  const files = manifest.files.map((f) => f.path).filter((path) => path.startsWith('pictures/') || path.startsWith('scans/'));
  for (const { path } of manifest.files) if (path.startsWith('csv/')) await soundFile(zip, manifest, path);
  return { manifest, record, people, changes, files };
};
