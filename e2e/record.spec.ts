import { expect, type Browser, type Page } from '@playwright/test';
import { test } from './test';
import { stateOf, type Login } from './sign-in';
import { allKept, change, makeStudy, record, rowOf } from './study';
import { choose } from './controls';

/** Another person at another browser. */
const as = async (browser: Browser, login: Login): Promise<Page> => (await browser.newContext({ storageState: stateOf(login) })).newPage();
const state = (page: Page) => page.getByRole('contentinfo').getByRole('status');
const card = (page: Page) => page.getByRole('complementary', { name: 'Part' });

/** Cuts the network and starts the program again, so that nothing is left open to the server. */
const startedOffline = async (page: Page): Promise<void> => {
  await page.evaluate(() => navigator.serviceWorker.ready);
  await page.context().setOffline(true);
  await page.reload();
  await expect(page.getByLabel('Entry line')).toBeVisible();
};

interface Read {
  readonly revision: number;
  readonly parts: readonly { readonly id: string; readonly name: string }[];
}

test('two benches on one study: each sees the other’s line as it is kept, and who is there', async ({ page, browser, request }) => {
  const study = await makeStudy(request, 'Two benches');
  const other = await as(browser, 'odo');
  await page.goto(`/studies/${study.id}/bench`);
  await other.goto(`/studies/${study.id}/bench`);
  await expect(page.getByRole('link', { name: /People/ })).toContainText('Odo Farrow');
  await record(other, 'lever 1 kg');
  await expect(rowOf(page, /lever/)).toBeVisible();
  await record(other, 'plate 1 kg');
  await expect(rowOf(page, /plate/)).toBeVisible();
  await rowOf(page, /plate/).click();
  await expect(card(page)).toContainText('Odo Farrow has this part open too');
  await record(page, '4 M6x16 T30 8.8 -z');
  await expect(rowOf(other, /plate/)).toContainText('5');
  await other.context().close();
});

