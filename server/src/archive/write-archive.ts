import { finished } from 'node:stream/promises';
import type { Writable } from 'node:stream';
import { ZipFile } from 'yazl';
import { piecesCsv } from '@each-bolt/core/bench';
import type { Db } from '../db/pool';
import { sha256Of } from '../files/picture';
import { filesOf, originalOf } from '../files/queries';
import { changesSince } from '../ledger/queries';
import { readRecord } from '../record/read-record';
import { ARCHIVE_FORMAT, ARCHIVE_VERSION, type ArchiveEntry, type ArchiveStudy, type Manifest } from './format';
import { digestsSince, peopleOfStudy } from './queries';

// entries carry no time of their own, so that the same study gives the same files
const STILL = new Date(Date.UTC(2000, 0, 1));
const AT_ONCE = 500;

/**
 * Writes a study as a ZIP: the record and its people as JSON, every change ever made as JSON lines, the pieces of each
 * vehicle as CSV for other programs, the pictures and scans, and a manifest with the SHA-256 of each. Runs in one transaction, so
 * that all of it is of one moment.
 */
export const writeArchive = async (db: Db, studyId: string, program: string, out: Writable): Promise<void> => {
  const record = await readRecord(db, studyId);
  if (!record) throw new RangeError('no such study');
  const zip = new ZipFile();
  zip.outputStream.pipe(out);
  const files: ArchiveEntry[] = [];
  const put = (path: string, bytes: Buffer, compress = true): void => {
    files.push({ path, bytes: bytes.length, sha256: sha256Of(bytes) });
    zip.addBuffer(bytes, path, { mtime: STILL, compress });
  };
  const study: ArchiveStudy = { record, people: await peopleOfStudy(db, studyId) };
  put('study.json', Buffer.from(`${JSON.stringify(study, null, 1)}\n`));
  put('changes.jsonl', await changeLines(db, studyId));
  record.vehicles.forEach((vehicle, i) => put(`csv/pieces-${i + 1}.csv`, Buffer.from(piecesCsv(record, vehicle))));
  for (const { sha256, mediaType } of await filesOf(db, studyId)) {
    const file = await originalOf(db, studyId, sha256);
    const isScan = mediaType.startsWith('model/');
    if (file)
      put(
        isScan ? `scans/${sha256}.${mediaType.slice('model/'.length)}` : `pictures/${sha256}.${mediaType === 'image/png' ? 'png' : 'jpg'}`,
        file.bytes,
        isScan,
      );
  }
  const manifest: Manifest = {
    format: ARCHIVE_FORMAT,
    formatVersion: ARCHIVE_VERSION,
    program,
    studyId,
    title: record.study.title,
    revision: record.revision,
    files,
  };
  zip.addBuffer(Buffer.from(`${JSON.stringify(manifest, null, 1)}\n`), 'manifest.json', { mtime: STILL });
  zip.end();
  await finished(out);
};

const changeLines = async (db: Db, studyId: string): Promise<Buffer> => {
  const lines: string[] = [];
  for (let since = 0; ;) {
    const changes = await changesSince(db, studyId, since, AT_ONCE);
    const digests = new Map((await digestsSince(db, studyId, since, AT_ONCE)).map((d) => [d.revision, d.digest]));
    for (const change of changes) lines.push(JSON.stringify({ ...change, digest: digests.get(change.revision) ?? '' }));
    since = changes.at(-1)?.revision ?? since;
    if (changes.length < AT_ONCE) return Buffer.from(lines.map((line) => `${line}\n`).join(''));
  }
};
