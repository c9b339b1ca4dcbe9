import { randomUUID } from 'node:crypto';
import { expect, type APIRequestContext, type Page } from '@playwright/test';
import { test } from './test';
import { allKept, change, makeStudy, record, type MadeStudy } from './study';
import { choose } from './controls';

const view = (page: Page, name: string): ReturnType<Page['getByRole']> =>
  page.getByRole('navigation', { name: 'Views of the bench' }).getByRole('link', { name, exact: true });
const begin = (page: Page): Promise<void> => page.getByRole('button', { name: 'Begin a session' }).click();

/** A package with hazards on the first vehicle, ready to be opened as a session. */
const packageFor = async (request: APIRequestContext, study: MadeStudy, hazards: readonly string[], name: string): Promise<string> => {
  const id = randomUUID();
  const fields = {
    ...{
      sequence: 0,
      name,
      vehicleId: study.vehicleIds[0],
      subsystemId: study.subsystemId,
      optimisticS: null,
      mostLikelyS: null,
      pessimisticS: null,
    },
    ...{ skill: '', people: 2, who: [], place: 'lift', rigId: null, hazards, after: [], pinnedOn: null, notBefore: null, startedOn: null },
    ...{ doneOn: null, workedS: null, remainingS: null, agreedFrom: null, agreedTo: null, note: '' },
  };
  await change(request, study.id, [{ kind: 'package.add', id, fields }]);
  return id;
};

test('a session: each part becomes a removal with its tool, its time and what had to come off first', async ({ page, request }) => {
  const study = await makeStudy(request, 'Session');
  await packageFor(request, study, [], 'Sliding cargo door off');
  await page.goto(`/studies/${study.id}/bench`);
  await choose(page.getByLabel('Work package of the session'), '1 Sliding cargo door off');
  await begin(page);
  await expect(page.getByRole('region', { name: 'Session' })).toContainText('Sliding cargo door off');
  await record(page, 'trim panel, lower 1.2 kg');
  await record(page, '9 clip 3 g');
  await record(page, '> trim lever -y 1p seen one-way');
  await expect(
    page.getByText('trim panel, lower · trim lever · −Y to the left, 1 person, seen, fits one way · nothing before'),
  ).toBeVisible();
  await record(page, 'lock bracket dc04 0.3 kg');
  await record(page, '4 M6x16 T30 8.8 -y');
  await record(page, '1 connector 12p latch firm');
  await record(page, '+ lock cable 0.2 kg');
  await record(page, '> cordless driver T30 -y 2p blind');
  await view(page, 'Removals').click();
  const rows = page.getByRole('table', { name: 'Removals' }).getByRole('row');
  await expect(rows).toHaveCount(3);
  await expect(rows.nth(2)).toContainText('lock bracket, lock cable');
  await expect(rows.nth(2)).toContainText('cordless driver');
  await expect(rows.nth(2)).toContainText('after 1');
  // corrected with one key, put right by number, split, joined and moved
  await rows.nth(2).click();
  await page.keyboard.press('x');
  await expect(rows.nth(2)).toContainText('nothing before');
  await page.keyboard.press('t');
  await expect(rows).toHaveCount(4);
  await expect(rows.nth(3)).toContainText('lock cable');
  await rows.nth(3).click();
  // the field is that of the row before until the click has come through
  await expect(page.getByLabel('Numbers of the removals that had to come first')).toHaveValue('2');
  await page.getByLabel('Numbers of the removals that had to come first').fill('9');
  await page.getByLabel('Numbers of the removals that had to come first').press('Enter');
  await expect(page.getByRole('alert')).toContainText('There is no step 9; they go from 1 to 3');
  await page.getByLabel('Numbers of the removals that had to come first').fill('1, 2');
  await page.getByLabel('Numbers of the removals that had to come first').press('Enter');
  await expect(rows.nth(3)).toContainText('after 1, 2');
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('j');
  await expect(rows).toHaveCount(3);
  await page.getByRole('button', { name: 'Move removal 2 up' }).click();
  await expect(rows.nth(1)).toContainText('lock bracket');
  await allKept(page);
  await page.reload();
  await expect(rows.nth(1)).toContainText('lock bracket, lock cable');
  await expect(rows.nth(1)).toContainText('cordless driver');
});

