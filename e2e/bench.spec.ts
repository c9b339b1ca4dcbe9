import { randomUUID } from 'node:crypto';
import { expect } from '@playwright/test';
import { workbook } from '../core/testing/workbook';
import { choose } from './controls';
import { test } from './test';
import { allKept, change, makeStudy, record, rowOf } from './study';

test('an empty bench says what to do, and the first part is recorded by keyboard alone', async ({ page, request }) => {
  const study = await makeStudy(request, 'First part');
  await page.goto(`/studies/${study.id}/bench`);
  await expect(page.getByText('Type the first part above and press Enter')).toBeVisible();
  await page.keyboard.press('l');
  await page.keyboard.type('carrier plate dc04 stamp t0.8 620x410x35 1.84 kg');
  await expect(page.getByText('620 × 410 × 35 mm')).toBeVisible();
  await page.keyboard.press('Enter');
  await page.keyboard.type('12 M6x16 T30 8.8 -z');
  await page.keyboard.press('Enter');
  await expect(rowOf(page, /carrier plate/)).toContainText('13');
  await page.keyboard.press('Escape');
  await page.keyboard.press('e');
  await expect(page.getByLabel('Name', { exact: true })).toBeFocused();
  await page.keyboard.press('End');
  await page.keyboard.type(', lock side');
  await page.keyboard.press('Control+Enter');
  await expect(rowOf(page, /carrier plate, lock side/)).toBeVisible();
  await allKept(page);
});

test('each answer to a question has its key, the likeliest first', async ({ page, request }) => {
  const study = await makeStudy(request, 'Keys');
  await page.goto(`/studies/${study.id}/bench`);
  const line = page.getByLabel('Entry line');
  const settled = async (typed: string, question: string | RegExp, key: string, after: string): Promise<void> => {
    await line.fill(typed);
    await expect(page.getByText(question).first()).toBeVisible();
    await page.keyboard.press(key);
    await expect(line).toHaveValue(after);
  };
  await settled('bracket 44', '44 of what: g or kg?', 'Alt+1', 'bracket 44 g');
  await settled('bracket 44', '44 of what: g or kg?', 'Alt+2', 'bracket 44 kg');
  await settled('bracket 44', '44 of what: g or kg?', 'Alt+3', 'bracket "44"');
  await settled('bracket max 5 kg', /is a limit, not a figure/, 'Alt+4', 'bracket ');
  // a key without an answer does nothing, and the line stays
  await settled('rail 1', '1 of what: g or kg?', 'Alt+7', 'rail 1');
  await page.keyboard.press('Alt+1');
  await expect(line).toHaveValue('rail "1"');
  await line.press('Enter');
  await expect(rowOf(page, /rail 1/)).toBeVisible();
});

test('fasteners without a part to hold are asked about, and the line is not lost', async ({ page, request }) => {
  const study = await makeStudy(request, 'No part chosen');
  await page.goto(`/studies/${study.id}/bench`);
  await page.getByLabel('Entry line').fill('34 spot');
  await page.getByLabel('Entry line').press('Enter');
  await expect(page.getByRole('alert')).toContainText('Choose the part first that these belong to');
  await page.getByRole('button', { name: 'Restore the line' }).click();
  await expect(page.getByLabel('Entry line')).toHaveValue('34 spot');
});

test('sets are edited and removed in the card, and a part is removed with all it holds', async ({ page, request }) => {
  const study = await makeStudy(request, 'Sets');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'module');
  await page.keyboard.press('Escape');
  await page.keyboard.press('o');
  await record(page, 'plate 1 kg');
  await record(page, '12 M6x16 T30 8.8 -z');
  const card = page.getByRole('complementary', { name: 'Part' });
  await card.getByRole('button', { name: '12 M6x16 T30 8.8 -z', exact: true }).click();
  await card.getByLabel('Set in shorthand').fill('10 M6x20 T30 8.8 -z');
  await card.getByLabel('Set in shorthand').press('Enter');
  await expect(card.getByText('10 M6x20 T30 8.8 -z')).toBeVisible();
  await card.getByRole('button', { name: 'Remove 10 M6x20 T30 8.8 -z' }).click();
  await expect(card.getByText('None recorded.')).toBeVisible();
  await rowOf(page, /module/).click();
  await card.getByRole('button', { name: 'Delete', exact: true }).click();
  await page
    .getByRole('dialog', { name: /^Delete: module/ })
    .getByRole('button', { name: 'Delete' })
    .click();
  await expect(page.getByText('Nothing is recorded under Sliding cargo door')).toBeVisible();
  await expect(card).toHaveCount(0);
});

