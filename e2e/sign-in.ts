import { mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { request } from '@playwright/test';

const STATES = join(dirname(fileURLToPath(import.meta.url)), '..', '.test-data', 'signed-in');

/** The sign-ins that come with the demo study. */
export const PEOPLE = {
  wenna: { name: 'Wenna Tarn', password: 'sliding door lead' },
  odo: { name: 'Odo Farrow', password: 'sliding door bench' },
  lisk: { name: 'Lisk Amberley', password: 'sliding door cost' },
  pell: { name: 'Pell Oriane', password: 'sliding door reader' },
} as const;
export type Login = keyof typeof PEOPLE;

/** Where the signed-in state of a person is kept, for a test to begin with. */
export const stateOf = (login: Login): string => join(STATES, `${login}.json`);

/** Signs everybody of the demo study in once, before all tests. */
export default async (): Promise<void> => {
  mkdirSync(STATES, { recursive: true });
  for (const login of Object.keys(PEOPLE) as Login[]) {
    const api = await request.newContext({ baseURL: process.env.BASE_URL ?? 'http://127.0.0.1:4600' });
    const answer = await api.post('/api/sign-in', { data: { login, password: PEOPLE[login].password } });
    if (!answer.ok()) throw new Error(`${login} could not be signed in: ${answer.status()} ${await answer.text()}`);
    await api.storageState({ path: stateOf(login) });
    await api.dispose();
  }
};
