import { randomUUID } from 'node:crypto';
import { expect, type APIRequestContext, type Page } from '@playwright/test';
import type { Evidence, PartFields } from '../core/src/record';
import { allKept, change, makeStudy, record, type MadeStudy } from './study';
import { test } from './test';

const told = (page: Page): ReturnType<Page['locator']> => page.locator('article.cause');
const opened = (page: Page): ReturnType<Page['locator']> => page.locator('article.cause.open');

const weighed = (typed: string): { readonly massEachKg: Evidence } => ({
  massEachKg: { mark: 'M', u: 0.0005, low: null, high: null, typed, instrument: 'Bench scale BS-02', source: '' },
});
const BLANK: PartFields = {
  ...{ vehicleId: '', subsystemId: null, parentId: null, sequence: 0, tag: '', name: '', function: '', quantity: 1, hand: 'none' },
  ...{ materialId: null, materialDetail: '', processId: null, processDetail: '', massEachKg: null, lengthM: null, widthM: null },
  ...{ heightM: null, wallThicknessM: null, runLengthM: null, runDiameterM: null, xM: null, yM: null, zM: null, location: '' },
  ...{ markings: '', supplier: '', state: null, opened: null, closedReason: '', closedRisk: '', seenOutside: '', damage: '' },
  ...{ damageFrom: null, notes: '', boughtPrice: null, boughtCurrency: null, boughtPriceYear: null, boughtVolumePerYear: null },
  ...{ boughtRegion: null, evidence: {} },
};

/** A module of three brackets, weighed as a whole; one bracket was typed in grams and read in ounces. */
const carrier = async (request: APIRequestContext, study: MadeStudy): Promise<void> => {
  const [vehicleId = ''] = study.vehicleIds;
  const whole = randomUUID();
  const part = (name: string, fields: Partial<PartFields>, parentId: string | null, id: string = randomUUID()): object => ({
    kind: 'part.add',
    id,
    fields: { ...BLANK, vehicleId, subsystemId: parentId === null ? study.subsystemId : null, parentId, name, ...fields },
  });
  const bracket = { materialId: 's420mc', processId: 'stamping', wallThicknessM: 0.006, lengthM: 0.222, widthM: 0.11, heightM: 0.034 };
  await change(request, study.id, [
    part('carrier module', { massEachKg: 6.42, evidence: weighed('6.42 kg') }, null, whole),
    part('carrier plate', { massEachKg: 4.177, evidence: weighed('4.177 kg') }, whole),
    part('bracket, lower', { ...bracket, massEachKg: 0.0403, evidence: weighed('40.3 g'), sequence: 1 }, whole),
    part('guide, lock cable', { massEachKg: 1.1, evidence: weighed('1.1 kg'), sequence: 2 }, whole),
  ]);
};

test('one wrong unit breaks two checks: it is named once, mended with the value written out, and both close', async ({ page, request }) => {
  const study = await makeStudy(request, 'Does it close?');
  await carrier(request, study);
  await page.goto(`/studies/${study.id}/reconcile`);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('1 cause behind 2 open findings');
  await expect(opened(page)).toContainText('Mass of bracket, lower looks like ounces');
  await expect(opened(page)).toContainText('Closure, carrier module');
  await expect(opened(page)).toContainText('40.3 g → 40.3 oz = 1.1425 kg');
  await expect(opened(page).locator('tbody tr').first()).toContainText('closes');
  // the stack marks the part, and adds up to the vehicle
  const stack = page.getByRole('tree', { name: 'Vehicles, subsystems and parts' });
  await expect(stack.getByRole('treeitem').first().locator('.causes')).toHaveText('1');
  await opened(page).getByRole('button', { name: /^Mend/ }).press('1');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Nothing is open');
  await expect(stack.getByRole('treeitem').first().locator('.causes')).toHaveCount(0);
  await allKept(page);
  // what was typed in passing undoes it as anything else
  await page.keyboard.press('z');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('1 cause behind 2 open findings');
});

