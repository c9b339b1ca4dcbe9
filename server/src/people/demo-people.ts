import { randomUUID } from 'node:crypto';
import type { Role } from '@each-bolt/core/record';
import { passwordHash } from './password';
import type { Standing } from '@each-bolt/core/wire';
import type { NewPerson } from './queries';

interface DemoPerson {
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

/** The demo accounts, ready to be made, with the role each has in the demo study. */
export const demoPeople = (): Promise<readonly (NewPerson & Pick<DemoPerson, 'role'>)[]> =>
  Promise.all(
    DEMO_PEOPLE.map(async ({ password, ...person }) => ({
      ...person,
      id: randomUUID(),
      demoPassword: true,
      passwordHash: await passwordHash(password),
    })),
  );
