import { createWriteStream } from 'node:fs';
import type { Pool } from '../db/pool';
import { transaction } from '../db/transaction';
import type { BroughtIn } from '@each-bolt/core/wire';
import { takeArchive } from '../archive/take-archive';
import { unzip } from '../archive/unzip';
import { writeArchive } from '../archive/write-archive';
import type { Kept, Maker } from '../ledger/keep-change';
import { takeChange } from '../ledger/take-change';

/** What is done aside: large changes, and studies out and in. Each task is given plain data and answers with plain data. */
export const TASKS = {
  /** reads, checks and keeps a change, given as the bytes that were sent */
  change: (
    pool: Pool,
    { studyId, bytes, maker }: { readonly studyId: string; readonly bytes: Uint8Array; readonly maker: Maker },
  ): Promise<Kept> => takeChange(pool, studyId, Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength), maker),
  /** writes the archive of a study into a file */
  'archive out': (
    pool: Pool,
    { studyId, program, path }: { readonly studyId: string; readonly program: string; readonly path: string },
  ): Promise<void> => transaction(pool, (db) => writeArchive(db, studyId, program, createWriteStream(path))),
  /** brings a study in from the archive in a file */
  'archive in': async (pool: Pool, { path }: { readonly path: string }): Promise<BroughtIn> => {
    const zip = await unzip(path);
    return takeArchive(pool, zip).finally(() => zip.close());
  },
} as const;

export type Task = keyof typeof TASKS;
export type Given<T extends Task> = Parameters<(typeof TASKS)[T]>[1];
export type Answer<T extends Task> = Awaited<ReturnType<(typeof TASKS)[T]>>;