test('precautions stand before the first removal; otherwise it is done only with a reason that stays', async ({ page, request }) => {
  const study = await makeStudy(request, 'Precautions first');
  await packageFor(request, study, ['magnets'], 'Rotor out');
  await page.goto(`/studies/${study.id}/bench`);
  await choose(page.getByLabel('Work package of the session'), '1 Rotor out');
  await begin(page);
  const holdPoint = page.getByRole('region', { name: 'Precautions before the next removal' });
  await expect(holdPoint).toContainText('Local codes and licensed practice decide');
  await page.getByLabel('Entry line').fill('rotor 28 kg');
  await page.getByLabel('Entry line').press('Enter');
  await expect(page.getByRole('alert')).toContainText('Precautions come first');
  await page.getByRole('button', { name: 'Restore the line' }).click();
  await page.getByLabel('Done otherwise because').fill('already out when the vehicle came');
  await page.getByLabel('Entry line').press('Enter');
  await expect(page.getByRole('row', { name: /rotor/ })).toBeVisible();
  // what was done otherwise is folded away, and still there
  await expect(holdPoint).toContainText('done otherwise: already out when the vehicle came');
  await holdPoint.getByText('Precautions before the next removal').click();
  await holdPoint.getByRole('button', { name: /^Read by Wenna Tarn/ }).click();
  await view(page, 'Removals').click();
  await expect(page.getByText('done otherwise: already out when the vehicle came')).toBeVisible();
});

test('a tool that goes on is shown as carried over, dropped with one key, and settled for all removals at the end', async ({
  page,
  request,
}) => {
  const study = await makeStudy(request, 'Carried');
  await page.goto(`/studies/${study.id}/bench`);
  await begin(page);
  await record(page, 'trim');
  await record(page, '> ratchet T30');
  await record(page, 'bracket');
  const session = page.getByRole('region', { name: 'Session' }).locator('xpath=..');
  await expect(session).toContainText('carried over: ratchet T30');
  await page.getByLabel('Entry line').press('Alt+0');
  await expect(page.getByRole('status').filter({ hasText: 'Dropped what the last removal took over' })).toBeVisible();
  await expect(session).toContainText('bracket · no tool yet');
  await record(page, '> lever');
  await expect(session).toContainText('bracket · lever');
  for (const part of ['roller', 'arm', 'cover']) await record(page, part);
  await session.getByRole('button', { name: 'drop' }).click();
  await expect(session).toContainText('cover · no tool yet');
  await view(page, 'Removals').click();
  const list = page.getByRole('region', { name: 'Before the session ends' });
  await expect(list).toContainText('On 2 removals the tool was carried over and never said');
  await expect(list).toContainText('5 parts have no mass');
  await list.getByLabel('Tool: Removal 5 names no tool').fill('by hand');
  await list.getByRole('button', { name: 'Set it' }).click();
  await expect(list).not.toContainText('names no tool');
  const rows = page.getByRole('table', { name: 'Removals' }).getByRole('row');
  await expect(rows.nth(5)).toContainText('by hand');
  await expect(rows.nth(3).locator('.carried')).toHaveText('lever');
  await list.getByRole('button', { name: 'Show them' }).first().click();
  await list.getByRole('button', { name: 'The tool of removal 3, lever, was carried over and never said' }).click();
  const sheet = page.getByRole('region', { name: 'Removal', exact: true });
  await expect(sheet).toContainText('Carried over');
  // one of them is settled by itself, dropped and typed anew, and put back
  await sheet.getByRole('button', { name: 'Drop it' }).click();
  await expect(sheet).not.toContainText('Carried over');
  await expect(rows.nth(3).getByRole('cell').nth(1)).toHaveText('');
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('z');
  await expect(rows.nth(3).locator('.carried')).toHaveText('lever');
  await list.getByRole('button', { name: 'It holds for all' }).click();
  await expect(list).not.toContainText('carried over');
  await expect(rows.nth(3).locator('.carried')).toHaveCount(0);
  await list.getByLabel('Why it stays so: 5 parts have no mass').fill('weighed tomorrow');
  await list.getByRole('button', { name: 'Accept all' }).click();
  await expect(list).toContainText('Nothing looks lost');
  await allKept(page);
});