test('a part with a doubt is marked at the bench; the mark leads to the cause, and the question about it is written already', async ({
  page,
  request,
}) => {
  const study = await makeStudy(request, 'Marked');
  await carrier(request, study);
  await page.goto(`/studies/${study.id}/bench`);
  const row = page.getByRole('treegrid', { name: 'Parts' }).getByRole('row', { name: /bracket, lower/ });
  await expect(row.getByTitle('one cause of what does not close')).toHaveText('1');
  await row.click();
  await page
    .getByRole('list', { name: 'What does not close' })
    .getByRole('button', { name: /looks like ounces/ })
    .click();
  await expect(opened(page)).toContainText('Closure, carrier module');
  await opened(page).getByRole('button', { name: /^Ask/ }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('About: bracket, lower, mass each');
  await expect(dialog.getByLabel('What is to be found out')).toHaveValue('Mass of bracket, lower looks like ounces. What is right?');
  await dialog.getByRole('button', { name: 'Attach it' }).click();
  await expect(page.getByRole('link', { name: /Questions/ })).toContainText('1 open');
  await allKept(page);
});

test('what may stay is explained with a name and a reason, and is open again when the figures change', async ({ page, request }) => {
  const study = await makeStudy(request, 'It is so');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'lever aw-6082 hpdc 1.2 kg');
  await page.keyboard.press('Escape');
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Reconcile' }).click();
  await expect(told(page)).toHaveCount(1);
  await opened(page)
    .getByRole('button', { name: /^Explain/ })
    .click();
  await page.getByRole('button', { name: 'Keep the reason' }).click();
  await expect(page.getByRole('alert')).toContainText('Say why it may stay as it is');
  await page.getByLabel('Why it may stay as it is').fill('cast from a wrought melt for a trial, says the supplier');
  await page.getByRole('button', { name: 'Keep the reason' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Nothing is open');
  await page.getByRole('link', { name: 'Explained 1' }).click();
  await expect(page.getByRole('row', { name: /Material for/ })).toContainText('cast from a wrought melt');
  await page.getByRole('button', { name: 'Open again' }).click();
  await page.getByRole('link', { name: 'Does not close 1' }).click();
  await expect(opened(page)).toContainText('wrought alloy');
});

test('a subsystem is signed off with what stays open, and a later change opens it again by name', async ({ page, request }) => {
  const study = await makeStudy(request, 'Signed');
  await carrier(request, study);
  await page.goto(`/studies/${study.id}/reconcile/sign-off`);
  const row = page.getByRole('row', { name: /Sliding cargo door, Drayman II/ });
  await row.getByRole('button', { name: 'Sign off' }).click();
  await row.getByRole('button', { name: 'Sign', exact: true }).click();
  await expect(row.getByRole('alert')).toContainText('1 cause open: say why that may stay so');
  await row.getByRole('textbox').fill('weighed again on Monday');
  await row.getByRole('button', { name: 'Sign', exact: true }).click();
  await expect(row).toContainText('signed off by Wenna Tarn');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('1 of 1 subsystem signed off');
  await page.getByRole('link', { name: /^Does not close/ }).click();
  await opened(page).getByRole('button', { name: /^Mend/ }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Nothing is open');
  await allKept(page);
  await page.getByRole('link', { name: 'Sign-off' }).click();
  await expect(row).toContainText('open again');
  await expect(row).toContainText('changed since: bracket, lower');
});

test('a scale that has drifted is seen on its chart; a sample of counts is drawn for the assurance wanted', async ({ page, request }) => {
  const study = await makeStudy(request, 'Drift');
  await carrier(request, study);
  await page.goto(`/studies/${study.id}/reconcile/readings`);
  await page.getByLabel('Instrument').fill('bench scale');
  await page.getByLabel('Serial number').fill('BS-02');
  await page.getByLabel('Check weight or block').fill('2');
  await page.getByLabel('Reads').fill('two');
  await page.getByRole('button', { name: 'Keep the check' }).click();
  await expect(page.getByRole('alert')).toContainText('as numbers in kg');
  await page.getByLabel('Reads').fill('2.008');
  await page.getByRole('button', { name: 'Keep the check' }).click();
  await expect(page.getByRole('region', { name: /bench scale BS-02, mass/ })).toContainText('Off by +0.40 % since');
  await page.getByRole('link', { name: /^Does not close/ }).click();
  await expect(told(page).filter({ hasText: 'bench scale BS-02 reads 0.40 % high' })).toHaveCount(1);
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'cover aw-5754 stamp 410 g');
  await record(page, '6 M6x20 T30');
  await page.goto(`/studies/${study.id}/reconcile/recounts`);
  await page.getByRole('button', { name: 'Draw 1 of 1' }).click();
  await expect(page.getByRole('region', { name: /^Sample of/ })).toContainText('0 of 1 counted again');
});
