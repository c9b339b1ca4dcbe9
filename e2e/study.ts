import { randomUUID } from 'node:crypto';
import { expect, type APIRequestContext, type APIResponse, type Page } from '@playwright/test';
import { PEOPLE, type Login } from './sign-in';

export interface MadeStudy {
  readonly id: string;
  readonly vehicleIds: readonly string[];
  readonly subsystemId: string;
}

/** Posts as a page of the program does, with the token of the session. */
export const post = async (request: APIRequestContext, path: string, data: object): Promise<APIResponse> => {
  const { cookies } = await request.storageState();
  const token = decodeURIComponent(cookies.find((cookie) => cookie.name === 'XSRF-TOKEN')?.value ?? '');
  return request.post(path, { data, headers: { 'X-XSRF-TOKEN': token } });
};

/** Sends ops as one change that must be kept. */
export const change = async (request: APIRequestContext, studyId: string, ops: readonly object[]): Promise<void> => {
  const response = await post(request, `/api/studies/${studyId}/changes`, { id: randomUUID(), ops, undoes: null });
  expect(response.status(), await response.text()).toBe(201);
};

const ROLES: Readonly<Record<Login, string>> = { wenna: 'lead', odo: 'recorder', lisk: 'cost', pell: 'reader' };

/** A study of its own for one test, made through the API: two vehicles, one subsystem, everybody of the demo in it, nothing recorded. */
export const makeStudy = async (request: APIRequestContext, title: string): Promise<MadeStudy> => {
  const people = (await (await request.get('/api/people')).json()) as readonly { readonly id: string; readonly name: string }[];
  const members = (Object.keys(ROLES) as Login[]).map((login) => ({
    kind: 'member.add',
    id: randomUUID(),
    fields: { personId: people.find((p) => p.name === PEOPLE[login].name)?.id, role: ROLES[login] },
  }));
  const [id, first, second, subsystemId] = [randomUUID(), randomUUID(), randomUUID(), randomUUID()];
  const vehicle = {
    sequence: 0,
    name: 'Drayman II',
    maker: 'Halvard & Roe',
    role: 'subject',
    modelYear: 2026,
    builtOn: null,
    acquiredOn: null,
    notes: '',
  };
  const fields = {
    title,
    questions: '',
    lead: '',
    currency: 'EUR',
    priceYear: 2026,
    volumePerYear: 60_000,
    productionYears: 7,
    region: 'Central Europe',
    fastenersIn: true,
    assembliesAs: 'parts',
    state: 'open',
  };
  const ops = [
    { kind: 'study.add', id, fields },
    ...members,
    { kind: 'vehicle.add', id: first, fields: vehicle },
    { kind: 'vehicle.add', id: second, fields: { ...vehicle, sequence: 1, name: 'Pannier', role: 'competitor' } },
    { kind: 'subsystem.add', id: subsystemId, fields: { parentId: null, sequence: 0, name: 'Sliding cargo door' } },
  ];
  await change(request, id, ops);
  return { id, vehicleIds: [first, second], subsystemId };
};

/** Types a line at the bench and keeps it. */
export const record = async (page: Page, line: string): Promise<void> => {
  await page.getByLabel('Entry line').fill(line);
  await page.getByLabel('Entry line').press('Enter');
  await expect(page.getByRole('status').filter({ hasText: /^Kept/ }).first()).toBeVisible();
  await expect(page.getByLabel('Entry line')).toHaveValue('');
};

/** The row of a part in the bench's table. */
export const rowOf = (page: Page, name: string | RegExp): ReturnType<Page['getByRole']> =>
  page.getByRole('treegrid', { name: 'Parts' }).getByRole('row', { name });

/** On a busy machine what was typed without a pause takes a while to be sent. */
const SENT_MS = 45_000;

/** Waits until the basis line says that everything is kept. */
export const allKept = (page: Page): Promise<void> =>
  expect(page.getByRole('contentinfo').getByRole('status')).toContainText('All kept', { timeout: SENT_MS });