test('fasteners typed before the server has answered go onto the part just typed', async ({ page, request }) => {
  const study = await makeStudy(request, 'Slow network');
  await page.goto(`/studies/${study.id}/bench`);
  await page.route('**/changes', async (route) => {
    await new Promise((wait) => setTimeout(wait, 700));
    await route.continue();
  });
  const line = page.getByLabel('Entry line');
  for (const text of ['plate 1 kg', '4 M6x16 5 g', '3 spot']) {
    await line.fill(text);
    await line.press('Enter');
  }
  await expect(page.getByText('Kept on plate: 3 spot')).toBeVisible();
  const cells = rowOf(page, /plate/).getByRole('gridcell');
  await expect(cells.nth(2)).toHaveText('4');
  await expect(cells.nth(3)).toHaveText('3');
});

test('a study that cannot be read says so, with a way on', async ({ page, request }) => {
  const study = await makeStudy(request, 'Unreadable');
  await page.route(`**/api/studies/${study.id}`, (route) =>
    route.fulfill({ status: 500, json: { code: 'failed', message: 'Something failed on the server', issues: [] } }),
  );
  await page.goto(`/studies/${study.id}/bench`);
  await expect(page.getByRole('alert')).toContainText('Something failed on the server');
  await page.unroute(`**/api/studies/${study.id}`);
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByLabel('Entry line')).toBeVisible();
  await page.goto(`/studies/${randomUUID()}/bench`);
  await expect(page.getByRole('alert')).toContainText('There is no such study');
});

test('a change made elsewhere to another field meanwhile is not overwritten', async ({ page, request }) => {
  const study = await makeStudy(request, 'Two fields');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'plate 1 kg');
  await allKept(page);
  await page.keyboard.press('Escape');
  await page.keyboard.press('e');
  await page.getByLabel('Tag', { exact: true }).fill('DR2-7');
  const [part] = ((await (await request.get(`/api/studies/${study.id}`)).json()) as { parts: readonly { id: string }[] }).parts;
  await change(request, study.id, [{ kind: 'part.edit', id: part?.id, was: { function: '' }, fields: { function: 'carries the lock' } }]);
  await page.getByRole('button', { name: 'Save' }).click();
  const card = page.getByRole('complementary', { name: 'Part' });
  await expect(card).toContainText('carries the lock');
  await expect(card).toContainText('DR2-7');
});

test('HTML in every text of a part shows as text on every screen', async ({ page, request }) => {
  const study = await makeStudy(request, 'Text <b>bold</b>');
  await page.goto(`/studies/${study.id}/bench`);
  const evil = (n: number): string => `<img src=x onerror=alert(${n})>`;
  await record(page, `"${evil(1)}" dc04 stamp 1 kg`);
  await expect(rowOf(page, /<img src=x/)).toBeVisible();
  await allKept(page);
  const { parts } = (await (await request.get(`/api/studies/${study.id}`)).json()) as { parts: readonly { id: string }[] };
  const fields = {
    function: evil(2),
    location: evil(3),
    markings: evil(4),
    supplier: evil(5),
    damage: evil(6),
    notes: evil(7),
    materialDetail: evil(8),
  };
  const was = Object.fromEntries(Object.keys(fields).map((field) => [field, '']));
  const about = { aboutKind: 'part', aboutId: parts[0]?.id, aboutField: null, ownerId: null, dueOn: null };
  await change(request, study.id, [
    { kind: 'part.edit', id: parts[0]?.id, was, fields },
    {
      kind: 'question.add',
      id: randomUUID(),
      fields: { kind: 'promise', ...about, text: evil(9), owedTo: evil(10), state: 'open', answer: '' },
    },
  ]);
  const card = page.getByRole('complementary', { name: 'Part' });
  for (const n of [2, 3, 4, 5, 6, 7, 8, 9, 10]) await expect(card).toContainText(evil(n));
  await page.keyboard.press('Escape');
  for (const [key, heading] of [
    ['h', 'History of the study'],
    ['g', 'Questions and promises'],
    ['c', /cost/],
    ['v', /side by side/],
  ] as const) {
    await page.keyboard.press(key);
    await expect(page.getByRole('heading', { level: 1, name: heading })).toBeVisible();
    if (key !== 'v') await expect(page.getByText(key === 'g' ? evil(9) : evil(1)).first()).toBeVisible();
    await expect(page.locator('img[src="x"]')).toHaveCount(0);
  }
});