test('the same field edited at two benches: both values are shown with who and when, and the person chooses', async ({
  page,
  browser,
  request,
}) => {
  const study = await makeStudy(request, 'Same field');
  const other = await as(browser, 'odo');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'plate 1 kg');
  await allKept(page);
  await other.goto(`/studies/${study.id}/bench`);
  await rowOf(other, /plate/).click();
  for (const [bench, name] of [
    [page, 'panel, mine'],
    [other, 'panel, theirs'],
  ] as const) {
    await bench.getByRole('button', { name: 'Edit', exact: true }).click();
    await bench.getByLabel('Name', { exact: true }).fill(name);
  }
  await other.getByRole('button', { name: 'Save' }).click();
  await allKept(other);
  await page.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('button', { name: '1 not kept' }).click();
  const dialog = page.getByRole('dialog', { name: 'Not kept' });
  await expect(dialog).toContainText('Someone changed this in the meantime');
  await expect(dialog).toContainText('panel, mine');
  await expect(dialog.getByRole('cell', { name: /^panel, theirs/ })).toBeVisible();
  await expect(dialog).toContainText(/Odo Farrow, \d\d:\d\d/);
  await expect(rowOf(page, /panel, theirs/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Send what is chosen' }).click();
  await expect(rowOf(other, /panel, mine/)).toBeVisible();
  await expect(dialog).toBeHidden();
  await other.context().close();
});

test.describe('a bad network', () => {
  test('300 lines typed while the network comes and goes arrive once each and in order', async ({ page, request }) => {
    test.setTimeout(240_000);
    const study = await makeStudy(request, 'Bad network');
    await page.goto(`/studies/${study.id}/bench`);
    const line = page.getByLabel('Entry line');
    await expect(line).toBeVisible();
    // chances are the same at every run: a network that fails once fails again
    let drawn = 20_261;
    const chance = (): number => (drawn = (drawn * 48_271) % 2_147_483_647) / 2_147_483_647;
    // some answers are lost on the way back: the change is kept, and sent again all the same
    let lost = 0;
    await page.route('**/changes', async (route) => {
      if (chance() < 0.1) {
        lost += 1;
        await route.fetch().catch(() => undefined);
        await route.abort();
      } else await route.continue();
    });
    for (let n = 1; n <= 300; n++) {
      if (chance() < 0.06) await page.context().setOffline(n % 2 === 0);
      await line.fill(`part "n${n}" ${n} g`);
      await line.press('Enter');
    }
    await page.context().setOffline(false);
    await expect(state(page)).toContainText('All kept', { timeout: 120_000 });
    expect(lost).toBeGreaterThan(0);
    const changes: { ops: readonly { fields: { name: string } }[] }[] = [];
    const answer = await request.get(`/api/studies/${study.id}/changes?since=1`);
    changes.push(...((await answer.json()) as typeof changes));
    expect(changes.map((c) => c.ops[0]?.fields.name)).toEqual(Array.from({ length: 300 }, (_, i) => `part n${i + 1}`));
  });
});

test('undo and redo go back and forth over many acts, also after a reload, and ask about what changed since', async ({ page, request }) => {
  const study = await makeStudy(request, 'Undo');
  await page.goto(`/studies/${study.id}/bench`);
  for (const name of ['plate', 'lever', 'arm']) await record(page, `${name} 1 kg`);
  await allKept(page);
  await page.keyboard.press('Escape');
  await page.keyboard.press('z');
  await expect(rowOf(page, /arm/)).toHaveCount(0);
  await page.keyboard.press('z');
  await expect(rowOf(page, /lever/)).toHaveCount(0);
  await allKept(page);
  await page.reload();
  await expect(rowOf(page, /plate/)).toBeVisible();
  await page.keyboard.press('Shift+Z');
  await expect(rowOf(page, /lever/)).toBeVisible();
  await page.keyboard.press('Shift+Z');
  await expect(rowOf(page, /arm/)).toBeVisible();
  await allKept(page);
  await page.keyboard.press('z');
  await page.keyboard.press('z');
  await expect(rowOf(page, /lever/)).toHaveCount(0);
  await allKept(page);
  const { parts } = (await (await request.get(`/api/studies/${study.id}`)).json()) as Read;
  await change(request, study.id, [{ kind: 'part.edit', id: parts[0]?.id, was: { name: 'plate' }, fields: { name: 'door skin' } }]);
  await expect(rowOf(page, /door skin/)).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('h');
  await expect(page.getByText('door skin').first()).toBeVisible();
  await page.keyboard.press('b');
  // the last act was done elsewhere under the same name, and is undone first
  await page.keyboard.press('z');
  await expect(rowOf(page, /plate/)).toBeVisible();
  await allKept(page);
  await page.keyboard.press('z');
  await expect(rowOf(page, /plate/)).toHaveCount(0);
  await page.keyboard.press('Shift+Z');
  await expect(rowOf(page, /plate/)).toBeVisible();
  await allKept(page);
});

test('undoing what someone else has changed since asks first', async ({ page, browser, request }) => {
  const study = await makeStudy(request, 'Undo asks');
  const other = await as(browser, 'odo');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'plate 1 kg');
  await allKept(page);
  await other.goto(`/studies/${study.id}/bench`);
  await rowOf(other, /plate/).click();
  await other.getByRole('button', { name: 'Edit', exact: true }).click();
  await other.getByLabel('Tag', { exact: true }).fill('DR2-9');
  await other.getByRole('button', { name: 'Save' }).click();
  await expect(card(page)).toContainText('DR2-9');
  await page.keyboard.press('Escape');
  await page.keyboard.press('z');
  const asked = page.getByRole('dialog', { name: 'Changed since' });
  await expect(asked).toContainText('Tag');
  await expect(asked).toContainText('is now DR2-9; undoing would make it gone');
  await asked.getByRole('button', { name: 'Leave everything as it is' }).click();
  await expect(asked).toBeHidden();
  await expect(rowOf(page, /plate/)).toBeVisible();
  await page.keyboard.press('z');
  await asked.getByRole('button', { name: 'Undo anyway' }).click();
  await expect(rowOf(page, /plate/)).toHaveCount(0);
  await expect(rowOf(other, /plate/)).toHaveCount(0);
  await other.context().close();
});

