import { expect, type Page } from '@playwright/test';
import { allKept, makeStudy, record, rowOf } from './study';
import { test } from './test';

const demo = async (page: Page): Promise<string> => {
  const studies = (await (await page.request.get('/api/studies')).json()) as readonly { readonly id: string; readonly title: string }[];
  return studies.find((s) => s.title === 'Last-mile vans')!.id;
};

const figures = (page: Page): ReturnType<Page['getByRole']> => page.getByRole('table', { name: 'Figures of the pack' });

test('two states of a pack side by side: cell by cell, in figures and in a sentence', async ({ page }) => {
  await page.goto(`/studies/${await demo(page)}/measure/packs`);
  await page.getByRole('button', { name: 'Battery pack of Pannier, what if: two passes' }).click();
  await expect(
    page.getByText(/The hottest cell of “what if: two passes” is at 34\.3 °C instead of 35\.9 °C, 1\.60 ± 0\.11 K cooler/),
  ).toBeVisible({
    timeout: 30_000,
  });
  await expect(page.getByRole('img', { name: /^as recorded: cells from 32\.2 to 35\.9 °C, in one pass/ })).toBeVisible();
  await expect(page.getByRole('img', { name: /^what if: two passes: cells from 34\.1 to 34\.3 °C/ })).toBeVisible();
  // 108 bricks × 3.65 V × 35 cells × 5 Ah
  await expect(figures(page).getByRole('row', { name: /^Energy/ })).toContainText('68.98 ± 0.69');
  await expect(page.getByText('108 bricks × 3.65 V × 35 cells × 5.00 Ah')).toBeVisible();
  const boundaries = page.getByRole('table', { name: 'Energy per mass by boundary' });
  await expect(page.getByLabel('Boundaries')).toContainText('Under-ride plate');
  await expect(boundaries.getByRole('rowheader')).toHaveText([
    'cells',
    'modules',
    'pack',
    'pack with shield',
    'pack with shield and charger box',
  ]);
});

test('a part becomes a pack: what is missing is asked for, a count that does not multiply is named, a what-if is told against it', async ({
  page,
  request,
}) => {
  const study = await makeStudy(request, 'A pack');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'battery pack 160 kg');
  await rowOf(page, /battery pack/).click();
  const part = new URL(page.url()).searchParams.get('part');
  await page.goto(`/studies/${study.id}/measure/packs?part=${part}`);
  await page.getByRole('button', { name: 'Record this part as a pack' }).click();
  await expect(page.getByText(/^For the temperatures it still needs: Rows of cells in a module, Heat per cell,/)).toBeVisible({
    timeout: 30_000,
  });
  const set = async (label: string, value: string): Promise<void> => {
    await page.getByLabel(label, { exact: true }).fill(value);
    await page.getByLabel(label, { exact: true }).press('Tab');
  };
  for (const [label, value] of [
    ['Cells in parallel', '4'],
    ['Bricks per module', '8'],
    ['Modules in series', '12'],
    ['Cells counted in one module', '30'],
    ['Capacity of a cell', '5'],
    ['Nominal voltage of a cell', '3.65'],
  ] as const)
    await set(label, value);
  await expect(page.getByText('4 in parallel × 8 bricks is 32 cells, 30 were counted in the opened module')).toBeVisible();
  // 7.008 kWh on 160 kg
  await expect(figures(page).getByRole('row', { name: /^Energy/ })).toContainText('7.01');
  await expect(page.getByRole('table', { name: 'Energy per mass by boundary' }).getByRole('row', { name: /^pack/ })).toContainText('43.8');
  await set('Cells counted in one module', '32');
  await expect(page.getByText('30 were counted')).toBeHidden();
  for (const [label, value] of [
    ['Heat per cell', '1.1'],
    ['Cell to coolant', '0.154'],
    ['Coolant flow through the pack', '2'],
    ['Coolant in', '25'],
    ['Coolant density', '1065'],
    ['Coolant heat capacity', '3400'],
  ] as const)
    await set(label, value);
  // 32 cells do not stand in 5 rows
  await set('Rows of cells in a module', '5');
  await expect(page.getByText('32 cells of a module do not stand in 5 rows of the same length')).toBeVisible();
  await set('Rows of cells in a module', '4');
  await expect(page.getByRole('img', { name: /^as recorded: cells from / })).toBeVisible();
  // ± is typed in the unit of its field, expanded, and how the value is known stays
  await set('± of Heat per cell', '0.06');
  await expect(figures(page).getByRole('row', { name: /^Hottest/ })).toContainText('±');
  await page.getByRole('button', { name: 'What if …' }).click();
  await expect(page.getByText('A what-if needs its reason: what would it tell?')).toBeVisible();
  await page.getByLabel('What would a what-if tell?').fill('is an even brick worth it');
  await page.getByRole('button', { name: 'What if …' }).click();
  await expect(page.getByRole('button', { name: 'Delete this what-if' })).toBeVisible();
  await page.getByLabel('Cooled in').click();
  await page.getByRole('option', { name: 'two passes' }).click();
  await expect(page.getByText(/The hottest cell of “what if 1” is at .* cooler, and the spread within a brick/)).toBeVisible();
  await allKept(page);
  await page.getByRole('button', { name: 'Delete this what-if' }).click();
  await expect(page.getByText(/The hottest cell of “what if 1”/)).toBeHidden();
});

