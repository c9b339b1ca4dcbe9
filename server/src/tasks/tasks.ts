import { createWriteStream } from 'node:fs';
import type { Answer, Given, Task } from '../aside/task';
import { takeArchive } from '../archive/take-archive';
import { unzip } from '../archive/unzip';
import { writeArchive } from '../archive/write-archive';
import type { Pool } from '../db/pool';
import { transaction } from '../db/transaction';
import { takeChange } from '../ledger/take-change';

/** How each task is done: large changes, and studies out and in. */
export const TASKS: { readonly [T in Task]: (pool: Pool, given: Given<T>) => Promise<Answer<T>> } = {
  change: (pool, { studyId, bytes, maker }) =>
    takeChange(pool, studyId, Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength), maker),
  'archive out': (pool, { studyId, program, path }) =>
    transaction(pool, (db) => writeArchive(db, studyId, program, createWriteStream(path))).then(() => null),
  'archive in': async (pool, { path }) => {
    const zip = await unzip(path);
    return takeArchive(pool, zip).finally(() => zip.close());
  },
};