test('how do we know: from the total of the vehicle down to the reading, its picture and the person', async ({ page, request }) => {
  const study = await makeStudy(request, 'Evidence');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'module');
  await page.keyboard.press('Escape');
  await page.keyboard.press('o');
  await record(page, '2x bracket dc04 stamp ~41 g');
  await record(page, '2-3x clip, trim 5 g');
  await rowOf(page, /bracket/).click();
  await card(page).getByRole('button', { name: 'Mass each: how is it known?' }).click();
  const evidence = page.getByRole('dialog', { name: 'Mass each: how is it known?' });
  await evidence.getByLabel(/recalled/).check();
  await evidence.getByLabel('Instrument').fill('kitchen scale');
  await evidence.getByLabel('Who or what says so').fill('last year’s study');
  await evidence.getByRole('button', { name: 'Save' }).click();
  await expect(card(page)).toContainText('kitchen scale, last year’s study');
  await expect(evidence).toBeHidden();
  await allKept(page);
  await card(page).getByRole('button', { name: 'Evidence' }).click();
  const why = page.getByRole('dialog', { name: 'How do we know?' });
  await why.getByRole('button', { name: 'Drayman II' }).click();
  // 2 × 41 g, u 4.1 g each, and two or three of 5 g: 2.5 of them, u 0.29; ± is twice that
  await expect(why).toContainText('0.095 ± 0.017 kg');
  for (const step of ['Sliding cargo door', 'module', 'bracket']) await why.getByRole('button', { name: step, exact: true }).click();
  await expect(why).toContainText('recalled, ± 0.0082 kg, typed ~41 g, kitchen scale, last year’s study');
  await expect(why).toContainText(/Wenna Tarn, \d\d:\d\d/);
  await why.getByRole('button', { name: 'module' }).click();
  await why.getByRole('button', { name: 'Count' }).click();
  await expect(why).toContainText('4, 4 to 5 parts');
});

test('a picture is dropped onto a part, marked, and seen at the other bench; a question is attached with one key', async ({
  page,
  browser,
  request,
}) => {
  const study = await makeStudy(request, 'Picture');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'latch 300 g');
  const png = await page.evaluate(async () => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [80, 60];
    canvas.getContext('2d')!.fillRect(10, 10, 30, 30);
    const blob = await new Promise<Blob>((done) => canvas.toBlob((b) => done(b!), 'image/png'));
    return [...new Uint8Array(await blob.arrayBuffer())];
  });
  await card(page)
    .locator('input[type=file]')
    .setInputFiles([
      { name: 'latch.png', mimeType: 'image/png', buffer: Buffer.from(png) },
      { name: 'evil.png', mimeType: 'image/png', buffer: Buffer.from('<svg><script>alert(1)</script></svg>') },
    ]);
  await expect(card(page).getByRole('alert')).toContainText('evil.png: The file is neither a JPEG nor a PNG picture');
  await card(page).getByRole('button', { name: 'Open picture: no words yet' }).click();
  const viewer = page.getByRole('dialog', { name: 'Picture' });
  await viewer.getByRole('radio', { name: 'Arrow' }).click();
  const box = (await viewer.locator('svg.drawing').boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.2, box.y + box.height * 0.2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.5);
  await page.mouse.up();
  await viewer.getByLabel('What it shows').fill('worn pawl');
  await viewer.getByRole('button', { name: 'Save' }).click();
  await expect(card(page).getByRole('button', { name: 'Open picture: worn pawl' })).toContainText('1 marks');
  await allKept(page);
  await card(page).getByRole('button', { name: '+ question' }).click();
  const asking = page.getByRole('dialog', { name: 'New question or promise' });
  await asking.getByLabel('What is to be found out').fill('Is the pawl sintered?');
  await choose(asking.getByLabel('Assigned to'), 'Odo Farrow');
  await asking.getByLabel('Due').fill('2020-01-31');
  await asking.getByRole('button', { name: 'Attach it' }).click();
  await allKept(page);
  const other = await as(browser, 'pell');
  await other.goto(`/studies/${study.id}/questions`);
  await expect(other.getByRole('row', { name: /Is the pawl sintered/ })).toContainText('2020-01-31 late');
  await other.getByRole('button', { name: 'latch' }).click();
  await expect(card(other).getByRole('button', { name: 'Open picture: worn pawl' })).toBeVisible();
  await expect(card(other).getByRole('button', { name: 'Edit', exact: true })).toHaveCount(0);
  await expect.poll(() => other.evaluate(() => document.querySelector<HTMLImageElement>('.picture img')?.naturalWidth)).toBe(80);
  await other.context().close();
});

