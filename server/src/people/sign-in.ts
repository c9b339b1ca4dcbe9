import type { Pool } from '../db/pool';
import { transaction } from '../db/transaction';
import { attemptsOf, countForAddress, forgetAttempts, forgetOldAttempts, ofAddress, setAttempts } from './attempt-queries';
import { passwordFits } from './password';
import { signInRow, type Person } from './queries';

export type SignedIn =
  | { readonly kind: 'in'; readonly person: Person }
  | { readonly kind: 'wrong' }
  /** this name from this address */
  | { readonly kind: 'locked'; readonly seconds: number }
  /** every name from this address */
  | { readonly kind: 'too-many'; readonly seconds: number };

const FREE_FAILURES = 5;
const FIRST_LOCK_S = 30;
const LONGEST_LOCK_S = 900;
/** What an address failed at under all names counts for so long. */
const WINDOW_S = 300;

/** Seconds a name is locked for an address after its nth failure in a row: none for four, then 30 s, doubling up to a quarter of an hour. */
export const lockAfter = (failures: number): number =>
  failures < FREE_FAILURES ? 0 : Math.min(LONGEST_LOCK_S, FIRST_LOCK_S * 2 ** (failures - FREE_FAILURES));

/**
 * Signs a person in, or says that name and password do not fit, or for how long this address has to wait after too many failures. A name
 * that nobody has is answered like any other, after the same time; the owner of a name is not locked out by what others try elsewhere.
 *
 * @param address where it comes from
 * @param most failures that an address may have within five minutes under all names together
 */
export const signIn = async (pool: Pool, address: string, login: string, password: string, most: number): Promise<SignedIn> => {
  const name = login.trim().toLowerCase();
  const all = await ofAddress(pool, address);
  if (all.failures >= most) return { kind: 'too-many', seconds: all.lockedS ?? WINDOW_S };
  // each try counts as a failure until it has succeeded, so that many at once are counted one by one and wait for no password to be checked
  const tried = await transaction(pool, async (db) => {
    const before = await attemptsOf(db, address, name);
    if (before.lockedS !== null) return before;
    await setAttempts(db, address, name, before.failures + 1, lockAfter(before.failures + 1));
    return { failures: before.failures + 1, lockedS: null };
  });
  if (tried.lockedS !== null) return { kind: 'locked', seconds: tried.lockedS };
  const row = await signInRow(pool, name);
  if (await passwordFits(password, row?.passwordHash ?? null)) {
    const { passwordHash: _hash, ...person } = row!;
    await forgetAttempts(pool, address, name);
    return { kind: 'in', person };
  }
  await countForAddress(pool, address, WINDOW_S);
  await forgetOldAttempts(pool);
  const seconds = lockAfter(tried.failures);
  return seconds > 0 ? { kind: 'locked', seconds } : { kind: 'wrong' };
};