test('a line for another place than that of the open session is asked about before it is kept', async ({ page, request }) => {
  const study = await makeStudy(request, 'Elsewhere');
  await page.goto(`/studies/${study.id}/bench`);
  await begin(page);
  await record(page, 'trim 1 kg');
  const stack = page.getByRole('tree', { name: 'Vehicles, subsystems and parts' });
  await stack.getByText('Sliding cargo door').nth(1).click();
  const line = page.getByLabel('Entry line');
  await line.fill('bracket 2 kg');
  await line.press('Enter');
  const asked = page.getByRole('alertdialog', { name: 'Where does this line go?' });
  await expect(asked).toContainText(
    'would go to Sliding cargo door of Pannier, and the open session is of Sliding cargo door of Drayman II',
  );
  await page.keyboard.press('Escape');
  await expect(asked).toBeHidden();
  await expect(line).toHaveValue('bracket 2 kg');
  await line.press('Enter');
  await asked.getByRole('button', { name: 'Keep it here, as no removal of the session' }).click();
  await expect(page.getByRole('row', { name: /bracket/ })).toContainText('2.000');
  // asked once for this place
  await record(page, 'lever 1 kg');
  await expect(page.getByRole('row', { name: /lever/ })).toBeVisible();
  await stack.getByText('Sliding cargo door').first().click();
  await record(page, 'roller 1 kg');
  await stack.getByText('Sliding cargo door').nth(1).click();
  await record(page, 'arm 3 kg');
  await expect(page.getByRole('row', { name: /arm/ })).toBeVisible();
  // and a line that was meant for the session goes there
  await stack.getByText('Sliding cargo door').first().click();
  await page.getByRole('button', { name: '+ subsystem' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Cab heater');
  await page.getByLabel('Name', { exact: true }).press('Enter');
  await stack.getByText('Cab heater').first().click();
  await line.fill('spring 50 g');
  await line.press('Enter');
  await expect(asked).toContainText('would go to Cab heater of Drayman II');
  await expect(asked.getByRole('button', { name: 'Keep it here: it came off in this session' })).toBeVisible();
  await asked.getByRole('button', { name: 'Keep it on Sliding cargo door of Drayman II' }).click();
  await expect(page.getByRole('row', { name: /spring/ })).toContainText('0.050');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Sliding cargo door');
  await page.getByRole('link', { name: 'Removals' }).click();
  const vehicle = page.getByRole('main').getByLabel('Vehicle', { exact: true });
  await choose(vehicle, 'Drayman II');
  const rows = page.getByRole('table', { name: 'Removals' }).getByRole('row');
  await expect(rows).toHaveCount(4);
  await expect(rows.nth(2)).toContainText('roller');
  await expect(rows.nth(3)).toContainText('spring');
});

test('removals, tags and recounts say what to do next, each part a click away', async ({ page, request }) => {
  const study = await makeStudy(request, 'Next');
  await page.goto(`/studies/${study.id}/bench`);
  await expect(page.getByLabel('Entry line')).toBeVisible();
  for (const line of ['hinge 1 kg', '~6 M6x16', 'lock 2 kg', '12 rivet']) await record(page, line);
  for (let n = 1; n <= 8; n += 1) await record(page, `clip ${'abcdefgh'[n - 1]} 5 g`);
  const card = page.getByRole('complementary', { name: 'Part' });
  const opened = async (list: string, part: string): Promise<void> => {
    await page.getByRole('region', { name: list }).getByRole('button', { name: part, exact: true }).click();
    await expect(card.getByRole('heading', { name: part, exact: true })).toBeVisible();
  };
  await view(page, 'Removals').click();
  await opened('Recorded, and named by no removal', 'hinge');
  const tags = page.getByRole('region', { name: 'Parts of Drayman II without a tag' });
  await view(page, 'Tags').click();
  await expect(tags.getByRole('listitem')).toHaveCount(8);
  await expect(tags.getByRole('listitem').first()).toContainText('lock');
  await tags.getByRole('button', { name: 'Show all 10' }).click();
  await expect(tags.getByRole('listitem')).toHaveCount(10);
  await card.getByRole('button', { name: 'Close the card' }).click();
  await view(page, 'Blind recount').click();
  const again = page.getByRole('region', { name: 'Worth counting again' });
  await expect(again.getByRole('listitem')).toHaveText([/hinge.*1 count not sure, 1 set/, /lock.*1 set/]);
  await again.getByRole('button', { name: 'lock' }).click();
  await expect(page.getByRole('region', { name: 'Count again' })).toContainText('lock');
});

test('a part that is missing or destroyed says so, and nobody is asked to weigh it', async ({ page, request }) => {
  const study = await makeStudy(request, 'States');
  await page.goto(`/studies/${study.id}/bench`);
  await begin(page);
  await record(page, 'rivet nut');
  await record(page, 'cover');
  const card = page.getByRole('complementary', { name: 'Part' });
  await expect(card).toContainText('State removed');
  await page.getByLabel('Entry line').press('Escape');
  await page.keyboard.press('e');
  await choose(card.getByLabel('State'), 'destroyed');
  await card.getByRole('button', { name: 'Save' }).click();
  await expect(card).toContainText('State destroyed');
  await expect(page.getByRole('row', { name: /cover/ })).toContainText('destroyed');
  await view(page, 'Removals').click();
  await expect(page.getByRole('region', { name: 'Before the session ends' })).toContainText('“rivet nut” has no mass');
  await allKept(page);
});

test('the end of a session lists what was probably lost; it is done, or left so with a reason', async ({ page, request }) => {
  const study = await makeStudy(request, 'Losses');
  await page.goto(`/studies/${study.id}/bench`);
  await begin(page);
  await record(page, 'hinge, left lh 0.4 kg');
  await record(page, '4 M8x25 SW13 8.8');
  await record(page, 'roller');
  await record(page, '1 connector 4p');
  await record(page, '> ratchet SW13');
  await view(page, 'Removals').click();
  const list = page.getByRole('region', { name: 'Before the session ends' });
  await expect(list).toContainText('Removal 1 names no tool');
  await expect(list).toContainText('“hinge, left” is the left one; the right one is not recorded');
  await expect(list).toContainText('“roller” has no mass');
  await expect(list).toContainText('A connector of “roller” is recorded without its cable');
  await page.getByLabel('Why it stays so: “roller” has no mass').fill('stays on the rail');
  await list.locator('.loss', { hasText: '“roller” has no mass' }).getByRole('button', { name: 'Accept' }).click();
  await expect(list).not.toContainText('“roller” has no mass');
  await view(page, 'Record').click();
  await record(page, 'hinge, right rh 0.4 kg');
  await record(page, '3 M8x25 SW13 8.8');
  await view(page, 'Removals').click();
  await expect(list).not.toContainText('the right one is not recorded');
  await expect(list).toContainText('“hinge, right” has 3 fasteners, its neighbour “hinge, left” 4');
  await page.getByRole('button', { name: 'Close anyway' }).click();
  await view(page, 'Record').click();
  await expect(page.getByRole('button', { name: 'Begin a session' })).toBeVisible();
});

test('tags: a sheet is made and printed, a tag opens its part, a wrong one is stopped with the likely right one', async ({
  page,
  request,
}) => {
  const study = await makeStudy(request, 'Tags');
  await page.goto(`/studies/${study.id}/bench/tags`);
  await page.getByRole('button', { name: /^Make A01-001/ }).click();
  const sheets = page.getByRole('table', { name: 'Sheets of tags' });
  await expect(sheets).toContainText('A01-001');
  const pdf = await request.get((await sheets.getByRole('link', { name: 'PDF' }).getAttribute('href')) ?? '');
  expect([pdf.status(), pdf.headers()['content-type'], (await pdf.body()).subarray(0, 5).toString()]).toEqual([
    200,
    'application/pdf',
    '%PDF-',
  ]);
  const tag = (/A01-001[0-9A-Z]/.exec(await sheets.innerText()) ?? [''])[0];
  // and one for the other vehicle
  await page.goto(`/studies/${study.id}/bench/tags?vehicle=${study.vehicleIds[1]}`);
  await page.getByRole('button', { name: /^Make B01-001/ }).click();
  await expect(sheets).toContainText('B01-001');
  const other = (/B01-001[0-9A-Z]/.exec(await sheets.innerText()) ?? [''])[0];
  await page.goto(`/studies/${study.id}/bench?vehicle=${study.vehicleIds[0]}`);
  await record(page, `plate 1 kg #${tag}`);
  await record(page, 'lever 1 kg');
  // a reader of labels is a keyboard: the tag alone opens its part
  await page.getByLabel('Entry line').fill(tag);
  await page.getByLabel('Entry line').press('Enter');
  await expect(page.getByRole('complementary', { name: 'Part' })).toContainText('plate');
  // on a second part it is stopped, and so is one of the other vehicle
  await page.getByLabel('Entry line').fill(`arm 1 kg #${tag}`);
  await page.getByLabel('Entry line').press('Enter');
  await expect(page.getByRole('alert')).toContainText(/is on “plate” already .* The next free one here is A01-002/);
  await page.getByRole('button', { name: 'Restore the line' }).click();
  await page.getByLabel('Entry line').fill(`arm 1 kg #${other}`);
  await page.getByLabel('Entry line').press('Enter');
  await expect(page.getByRole('alert')).toContainText('another vehicle than the one on the bench');
  await page.getByRole('button', { name: 'Restore the line' }).click();
  // one letter misread
  const misread = tag.slice(0, -1) + (tag.endsWith('A') ? 'B' : 'A');
  await page.getByLabel('Entry line').fill(misread);
  await page.getByLabel('Entry line').press('Enter');
  await expect(page.getByRole('alert')).toContainText('was misread or mistyped');
});

test('a second person counts again without seeing the first count', async ({ page, request }) => {
  const study = await makeStudy(request, 'Blind recount');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'carrier plate 1 kg');
  await record(page, '12 M6x16 T30 8.8 -z');
  await record(page, '34 spot');
  await view(page, 'Blind recount').click();
  await expect(page.getByRole('complementary', { name: 'Part' })).toHaveCount(0);
  const count = page.getByRole('region', { name: 'Count again' });
  await expect(count).toContainText('M6x16 T30 8.8 -z');
  await expect(page.getByRole('main').or(page.locator('main'))).not.toContainText('12 M6x16');
  await page.getByLabel('How many: M6x16 T30 8.8 -z').fill('11');
  await page.getByRole('button', { name: 'Keep the blind recount' }).click();
  await expect(page.getByRole('alert')).toContainText('spot: type how many you counted');
  await page.getByLabel('How many: spot').fill('34');
  await page.getByRole('button', { name: 'Keep the blind recount' }).click();
  const counts = page.getByRole('table', { name: 'Blind recounts' });
  await expect(counts).toContainText('first 12, then 11');
  await counts.getByRole('button', { name: 'The second holds' }).click();
  await expect(counts.getByLabel('How the count of carrier plate was settled')).toHaveValue('the blind recount holds: 11');
  await view(page, 'Record').click();
  await expect(page.getByRole('complementary', { name: 'Part' })).toContainText('11 M6x16 T30 8.8 -z');
});

test('typing help, the last line again, and a batch that is pasted', async ({ page, request }) => {
  const study = await makeStudy(request, 'Typing');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'roller carriage, upper 0.8 kg');
  await page.getByLabel('Entry line').focus();
  await page.keyboard.type('roll');
  await expect(page.getByRole('button', { name: 'roller carriage, upper' })).toBeVisible();
  await page.keyboard.press('Tab');
  await expect(page.getByLabel('Entry line')).toHaveValue('roller carriage, upper ');
  await page.getByLabel('Entry line').fill('');
  await page.keyboard.type('bushing');
  await page.keyboard.press('Tab');
  await expect(page.getByLabel('Entry line')).toHaveValue('bush ');
  await page.getByLabel('Entry line').fill('');
  await page.keyboard.press('ArrowUp');
  await expect(page.getByLabel('Entry line')).toHaveValue('roller carriage, upper 0.8 kg');
  await page.getByLabel('Entry line').fill('');
  await page.getByLabel('Entry line').evaluate((input, text) => {
    const data = new DataTransfer();
    data.setData('text', text);
    input.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  }, '2x stop 12 g\n4 M5x12 T25\ncover aluminium 0.4 kg');
  const batch = page.getByRole('region', { name: 'Pasted lines' });
  await expect(batch).toContainText('3 lines pasted, 1 to be settled');
  await batch.getByLabel('Line 3', { exact: true }).fill('cover 6082 0.4 kg');
  await batch.getByLabel('Line 3', { exact: true }).press('Enter');
  await batch.getByRole('button', { name: 'Keep all as one change' }).click();
  await expect(page.getByRole('row', { name: /cover/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /stop/ })).toContainText('10');
  await allKept(page);
});