test('a study is copied as a template, archived and opened again, and taken along as a file', async ({ page, request }) => {
  const study = await makeStudy(request, `Archive me ${Date.now()}`);
  const { study: row } = (await (await request.get(`/api/studies/${study.id}`)).json()) as { study: { title: string } };
  await page.goto('/');
  const line = page.getByRole('listitem').filter({ has: page.getByRole('link', { name: `${row.title} Drayman II` }) });
  const downloading = page.waitForEvent('download');
  await line.getByRole('link', { name: 'Download as file' }).click();
  const file = await (await downloading).path();
  await line.getByRole('button', { name: 'Copy as template' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: `${row.title}, copy` })).toContainText('no vehicle yet');
  await line.getByRole('button', { name: 'Move to archive' }).click();
  await expect(line).toContainText('archived');
  await line.getByRole('link', { name: row.title }).click();
  await expect(page.getByText('This study is archived')).toBeVisible();
  await page.goto('/');
  await line.getByRole('button', { name: 'Reopen' }).click();
  await expect(line).not.toContainText('archived');
  await page.locator('input[type=file]').setInputFiles(file);
  await expect(page.getByText(/was here already; it was brought in beside the first/)).toBeVisible();
  await page.locator('input[type=file]').setInputFiles({ name: 'x.zip', mimeType: 'application/zip', buffer: Buffer.from('no zip') });
  await expect(page.getByRole('alert')).toContainText('The archive cannot be read');
});

test('a session that ends keeps what is recorded, and sends it after signing in again', async ({ browser, request }) => {
  const study = await makeStudy(request, 'Signed out');
  const context = await browser.newContext({ storageState: { cookies: [], origins: [] } });
  const page = await context.newPage();
  await page.goto(`/studies/${study.id}/bench`);
  await page.getByRole('button', { name: /Odo Farrow/ }).click();
  await record(page, 'plate 1 kg');
  await allKept(page);
  await context.clearCookies();
  await record(page, 'lever 100 g');
  await expect(state(page)).toContainText('Signed out: 1 change waiting here');
  await page.getByRole('contentinfo').getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('button', { name: /Odo Farrow/ }).click();
  await expect(rowOf(page, /lever/)).toBeVisible();
  await allKept(page);
  await context.close();
});

test('a wrong password is refused in words, and the account is locked after five', async ({ browser }) => {
  const context = await browser.newContext({ storageState: { cookies: [], origins: [] } });
  const page = await context.newPage();
  await page.goto('/sign-in');
  await page.getByLabel('Sign-in name').fill('lisk');
  for (let i = 0; i < 5; i++) {
    await page.getByLabel('Password').fill(`guess number ${i}`);
    await page.getByRole('button', { name: 'Sign in', exact: true }).click();
    await expect(page.getByRole('button', { name: 'Sign in', exact: true })).toBeEnabled();
    await expect(page.getByRole('alert').filter({ hasText: i < 4 ? 'do not fit together' : 'locked here for' })).toBeVisible();
  }
  await context.close();
});