test('lines of a subsystem stand side by side, with what they cost in pressure; what has no length is said', async ({ page, request }) => {
  const study = await makeStudy(request, 'Lines');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'hose, pump to core epdm 340 g');
  await rowOf(page, /hose, pump to core/).click();
  await record(page, '2 hose id19 1.5 m epdm coolant clamp');
  await record(page, '1 hose id8 epdm coolant');
  await record(page, '2 cable 2.5 mm2 cu-etp 5 m');
  await page.goto(`/studies/${study.id}/measure/runs`);
  const totals = page.getByRole('table', { name: 'Runs by vehicle' });
  await expect(totals.getByRole('row', { name: /^Hoses, pieces/ })).toContainText('3');
  await expect(totals.getByRole('row', { name: /^Hoses, length/ })).toContainText('3.00 ± 0.12 m');
  await expect(totals.getByRole('row', { name: /^Hoses, length/ })).toContainText('1 piece without a length');
  // two of π/4 · 19² mm² · 1.5 m
  await expect(totals.getByRole('row', { name: /^Hoses, fluid inside/ })).toContainText('0.851 l');
  // 10 m of 2.5 mm² copper at 8.89 g a metre and mm²
  await expect(totals.getByRole('row', { name: /^Cables, metal/ })).toContainText('222 g');
  await expect(page.getByText('left out, without bore or length: hose, pump to core')).toBeVisible();
  await expect(page.getByRole('table', { name: 'All runs' }).getByRole('row', { name: /cable/ })).toContainText('0.345');
  await page.getByLabel('Conductor at', { exact: true }).fill('-20');
  await page.getByLabel('Conductor at', { exact: true }).press('Tab');
  // 0.00393 per kelvin below 20 °C: 0.345 V × 0.8428
  await expect(page.getByRole('table', { name: 'All runs' }).getByRole('row', { name: /cable/ })).toContainText('0.291');
  await page.getByLabel('Flow', { exact: true }).fill('0');
  await page.getByLabel('Flow', { exact: true }).press('Tab');
  await expect(page.getByText('Flow must be more than 0 l/min')).toBeVisible();
  await page.getByLabel('Flow', { exact: true }).fill('20');
  await page.getByLabel('Flow', { exact: true }).press('Tab');
  await expect(page.getByText(/2 pieces, .* kPa and .* W at 20 l\/min/)).toBeVisible();
  // with a pump both meet: less than its largest flow
  for (const [label, value] of [
    ['Pump, pressure at no flow', '20'],
    ['Pump, flow at no pressure', '30'],
  ] as const) {
    await page.getByLabel(label, { exact: true }).fill(value);
    await page.getByLabel(label, { exact: true }).press('Tab');
  }
  await expect(page.getByText(/2 pieces, .* at 2\d\.\d+ l\/min/)).toBeVisible();
});
