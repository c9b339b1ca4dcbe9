import { readChange } from '@each-bolt/core/record';
import type { Pool } from '../db/pool';
import { readJson } from '../http/json';
import { Problem } from '../http/problem';
import { keepChange, type Kept, type Maker } from './keep-change';

/** Reads, checks and keeps a change, given as the bytes that were sent. */
export const takeChange = async (pool: Pool, studyId: string, bytes: Uint8Array, maker: Maker): Promise<Kept> => {
  const read = readChange(readJson(bytes));
  if (!read.ok) throw new Problem('invalid', 'The change has faults. Nothing was written', read.issues);
  return keepChange(pool, studyId, read.value, maker);
};
