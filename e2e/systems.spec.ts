import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { allKept, makeStudy, record, rowOf } from './study';
import { test } from './test';

const demo = async (page: Page): Promise<string> => {
  const studies = (await (await page.request.get('/api/studies')).json()) as readonly { readonly id: string; readonly title: string }[];
  return studies.find((s) => s.title === 'Last-mile vans')!.id;
};
const set = async (page: Page, label: string, value: string): Promise<void> => {
  await page.getByLabel(label, { exact: true }).fill(value);
  await page.getByLabel(label, { exact: true }).press('Tab');
};
const choose = async (page: Page, label: string, option: string | RegExp): Promise<void> => {
  await page.getByLabel(label, { exact: true }).click();
  await page.getByRole('option', { name: option }).click();
};

test('on the demo the battery’s outlet is moved, and what changes is read: less pipe, less inside, a little more flow', async ({
  page,
}) => {
  await page.goto(`/studies/${await demo(page)}/measure/runs`);
  await page
    .getByRole('treeitem', { name: /Traction battery/ })
    .first()
    .click();
  const lines = page.getByRole('table', { name: 'Lines as recorded and as they would be' });
  // over its points the pipe goes 1.0551 m of its 1.094 m; from the front edge, past the first of them, 0.6877 m
  await expect(
    page.getByText(/“pack outlet” from 1.300 −620 300 to 980 −620 300 mm; pipe of “Coolant outlet pipe” 0\.727 m instead of 1\.094 m/),
  ).toBeVisible({
    timeout: 30_000,
  });
  await expect(lines.getByRole('row', { name: /^Hoses and pipes/ })).toContainText('−0.367 (−15 %)');
  await expect(page.getByRole('table', { name: 'Circuit of Drayman II' }).getByRole('row', { name: /^Battery pack, plate/ })).toContainText(
    '18.01',
  );
  // each line with its length, as a file for others
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'CSV' }).click()]);
  expect(file.suggestedFilename()).toBe('runs.csv');
  expect(await readFile(await file.path(), 'utf8')).toMatch(/Coolant outlet pipe.*1\.094/);
  await page.getByLabel('What would it tell of the lines?').fill('does an outlet at the rear edge cost much?');
  await page.locator('eb-run-cases').getByRole('button', { name: 'What if …' }).click();
  await choose(page, 'Port to move', /^pack outlet/);
  await page.getByLabel('Its new place, x y z in mm').fill('2600 -620');
  await page.getByRole('button', { name: 'Move it' }).click();
  await expect(page.getByText('To move a port, choose it and type its new place as x y z in mm')).toBeVisible();
  await page.getByLabel('Its new place, x y z in mm').fill('2600 -620 300');
  await page.getByRole('button', { name: 'Move it' }).click();
  // 1.3 m further back over the same points
  await expect(lines.getByRole('row', { name: /^Hoses and pipes/ })).toContainText('+1.247 (+50 %)');
  await expect(lines.getByRole('row', { name: /^Flow through the pumps/ })).toContainText('−');
  await choose(page, 'Line to change', /^pipe 0\.866 m/);
  await page.getByLabel('Its new length in mm').fill('800');
  await page.getByRole('button', { name: 'Change it' }).click();
  await expect(page.getByText(/pipe of “Coolant inlet pipe” 0\.800 m instead of 0\.866 m/)).toBeVisible();
  await allKept(page);
  await page.locator('eb-run-cases').getByRole('button', { name: 'Delete this what-if' }).click();
  await expect(page.getByText(/0\.800 m instead of/)).toBeHidden();
});

test('on the demo a board’s supply tree has one load unfed; fed it gets its voltage, and a wrong one is named', async ({ page }) => {
  const study = await demo(page);
  await page.goto(`/studies/${study}/measure/supply`);
  const tree = page.getByRole('table', { name: 'Supply tree' });
  await expect(page.getByText('“shunt amplifier” is a load that nothing feeds')).toBeVisible();
  await expect(tree.getByRole('row', { name: /shunt amplifier/ })).toContainText('nothing feeds it');
  // 12.5 A through 2 × 0.94 m of 4 mm² copper: 2 × 4.052 mΩ × 12.5 A
  await expect(tree.getByRole('row', { name: /cab heater/ })).toContainText('0.10');
  // 0.18 A × 5 V / (84 % × 14.2 V)
  await expect(tree.getByRole('row', { name: /(?<!1)5 V supply/ })).toContainText('0.0755');
  await tree.getByRole('button', { name: 'shunt amplifier' }).click();
  await choose(page, 'Fed from', /^15 V supply, heater board/);
  await expect(page.getByText('“shunt amplifier” is made for 5 V and gets 15 V')).toBeVisible();
  await choose(page, 'Fed from', /^5 V supply, heater board/);
  await expect(page.getByText('“shunt amplifier” is made for')).toBeHidden();
  await expect(tree.getByRole('row', { name: /shunt amplifier/ })).toContainText('5.00');
  // the demo is as it was for whoever comes next
  await choose(page, 'Fed from', 'nothing');
  await expect(tree.getByRole('row', { name: /shunt amplifier/ })).toContainText('nothing feeds it');
  await allKept(page);
});

