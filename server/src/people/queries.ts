import type { Role } from '@each-bolt/core/record';
import type { UnitSystem } from '@each-bolt/core/shared';
import type { Standing } from '@each-bolt/core/wire';
import type { Db } from '../db/pool';
import { many, maybeOne, one } from '../db/rows';

export interface Person {
  readonly id: string;
  readonly login: string;
  readonly name: string;
  readonly standing: Standing;
  /** still on a password that came with the demo study */
  readonly demoPassword: boolean;
}

const PERSON = `id, login, name, standing, demo_password as "demoPassword"`;

export const personById = (db: Db, id: string): Promise<Person | null> => maybeOne(db, `select ${PERSON} from person where id = $1`, [id]);

export const people = (db: Db): Promise<readonly Person[]> => many(db, `select ${PERSON} from person order by name, id`);

export const peopleCount = async (db: Db): Promise<number> =>
  (await one<{ count: number }>(db, 'select count(*) as count from person')).count;

export const demoPasswordPeople = (db: Db): Promise<readonly Person[]> =>
  many(db, `select ${PERSON} from person where demo_password order by made_at, id`);

interface SignInRow extends Person {
  readonly passwordHash: string;
}

/** The account of a login. */
export const signInRow = (db: Db, login: string): Promise<SignInRow | null> =>
  maybeOne(db, `select ${PERSON}, password_hash as "passwordHash" from person where login = $1`, [login]);

export interface NewPerson extends Person {
  readonly passwordHash: string;
}

/** Adds a person; false when the login is taken. */
export const insertPerson = async (db: Db, p: NewPerson): Promise<boolean> =>
  (
    await db.query(
      `insert into person (id, login, name, standing, password_hash, demo_password) values ($1, $2, $3, $4, $5, $6)
       on conflict (login) do nothing`,
      [p.id, p.login, p.name, p.standing, p.passwordHash, p.demoPassword],
    )
  ).rowCount === 1;

export const setPassword = (db: Db, id: string, passwordHash: string): Promise<unknown> =>
  db.query('update person set password_hash = $2, demo_password = false where id = $1', [id, passwordHash]);

/** The units a person reads figures in. */
export const unitsOf = async (db: Db, id: string): Promise<UnitSystem> =>
  (await one<{ units: UnitSystem }>(db, 'select units from person where id = $1', [id])).units;

export const setUnits = (db: Db, id: string, units: UnitSystem): Promise<unknown> =>
  db.query('update person set units = $2 where id = $1', [id, units]);

/** Ends a person's sessions, but for one. */
export const endSessions = (db: Db, personId: string, butSid: string): Promise<unknown> =>
  db.query(`delete from session where sess ->> 'personId' = $1 and sid <> $2`, [personId, butSid]);

/** A setting, made with the given value when there is none yet; all processes on one database see the same. */
export const settingOr = async (db: Db, name: string, value: string): Promise<string> => {
  await db.query('insert into setting (name, value) values ($1, $2) on conflict (name) do nothing', [name, value]);
  return (await one<{ value: string }>(db, 'select value from setting where name = $1', [name])).value;
};

export const roleIn = async (db: Db, studyId: string, personId: string): Promise<Role | null> =>
  (await maybeOne<{ role: Role }>(db, 'select role from member where study_id = $1 and person_id = $2', [studyId, personId]))?.role ?? null;

/** Has a person one of these roles in a study that is not archived? */
export const hasRoleInOpenStudy = async (db: Db, personId: string, roles: readonly Role[]): Promise<boolean> =>
  (
    await one<{ has: boolean }>(
      db,
      `select exists (select from member m join study s on s.id = m.study_id
         where m.person_id = $1 and m.role = any($2) and s.state = 'open') as has`,
      [personId, roles],
    )
  ).has;

/** Serialises the making of the first account. */
export const lockPeople = (db: Db): Promise<unknown> => db.query('lock table person in exclusive mode');

/** Studies that nobody leads: those of a database from before there were accounts. */
export const studiesWithoutLead = (db: Db): Promise<readonly { readonly id: string }[]> =>
  many(db, `select s.id from study s where not exists (select from member m where m.study_id = s.id and m.role = 'lead') order by s.id`);
