import type { Db } from '../db/pool';
import { maybeOne } from '../db/rows';

/** Failures of one address and one name, or of one address under all names where the name is empty. */
interface Attempts {
  readonly failures: number;
  /** seconds that it stays locked, or null */
  readonly lockedS: number | null;
}

const NONE: Attempts = { failures: 0, lockedS: null };

/** What an address has failed at so far, held against other sign-ins of the kind until the transaction ends, so that guesses are counted one by one. */
export const attemptsOf = async (db: Db, address: string, login: string): Promise<Attempts> => {
  await db.query('insert into sign_in_attempt (address, login, failures) values ($1, $2, 0) on conflict (address, login) do nothing', [
    address,
    login,
  ]);
  return (
    (await maybeOne<Attempts>(
      db,
      `select failures, case when locked_until > now() then ceil(extract(epoch from locked_until - now()))::integer end as "lockedS"
       from sign_in_attempt where address = $1 and login = $2 for update`,
      [address, login],
    )) ?? NONE
  );
};

export const setAttempts = (db: Db, address: string, login: string, failures: number, lockS: number): Promise<unknown> =>
  db.query(
    `update sign_in_attempt set failures = $3, tried_at = now(),
       locked_until = case when $4 > 0 then now() + make_interval(secs => $4) end
     where address = $1 and login = $2`,
    [address, login, failures, lockS],
  );

/** Counts one more failure of an address under whatever name; those of more than `windowS` ago are forgotten. */
export const countForAddress = (db: Db, address: string, windowS: number): Promise<unknown> =>
  db.query(
    `insert into sign_in_attempt as a (address, login, failures, locked_until) values ($1, '', 1, now() + make_interval(secs => $2))
     on conflict (address, login) do update set
       failures = case when a.locked_until > now() then a.failures + 1 else 1 end,
       locked_until = case when a.locked_until > now() then a.locked_until else excluded.locked_until end,
       tried_at = now()`,
    [address, windowS],
  );

/** How often an address has failed of late, and for how many seconds that counts. */
export const ofAddress = async (db: Db, address: string): Promise<Attempts> =>
  (await maybeOne<Attempts>(
    db,
    `select failures, ceil(extract(epoch from locked_until - now()))::integer as "lockedS"
     from sign_in_attempt where address = $1 and login = '' and locked_until > now()`,
    [address],
  )) ?? NONE;

export const forgetAttempts = (db: Db, address: string, login: string): Promise<unknown> =>
  db.query('delete from sign_in_attempt where address = $1 and login = $2', [address, login]);

/** Forgets what failed more than a day ago. */
export const forgetOldAttempts = (db: Db): Promise<unknown> =>
  db.query(`delete from sign_in_attempt where tried_at < now() - interval '1 day'`);
