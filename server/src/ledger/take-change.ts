import { isPartOfMass, opOfToday, readChange } from '@each-bolt/core/record';
import type { Pool } from '../db/pool';
import { readJson } from '../http/json';
import { Problem } from '../http/problem';
import type { Kept } from '../aside/task';
import type { Maker } from '../people/maker';
import { keepChange } from './keep-change';
import { massesBefore } from './masses-before';

const opsOf = (sent: unknown): readonly unknown[] =>
  typeof sent === 'object' && sent !== null && 'ops' in sent && Array.isArray(sent.ops) ? sent.ops : [];

/** What was sent, completed where a device of an older version left an edit of a part of a mass unsent. */
const completed = async (pool: Pool, studyId: string, sent: unknown): Promise<unknown> => {
  const ops = opsOf(sent);
  if (!ops.some(isPartOfMass)) return sent;
  const change = sent as { readonly id?: unknown };
  const masses = await massesBefore(pool, studyId, change.id, ops);
  return { ...change, ops: ops.map((op) => opOfToday(op, masses)) };
};

/** Reads, checks and keeps a change, given as the bytes that were sent. */
export const takeChange = async (pool: Pool, studyId: string, bytes: Uint8Array, maker: Maker): Promise<Kept> => {
  const read = readChange(await completed(pool, studyId, readJson(bytes)));
  if (!read.ok) throw new Problem('invalid', 'The change has faults. Nothing was written', read.issues);
  return keepChange(pool, studyId, read.value, maker);
};