test('a workbook with headings and words of its own is understood, put right where it stands, and remembered', async ({
  page,
  request,
}) => {
  const study = await makeStudy(request, 'Workbook');
  await page.goto(`/studies/${study.id}/bench`);
  const rows = [
    ['Zerlegung der Schiebetür', null, null, null],
    ['Benennung', 'Verfahren', 'Was es wiegt', 'Farbe'],
    ['Türblech', 'Stanzen', '36', 'rot'],
    ['Hebel', 'Stanzen', '1 kg', 'rot'],
  ];
  const file = (name: string): { name: string; mimeType: string; buffer: Buffer } => ({
    name,
    mimeType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    buffer: Buffer.from(workbook({ Cover: [['Each its own sheet']], Tür: rows })),
  });
  await page.getByLabel('Entry line').press('Escape');
  await page.keyboard.press('i');
  const dialog = page.getByRole('dialog', { name: 'Import a file of parts' });
  await dialog.getByLabel('CSV or XLSX file').setInputFiles(file('door.xlsx'));
  await expect(dialog.getByLabel('Sheet', { exact: true })).toHaveText(/Tür, 4 rows/);
  await expect(dialog.getByLabel('Heading in line')).toHaveValue('2');
  await expect(dialog).toContainText('What the columns hold: 2 of 4 are read');
  await choose(dialog.getByLabel('Read as: Was es wiegt'), 'mass');
  await choose(dialog.getByLabel('Meaning of Stanzen'), 'stamping');
  await expect(dialog).toContainText('1 row can be loaded; 1 has faults');
  await dialog.getByLabel('mass in line 3').fill('36 g');
  await dialog.getByLabel('mass in line 3').press('Enter');
  await expect(dialog).toContainText('All 2 rows can be loaded.');
  await dialog.getByRole('button', { name: 'Load 2 rows' }).click();
  await expect(page.getByText('Loaded 2 rows as one change.')).toBeVisible();
  await expect(rowOf(page, /Türblech/)).toContainText('0.036');
  await expect(rowOf(page, /Hebel/)).toContainText('stamping');
  // the next of that shape is understood at once, but for what is wrong in it
  await page.keyboard.press('i');
  await dialog.getByLabel('CSV or XLSX file').setInputFiles(file('door again.xlsx'));
  await expect(dialog).toContainText('What the columns hold: 3 of 4 are read');
  await expect(dialog).toContainText('1 row can be loaded; 1 has faults');
  // what was said before can be said otherwise
  await dialog.getByText('1 word taken for what you said').click();
  await expect(dialog.getByLabel('Meaning of Stanzen')).toHaveText(/stamping/);
  await choose(dialog.getByLabel('Meaning of Stanzen'), 'as it stands');
  await expect(dialog).toContainText('0 rows can be loaded; 2 have faults');
  await choose(dialog.getByLabel('Meaning of Stanzen'), 'stamping');
  await expect(dialog).toContainText('1 row can be loaded; 1 has faults');
  // another sheet, another line for the heading: what cannot be is said
  await choose(dialog.getByLabel('Sheet', { exact: true }), 'Cover, 1 row');
  await expect(dialog).toContainText('The file has no rows');
  await choose(dialog.getByLabel('Sheet', { exact: true }), 'Tür, 4 rows');
  await dialog.getByLabel('Heading in line').fill('9');
  await dialog.getByLabel('Heading in line').press('Enter');
  await expect(dialog).toContainText('The heading is in a line from 1 to 4');
  await dialog.getByLabel('Heading in line').fill('1');
  await dialog.getByLabel('Heading in line').press('Enter');
  await expect(dialog).toContainText('No column is the name of the part');
  await dialog.getByLabel('Heading in line').fill('2');
  await dialog.getByLabel('Heading in line').press('Enter');
  await expect(dialog).toContainText('1 row can be loaded; 1 has faults');
  await dialog.getByRole('button', { name: 'Cancel and correct the file' }).click();
  await allKept(page);
});

test('a text file says its encoding, and is read in another where that is said', async ({ page, request }) => {
  const study = await makeStudy(request, 'Encodings');
  await page.goto(`/studies/${study.id}/bench`);
  await page.getByLabel('Entry line').press('Escape');
  await page.keyboard.press('i');
  const dialog = page.getByRole('dialog', { name: 'Import a file of parts' });
  await dialog
    .getByLabel('CSV or XLSX file')
    .setInputFiles({ name: 'latin.csv', mimeType: 'text/csv', buffer: Buffer.from('name;mass\nTürblech;1,2 kg', 'latin1') });
  await expect(dialog.getByLabel('Encoding')).toHaveText(/Latin-1/);
  await expect(dialog).toContainText('Türblech');
  await choose(dialog.getByLabel('Encoding'), 'UTF-8');
  await expect(dialog).toContainText('Holds characters that cannot be read');
  await choose(dialog.getByLabel('Encoding'), 'Latin-1 (Windows-1252)');
  await dialog.getByRole('button', { name: 'Load 1 row' }).click();
  await expect(rowOf(page, /Türblech/)).toContainText('1.200');
});