test('a board is recorded with what it has to do: heat step by step, stored energy, and what is missing', async ({ page, request }) => {
  const study = await makeStudy(request, 'A board');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'power board 340 g 180x90x20 mm');
  await rowOf(page, /power board/).click();
  await record(page, '24 power switch');
  const part = new URL(page.url()).searchParams.get('part');
  await page.goto(`/studies/${study.id}/measure/boards?part=${part}`);
  await page.getByRole('button', { name: 'Record this part as a board' }).click();
  await set(page, 'Length', '240');
  await expect(page.getByText('The size of a board needs length and width')).toBeVisible();
  await set(page, 'Width', '195');
  const figures = page.getByRole('table', { name: 'Figures of the board' });
  // common practice, no source: a board of 24 × 19.5 cm has 468 cm²
  await expect(figures.getByRole('row', { name: /^Area/ })).toContainText('468 cm²');
  await expect(page.getByText('does not lie in “power board” of 180 × 90 × 20 mm: one of the two sizes is wrong')).toBeVisible();
  await set(page, 'Length', '170');
  await set(page, 'Width', '80');
  await expect(page.getByText('does not lie in')).toBeHidden();
  // 24 on 136 cm²
  await expect(figures.getByRole('row', { name: /^Components per/ })).toContainText('0.18');
  await page.getByRole('button', { name: 'Say what it has to do' }).click();
  await set(page, 'Shunt', '0.1');
  await expect(page.getByText('For the current through the shunt it still needs: Voltage over the shunt.')).toBeVisible();
  await set(page, 'Voltage over the shunt', '20');
  const duty = page.getByRole('table', { name: 'What the board has to do' });
  await expect(duty.getByRole('row', { name: /^Current through the shunt/ })).toContainText('200');
  for (const [label, value] of [
    ['Capacitance of the store', '600'],
    ['Voltage of the store', '400'],
    ['Discharge resistor', '30'],
    ['Heat of the part', '40'],
    ['Coolant or air', '60'],
    ['Hottest it may be', '70'],
    ['Compound, thickness', '0.2'],
    ['Compound, area', '12'],
    ['Compound, conductivity', '3'],
    ['Plate, thickness', '4'],
    ['Plate, area', '40'],
    ['Plate, conductivity', '150'],
    ['Plate to coolant', '3000'],
  ] as const)
    await set(page, label, value);
  await expect(duty.getByRole('row', { name: /^Time to come down/ })).toContainText('34.1');
  await expect(page.getByText('prove a store dead with an instrument')).toBeVisible();
  // 60 + 40 × (0.0556 + 0.0067 + 0.0833)
  await expect(duty.getByRole('row', { name: /^Hottest/ })).toContainText('65.8');
  await expect(
    page.getByRole('img', { name: /^From 65\.8 °C down to 60\.0 °C: compound 2\.2 K, plate 0\.3 K, plate to coolant 3\.3 K/ }),
  ).toBeVisible();
  await set(page, 'Hottest it may be', '65');
  await expect(page.getByText('It gets hotter than it may be: 65.8 °C, at most 65.0 °C')).toBeVisible();
  await page.getByLabel('What would a what-if tell?').fill('is half the compound enough?');
  await page.getByRole('button', { name: 'What if …' }).click();
  await expect(page.getByRole('button', { name: 'Delete this what-if' })).toBeVisible();
  await set(page, 'Compound, thickness', '0.1');
  await expect(duty.getByRole('row', { name: /^Hottest/ })).toContainText('−1.11');
  await allKept(page);
});

