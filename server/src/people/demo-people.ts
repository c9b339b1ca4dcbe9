import { randomUUID } from 'node:crypto';
import type { Role } from '@each-bolt/core/record';
import type { Db } from '../db/pool';
import { passwordHash } from './password';
import { insertPerson, type Standing } from './queries';

export interface DemoPerson {
  readonly login: string;
  readonly name: string;
  readonly standing: Standing;
  readonly role: Role;
  readonly password: string;
}

/** Invented people who come with the demo study, one for each role. Everybody can read their passwords. */
export const DEMO_PEOPLE: readonly DemoPerson[] = [
  { login: 'wenna', name: 'Wenna Tarn', standing: 'lead', role: 'lead', password: 'sliding door lead' },
  { login: 'odo', name: 'Odo Farrow', standing: 'member', role: 'recorder', password: 'sliding door bench' },
  { login: 'lisk', name: 'Lisk Amberley', standing: 'member', role: 'cost', password: 'sliding door cost' },
  { login: 'pell', name: 'Pell Oriane', standing: 'member', role: 'reader', password: 'sliding door reader' },
];

/** Makes the demo accounts and gives their ids with the role each has in the demo study. */
export const addDemoPeople = async (
  db: Db,
): Promise<readonly (Pick<DemoPerson, 'login' | 'role' | 'name'> & { readonly id: string })[]> => {
  const made = [];
  for (const { login, name, standing, role, password } of DEMO_PEOPLE) {
    const id = randomUUID();
    await insertPerson(db, { id, login, name, standing, demoPassword: true, passwordHash: await passwordHash(password) });
    made.push({ id, login, role, name });
  }
  return made;
};
