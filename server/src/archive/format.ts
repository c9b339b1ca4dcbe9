import { array, object, type Schema } from 'yup';
import { finite, requiredText, shape, text, uuid, whole } from '@each-bolt/core/shared';
import type { KeptChange, StudyRecord } from '@each-bolt/core/record';

export const ARCHIVE_FORMAT = 'each-bolt-study-archive';
export const ARCHIVE_VERSION = 6;
/** From this version on an archive speaks in the words of today. */
export const WORDS_OF_TODAY = 6;

/** One file of an archive with its sum. */
export interface ArchiveEntry {
  readonly path: string;
  readonly bytes: number;
  /** SHA-256, hexadecimal */
  readonly sha256: string;
}

export interface Manifest {
  readonly format: string;
  readonly formatVersion: number;
  /** version of the program that wrote it */
  readonly program: string;
  readonly studyId: string;
  readonly title: string;
  readonly revision: number;
  readonly files: readonly ArchiveEntry[];
}

/** Somebody named in the study or its history. */
export interface ArchivePerson {
  readonly id: string;
  readonly login: string;
  readonly name: string;
}

export interface ArchiveStudy {
  readonly record: StudyRecord;
  readonly people: readonly ArchivePerson[];
}

/** A change as the archive keeps it: with the digest that tells a repeated change. */
export type ArchiveChange = KeptChange & { readonly digest: string };

/** The only names an archive may hold. */
export const ARCHIVE_PATH =
  /^(?:manifest\.json|study\.json|schema\.json|changes\.jsonl|csv\/(?:parts|pieces)-\d+\.csv|pictures\/[0-9a-f]{64}\.(?:jpg|png)|scans\/[0-9a-f]{64}\.(?:stl|ply|obj))$/;

const sha256 = (): Schema<string> => text('Sum', 64).matches(/^[0-9a-f]{64}$/, '${label} must be a SHA-256');

export const MANIFEST: Schema<Manifest> = shape<Manifest>({
  format: text('Format', 100),
  formatVersion: whole('Format version', 1, 1_000_000),
  program: text('Program', 100),
  studyId: uuid('Study'),
  title: requiredText('Title', 200),
  revision: whole('Revision', 1, Number.MAX_SAFE_INTEGER),
  files: array(shape<ArchiveEntry>({ path: text('Path', 200), bytes: finite('Size').min(0), sha256: sha256() }))
    .label('Files')
    .defined(),
});

const PERSON = shape<ArchivePerson>({ id: uuid('Person'), login: text('Sign-in name', 40), name: requiredText('Name', 200) });

export const PEOPLE: Schema<{ readonly people: readonly ArchivePerson[] }> = object({
  people: array(PERSON).label('People').defined(),
});

/** What of a change is relied on; its ops are history and are not carried out again. */
export const CHANGE: Schema<ArchiveChange> = object({
  id: uuid('Change'),
  revision: whole('Revision', 1, Number.MAX_SAFE_INTEGER),
  madeAt: text('Made at', 40).matches(
    /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}\.\d{3}Z$/,
    '${label} must be a time such as 2026-03-31T10:00:00.000Z',
  ),
  madeBy: text('Made by', 200),
  personId: uuid('Person').nullable(),
  device: text('Device', 100),
  undoes: uuid('Undone change').nullable(),
  digest: sha256(),
  ops: array(object({ kind: text('Kind', 40), id: uuid('Record') })).defined(),
  inverse: array(object({ kind: text('Kind', 40), id: uuid('Record') })).defined(),
}) as unknown as Schema<ArchiveChange>;