test('what stays closed and what is damaged stand in a register', async ({ page, request }) => {
  const study = await makeStudy(request, 'Closed');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'latch unit 0.6 kg');
  await view(page, 'Closed and damaged').click();
  await page.getByLabel('Reason to leave it closed').fill('riveted, no spare');
  await page.getByRole('button', { name: /^Leave “latch unit” closed/ }).click();
  const closed = page.getByRole('table', { name: 'Left closed' });
  await expect(closed.getByLabel('Why it stays closed, latch unit')).toHaveValue('riveted, no spare');
  await closed.getByLabel('What may be missed, latch unit').fill('two motors and a board');
  await closed.getByLabel('What may be missed, latch unit').blur();
  await page.getByLabel('What the damage is').fill('lug broken off when prised');
  await page.getByRole('button', { name: /^“latch unit” is damaged/ }).click();
  await expect(page.getByRole('table', { name: 'Damaged' })).toContainText('latch unit');
  await expect(page.getByLabel('Damage from, latch unit')).toHaveText('done in taking apart');
  await allKept(page);
});

test.describe('on a tablet, in gloves', () => {
  test.use({ viewport: { width: 1024, height: 768 }, hasTouch: true });
  test('what is touched at the bench is at least 44 px high, and nothing is wider than the screen', async ({ page, request }) => {
    const study = await makeStudy(request, 'Gloves');
    await packageFor(request, study, ['magnets'], 'Rotor out');
    await page.goto(`/studies/${study.id}/bench`);
    await choose(page.getByLabel('Work package of the session'), '1 Rotor out');
    await page.getByRole('button', { name: 'Begin a session' }).tap();
    await page.getByRole('button', { name: /^Read by/ }).tap();
    for (const name of ['Keep Enter', 'Hand over', 'Leave open', 'Tare', 'Zero'])
      expect((await page.getByRole('button', { name }).boundingBox())?.height, name).toBeGreaterThanOrEqual(44);
    expect((await page.getByRole('button', { name: /^Take/ }).boundingBox())?.height).toBeGreaterThanOrEqual(44);
    expect((await page.getByLabel('Entry line').boundingBox())?.height).toBeGreaterThanOrEqual(44);
    await page.getByLabel('Entry line').fill('rotor 28 kg');
    await page.getByRole('button', { name: /^Keep/ }).tap();
    await expect(page.getByRole('row', { name: /rotor/ })).toBeVisible();
    for (const name of ['Removals', 'Blind recount', 'Large display', 'Record']) {
      const link = view(page, name);
      expect((await link.boundingBox())?.height, name).toBeGreaterThanOrEqual(44);
      await link.tap();
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1024);
    }
  });
});
