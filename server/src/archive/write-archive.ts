import { createHash } from 'node:crypto';
import { Readable, Transform, type Writable } from 'node:stream';
import { finished, pipeline } from 'node:stream/promises';
import { ZipFile } from 'yazl';
import { partsCsv } from '@each-bolt/core/bench';
import type { Db } from '../db/pool';
import { filesOf, stretchesOf } from '../files/queries';
import { changeLines } from '../ledger/queries';
import { STUDY_FILE_SCHEMA, type StudyRecord } from '@each-bolt/core/record';
import { readRecordText, recordJson } from '../record/read-record';
import { ARCHIVE_FORMAT, ARCHIVE_VERSION, type ArchiveEntry, type ArchiveStudy, type Manifest } from './format';
import { peopleOfStudy } from './queries';

// entries carry no time of their own, so that the same study gives the same files
const STILL = new Date(Date.UTC(2000, 0, 1));

/** A file of the archive that comes in parts, with its sum as they pass. */
const summed = (
  path: string,
  source: Iterable<Buffer> | AsyncIterable<Buffer>,
): { readonly content: Readable; readonly entry: Promise<ArchiveEntry> } => {
  const sum = createHash('sha256');
  let bytes = 0;
  const counting = new Transform({
    transform: (chunk: Buffer, _encoding, next) => {
      sum.update(chunk);
      bytes += chunk.length;
      next(null, chunk);
    },
  });
  const content = Readable.from(source, { objectMode: false })
    .on('error', (error) => counting.destroy(error))
    .pipe(counting);
  const entry = finished(content, { writable: false }).then(() => ({ path, bytes, sha256: sum.digest('hex') }));
  return { content, entry };
};

/** Puts a file that comes in parts into the archive. */
type Pour = (path: string, source: Iterable<Buffer> | AsyncIterable<Buffer>, compress?: boolean) => Promise<void>;

/** Writes the record and its tables; what it holds meanwhile is let go before the history is written. */
const pourRecord = async (db: Db, studyId: string, pour: Pour): Promise<{ readonly revision: number; readonly title: string }> => {
  const text = await readRecordText(db, studyId);
  if (!text) throw new RangeError('no such study');
  await pour('study.json', studyText(recordJson(text), await peopleOfStudy(db, studyId)));
  await pour('schema.json', asBytes([JSON.stringify(STUDY_FILE_SCHEMA, null, 2)]));
  const parsed: Record<string, unknown> = { revision: text.revision, study: JSON.parse(text.study) };
  // each text is let go as it is read
  for (const [name, json] of text.lists) {
    parsed[name] = JSON.parse(json);
    text.lists.delete(name);
  }
  const record = parsed as unknown as StudyRecord;
  for (const [i, vehicle] of record.vehicles.entries()) await pour(`csv/parts-${i + 1}.csv`, asBytes(partsCsv(record, vehicle)));
  return { revision: text.revision, title: record.study.title };
};

/**
 * Writes a study as a ZIP: the record and its people as JSON with their JSON Schema, every change ever made as JSON lines, the parts of each
 * vehicle as CSV for other programs, the pictures and scans, and a manifest with the SHA-256 of each. Runs in one transaction, so
 * that all of it is of one moment; what is large passes through in parts.
 */
export const writeArchive = async (db: Db, studyId: string, program: string, out: Writable): Promise<void> => {
  const zip = new ZipFile();
  // declared as less than it is
  const packed = zip.outputStream as unknown as Readable;
  const written = pipeline(packed, out);
  // told where it is waited for
  written.catch(() => undefined);
  zip.on('error', (error: Error) => packed.destroy(error));
  const files: ArchiveEntry[] = [];
  const pour: Pour = async (path, source, compress = true) => {
    const { content, entry } = summed(path, source);
    entry.catch(() => undefined);
    zip.addReadStream(content, path, { mtime: STILL, compress });
    // one at a time: they share the connection; when the file cannot be written, nothing asks for more
    files.push(await Promise.race([entry, written.then(() => entry)]));
  };
  const fill = async (): Promise<void> => {
    const { revision, title } = await pourRecord(db, studyId, pour);
    await pour('changes.jsonl', asBytes(changeLines(db, studyId)));
    for (const { sha256, mediaType } of await filesOf(db, studyId)) {
      const isScan = mediaType.startsWith('model/');
      const name = isScan
        ? `scans/${sha256}.${mediaType.slice('model/'.length)}`
        : `pictures/${sha256}.${mediaType === 'image/png' ? 'png' : 'jpg'}`;
      await pour(name, stretchesOf(db, sha256), isScan);
    }
    const manifest: Manifest = {
      format: ARCHIVE_FORMAT,
      formatVersion: ARCHIVE_VERSION,
      program,
      studyId,
      title,
      revision,
      files,
    };
    zip.addBuffer(Buffer.from(`${JSON.stringify(manifest, null, 1)}\n`), 'manifest.json', { mtime: STILL });
    zip.end();
    await written;
  };
  await fill().catch((error: unknown) => {
    packed.destroy();
    throw error;
  });
};

/** `ArchiveStudy` as JSON, of a record that is JSON already. */
function* studyText(record: readonly string[], people: ArchiveStudy['people']): Generator<Buffer> {
  yield Buffer.from('{"record":');
  for (const part of record) yield Buffer.from(part);
  yield Buffer.from(`,"people":${JSON.stringify(people)}}\n`);
}

async function* asBytes(text: Iterable<string> | AsyncIterable<string>): AsyncGenerator<Buffer> {
  for await (const chunk of text) yield Buffer.from(chunk);
}
