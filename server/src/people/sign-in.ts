import type { Pool } from '../db/pool';
import { transaction } from '../db/transaction';
import { passwordFits } from './password';
import { noteFailure, noteSignIn, signInRow, type Person } from './queries';

export type SignedIn =
  { readonly kind: 'in'; readonly person: Person } | { readonly kind: 'wrong' } | { readonly kind: 'locked'; readonly seconds: number };

const FREE_FAILURES = 5;
const FIRST_LOCK_S = 30;
const LONGEST_LOCK_S = 900;

/** Seconds an account is locked after its nth failure in a row: none for four, then 30 s, doubling up to a quarter of an hour. */
export const lockAfter = (failures: number): number =>
  failures < FREE_FAILURES ? 0 : Math.min(LONGEST_LOCK_S, FIRST_LOCK_S * 2 ** (failures - FREE_FAILURES));

/** Signs a person in, or says that name and password do not fit, or how long the account is locked after too many failures. */
export const signIn = (pool: Pool, login: string, password: string): Promise<SignedIn> =>
  transaction(pool, async (db) => {
    const row = await signInRow(db, login.trim().toLowerCase());
    if (row?.lockedS) return { kind: 'locked', seconds: row.lockedS };
    if (await passwordFits(password, row?.passwordHash ?? null)) {
      const { passwordHash: _hash, failures: _failures, lockedS: _locked, ...person } = row!;
      await noteSignIn(db, person.id);
      return { kind: 'in', person };
    }
    if (!row) return { kind: 'wrong' };
    const seconds = lockAfter(row.failures + 1);
    await noteFailure(db, row.id, seconds);
    return seconds > 0 ? { kind: 'locked', seconds } : { kind: 'wrong' };
  });