test.describe('without a network', () => {
  test.use({ serviceWorkers: 'allow' });
  test('taking off what someone else has just changed asks first', async ({ page, request }) => {
    const study = await makeStudy(request, 'Removal');
    await page.goto(`/studies/${study.id}/bench`);
    await record(page, 'plate 1 kg');
    await allKept(page);
    // the change of the other comes while this bench is cut off, so that it cannot have been seen
    await startedOffline(page);
    const { parts } = (await (await request.get(`/api/studies/${study.id}`)).json()) as Read;
    await change(request, study.id, [{ kind: 'part.edit', id: parts[0]?.id, was: { tag: '' }, fields: { tag: 'DR2-1' } }]);
    await card(page).getByRole('button', { name: 'Delete', exact: true }).click();
    await page
      .getByRole('dialog', { name: /^Delete: plate/ })
      .getByRole('button', { name: 'Delete' })
      .click();
    await expect(rowOf(page, /plate/)).toHaveCount(0);
    await page.context().setOffline(false);
    await page.getByRole('button', { name: '1 not kept' }).click();
    const dialog = page.getByRole('dialog', { name: 'Not kept' });
    await expect(dialog).toContainText('You took off “plate”; meanwhile Wenna Tarn changed it');
    await expect(rowOf(page, /plate/)).toBeVisible();
    await dialog.getByLabel('delete it anyway').check();
    await dialog.getByRole('button', { name: 'Send what is chosen' }).click();
    await expect(rowOf(page, /plate/)).toHaveCount(0);
    await allKept(page);
  });

  test('the bench records, starts again after a reload, and sends everything once on return', async ({ page, request }) => {
    const study = await makeStudy(request, 'No network');
    await page.goto(`/studies/${study.id}/bench`);
    await record(page, 'plate 1 kg');
    await allKept(page);
    await page.evaluate(() => navigator.serviceWorker.ready);
    await page.reload();
    await expect(rowOf(page, /plate/)).toBeVisible();
    await page.context().setOffline(true);
    await record(page, 'lever 100 g');
    await record(page, '4 M6x16 T30 8.8 -z');
    await expect(state(page)).toContainText('No connection: 2 changes waiting here');
    await page.reload();
    await expect(rowOf(page, /lever/)).toContainText('0.124');
    await expect(state(page)).toContainText('No connection: 2 changes waiting here');
    await record(page, 'arm 200 g');
    await page.keyboard.press('Escape');
    await page.keyboard.press('z');
    await expect(rowOf(page, /arm/)).toHaveCount(0);
    await page.goto('/');
    await expect(page.getByText('No connection: these are kept on this device')).toBeVisible();
    await page.getByRole('link', { name: /No network/ }).click();
    await expect(rowOf(page, /lever/)).toBeVisible();
    await page.context().setOffline(false);
    await allKept(page);
    const { parts, revision } = (await (await request.get(`/api/studies/${study.id}`)).json()) as Read;
    expect(parts.map((p) => p.name)).toEqual(['plate', 'lever']);
    // begun, plate, lever, its bolts, arm, arm undone
    expect(revision).toBe(6);
  });

  test('what is refused stays visible with its reason and can be mended', async ({ page, request }) => {
    const study = await makeStudy(request, 'Refused');
    await page.goto(`/studies/${study.id}/bench`);
    await record(page, 'plate 1 kg');
    await allKept(page);
    await startedOffline(page);
    await record(page, 'lever 100 g');
    const vehicles = (await (await request.get(`/api/studies/${study.id}`)).json()) as {
      subsystems: readonly { id: string; name: string; sequence: number; parentId: null }[];
      parts: Read['parts'];
    };
    const [subsystem] = vehicles.subsystems;
    const { version: _v, id: partId, ...was } = vehicles.parts[0] as { id: string; name: string; version?: number };
    await change(request, study.id, [
      { kind: 'part.remove', id: partId, was },
      { kind: 'subsystem.remove', id: subsystem?.id, was: { name: subsystem?.name, sequence: subsystem?.sequence, parentId: null } },
    ]);
    await page.context().setOffline(false);
    await page.getByRole('button', { name: '1 not kept' }).click();
    const dialog = page.getByRole('dialog', { name: 'Not kept' });
    await expect(dialog).toContainText('“lever” would name a subsystem that is not in this study');
    await page.reload();
    await page.getByRole('button', { name: '1 not kept' }).click();
    await expect(dialog).toContainText('lever');
    await change(request, study.id, [
      { kind: 'subsystem.add', id: subsystem?.id, fields: { name: subsystem?.name, sequence: subsystem?.sequence, parentId: null } },
    ]);
    await dialog.getByRole('button', { name: 'Send again' }).click();
    await expect(dialog).toBeHidden();
    await allKept(page);
    await expect(rowOf(page, /lever/)).toBeVisible();
  });
});