test('lines get their ends on the screen: ports, ways through, a circuit that runs, and what is not whole is named', async ({
  page,
  request,
}) => {
  const study = await makeStudy(request, 'A circuit');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'pump 700 g');
  await record(page, 'core 900 g');
  await rowOf(page, /pump/).click();
  await record(page, '1 hose id16 2 m epdm coolant clamp');
  await record(page, '1 hose id12 2.2 m epdm coolant clamp');
  const pump = new URL(page.url()).searchParams.get('part');
  await rowOf(page, /core/).click();
  const core = new URL(page.url()).searchParams.get('part');
  const ends = page.locator('eb-run-ends');
  const port = async (name: string, place: string): Promise<void> => {
    await ends.getByLabel('Name of the new port').fill(name);
    await ends.getByLabel('Place of the new port, x y z in mm').fill(place);
    await ends.getByRole('button', { name: 'Add the port' }).click();
    await expect(ends.getByRole('group', { name: `Port ${name}` })).toBeVisible();
  };
  const through = ends.getByRole('group', { name: 'Way through through' });
  const fill = async (kPa: string, lpm: string): Promise<void> => {
    for (const [label, value] of [
      ['Pressure', kPa],
      ['Flow', lpm],
    ] as const) {
      await through.getByLabel(label, { exact: true }).fill(value);
      await through.getByLabel(label, { exact: true }).press('Tab');
    }
  };
  await page.goto(`/studies/${study.id}/measure/runs?part=${core}`);
  await port('core in', '2000 0 0');
  await port('core out', '2000 400 0');
  await ends.getByRole('button', { name: 'Add a way through' }).click();
  await fill('8', '10');
  await allKept(page);
  await page.goto(`/studies/${study.id}/measure/runs?part=${pump}`);
  await ends.getByLabel('Place of the new port, x y z in mm').fill('0 0');
  await ends.getByRole('button', { name: 'Add the port' }).click();
  await expect(ends.getByText('“0 0” is not a place: type x, y and z in mm')).toBeVisible();
  await port('pump in', '0 0 0');
  await port('pump out', '100 0 0');
  const hose = (long: string) => ends.getByRole('group', { name: `Ends of 1 hose ${long}` });
  const lead = async (long: string, label: string, to: string): Promise<void> => {
    await hose(long).getByLabel(label, { exact: true }).click();
    await page.getByRole('option', { name: to }).click();
  };
  await lead('2.000 m', 'Leads from', 'pump out, pump');
  await expect(page.getByText('has one end only: say which port it leads to')).toBeVisible();
  await lead('2.000 m', 'Leads to', 'core in, core');
  await expect(hose('2.000 m')).toContainText('straight 1.900 m');
  await lead('2.200 m', 'Leads from', 'core out, core');
  await lead('2.200 m', 'Leads to', 'pump in, pump');
  await expect(
    page
      .getByText(/No pump drives the loop of/)
      .or(page.getByText(/the circuit is open there/))
      .first(),
  ).toBeVisible();
  await ends.getByRole('button', { name: 'Add a way through' }).click();
  await through.getByLabel('Does', { exact: true }).click();
  await page.getByRole('option', { name: 'pumps' }).click();
  await fill('60', '20');
  // one flow all round, and the falls add up to nothing
  const circuit = page.getByRole('table', { name: /^Circuit of/ });
  await expect(circuit.getByRole('row')).toHaveCount(5);
  const flows = await circuit.getByRole('row').locator('td:nth-child(2)').allInnerTexts();
  expect(new Set(flows).size).toBe(1);
  const falls = await circuit.getByRole('row').locator('td:nth-child(3)').allInnerTexts();
  expect(Math.abs(falls.reduce((sum, text) => sum + Number(text.replace('−', '-')), 0))).toBeLessThan(0.03);
  // a hose shorter than its ends are apart
  await allKept(page);
  await page.goto(`/studies/${study.id}/measure/runs?part=${core}`);
  await set(page, 'x of core in', '2300');
  await expect(page.getByText(/is 2\.000 m long, and its ends are 2\.200 m apart/)).toBeVisible();
  await allKept(page);
});

test('a heat pump is held against a heater at the same heat, and a what-if beside it', async ({ page }) => {
  await page.goto(`/studies/${await demo(page)}/measure/heating`);
  await expect(
    page.getByText(/^The heat pump takes 0\.99 kW where the heater takes 2\.37 kW, and leaves 39\.6 ± 7\.8 km more of range/),
  ).toBeVisible({
    timeout: 30_000,
  });
  const figures = page.getByRole('table', { name: 'What heating takes' });
  // 42 % of 323.15 K / 49 K
  await expect(figures.getByRole('row', { name: /^COP reckoned with/ })).toContainText('2.77 ± 0.40');
  await expect(page.getByRole('img', { name: /^Range: without heating 321 km/ })).toBeVisible();
});

test('another’s layout is tried on a pack as a what-if with its reason', async ({ page }) => {
  await page.goto(`/studies/${await demo(page)}/measure/packs`);
  await page.getByRole('button', { name: 'Battery pack of Pannier, as recorded' }).click();
  await expect(page.getByRole('table', { name: 'Figures of the pack' })).toBeVisible({ timeout: 30_000 });
  await choose(page, 'State of the pack', 'as recorded');
  await choose(page, 'This pack with the layout of', /^as recorded, Drayman II/);
  await expect(page.getByLabel('Reason', { exact: true })).toHaveValue(/^cooled as as recorded, Drayman II|^cooled as/);
  await expect(page.getByText(/^The hottest cell of “what if \d” is/)).toBeVisible();
  await expect(page.getByText(/Row cut finer|Heat per cell/).first()).toBeVisible();
  await allKept(page);
  await page.getByRole('button', { name: 'Delete this what-if' }).click();
  await expect(page.getByText(/^The hottest cell of “what if \d” is/)).toBeHidden();
});
