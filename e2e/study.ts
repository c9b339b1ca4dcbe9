import { randomUUID } from 'node:crypto';
import { expect, type APIRequestContext, type Page } from '@playwright/test';

export interface MadeStudy {
  readonly id: string;
  readonly vehicleIds: readonly string[];
  readonly subsystemId: string;
}

/** A study of its own for one test, made through the API: two vehicles, one subsystem, nothing recorded. */
export const makeStudy = async (request: APIRequestContext, title: string): Promise<MadeStudy> => {
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
    assembliesAs: 'pieces',
  };
  const ops = [
    { kind: 'study.add', id, fields },
    { kind: 'vehicle.add', id: first, fields: vehicle },
    { kind: 'vehicle.add', id: second, fields: { ...vehicle, sequence: 1, name: 'Pannier', role: 'competitor' } },
    { kind: 'subsystem.add', id: subsystemId, fields: { parentId: null, sequence: 0, name: 'Sliding cargo door' } },
  ];
  const response = await request.post(`/api/studies/${id}/changes`, { data: { id: randomUUID(), ops } });
  expect(response.status()).toBe(201);
  return { id, vehicleIds: [first, second], subsystemId };
};

/** Types a line at the bench and keeps it. */
export const record = async (page: Page, line: string): Promise<void> => {
  await page.getByLabel('Entry line').fill(line);
  await page.getByLabel('Entry line').press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'Kept' }).first()).toBeVisible();
  await expect(page.getByLabel('Entry line')).toHaveValue('');
};

/** The row of a piece in the bench's table. */
export const rowOf = (page: Page, name: string | RegExp): ReturnType<Page['getByRole']> =>
  page.getByRole('treegrid', { name: 'Pieces' }).getByRole('row', { name });

/** Waits until the basis line says that everything is kept. */
export const allKept = (page: Page): Promise<void> => expect(page.getByRole('contentinfo').getByRole('status')).toContainText('All kept');
